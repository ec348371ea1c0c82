package say

import (
	"testing"

	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

func TestBoundsAreSaidAsGrowersDo(t *testing.T) {
	for want, got := range map[string]string{
		"30 sure, 42 likely, 55 at best": Bounds(30, 42, 55), "12 sure": Bounds(12, 12, 12), "none": Bounds(0, 0, 0),
		"0 sure, 0 likely, 2 at best": Bounds(0, 0, 2),
		"as good as certain":          Tenths(0.99), "9 times in 10": Tenths(0.96), "6 times in 10": Tenths(0.6), "1 time in 10 or less": Tenths(0.04),
		"Cosmos, zinnia and ammi": List([]string{"Cosmos", "zinnia", "ammi"}), "ammi": List([]string{"ammi"}),
		"Dahlia, ball; cosmos; and ammi": List([]string{"Dahlia, ball", "cosmos", "ammi"}), "Dahlia, ball or cosmos": Or([]string{"Dahlia, ball", "cosmos"}),
		"1 stem": Stems(1), "0 stems": Stems(0), "1 count": Number(1, "count"), "3 counts": Number(3, "count"),
		"Write a date.": Sentence("write a date"), "Which row?": Sentence("which row?"), "": Sentence(""),
	} {
		if got != want {
			t.Errorf("said %q, want %q", got, want)
		}
	}
}

func TestDatesAreSaidWithTheirBounds(t *testing.T) {
	d, now := day.Must("2026-08-04"), day.Must("2026-07-09")
	next := d.Add(365)
	for want, w := range map[string]forecast.When{
		"hardly this season":             {},
		"Tue 4 August":                   {Early: d, Likely: d, Late: d},
		"Wed 4 August 2027":              {Early: next, Likely: next, Late: next},
		"Tue 4 August (31 Jul to 7 Aug)": {Early: d.Add(-4), Likely: d, Late: d.Add(3)},
	} {
		if got := (Locale{Today: now}).When(w); got != want {
			t.Errorf("said %q, want %q", got, want)
		}
	}
}

func TestWaitingAfterASprayIsSaid(t *testing.T) {
	b := &book.Book{Sprays: []book.Spray{{Planting: "ZC1", SprayedAt: day.At(day.Must("2026-07-08"), 20, 0), Product: "neem oil", WaitDays: 3}}}
	for on, want := range map[string]string{
		"2026-07-10": "Do not cut ZC1 before Sat 11 July: sprayed with neem oil on Wed 8 July, 3 days of waiting by its label.", "2026-07-11": "", "2026-07-07": "",
	} {
		snap := Snapshot{&look.Snapshot{Book: b}, Locale{Today: day.Must("2026-07-09")}}
		if got := snap.Waits("ZC1", day.Must(on)); got != want {
			t.Errorf("on %s: %q, want %q", on, got, want)
		}
	}
}

func TestBedsAreNamedOnce(t *testing.T) {
	for id, want := range map[string]string{"3": "bed 3", "Bed 3": "Bed 3", "bed/ost": "bed/ost", "Ü": "bed Ü", "tunnel": "bed tunnel"} {
		if got := InBed(id); got != want {
			t.Errorf("%q is %q in a sentence, want %q", id, got, want)
		}
	}
}
