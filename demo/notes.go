package demo

import (
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
)

// notes are what the demo's growers have written down.
var notes = []book.Note{
	{ID: "note-1", On: day.Must("2025-08-14"), About: book.AboutCrop, Subject: "dahlia-ball", Words: "White ones were soft in the back after three hot days: cut at half, in the evening, or leave them. The wine ones held."},
	{ID: "note-2", On: day.Must("2025-09-02"), About: book.AboutCrop, Subject: "zinnia-tall", Words: "Mildew from below in the row that was never stripped. Strip at first bud next year."},
	{ID: "note-3", On: day.Must("2026-05-18"), About: book.AboutPlanting, Subject: "ZC1", Words: "Slugs at the west end; sowed the gaps again with what was left in the packet."},
	{ID: "note-4", On: day.Must("2026-06-27"), About: book.AboutOrder, Subject: "Wedding at the mill", Words: "She wants the table posies low, nobody is to look through flowers. Bring ten spare white for the hair."},
	{ID: "note-5", On: day.Must("2026-07-04"), Words: "Steps market thin because of the village run. Sunflowers went first, sweet peas came home."},
}

// counted is what the demo's growers had of their own tubers when they were lifted, and what was sound in spring.
var counted = []book.StockCount{
	{ID: "stock-1", Variety: "Dahlia ball wine", Part: crop.Tuber, On: day.Must("2025-11-08"), Pieces: 46},
	{ID: "stock-2", Variety: "Dahlia ball apricot", Part: crop.Tuber, On: day.Must("2025-11-08"), Pieces: 44},
	{ID: "stock-3", Variety: "Dahlia ball wine", Part: crop.Tuber, On: day.Must("2026-03-21"), Pieces: 41},
	{ID: "stock-4", Variety: "Dahlia ball apricot", Part: crop.Tuber, On: day.Must("2026-03-21"), Pieces: 40},
}
