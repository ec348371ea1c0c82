package growth

import (
	"math"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
)

func TestKeptBudsComeSoonerAndMore(t *testing.T) {
	p := profile(t, "zinnia-tall")
	clock, lengths := steady(p, day.Must("2026-05-01"), climate.Extremes{TminC: 13, TmaxC: 25}, 46.9)
	after := func(keep bool) (soon, all float64) {
		planting := sown(p, "2026-05-10")
		planting.KeepBuds = keep
		run := NewCourse(planting, Place{Lengths: lengths}, BoxCd).NewRun(clock, Traits{Pace: 1, Stems: 0, Regrow: 1})
		run.To(day.Must("2026-07-25").At(8))
		run.Regrow(100)
		run.To(run.at + 11)
		return run.Standing(crop.Window{From: crop.Tight, To: crop.Spent}), run.cohort.total()
	}
	soonLong, allLong := after(false)
	soonHigh, allHigh := after(true)
	if !(soonHigh > soonLong) || math.Abs(allHigh/allLong-crop.HighCutMore) > 1e-9 {
		t.Errorf("eleven days after the cut %.1f of %.1f stems, cut high %.1f of %.1f", soonLong, allLong, soonHigh, allHigh)
	}
}

// Of shoots that fade by a logarithm f a cut sets off e^(-f/2) as many as usual at the bloom's beginning, e^(f/2) at its end, and in between in
// proportion; the parts of a cut add up to all that the table lets follow.
func TestAFadeMovesShootsToTheBloomsEnds(t *testing.T) {
	p := profile(t, "zinnia-tall")
	clock, lengths := steady(p, day.Must("2026-05-01"), climate.Extremes{TminC: 13, TmaxC: 25}, 46.9)
	course := NewCourse(sown(p, "2026-05-10"), Place{Lengths: lengths}, BoxCd)
	shoots := func(fade float64, on string, cut func(*Run)) (all, spent float64) {
		run := course.NewRun(clock, Traits{Pace: 1, Stems: 0, Regrow: 1, Fade: fade})
		run.To(day.Must(on).At(8))
		cut(run)
		return run.cohort.total(), run.Spent()
	}
	whole := func(r *Run) { r.Regrow(100) }
	for _, on := range []string{"2026-06-20", "2026-07-25", "2026-08-10"} {
		usual, spent := shoots(0, on, whole)
		for _, fade := range []float64{-0.6, 0.6} {
			got, _ := shoots(fade, on, whole)
			if want := (1-spent)*math.Exp(-fade/2) + spent*math.Exp(fade/2); math.Abs(got/usual-want) > 1e-9 {
				t.Errorf("%s, %.2f of the bloom over, a fade of %+.1f: %.3f times the usual shoots, want %.3f", on, spent, fade, got/usual, want)
			}
		}
		begins, _ := shoots(0.6, on, func(r *Run) { r.RegrowPart(100, 1-r.Spent()) })
		ends, _ := shoots(0.6, on, func(r *Run) { r.RegrowPart(100, r.Spent()) })
		if math.Abs(begins+ends-usual) > 1e-9*usual {
			t.Errorf("%s: %.3f and %.3f shoots of the bloom's two ends, %.3f in all", on, begins, ends, usual)
		}
	}
	if _, spent := shoots(0, "2026-06-20", whole); spent != 0 {
		t.Errorf("%.2f of the bloom is over before the first colour", spent)
	}
	if _, spent := shoots(0, "2026-08-10", whole); spent < 0.2 || spent > 0.9 {
		t.Errorf("%.2f of the bloom is over in August", spent)
	}
}
