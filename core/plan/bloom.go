package plan

import (
	"context"
	"math"
	"slices"

	"dewcount/core/day"
)

// A Want is how many stems are wanted in each week from a first Monday on, and how surely: Chance is that of each week by itself.
type Want struct {
	First  Week
	Stems  []float64
	Chance float64 // 0 to 1
}

// WeeklyWant returns the want of so many stems in each week that a period touches.
func WeeklyWant(from, to day.Day, stems int, chance float64) Want {
	w := Want{First: WeekOf(from), Chance: chance}
	for d := w.First.Monday; !d.After(to); d = d.Add(7) {
		w.Stems = append(w.Stems, float64(stems))
	}
	return w
}

// Limits hold a plan within what the farm has.
type Limits struct {
	Plants   int // the most in one sowing; 0 for what is reasonable
	AtOnce   int // the most that stand in their beds at one time; 0 for no limit
	Sowings  int // the most sowings; 0 for no limit
	Existing bool
	Hold     int     // days for which stems are held, so that what a week has too many of helps out in the next; 0 for none
	Each     float64 // stems that the work of a sowing is worth; 0 for a twelfth of all
	Exactly  int     // of all numbers of sowings this is chosen where it holds; 0 for the one that costs least
}

// A Planned sowing is one that a plan makes, with how many plants.
type Planned struct {
	Sowing
	Plants int
}

// A Bloom is a plan of successions for a want.
type Bloom struct {
	Sowings []Planned // in order of their start
	Weeks   []WeekOutcome
	Options []Option // what fewer sowings, and more that need less, would take, by their number
	Front   []Choice // those plans themselves
	Plants  int
}

// An Option is the plants and stems that a number of sowings holds the want with.
type Option struct {
	Sowings, Plants int
	Stems           float64
}

// A Choice is a plan of so many sowings, in order of their start, with the stems that it gives in all.
type Choice struct {
	Sowings []Planned
	Stems   float64
}

// A WeekOutcome is how a week would be supplied.
type WeekOutcome struct {
	Week
	Want              float64
	Low, Likely, High float64 // stems: nine times in ten more, the middle, one time in ten more
	Chance            float64 // that there is as much as wanted
	Over, Short       float64 // expected stems beyond and below the want
	Reachable         bool    // whether any sowing that could be made would hold the week at the chance wanted
}

// glut is from how many times the want on a week has more than is sold.
const glut = 2

// Gap tells whether a week will likely have fewer stems than are wanted.
func (w WeekOutcome) Gap() bool { return w.Likely < w.Want }

// Glut tells whether a week will likely have so many more stems than are wanted that most of them are not sold.
func (w WeekOutcome) Glut() bool { return w.Likely > glut*w.Want }

// EvenBloom returns the successions that supply each week at the chance wanted with few sowings and little waste: of all numbers of
// sowings the one whose stems, raised by a twelfth for every sowing, are the fewest. Weeks that no sowing reaches, or at too high a
// price, are left out of the want and told apart in the outcome. progress is called now and then with the share that is done, 0
// to 1; it may be nil.
//
// The plants of a single sowing are the fewest that do, those of several near the least: sowings are filled by the steepest way, taken
// away one after the other, moved and exchanged until nothing is gained. Tests hold it against exhaustive search. When ctx ends the search
// does, with what it has found so far.
func (t *Try) EvenBloom(ctx context.Context, want Want, limits Limits, progress func(float64)) Bloom {
	s := newSolver(t, want, limits)
	s.stopped = func() bool { return ctx.Err() != nil }
	if progress == nil {
		progress = func(float64) {}
	}
	best := s.search(progress)
	if limits.Hold > 0 {
		h := t.holdingOf(want, limits.Hold)
		for k, p := range best {
			if p != nil && k <= manySowings {
				best[k] = s.spare(p, t, want, h)
			}
		}
	}
	var b Bloom
	chosen := s.choose(best)
	least := math.Inf(1)
	for k, p := range best {
		if p == nil || p != chosen && s.cost(p) >= least {
			continue // nobody sows once more for as many stems
		}
		least = min(least, s.cost(p))
		b.Options = append(b.Options, Option{k, p.total(), s.cost(p)})
		b.Front = append(b.Front, Choice{s.planned(t, p), s.cost(p)})
	}
	if chosen != nil {
		b.Plants, b.Sowings = chosen.total(), s.planned(t, chosen)
	}
	b.Weeks = t.Outcome(b.Sowings, want, limits)
	for w := range b.Weeks {
		b.Weeks[w].Reachable = s.wanted[w] || want.Stems[w] == 0
	}
	return b
}

// planned returns the sowings of a set in the order of their start.
func (s *solver) planned(t *Try, p *set) []Planned {
	var sowings []Planned
	for _, c := range p.set {
		sowings = append(sowings, Planned{t.Trials[s.candidates[c].trial].Sowing, p.plants[c]})
	}
	slices.SortFunc(sowings, func(x, y Planned) int { return x.Started.Compare(y.Started) })
	return sowings
}

// trialOf returns the trial of a sowing.
func (t *Try) trialOf(s Sowing) *Trial {
	i := slices.IndexFunc(t.Trials, func(o Trial) bool { return o.Sowing == s })
	if i < 0 {
		return nil
	}
	return &t.Trials[i]
}

// Outcome returns how the weeks of a want would be supplied by sowings that were tried, beside the rows on record where they count, and with what is held over
// where stems are held.
func (t *Try) Outcome(sowings []Planned, want Want, limits Limits) []WeekOutcome {
	weeks := len(want.Stems)
	total := t.weeklyHeld(t.picksOf(sowings, limits.Existing), want, t.holdingOf(want, limits.Hold))
	out := make([]WeekOutcome, weeks)
	for w := range out {
		o := &out[w]
		o.Week, o.Want = Week{want.First.Monday.Add(7 * w)}, want.Stems[w]
		for _, stems := range total[w] {
			more := float64(stems) - o.Want
			o.Over += max(0, more) / float64(t.Samples)
			o.Short += max(0, -more) / float64(t.Samples)
			if more >= 0 {
				o.Chance += 1 / float64(t.Samples)
			}
		}
		slices.Sort(total[w])
		at := func(p float64) float64 { return float64(total[w][min(t.Samples-1, int(p*float64(t.Samples)))]) }
		o.Low, o.Likely, o.High = at(0.1), at(0.5), at(0.9)
	}
	return out
}

// rows returns the stems of the rows on record, none where they do not count.
func (t *Try) rows(existing bool) [][]float32 {
	if existing {
		return t.Rows
	}
	return make([][]float32, len(t.Picks))
}
