package plantings

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/say"
)

func TestWhatBecameOfARowIsSaid(t *testing.T) {
	now, on := say.Locale{Today: day.Must("2026-07-09")}, day.Must("2026-07-08")
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
