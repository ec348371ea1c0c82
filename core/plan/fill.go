package plan

import (
	"cmp"
	"math"
	"slices"
)

// leastPlants is how many there are of a variety, so that there is enough of one colour at a time.
const leastPlants = 2

// A candidate is a trial as the search sees it: stems a plant for the weeks of the want, of which those outside from to before until
// are nothing.
type candidate struct {
	trial       int
	from, until int
	stems       [][]float32
	bedFrom     int     // week of the want in which it comes into its bed; may lie before it
	bedUntil    int     // and after the last stem
	each        float64 // stems that a plant gives in all, wanted or not: what it costs to cut them
}

type solver struct {
	candidates []candidate
	base       [][]float32 // by week and sample
	want       []float64
	wanted     []bool
	samples    int
	allowed    int // samples that may be short in a week
	limits     Limits
	stopped    func() bool // whether nobody waits for the answer any more
}

// A set is sowings with their plants, by candidate.
type set struct {
	set    []int
	plants map[int]int
	held   int // the sowing that may not get more plants, plus one; 0 for none
}

func (p *set) total() int {
	sum := 0
	for _, n := range p.plants {
		sum += n
	}
	return sum
}

// cost returns the stems that a set gives in all: of plans that hold the want, the one with the fewest wastes least.
func (s *solver) cost(p *set) float64 {
	sum := 0.0
	for _, c := range p.set {
		sum += float64(p.plants[c]) * s.candidates[c].each
	}
	return sum
}

// less tells whether a set costs less than another, by more than rounding.
func (s *solver) less(p, q *set) bool { return s.cost(p) < s.cost(q)*(1-1e-9) }

func newSolver(t *Try, want Want, limits Limits) *solver {
	weeks := len(want.Stems)
	s := &solver{want: want.Stems, wanted: make([]bool, weeks), samples: t.Samples, limits: limits,
		allowed: int((1-want.Chance)*float64(t.Samples)*wary(t.Samples) + 1e-9)}
	s.base = weekly(t.Picks, t.rows(limits.Existing), want.First, weeks, t.Samples)
	for i := range t.Trials {
		c := candidate{trial: i, from: weeks, stems: weekly(t.Picks, t.Trials[i].ByPick, want.First, weeks, t.Samples)}
		for w, sums := range c.stems {
			mean := 0.0
			for _, stems := range sums {
				mean += float64(stems) / float64(t.Samples)
			}
			const worthCutting = 1e-3
			if mean > worthCutting && want.Stems[w] > 0 {
				c.from, c.until = min(c.from, w), w+1
			}
		}
		if c.from >= c.until {
			continue
		}
		c.bedFrom = int(math.Floor(float64(t.Trials[i].InBed().Sub(want.First.Monday)) / 7))
		c.bedUntil = c.bedFrom
		for j, d := range t.Picks {
			mean := 0.0
			for _, stems := range t.Trials[i].ByPick[j] {
				mean += float64(stems) / float64(t.Samples)
			}
			c.each += mean
			if mean > 1e-3 {
				c.bedUntil = int(math.Floor(float64(d.Sub(want.First.Monday))/7)) + 1
			}
		}
		s.candidates = append(s.candidates, c)
	}
	if s.limits.Plants == 0 {
		s.limits.Plants = s.reasonable()
	}
	for w := range s.wanted {
		s.wanted[w] = want.Stems[w] > 0 && s.reachable(w, t)
	}
	return s
}

// lacking returns how many samples are short beyond those allowed.
func (s *solver) lacking(stems []float32, w int) int {
	n, want := 0, float32(s.want[w]-hair)
	for _, have := range stems {
		if have < want {
			n++
		}
	}
	return n - s.allowed
}

// needOf returns how many plants, of which each gives so much by sample, supply a week beside what there is, and whether any number does.
func (s *solver) needOf(each []float32, w int, there []float32, scratch []float64) (float64, bool) {
	scratch = scratch[:0]
	for i, have := range there {
		if lack := s.want[w] - hair - float64(have); lack > 0 {
			if each[i] <= 0 {
				scratch = append(scratch, math.Inf(1))
			} else {
				scratch = append(scratch, lack/float64(each[i]))
			}
		}
	}
	if len(scratch) <= s.allowed {
		return 0, true
	}
	slices.Sort(scratch)
	n := scratch[len(scratch)-s.allowed-1]
	return n, !math.IsInf(n, 1)
}

// totals are the stems by week and sample of a set that is being filled.
type totals [][]float32

func (s *solver) totalsOf(p *set) totals {
	t := make(totals, len(s.want))
	for w := range t {
		t[w] = slices.Clone(s.base[w])
	}
	for _, c := range p.set { // in a fixed order, for sums in a fixed order
		s.add(t, c, p.plants[c])
	}
	return t
}

// add puts so many more plants of a candidate into totals; fewer where negative.
func (s *solver) add(t totals, c, plants int) {
	n := float32(plants)
	k := &s.candidates[c]
	for w := k.from; w < k.until; w++ {
		for i, stems := range k.stems[w] {
			t[w][i] += n * stems
		}
	}
}

// hair is by how little a want may be missed in rounding, in stems.
const hair = 1e-3

