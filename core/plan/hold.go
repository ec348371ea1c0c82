package plan

import (
	"math"
	"slices"

	"dewcount/core/day"
)

// A holding tells what of a week's stems lasts until the next week's first pick: those of its picks from late on.
type holding struct {
	late []day.Day // by week of the want, the first pick whose stems last; zero where none do
}

// holdingOf returns what lasts where stems can be held for so many days, between weeks in which something is wanted.
func (t *Try) holdingOf(want Want, days int) holding {
	h := holding{late: make([]day.Day, len(want.Stems))}
	first := make([]day.Day, len(want.Stems))
	for _, d := range t.Picks {
		if w := d.Sub(want.First.Monday) / 7; !d.Before(want.First.Monday) && w < len(first) && first[w].IsZero() {
			first[w] = d
		}
	}
	for w := range len(first) - 1 {
		if want.Stems[w] == 0 || want.Stems[w+1] == 0 || first[w+1].IsZero() {
			continue
		}
		for _, d := range t.Picks {
			if d.Sub(want.First.Monday)/7 == w && !d.Before(want.First.Monday) && first[w+1].Sub(d) <= days {
				h.late[w] = d
				break
			}
		}
	}
	return h
}

// weeklyHeld is weekly where what a week has beyond its want helps out in the next, as far as it lasts.
func (t *Try) weeklyHeld(byPick [][]float32, want Want, h holding) [][]float32 {
	weeks := len(want.Stems)
	sums := weekly(t.Picks, byPick, want.First, weeks, t.Samples)
	for w := range weeks - 1 {
		if h.late[w].IsZero() {
			continue
		}
		lasting := make([]float32, t.Samples)
		for j, d := range t.Picks {
			if d.Sub(want.First.Monday)/7 == w && !d.Before(h.late[w]) {
				for s, stems := range byPick[j] {
					lasting[s] += stems
				}
			}
		}
		for s := range lasting {
			over, lacks := sums[w][s]-float32(want.Stems[w]), float32(want.Stems[w+1])-sums[w+1][s]
			if moved := min(lasting[s], over, lacks); moved > 0 {
				sums[w][s] -= moved
				sums[w+1][s] += moved
			}
		}
	}
	return sums
}

// picksOf returns the stems of rows and sowings together by pick and sample.
func (t *Try) picksOf(sowings []Planned, existing bool) [][]float32 {
	sum := make([][]float32, len(t.Picks))
	for j, row := range t.rows(existing) {
		sum[j] = make([]float32, t.Samples)
		copy(sum[j], row)
	}
	for _, p := range sowings {
		if trial := t.trialOf(p.Sowing); trial != nil {
			for j, by := range trial.ByPick {
				for s, stems := range by {
					sum[j][s] += float32(p.Plants) * stems
				}
			}
		}
	}
	return sum
}

// spare takes plants away from the sowings of a set as long as the weeks that it holds are still held, since what is held over evens them out: a step at a time from
// the sowing that gives most. It returns the set that is left.
func (s *solver) spare(p *set, t *Try, want Want, h holding) *set {
	lean := &set{set: slices.Clone(p.set), plants: make(map[int]int)}
	var sowings []Planned
	for _, c := range p.set {
		lean.plants[c] = p.plants[c]
		sowings = append(sowings, Planned{t.Trials[s.candidates[c].trial].Sowing, p.plants[c]})
	}
	there := t.picksOf(sowings, s.limits.Existing)
	holds := func() bool {
		for w, sums := range t.weeklyHeld(there, want, h) {
			if s.wanted[w] && s.lacking(sums, w) > 0 {
				return false
			}
		}
		return true
	}
	if !holds() {
		return p
	}
	add := func(c, plants int) {
		lean.plants[c] += plants
		for j, by := range t.Trials[s.candidates[c].trial].ByPick {
			for k, stems := range by {
				there[j][k] += float32(plants) * stems
			}
		}
	}
	order := slices.Clone(p.set)
	slices.SortFunc(order, func(a, b int) int {
		x, y := float64(p.plants[a])*s.candidates[a].each, float64(p.plants[b])*s.candidates[b].each
		switch {
		case x > y:
			return -1
		case x < y:
			return 1
		}
		return a - b
	})
	for step := 4; step <= 32; step *= 2 {
		for gained := true; gained && !s.stopped(); {
			gained = false
			for _, c := range order {
				n := max(1, int(math.Round(float64(p.plants[c])/float64(step))))
				if lean.plants[c]-n < leastPlants {
					continue
				}
				if add(c, -n); holds() {
					gained = true
				} else {
					add(c, n)
				}
			}
		}
	}
	return lean
}

// OnField returns the stems of each week of a want that were there, where so many were cut on each of some picks and held for so many days: what a plan is held
// against.
func OnField(picks []day.Day, stems []float32, want Want, days int) []float64 {
	t := &Try{Picks: picks, Samples: 1}
	byPick := make([][]float32, len(picks))
	for j, n := range stems {
		byPick[j] = []float32{n}
	}
	var weeks []float64
	for _, sums := range t.weeklyHeld(byPick, want, t.holdingOf(want, days)) {
		weeks = append(weeks, float64(sums[0]))
	}
	return weeks
}
