package find

import (
	"slices"
	"strings"
	"testing"

	"dewcount/core/day"
	"dewcount/farm/book"
)

func TestQuestionsInWords(t *testing.T) {
	today := day.Must("2026-07-09")
	for question, want := range map[string]struct{ match, from, to string }{
		"what did we write about the white dahlia last August?": {`"white"* AND "dahlia"*`, "2025-08-01", "2025-08-31"},
		"dahlias in june":        {`"dahlia"*`, "2026-06-01", "2026-06-30"},
		"mildew 2024":            {`"mildew"*`, "2024-01-01", "2024-12-31"},
		"peonies last year":      {`"peon"*`, "2025-01-01", "2025-12-31"},
		"Löwenmaul 1/2":          {`"löwenmaul"* AND "1"* AND "2"*`, "", ""},
		"what may go wrong":      {`"may"* AND "go"* AND "wrong"*`, "", ""},
		"aphids in May 2025":     {`"aphid"*`, "2025-05-01", "2025-05-31"},
		"yesterday":              {``, "2026-07-08", "2026-07-08"},
		`" OR 1=1; drop table *`: {`"1"* AND "drop"* AND "table"*`, "", ""},
		"":                       {``, "", ""},
		"🌸":                      {``, "", ""},
	} {
		q := Ask(question, today)
		if q.Match() != want.match || q.From.String() != want.from || q.To.String() != want.to {
			t.Errorf("%q asks for %s of %s to %s, want %+v", question, q.Match(), q.From, q.To, want)
		}
	}
	if q := Ask("August", day.Must("2026-08-03")); q.From != day.Must("2026-08-01") { // this month's
		t.Errorf("in August, August is %s", q.From)
	}
	if q := Ask("white white", today); !slices.Equal(q.Words, []string{"white"}) {
		t.Errorf("%v", q.Words)
	}
}

// A note is found by what its row is, whoever reads it sees its own words alone; every document has a key of its own.
func TestDocuments(t *testing.T) {
	b := book.NewBook(nil)
	b.Varieties = []book.Variety{{Name: "Ball snow", Crop: "dahlia-ball", Colour: "white", Role: "focal"}}
	b.Plantings = []book.Planting{{ID: "DW/1", Variety: "Ball snow", Bed: "B1", Method: "tuber", StartedOn: day.Must("2025-05-01")}}
	b.Notes = []book.Note{{ID: "n", On: day.Must("2025-08-03"), About: book.AboutPlanting, Subject: "DW/1", Words: "soft"}, {ID: "o", On: day.Must("2025-08-04"), About: book.AboutPlanting, Subject: "gone", Words: "it was here"}}
	seen := make(map[string]bool)
	for _, d := range Docs(b) {
		if key := d.Kind + "|" + d.ID; seen[key] || d.Title == "" {
			t.Errorf("%s is there twice, or without a title", key)
		} else {
			seen[key] = true
		}
		if d.ID == "n" && (d.Title != "DW/1 Ball snow" || d.Words != "soft" || !strings.Contains(d.Also, "white") || !strings.Contains(d.Also, "Dahlia")) {
			t.Errorf("%+v", d)
		}
	}
	for _, key := range []string{"note|n", "note|o", "planting|DW/1", "variety|Ball snow", "crop|dahlia-ball", "year|2025"} {
		if !seen[key] {
			t.Errorf("%s cannot be found", key)
		}
	}
}
