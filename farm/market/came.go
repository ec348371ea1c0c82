package market

import (
	"dewcount/core/crop"
	"dewcount/core/day"
)

// Came returns how far each line of the dues would have been filled, had so many sound stems stood on each rung of a row when a pick was due: what a promise is
// held against. The sample chooses colours and lengths where nobody looked at them.
func (p *Promises) Came(stood func(planting string, pick day.Day) [crop.Rungs]int, sample int) [][]int {
	st := p.stocks
	stems, limits := make([]int, len(st.problem.Sources)), make([]int, st.problem.Limits)
	for i := range st.stocks {
		one := &st.stocks[i]
		rungs := one.fixed
		if one.planting >= 0 {
			there := stood(st.s.Model.Plantings[one.planting].ID, st.s.Forecast.PickDays[one.pick])
			for k := one.from; k <= one.to; k++ {
				rungs[k] = float32(there[k])
			}
		}
		n := one.Deal(rungs, seed, sample, stems)
		for _, limit := range one.limits {
			if limit >= 0 {
				limits[limit] = max(limits[limit], n)
			}
		}
	}
	filling := st.problem.Fill(stems, limits)
	var came [][]int
	at := make(map[int]int) // of the demand's dues, the place among those that are told
	for i := range p.demand.dues {
		if !p.demand.dues[i].On.Before(st.s.View.From) {
			at[i] = len(came)
			came = append(came, make([]int, len(p.demand.dues[i].Lines)))
		}
	}
	for w, n := range filling.Filled {
		want := &p.demand.wants[w]
		if to, ok := at[want.due]; ok {
			came[to][want.line] = n + p.demand.dues[want.due].Lines[want.line].Have
		}
	}
	return came
}
