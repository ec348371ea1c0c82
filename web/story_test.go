package web

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
)

func TestWhatBecameOfARowIsSaid(t *testing.T) {
	now, on := day.Must("2026-07-09"), day.Must("2026-07-08")
	at := day.At(on, 6, 30)
	two, none := 2, 0
	for want, line := range map[string]storyLine{
		"count of 10 plants: 4 colour and 3 lifting":            countLine(book.Count{CountedAt: at, PlantsCount: 10, Stems: [crop.Rungs]int{0, 4, 3}}, now),
		"count of 10 plants: nothing in bud":                    countLine(book.Count{CountedAt: at, PlantsCount: 10}, now),
		"cut 40 stems, 2 culled: earwigs":                       cutLine(book.Cut{CutAt: at, Stems: 40, Culled: &two, CullReason: "earwigs", Left: &none}, now),
		"cut 1 stem, 2 left standing":                           cutLine(book.Cut{CutAt: at, Stems: 1, Culled: &none, Left: &two}, now),
		"thrips: 2 of 20 stems spoiled, blue traps":             scoutingLine(book.Scouting{On: on, Cause: "thrips", Stems: 20, Spoiled: &two, Done: "blue traps"}, now),
		"thrips seen on 20 stems":                               scoutingLine(book.Scouting{On: on, Cause: "thrips", Stems: 20}, now),
		"sprayed with soft soap, not cut before Sat 11 July":    sprayLine(book.Spray{SprayedAt: at, Product: "soft soap", WaitDays: 3}, now),
		"sprayed with neem oil, not cut before Thu 1 July 2027": sprayLine(book.Spray{SprayedAt: at, Product: "neem oil", WaitDays: 358}, now),
	} {
		if line.Words != want {
			t.Errorf("said %q, want %q", line.Words, want)
		}
	}
}

func TestWaitingAfterASprayIsSaid(t *testing.T) {
	b := &book.Book{Sprays: []book.Spray{{Planting: "ZC1", SprayedAt: day.At(day.Must("2026-07-08"), 20, 0), Product: "neem oil", WaitDays: 3}}}
	for on, want := range map[string]string{
		"2026-07-10": "Do not cut ZC1 before Sat 11 July: sprayed with neem oil on Wed 8 July, 3 days of waiting by its label.", "2026-07-11": "", "2026-07-07": "",
	} {
		if got := waits(b, "ZC1", day.Must(on)); got != want {
			t.Errorf("on %s: %q, want %q", on, got, want)
		}
	}
}

// The picks are Wednesday, Saturday, Wednesday; the one looked at is Saturday.
func TestMovesSayWhereStemsWent(t *testing.T) {
	for _, c := range []struct {
		moved []float64
		words string
		fewer bool
	}{
		{[]float64{0, 12, 0}, "+12 stems", false}, {[]float64{0, 12, -9}, "+12 stems earlier", false}, {[]float64{-9, 12, 0}, "+12 stems later", false},
		{[]float64{0, -12, 9}, "-12 stems, they come later", true}, {[]float64{9, -12, 0}, "-12 stems, they come earlier", true},
		{[]float64{0, -12, 0}, "-12 stems", true}, {[]float64{5, 0.3, -5}, "hardly any change", false},
	} {
		if m := newMove("a warm night", c.moved, 1); m.Stems != c.words || m.Fewer != c.fewer || m.Words != "A warm night." {
			t.Errorf("%v: %+v, want %q", c.moved, m, c.words)
		}
	}
}
