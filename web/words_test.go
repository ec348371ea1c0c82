package web

import (
	"strings"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/book"
)

func TestBoundsAreSaidAsGrowersDo(t *testing.T) {
	for want, got := range map[string]string{
		"30 sure, 42 likely, 55 at best": bounds(30, 42, 55), "12 sure": bounds(12, 12, 12), "none": bounds(0, 0, 0),
		"0 sure, 0 likely, 2 at best": bounds(0, 0, 2),
		"as good as certain":          tenths(0.99), "9 times in 10": tenths(0.96), "6 times in 10": tenths(0.6), "1 time in 10 or less": tenths(0.04),
		"Cosmos, zinnia and ammi": list([]string{"Cosmos", "zinnia", "ammi"}), "ammi": list([]string{"ammi"}),
		"1 stem": stems(1), "0 stems": stems(0), "1 count": number(1, "count"), "3 counts": number(3, "count"),
		"Write a date.": sentence("write a date"), "Which row?": sentence("which row?"), "": sentence(""),
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
		if got := when(w, now); got != want {
			t.Errorf("said %q, want %q", got, want)
		}
	}
}

func TestVerdicts(t *testing.T) {
	for _, c := range []struct {
		wanted int
		chance float64
		short  int
		words  string
		bad    bool
	}{
		{40, 0.99, 0, "covered, as good as certain", false}, {40, 0.91, 0, "covered, 9 times", false}, {40, 0.6, 0, "likely covered, 6 times", false},
		{40, 0.3, 8, "likely 8 short, covered 3 times", true}, {40, 0.01, 38, "likely 38 short", true}, {0, 1, 0, "nothing wanted", false},
	} {
		words, bad := verdict(c.wanted, c.chance, c.short)
		if !strings.Contains(words, c.words) || bad != c.bad {
			t.Errorf("%d wanted, chance %v, %d short: %q, %v", c.wanted, c.chance, c.short, words, bad)
		}
	}
}

// Worked by hand: 0 to 100 stems on a drawing from 2 to 198 units.
func TestBandIsDrawnToScale(t *testing.T) {
	b := newBand(10, 25, 50, 75, 90, 100, 80)
	want := bandView{Outer: "21.6", OuterW: "156.8", Inner: "51.0", InnerW: "98.0", Likely: "100.0", Want: "158.8"}
	if b != want {
		t.Errorf("band is %+v, want %+v", b, want)
	}
	if empty := newBand(0, 0, 0, 0, 0, 10, 0); empty.Outer != "" || empty.Want != "" {
		t.Errorf("nothing is drawn as %+v", empty)
	}
}

func TestDoneTellsOnlyWhatTheFarmKnows(t *testing.T) {
	if d := done("recorded:counts:a|b:c"); d == nil || d.Words != "Count recorded." || d.ID != "a|b:c" {
		t.Errorf("done is %+v", d)
	}
	for _, text := range []string{"", "recorded", "recorded:people:x", "sold:counts:x", "<b>:counts:x"} {
		if d := done(text); d != nil {
			t.Errorf("%q: %+v", text, d)
		}
	}
}

func TestFreeNames(t *testing.T) {
	b := &book.Book{Plantings: []book.Planting{{ID: "ZC1"}, {ID: "ZC2"}}}
	for variety, want := range map[string]string{"Zinnia coral": "ZC3", "Sunflower gold": "SG1", "  ": "P1", "Ångström 7 rosé extra": "ÅRE1"} {
		if got := b.FreeName(variety); got != want {
			t.Errorf("a planting of %q is named %s, want %s", variety, got, want)
		}
	}
}

func TestLadderMarksTheWindow(t *testing.T) {
	rungs := ladderOf("spike", [crop.Rungs]float64{12.4, 3.5}, crop.Window{From: crop.Half, To: crop.Open})
	marked := ""
	for _, r := range rungs {
		if r.InWindow {
			marked += r.ID + " "
		}
	}
	if marked != "half open " || rungs[0].Stems != "12" || rungs[1].Stems != "4" {
		t.Errorf("marked %q, %+v", marked, rungs[:2])
	}
}
