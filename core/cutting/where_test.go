package cutting

import (
	"math"
	"testing"

	"dewcount/core/crop"
)

// Worked by hand. A ball dahlia regrows in 190 °Cd and takes 125 + 40 + 28 + 32 = 225 more to half open: at 13 a day the next stems stand in 415 / 13 = 31.9 days,
// cut high in (0.85 × 190 + 225) / 13 = 29.7. Its later stems are 50 cm, a fifth shorter cut high; 1.25 shoots follow, 1.4 cut high; its first are 35 cm.
func TestWhereToCutByHand(t *testing.T) {
	dahlia := profile(t, "dahlia-ball")
	w := WhereOf(dahlia, dahlia.Cut[crop.Market], true, 13)
	want := Where{CM: 35, Low: Depth{50, 1.25, 31.923}, High: Depth{40, 1.4, 29.731}}
	near := func(a, b float64) bool { return math.Abs(a-b) < 1e-3 }
	if w.Ground || w.Pulled || w.CM != want.CM || !near(w.Low.CM, want.Low.CM) || !near(w.Low.NextDays, want.Low.NextDays) || !near(w.High.CM, want.High.CM) ||
		!near(w.High.Shoots, want.High.Shoots) || !near(w.High.NextDays, want.High.NextDays) || w.Low.Shoots != want.Low.Shoots {
		t.Errorf("%+v, want %+v", w, want)
	}
	if w := WhereOf(dahlia, dahlia.Cut[crop.Market], false, 13); w.CM != 50 {
		t.Errorf("a later stem is %v cm", w.CM)
	}
	if w := WhereOf(dahlia, dahlia.Cut[crop.Market], false, 1); !w.Ground || !w.Ends || w.CM != 50 { // 415 days
		t.Errorf("in the cold: %+v", w)
	}
	tulip := profile(t, "tulip")
	if w := WhereOf(tulip, tulip.Cut[crop.Market], true, 10); !w.Pulled || w.Ground || w.CM != tulip.Stem.FirstCM+12 {
		t.Errorf("a tulip: %+v", w)
	}
	sunflower := profile(t, "sunflower-single")
	if w := WhereOf(sunflower, sunflower.Cut[crop.Market], true, 10); w.Pulled || !w.Ground {
		t.Errorf("a sunflower of one stem: %+v", w)
	}
}

// From the middle of half (42 °Cd) over open (75): 21 + 75 = 96 °Cd, 7.4 days at 13 a day.
func TestWhatStandsUntilTheNextPick(t *testing.T) {
	dahlia := profile(t, "dahlia-ball")
	w := dahlia.Cut[crop.Market]
	if !Stands(dahlia, w, crop.Half, 7, 13) || Stands(dahlia, w, crop.Half, 8, 13) || Stands(dahlia, w, crop.Open, 4, 13) || Stands(dahlia, w, crop.Over, 0, 13) {
		t.Error("what stands is not reckoned from the rungs")
	}
}
