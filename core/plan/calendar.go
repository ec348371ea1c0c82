package plan

import (
	"cmp"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// Calendar returns the sowings that the calendar school makes for a period: every so many days, the first so that the packet's days
// lead to the period's first day, but not before from; the last so that they lead to its end, and not after last, where that is
// not zero.
func Calendar(p *crop.Profile, method crop.Method, from, last, begins, ends day.Day, every int) []Sowing {
	packet := (p.TypicalDays[0] + p.TypicalDays[1]) / 2
	raised := 0
	if method == crop.Tray {
		raised = RaisedDays(p)
		if p.PreferredStart != crop.Tray {
			packet += raised / 2 // the packet counts from a direct sowing; under cover it is warmer
		}
	}
	first := begins.Add(-packet)
	if in := first.Add(raised); in.Before(from) {
		first = from.Add(-raised)
	}
	var sowings []Sowing
	for d := first; !d.Add(packet).After(ends) && (last.IsZero() || !d.After(last)); d = d.Add(max(1, every)) {
		s := Sowing{Method: method, Started: d, Pinched: p.Pinch.Policy == "always"}
		if method == crop.Tray {
			s.Out = d.Add(raised)
		}
		sowings = append(sowings, s)
	}
	return sowings
}

// Evenly shares plants among sowings.
func Evenly(sowings []Sowing, plants int) []Planned {
	var planned []Planned
	for i, s := range sowings {
		n := plants*(i+1)/len(sowings) - plants*i/len(sowings)
		planned = append(planned, Planned{s, n})
	}
	return planned
}

// Stems returns how many stems sowings that were tried are expected to give on all pick days together.
func (t *Try) Stems(sowings []Planned) float64 {
	sum := 0.0
	for _, p := range sowings {
		if trial := t.trialOf(p.Sowing); trial != nil {
			for _, by := range trial.ByPick {
				for _, stems := range by {
					sum += float64(p.Plants) * float64(stems) / float64(t.Samples)
				}
			}
		}
	}
	return sum
}

// AsManyStems shares as many plants evenly among sowings that were tried as are expected to give so many stems in all.
func (t *Try) AsManyStems(sowings []Sowing, stems float64) []Planned {
	const each = 1000
	per := t.Stems(Evenly(sowings, each*len(sowings))) / float64(each*max(1, len(sowings)))
	if per <= 0 {
		return nil
	}
	return Evenly(sowings, up(stems/per))
}

// A Comparison is what a plan brings in the weeks of a want.
type Comparison struct {
	WeeksShort  float64 // weeks in which less than wanted is likely to be cut: the sum of the chances
	StemsShort  float64 // stems wanted and not there
	StemsWasted float64 // stems beyond what is wanted, those cut outside the weeks of the want as well
}

// Compared sums up what plan of so many stems in all brings in the weeks in which something is wanted that could be reached.
func Compared(weeks []WeekOutcome, reachable func(i int) bool, stems float64) Comparison {
	c := Comparison{StemsWasted: stems}
	for i, w := range weeks {
		if w.Want == 0 || !reachable(i) {
			continue
		}
		c.WeeksShort += 1 - w.Chance
		c.StemsShort += w.Short
		c.StemsWasted -= w.Want - w.Short
	}
	return c
}

// EveryDays returns the usual days between successions: the middle of the profile's, three weeks where it gives none.
func EveryDays(every [2]int) int {
	const usual = 21
	if every[0] == 0 {
		return usual
	}
	return (every[0] + every[1]) / 2
}

// safeChance is how sure a last safe sowing must be to flower, and safePart which part of what the best safeBest sowings give it must
// bring.
const (
	safeChance = 0.9
	safePart   = 0.5
	safeBest   = 3
)

// LastSafe returns the last day on which a sowing among trials, all of one method, still gives at least half of what is usual before the
// frost or the end of the trial's picks, nine times in ten; ok tells whether any is safe, and bounded whether a later one that was
// tried is not.
func (t *Try) LastSafe() (last day.Day, ok, bounded bool) {
	type given struct {
		start  day.Day
		sums   []float64 // by sample
		median float64
	}
	var all []given
	for i := range t.Trials {
		g := given{t.Trials[i].Started, make([]float64, t.Samples), 0}
		for _, by := range t.Trials[i].ByPick {
			for s, stems := range by {
				g.sums[s] += float64(stems)
			}
		}
		sorted := slices.Clone(g.sums)
		slices.Sort(sorted)
		g.median = sorted[t.Samples/2]
		all = append(all, g)
	}
	// What is usual is what the best sowings give in the same weather, with the same traits.
	slices.SortStableFunc(all, func(a, b given) int { return cmp.Compare(b.median, a.median) })
	usual := make([]float64, t.Samples)
	best := all[:min(len(all), safeBest)]
	for _, g := range best {
		for s, stems := range g.sums {
			usual[s] += stems / float64(len(best))
		}
	}
	slices.SortFunc(all, func(a, b given) int { return cmp.Compare(a.start.Sub(b.start), 0) })
	for _, g := range all {
		safe := 0
		for s, stems := range g.sums {
			if stems >= safePart*usual[s] && stems > 0 {
				safe++
			}
		}
		switch {
		case float64(safe) >= safeChance*float64(t.Samples):
			last, ok, bounded = g.start, true, false
		case ok:
			bounded = true
		}
	}
	return last, ok, bounded
}
