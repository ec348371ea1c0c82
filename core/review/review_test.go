package review

import (
	"math"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// Worked by hand: median 20, half between 15 and 27, four fifths between 10 and 40.
func TestWISByHand(t *testing.T) {
	forecast := Pick{Stems: [5]float64{10, 15, 20, 27, 40}}
	for came, want := range map[float64]float64{
		20: (0 + 0.25*12 + 0.1*30) / 2.5,
		30: (5 + 0.25*12 + 3 + 0.1*30) / 2.5,
		4:  (8 + 0.25*12 + 11 + 0.1*30 + 6) / 2.5,
	} {
		forecast.Came = came
		if got := forecast.WIS(); math.Abs(got-want) > 1e-12 {
			t.Errorf("WIS with %v stems = %v, want %v", came, got, want)
		}
	}
	sure := Pick{Stems: [5]float64{12, 12, 12, 12, 12}, Came: 5}
	if got := sure.WIS(); math.Abs(got-7) > 1e-12 {
		t.Errorf("one number that misses by 7 scores %v", got)
	}
}

// few has chances of 0.3, 0.5 and 0.2 for no stem, one and two.
type few struct{}

func (few) Mean() float64 { return 1 }

func (few) AtLeast(stems int) float64 { return map[int]float64{0: 1, 1: 0.7, 2: 0.2}[stems] }

func (few) Bound(p float64) float64 { return math.Floor((p + 0.2) / 0.5) }

// Of few stems the middle half, 0 to 1, holds eight tenths by itself, and all lie between sure and best.
func TestWhatABandSays(t *testing.T) {
	var r Pick
	r.Foretell(few{})
	if r.Stems != [5]float64{0, 0, 1, 1, 2} || math.Abs(r.Said[0]-0.8) > 1e-12 || r.Said[1] != 1 {
		t.Errorf("%v: bands that hold %v", r.Stems, r.Said)
	}
	var s Score
	s.Add(r)
	s.Add(r)
	if math.Abs(s.Said50-1.6) > 1e-12 || s.Said80 != 2 {
		t.Errorf("of two picks %v and %v are to be within", s.Said50, s.Said80)
	}
}

// What comes as often as it was said to lies within a band's chances as often as they say, in part: no stem (0 to 0.3 of the chances) a sixth
// of the time in the middle half, one (0.3 to 0.8) nine tenths of it, two never.
func TestBandsHoldWhatTheySayInPart(t *testing.T) {
	var all Score
	for came, times := range []int{3, 5, 2} {
		r := Pick{Came: float64(came)}
		r.Foretell(few{})
		var one Score
		one.Add(r)
		if want := []float64{1. / 6, 0.9, 0}[came]; math.Abs(one.Part50-want) > 1e-12 {
			t.Errorf("%d stems lie in the middle half to %v, want %v", came, one.Part50, want)
		}
		for range times {
			all.Add(r)
		}
	}
	if math.Abs(all.Part50-5) > 1e-12 || math.Abs(all.Part80-8) > 1e-12 {
		t.Errorf("of ten picks %v and %v lie in a half and in four fifths of the chances", all.Part50, all.Part80)
	}
	r := Pick{Came: 3} // nobody thought of it
	r.Foretell(few{})
	if all.Add(r); math.Abs(all.Part50-5) > 1e-12 || math.Abs(all.Part80-8) > 1e-12 {
		t.Errorf("three stems, which were never said to come, lie within the bands")
	}
}

func TestScoreAddsUp(t *testing.T) {
	var s Score
	s.Add(Pick{Stems: [5]float64{10, 15, 20, 27, 40}, Mean: 22, Calendar: 60, Came: 30})
	s.Add(Pick{Stems: [5]float64{0, 1, 2, 3, 4}, Mean: 2, Calendar: 0, Came: 2})
	if s.Picks != 2 || s.In50 != 1 || s.In80 != 2 || math.Abs(s.Bias()-(24./32-1)) > 1e-12 || s.Share(s.In50) != 0.5 {
		t.Errorf("score %+v", s)
	}
	if want := 1 - (14./2.5+(0.25*2+0.1*4)/2.5)/32; math.Abs(s.Skill()-want) > 1e-12 {
		t.Errorf("skill %v, want %v", s.Skill(), want)
	}
}

// Worked by hand: sown on 1 May, usually first cut after 70 days (10 July), 1 stem a plant over 14 days: a pick on 14 July after
// one on the 10th gets four fourteenths, one on the 10th after the 7th one of them, one on the 28th the last two.
func TestCalendarByHand(t *testing.T) {
	p := &crop.Profile{TypicalDays: [2]int{60, 80}, Yield: crop.Yield{Habit: crop.Single, SeasonStems: 1}}
	for _, c := range []struct {
		before, pick string
		want         float64
	}{{"2026-07-10", "2026-07-14", 4}, {"2026-07-07", "2026-07-10", 1}, {"2026-07-21", "2026-07-28", 2}, {"2026-07-01", "2026-07-07", 0}, {"2026-07-28", "2026-07-31", 0}} {
		got := Calendar(p, 140, day.Must("2026-05-01"), day.Must(c.before), day.Must(c.pick))
		if math.Abs(got-10*c.want) > 1e-9 {
			t.Errorf("%s to %s: %v stems, want %v", c.before, c.pick, got, 10*c.want)
		}
	}
}

func TestLead(t *testing.T) {
	r := Pick{AsOf: day.Must("2026-07-09")}
	for days, want := range map[int]int{1: 1, 7: 1, 8: 2, 35: 5} {
		r.Pick = r.AsOf.Add(days)
		if got := r.Lead(); got != want {
			t.Errorf("%d days ahead is lead %d, want %d", days, got, want)
		}
	}
}
