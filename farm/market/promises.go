package market

import (
	"runtime"
	"slices"
	"sync"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/core/promise"
	"dewcount/farm/look"
)

// samples is how many of a forecast's samples orders are filled in: a chance of 0.8 is then known within 0.025 (the binomial's standard deviation).
const samples = 256

// seed makes the same stems the same colours and lengths again.
const seed = 15

// Promises are what all orders are given together of what there is and will be, up to the last pick of a forecast.
type Promises struct {
	Dues []Due

	demand  *demand
	origins []Origin
	usual   *promise.Filling // as it is usually
	stocks  *stocks
	free    map[int][][]int32 // stems that nobody is given, by planting, pick and sample
}

// PromisesOf shares out a farm's stems to its orders. It is worked out once.
func PromisesOf(s *look.Snapshot) *Promises {
	return look.Once(s, promisesKey{}, func() *Promises { return Share(s, Ways{}) })
}

// Ways are how stems may be shared out otherwise than they are.
type Ways struct {
	OwnPicks bool // each order is served from the last pick before it alone, and nothing is held
}

type promisesKey struct{}

// firstDue is the day from which on orders are served. On a farm that keeps no ledger what was cut of late went to the orders of late: those are served as well.
func firstDue(s *look.Snapshot) day.Day {
	if _, kept := s.Book.KeptSince(); kept {
		return s.View.From
	}
	const late = 7 // days: what is held longer is not worth remembering
	return s.View.From.Add(-late)
}

// Dues returns what is due from the view's day up to its last pick day, in order of days, with what each is given.
func Dues(s *look.Snapshot) []Due { return PromisesOf(s).Dues }

// Share shares out a farm's stems to its orders in some way.
func Share(s *look.Snapshot, ways Ways) *Promises {
	d := demandOf(s, firstDue(s), s.View.To)
	p := &Promises{demand: d}
	st := &stocks{s: s, ways: ways, rule: s.Book.Holding(), demand: d, problem: &promise.Problem{Bouquets: d.bouquets, Ranks: past(s, d)}, keys: make(map[string]int), serves: make(map[servesKey]bool)}
	for _, w := range d.wants {
		st.problem.Wants = append(st.problem.Wants, w.Want)
	}
	if !ways.OwnPicks {
		st.lots()
	}
	st.rows()
	st.problem.Prepare()
	p.origins, p.stocks = st.origins, st
	supply := supplyOf(s)
	filled := make([][]int32, len(d.wants)) // by want and sample
	for w := range filled {
		filled[w] = make([]int32, supply.N)
	}
	whole := make([][]bool, len(d.dues)) // whether all of an order is filled, by sample
	for i := range whole {
		whole[i] = make([]bool, supply.N)
	}
	wholes := make([][]int32, len(d.bouquets)) // whole bouquets, by sample
	for b := range wholes {
		wholes[b] = make([]int32, supply.N)
	}
	p.free = st.unasked(supply)
	next := make(chan int)
	var workers sync.WaitGroup
	for range runtime.GOMAXPROCS(0) {
		workers.Go(func() {
			for k := range next {
				stems, limits := st.sample(supply, k)
				f := st.problem.Fill(stems, limits)
				for i := range whole {
					whole[i][k] = true
				}
				for w := range d.wants {
					filled[w][k] = int32(f.Filled[w])
					if f.Filled[w] < d.wants[w].Stems {
						whole[d.wants[w].due][k] = false
					}
				}
				for b, n := range f.Whole {
					wholes[b][k] = int32(n)
				}
				p.take(st, stems, f, k)
			}
		})
	}
	for k := range supply.N {
		next <- k
	}
	close(next)
	workers.Wait()
	p.usual = st.problem.Fill(st.likely(supply))
	p.usual.Settle(func(source, w int) float64 { return p.held(st, source, w) })
	p.tell(st, filled, whole)
	for i := range d.wants {
		if w := &d.wants[i]; w.Bouquet >= 0 && wholes[w.Bouquet] != nil {
			due := &d.dues[w.due]
			if due.Bouquets == nil {
				due.Bouquets = make(map[int]forecast.Spread)
			}
			for k := range wholes[w.Bouquet] {
				wholes[w.Bouquet][k] += int32(due.Lines[w.line].Have / w.Each)
			}
			due.Bouquets[due.Lines[w.line].Line] = forecast.SpreadOf(wholes[w.Bouquet])
			wholes[w.Bouquet] = nil
		}
	}
	p.Dues = slices.DeleteFunc(slices.Clone(d.dues), func(due Due) bool { return due.On.Before(s.View.From) })
	return p
}

