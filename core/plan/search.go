package plan

import (
	"math"
	"runtime"
	"slices"
	"sync"
	"sync/atomic"
)

// oneMoreSowing is the share of the stems that a sowing more must save to be worth its work: a twelfth. Fewer sowings are less to
// remember; more of them waste less.
const oneMoreSowing = 1. / 12

// exchange takes plants away from one sowing after the other, lets the others make up for them, and keeps what saves some, as long as
// anything does.
func (s *solver) exchange(p *set) *set {
	for gained := true; gained && !s.stopped(); {
		gained = false
		for _, c := range p.set {
			n := p.plants[c]
			for _, fewer := range []int{n - n/2, n - n/4, n - n/8, n - 2, n - 1} {
				if fewer == n || fewer < leastPlants {
					continue
				}
				if q := s.refilled(p, c, fewer); q != nil && len(q.set) <= len(p.set) && s.less(q, p) {
					p, gained = q, true
					break
				}
			}
			if gained {
				break
			}
		}
	}
	return p
}

// refilled returns the set with no more than so many plants of a sowing, filled up by the others, nil if they cannot.
func (s *solver) refilled(p *set, c, most int) *set {
	q := &set{set: p.set, plants: make(map[int]int)}
	for _, o := range p.set {
		q.plants[o] = p.plants[o]
	}
	q.plants[c] = most
	t := s.totalsOf(q)
	q.held = c + 1
	if !s.fill(q, t, worstFirst) {
		return nil
	}
	q.held = 0
	s.trim(q, t)
	return s.tidy(q)
}

// search returns the best set for each number of sowings, nil where there is none. The weeks that are held are settled first; then sets are
// looked for with half of the samples, and filled for all of them.
func (s *solver) search(progress func(float64)) []*set {
	all := make([]int, len(s.candidates))
	for c := range all {
		all[c] = c
	}
	now := s.solve(all, nil)
	for now == nil && !s.stopped() && s.giveUp() {
		now = s.solve(all, nil)
	}
	if now == nil {
		return nil
	}
	now = s.withoutEdges(all, now)
	sure, half := now, s.half()
	if half != s {
		if now = half.solve(all, nil); now == nil {
			half, now = s, s.solve(all, nil)
		}
	}
	best := half.ways(now, func(share float64) { progress(0.8 * share) })
	if half != s {
		best = s.refined(best)
		if s.choose(best) == nil { // what half of the samples let pass, all of them need not
			best = make([]*set, len(sure.set)+1)
			best[len(sure.set)] = sure
		}
	}
	progress(1)
	return best
}

// halfFrom is from how many samples on half of them do for the search among sets.
const halfFrom = 200

// half returns a solver that looks at every second sample.
func (s *solver) half() *solver {
	if s.samples < halfFrom {
		return s
	}
	thin := func(byWeek [][]float32) [][]float32 {
		thinned := make([][]float32, len(byWeek))
		for w, sums := range byWeek {
			thinned[w] = make([]float32, s.samples/2)
			for i := range thinned[w] {
				thinned[w][i] = sums[2*i]
			}
		}
		return thinned
	}
	some := *s
	some.samples, some.allowed = s.samples/2, s.allowed/2
	some.base = thin(s.base)
	some.candidates = slices.Clone(s.candidates)
	for c := range some.candidates {
		some.candidates[c].stems = thin(s.candidates[c].stems)
	}
	return &some
}

// refined returns sets filled for all samples, by their number of sowings.
func (s *solver) refined(sets []*set) []*set {
	best := make([]*set, len(sets))
	for _, p := range sets {
		if p == nil {
			continue
		}
		q := s.solve(p.set, p.plants)
		if r := s.solve(p.set, nil); r != nil && (q == nil || s.less(r, q)) {
			q = r
		}
		if q != nil && (best[len(q.set)] == nil || s.less(q, best[len(q.set)])) {
			best[len(q.set)] = q
		}
	}
	if chosen := s.choose(best); chosen != nil {
		if q := s.exchange(chosen); len(q.set) == len(chosen.set) {
			best[len(q.set)] = q
		}
	}
	return best
}

