package plan

import (
	"cmp"
	"math"
	"slices"
)

// planOf returns a plan of sowings that share plants evenly, each plant giving so much on the day.
func planOf(way Way, sowings []Sowing, each []float32, plants int, want DateWant) *DatePlan {
	p := &DatePlan{Way: way, Sowings: Evenly(sowings, plants), Chance: chance(each, plants, want), ChanceOfTwice: chance(each, 2*plants, want)}
	sorted := make([]float64, len(each))
	for k, y := range each {
		sorted[k] = want.own(k) + float64(plants)*float64(y)
	}
	slices.Sort(sorted)
	at := func(q float64) float64 { return sorted[min(len(sorted)-1, int(q*float64(len(sorted))))] }
	p.Low, p.Likely, p.High = at(0.1), at(0.5), at(0.9)
	return p
}

// better tells whether a plan is surer than another, up to the chance wanted, and among the sure ones needs fewer plants.
func better(p, q *DatePlan, want DateWant) bool {
	switch {
	case p == nil:
		return false
	case q == nil:
		return p.Chance > 0
	}
	a, b := min(p.Chance, want.Chance), min(q.Chance, want.Chance)
	if a != b {
		return a > b
	}
	return p.work() < q.work()
}

// alike is how near each other two chances are that are told by some hundreds of samples: neither is known better.
const alike = 0.02

// before puts the better of two ways first: chances that lie so near each other are alike, and then the one that is less work is better.
func before(p, q *DatePlan, want DateWant) int {
	a, b := min(p.Chance, want.Chance), min(q.Chance, want.Chance)
	if a < b-alike || a > b+alike {
		return cmp.Compare(b, a)
	}
	return cmp.Compare(p.work(), q.work())
}

// oneMoreBatch is the share of the plants that one sowing more for a date must save: a fifth.
const oneMoreBatch = 1. / 5

// work is what a plan costs: its plants, and for every sowing more what it must save of them to be worth the while. Plants of one day that are pinched by halves
// are one sowing.
func (p *DatePlan) work() float64 {
	days := len(p.Sowings)
	if p.Way == Half {
		days = 1
	}
	return float64(p.Plants()) * math.Pow(1+oneMoreBatch, float64(days))
}

// ways returns the best plan of each way among trials.
func (t *Try) ways(want DateWant) []*DatePlan {
	var plans []*DatePlan
	for _, p := range []*DatePlan{t.single(want), t.pair(want), t.three(want), t.half(want)} {
		if p != nil {
			plans = append(plans, p)
		}
	}
	return plans
}

// singles returns the plan of each sowing among trials by itself.
func (t *Try) singles(want DateWant) []*DatePlan {
	var plans []*DatePlan
	ample := t.ample(want)
	for i := range t.Trials {
		each := t.onDay(i, want)
		plans = append(plans, planOf(One, []Sowing{t.Trials[i].Sowing}, each, t.enough(each, want, ample), want))
	}
	return plans
}

// single returns the best plan of a single sowing among trials, nil where none has a chance.
func (t *Try) single(want DateWant) *DatePlan { return bestOf(t.singles(want), want) }

func bestOf(plans []*DatePlan, want DateWant) *DatePlan {
	var best *DatePlan
	for _, p := range plans {
		if better(p, best, want) {
			best = p
		}
	}
	return best
}

// mean returns the stems a plant of two trials that share their plants.
func mean(a, b []float32) []float32 {
	both := make([]float32, len(a))
	for s := range both {
		both[s] = (a[s] + b[s]) / 2
	}
	return both
}

// leastApart is by how many days two batches must differ to be two.
const leastApart = 3

// pair returns the best plan of two sowings some days apart.
func (t *Try) pair(want DateWant) *DatePlan {
	var best *DatePlan
	ample := t.ample(want)
	for i := range t.Trials {
		for j := i + 1; j < len(t.Trials); j++ {
			a, b := t.Trials[i].Sowing, t.Trials[j].Sowing
			if b.Started.Sub(a.Started) < leastApart || a.Method != b.Method || a.Pinched != b.Pinched {
				continue
			}
			each := mean(t.onDay(i, want), t.onDay(j, want))
			if p := planOf(Two, []Sowing{a, b}, each, t.enough(each, want, ample), want); better(p, best, want) {
				best = p
			}
		}
	}
	return best
}

// three returns the best plan of three sowings, evenly apart.
func (t *Try) three(want DateWant) *DatePlan {
	var best *DatePlan
	ample := t.ample(want)
	for i := range t.Trials {
		for j := i + 1; j < len(t.Trials); j++ {
			a, b := t.Trials[i].Sowing, t.Trials[j].Sowing
			apart := b.Started.Sub(a.Started)
			if apart < leastApart || a.Method != b.Method || a.Pinched != b.Pinched {
				continue
			}
			k := slices.IndexFunc(t.Trials, func(o Trial) bool {
				return o.Method == a.Method && o.Pinched == a.Pinched && o.Started == b.Started.Add(apart)
			})
			if k < 0 {
				continue
			}
			x, y, z := t.onDay(i, want), t.onDay(j, want), t.onDay(k, want)
			each := make([]float32, t.Samples)
			for s := range each {
				each[s] = (x[s] + y[s] + z[s]) / 3
			}
			if p := planOf(Three, []Sowing{a, b, t.Trials[k].Sowing}, each, t.enough(each, want, ample), want); better(p, best, want) {
				best = p
			}
		}
	}
	return best
}

// half returns the best plan of a sowing of which half of the plants are pinched, nil where the crop is not pinched at will.
func (t *Try) half(want DateWant) *DatePlan { return bestOf(t.halves(want), want) }

// halves returns the plan of each sowing among trials of which half of the plants are pinched.
func (t *Try) halves(want DateWant) []*DatePlan {
	var plans []*DatePlan
	ample := t.ample(want)
	for i := range t.Trials {
		plain := t.Trials[i].Sowing
		pinched := plain
		pinched.Pinched = true
		j := slices.IndexFunc(t.Trials, func(o Trial) bool { return o.Sowing == pinched })
		if plain.Pinched || j < 0 {
			continue
		}
		each := mean(t.onDay(i, want), t.onDay(j, want))
		plans = append(plans, planOf(Half, []Sowing{plain, pinched}, each, t.enough(each, want, ample), want))
	}
	return plans
}