// short returns how many samples are short in a week that is wanted, beyond those allowed.
func (s *solver) short(t totals, w int) int {
	if !s.wanted[w] {
		return 0
	}
	return s.lacking(t[w], w)
}

// holds tells whether every week from to before until is supplied.
func (s *solver) holds(t totals, from, until int) bool {
	for w := from; w < until; w++ {
		if s.short(t, w) > 0 {
			return false
		}
	}
	return true
}

// room returns how many more plants of a candidate there is room for.
func (s *solver) room(p *set, c int) int {
	room := s.limits.Plants - p.plants[c]
	if s.limits.AtOnce == 0 {
		return room
	}
	k := &s.candidates[c]
	for w := k.bedFrom; w < k.bedUntil; w++ {
		standing := 0
		for o, n := range p.plants {
			if s.candidates[o].bedFrom <= w && w < s.candidates[o].bedUntil {
				standing += n
			}
		}
		room = min(room, s.limits.AtOnce-standing)
	}
	return room
}

// fillSteps is in how many steps a week is filled, so that several sowings can share it.
const fillSteps = 5

// fill adds plants to the sowings of a set until every week is supplied; it tells whether it could.
func (s *solver) fill(p *set, t totals, o order) bool {
	scratch := make([]float64, 0, s.samples)
	for range 400 {
		week := s.next(t, o)
		if week < 0 {
			return true
		}
		best, bestGain, step := -1, 0.0, 0
		for _, c := range p.set {
			k := &s.candidates[c]
			if week < k.from || week >= k.until || c+1 == p.held {
				continue
			}
			room := s.room(p, c)
			if room <= 0 {
				continue
			}
			gain := s.gain(t, k, o, week) / k.each
			if gain > bestGain {
				n, _ := s.needOf(k.stems[week], week, t[week], scratch)
				best, bestGain, step = c, gain, min(room, max(1, int(min(math.Ceil(n), float64(room)))/fillSteps))
			}
		}
		if best < 0 {
			return false
		}
		p.plants[best] += step
		s.add(t, best, step)
	}
	return false
}

// gain returns the stems that a plant of a candidate would put where they are short: in all weeks, or by orders other than worstFirst
// in a week alone.
func (s *solver) gain(t totals, k *candidate, o order, week int) float64 {
	sum := 0.0
	for w := k.from; w < k.until; w++ {
		if o == worstFirst && s.short(t, w) <= 0 || o != worstFirst && w != week {
			continue
		}
		want := float32(s.want[w])
		for i, stems := range t[w] {
			if stems < want {
				sum += float64(min(k.stems[w][i], want-stems))
			}
		}
	}
	return sum
}

// trim takes away plants that nothing needs, from each sowing in turn.
func (s *solver) trim(p *set, t totals) {
	order := slices.Clone(p.set)
	slices.SortFunc(order, func(a, b int) int {
		return cmp.Or(cmp.Compare(float64(p.plants[b])*s.candidates[b].each, float64(p.plants[a])*s.candidates[a].each), cmp.Compare(a, b))
	})
	for _, c := range order {
		k := &s.candidates[c]
		low, high := 0, p.plants[c] // fewest that hold lie in low..high
		for low < high {
			middle := (low + high) / 2
			s.add(t, c, middle-p.plants[c])
			holds := s.holds(t, k.from, k.until)
			s.add(t, c, p.plants[c]-middle)
			if holds {
				high = middle
			} else {
				low = middle + 1
			}
		}
		if high < p.plants[c] {
			s.add(t, c, high-p.plants[c])
			p.plants[c] = high
		}
	}
}

// solve returns the plants of the sowings of a set, nil where they cannot supply every week; it starts from what plants says. Filled in
// each order, the fewest plants count.
func (s *solver) solve(sowings []int, plants map[int]int) *set {
	var best *set
	tried := orders
	if len(sowings) > fewSowings {
		tried = orders[:1]
	}
	for _, first := range tried {
		p := &set{set: sowings, plants: make(map[int]int)}
		for _, c := range sowings {
			p.plants[c] = plants[c]
		}
		t := s.totalsOf(p)
		if !s.fill(p, t, first) {
			continue
		}
		s.trim(p, t)
		if p = s.tidy(p); best == nil || s.less(p, best) {
			best = p
		}
	}
	return best
}

// fewSowings is up to how many sowings every order of filling is tried; among many the worst week first does as well.
const fewSowings = 11

// An order says which week is filled first.
type order int

const (
	worstFirst order = iota
	earliestFirst
	latestFirst
)

var orders = []order{worstFirst, earliestFirst, latestFirst}

// next returns the week to be filled, -1 if none is short.
func (s *solver) next(t totals, o order) int {
	week, most := -1, 0
	for w := range s.want {
		n := s.short(t, w)
		if n <= 0 {
			continue
		}
		switch o {
		case earliestFirst:
			return w
		case latestFirst:
			week = w
		default:
			if n > most {
				week, most = w, n
			}
		}
	}
	return week
}

// tidy drops sowings without plants and gives every other at least leastPlants.
func (s *solver) tidy(p *set) *set {
	kept := &set{plants: make(map[int]int)}
	for _, c := range p.set {
		if n := p.plants[c]; n > 0 {
			kept.set = append(kept.set, c)
			kept.plants[c] = max(n, leastPlants)
		}
	}
	return kept
}