// held is what it costs to serve a want from a source: the days that the stems are held from their cut, and more where they are cut too tight or too late. What
// lies in a lot is used first.
func (p *Promises) held(st *stocks, source, w int) float64 {
	const odd, other = 30, 60 // days: rather held than cut out of time, and rather that than another crop
	origin := &st.origins[source]
	cost := 0.0
	if st.problem.Sources[source].IsInstead(w) {
		cost = other
	}
	switch {
	case origin.Lot != "":
		return cost - 1/(1+float64(source))
	case origin.Early || origin.Late:
		cost += odd
	}
	return cost + float64(p.demand.wants[w].on.Sub(origin.Pick))
}

// past puts what was due before the view in front: it has been served.
func past(s *look.Snapshot, d *demand) []promise.Rank {
	isPast := func(r promise.Rank) bool {
		for _, w := range r.Straight {
			return d.wants[w].on.Before(s.View.From)
		}
		for _, b := range r.Bouquets {
			return slices.ContainsFunc(d.wants, func(w want) bool { return w.Bouquet == b && w.on.Before(s.View.From) })
		}
		return false
	}
	ranks := slices.Clone(d.ranks)
	slices.SortStableFunc(ranks, func(a, b promise.Rank) int {
		return map[bool]int{true: 0, false: 1}[isPast(a)] - map[bool]int{true: 0, false: 1}[isPast(b)]
	})
	return ranks
}

type supplyKey struct{}

func supplyOf(s *look.Snapshot) *forecast.Supply {
	return look.Once(s, supplyKey{}, func() *forecast.Supply { return s.Stand.Supply(samples) })
}

// sample returns the stems of each source and limit in a sample.
func (st *stocks) sample(supply *forecast.Supply, k int) (stems, limits []int) {
	stems, limits = make([]int, len(st.problem.Sources)), make([]int, st.problem.Limits)
	for i := range st.stocks {
		one := &st.stocks[i]
		n := one.Deal(one.rungsOf(supply, k), seed, k, stems)
		for _, limit := range one.limits {
			if limit >= 0 {
				limits[limit] = max(limits[limit], n)
			}
		}
	}
	return stems, limits
}

// likely returns the stems of each source and limit as they usually are.
func (st *stocks) likely(supply *forecast.Supply) (stems, limits []int) {
	stems, limits = make([]int, len(st.problem.Sources)), make([]int, st.problem.Limits)
	for i := range st.stocks {
		one := &st.stocks[i]
		var mean [crop.Rungs]float32
		totals := make([]int32, supply.N)
		for k := range totals {
			sum := float32(0)
			for r, n := range one.rungsOf(supply, k) {
				mean[r] += n / float32(supply.N)
				sum += n
			}
			totals[k] = int32(sum + 0.5)
		}
		slices.Sort(totals)
		n := int(totals[len(totals)/2])
		if one.planting >= 0 && one.from == st.s.Model.Plantings[one.planting].Growth.Market.From {
			n = st.s.Forecast.Plantings[one.planting].ByPick[one.pick][crop.Market].Likely() // as the forecast says it
		}
		n = one.Usual(mean, n, stems)
		for _, limit := range one.limits {
			if limit >= 0 {
				limits[limit] = max(limits[limit], n)
			}
		}
	}
	return stems, limits
}

// tell writes down what each line is given.
func (p *Promises) tell(st *stocks, filled [][]int32, whole [][]bool) {
	served := make([]bool, len(p.demand.wants))
	for _, source := range st.problem.Sources {
		for _, w := range source.Serves {
			served[w] = true
		}
	}
	for i := range p.demand.dues {
		n := 0
		for _, ok := range whole[i] {
			if ok {
				n++
			}
		}
		p.demand.dues[i].Chance = float64(n) / float64(max(1, len(whole[i])))
	}
	for i := range p.demand.wants {
		w := &p.demand.wants[i]
		line := &p.demand.dues[w.due].Lines[w.line]
		line.Known = served[i] || w.Stems <= 0 || len(PartsOf(st.s, w.part)) > 0
		line.Far = line.Known && !served[i] && w.Stems > 0
		for k := range filled[i] {
			filled[i][k] += int32(line.Have)
		}
		line.Filled = forecast.SpreadOf(filled[i])
		line.Chance = line.Filled.AtLeast(line.Wanted)
		for _, g := range p.usual.Gifts(i) {
			line.From = append(line.From, Gift{p.origins[g.Source], g.Stems})
		}
	}
}

// A Gift is stems of a row's pick or of a lot that a line is given, as things usually go.
type Gift struct {
	Origin
	Stems int
}
