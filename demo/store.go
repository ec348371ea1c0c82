package demo

import (
	"fmt"
	"time"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/store"
)

// The farm's places, and what the thermometer of the cool room showed: in the night before the demo begins its door stood open.
const (
	coolRoom  = "Cool room"
	barnShade = "Barn shade"
	loft      = "Drying loft"
)

var storeSince = day.Must("2026-07-01")

func placesOf() []book.StorePlace {
	buckets, more := 24, 40
	return []book.StorePlace{{ID: coolRoom, Kind: "room", Celsius: 6, Buckets: &buckets, Since: storeSince}, {ID: barnShade, Kind: "shade", Celsius: 17, Buckets: &more, Since: storeSince},
		{ID: loft, Kind: book.Loft, Celsius: 26, Since: storeSince}}
}

func readingsOf() []book.Reading {
	night := FirstDay.Add(-1)
	var readings []book.Reading
	for i, r := range []struct {
		at      day.Moment
		celsius float64
	}{{day.At(night, 6, 0), 6}, {day.At(night, 21, 30), 11}, {day.At(FirstDay, 1, 0), 16.5}, {day.At(FirstDay, 5, 40), 8}, {day.At(FirstDay, 6, 10), 6}} {
		readings = append(readings, book.Reading{ID: fmt.Sprintf("cool-room-%d", i), Place: coolRoom, At: r.at, Celsius: r.celsius})
	}
	return readings
}

// What the farm does with its stems: a third of what dries is hung, most of the rest goes on two market days and a little to the florists between; what is more
// than a stall sells of a variety goes to a wholesaler.
const (
	hungShare    = 3 // one in so many
	stallSells   = 40
	marketShare  = 0.75
	floristShare = 0.2
	spentDays    = 1. // what has less left is composted
)

// movesOf returns what becomes of stems on a day that the book has the cuts of.
func movesOf(b *book.Book, d day.Day) []book.Move {
	var moves []book.Move
	add := func(m book.Move) {
		m.ID = fmt.Sprintf("store-%s-%d", d, len(moves))
		moves = append(moves, m)
	}
	moved, sold := make(map[string]bool), make(map[string]int)
	for _, m := range b.Moves {
		moved[m.Lot] = true
	}
	for _, h := range store.Of(b, day.At(d, 11, 0)).Heaps {
		if !moved[h.Lot] && h.CutAt.Day() == d {
			hung := 0
			if _, dries := h.Crop.Cut[crop.Drying]; dries && h.Crop.Form == "papery" {
				hung = h.Stems / hungShare
			}
			to := coolRoom
			if h.Crop.Store.ChillBelowC >= 6 {
				to = barnShade
			}
			if hung > 0 {
				add(book.Move{Lot: h.Lot, At: day.At(d, 12, 0), What: book.ToPlace, Stems: hung, Place: loft})
			}
			if h.Stems > hung {
				add(book.Move{Lot: h.Lot, At: day.At(d, 12, 0), What: book.ToPlace, Stems: h.Stems - hung, Place: to})
			}
			continue
		}
		if h.Dry() || h.CutAt.Day() == d {
			continue
		}
		share, order := 0.0, ""
		switch d.Weekday() {
		case time.Saturday:
			share, order = marketShare, "Fallow Steps market"
		case time.Wednesday:
			share, order = marketShare, "Gate stall"
		case time.Thursday:
			share, order = floristShare, "Square florist bucket"
		}
		left := h.Stems
		if n := int(share * float64(h.Stems)); n > 0 {
			here := min(n, stallSells-sold[h.Variety])
			if here > 0 {
				add(book.Move{Lot: h.Lot, At: day.At(d, 13, 0), What: book.Sold, Stems: here, From: h.Place, Order: order})
				sold[h.Variety] += here
			}
			if n > here {
				add(book.Move{Lot: h.Lot, At: day.At(d, 15, 0), What: book.Sold, Stems: n - here, From: h.Place, Note: "to the wholesaler"})
			}
			left -= n
		}
		stale := order != "" && d.Sub(h.CutAt.Day()) > int(h.Crop.Store.MaxDays) // after a market nobody takes it along once more
		if (stale || h.Now.Left[1] < spentDays) && left > 0 {
			add(book.Move{Lot: h.Lot, At: day.At(d, 18, 0), What: book.Composted, Stems: left, From: h.Place})
		}
	}
	return moves
}