// ways returns the best set for each number of sowings, nil where there is none: from what now holds down, taking away the sowing that is
// missed least, and near what will be chosen up again, adding the one that saves most; on both ways sowings are moved in time.
func (s *solver) ways(now *set, progress func(float64)) []*set {
	best := make([]*set, max(manySowings, len(now.set))+1)
	note := func(p *set) {
		if k := len(p.set); k < len(best) && (best[k] == nil || s.less(p, best[k])) {
			best[k] = p
		}
	}
	const near, far = 1, 3 // candidates by which a sowing is moved
	start := len(now.set)
	for ; now != nil && len(now.set) > 0 && !s.stopped(); now = s.without(now) {
		if len(now.set) <= manySowings {
			now = s.shift(now, near)
		}
		note(now)
		progress(0.5 * float64(start-len(now.set)) / float64(start))
	}
	chosen := s.choose(best)
	if chosen == nil {
		return best
	}
	middle := len(chosen.set)
	for k := max(1, middle-1); k <= min(middle+1, manySowings-1) && !s.stopped(); k++ {
		if best[k] == nil {
			continue
		}
		note(s.exchange(s.shift(best[k], far)))
		if more := s.with(best[k]); more != nil {
			note(s.shift(more, near))
		}
		progress(0.5 + 0.5*float64(k-middle+2)/3)
	}
	return best
}

// manySowings is up to how many sowings a set is looked at closely; nobody makes more of one crop in a season.
const manySowings = 14

// without returns the best set with a sowing fewer, nil if none holds.
func (s *solver) without(p *set) *set {
	return s.best(len(p.set), func(i int) *set {
		return s.solve(slices.Delete(slices.Clone(p.set), i, i+1), p.plants)
	})
}

// with returns the best set with a sowing more, nil if none needs fewer plants.
func (s *solver) with(p *set) *set {
	return s.best(len(s.candidates), func(c int) *set {
		if slices.Contains(p.set, c) {
			return nil
		}
		more := append(slices.Clone(p.set), c)
		slices.Sort(more)
		if q := s.solve(more, nil); q != nil && len(q.set) == len(more) && s.less(q, p) {
			return q
		}
		return nil
	})
}

// shift moves sowings to candidates near them, by so many at the most, as long as that saves stems.
func (s *solver) shift(p *set, most int) *set {
	var by []int
	for n := 1; n <= most; n++ {
		by = append(by, -n, n)
	}
	for gained := true; gained && !s.stopped(); {
		gained = false
		for i := 0; i < len(p.set); i++ {
			q := s.best(len(by), func(b int) *set {
				c := p.set[i] + by[b]
				if c < 0 || c >= len(s.candidates) || slices.Contains(p.set, c) {
					return nil
				}
				moved := slices.Clone(p.set)
				moved[i] = c
				slices.Sort(moved)
				if q := s.solve(moved, nil); q != nil && len(q.set) <= len(p.set) && s.less(q, p) {
					return q
				}
				return nil
			})
			if q != nil {
				p, gained = q, true
			}
		}
	}
	return p
}

// best returns the set of the fewest plants among count tries, the first of equals, nil if there is none. The tries run side by side.
func (s *solver) best(count int, try func(int) *set) *set {
	sets := make([]*set, count)
	var workers sync.WaitGroup
	var next atomic.Int64
	for range runtime.GOMAXPROCS(0) {
		workers.Go(func() {
			for i := int(next.Add(1)) - 1; i < count && !s.stopped(); i = int(next.Add(1)) - 1 {
				sets[i] = try(i)
			}
		})
	}
	workers.Wait()
	var best *set
	for _, p := range sets {
		if p != nil && (best == nil || s.less(p, best)) {
			best = p
		}
	}
	return best
}

// choose returns the set that costs least: its stems with those that the work of its sowings is worth, or raised by a twelfth for every sowing where nobody said
// what that is; or the set of so many sowings as are asked for.
func (s *solver) choose(best []*set) *set {
	if k := s.limits.Exactly; k > 0 && k < len(best) && best[k] != nil {
		return best[k]
	}
	var chosen *set
	least := math.Inf(1)
	for k, p := range best {
		if p == nil || s.limits.Sowings > 0 && k > s.limits.Sowings {
			continue
		}
		cost := s.cost(p) * math.Pow(1+oneMoreSowing, float64(k))
		if s.limits.Each > 0 {
			cost = s.cost(p) + s.limits.Each*float64(k)
		}
		if cost < least {
			chosen, least = p, cost
		}
	}
	return chosen
}
