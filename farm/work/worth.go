package work

import (
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/rounds"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// countAhead is for how many days ahead a count is thought of: the next pick, or the one after it.
const countAhead = 7

// CountFor returns the next pick before which planting i is worth counting, zero where none is: one that somebody waits for and of which nobody
// is sure. A farm without orders waits for all.
func CountFor(s *look.Snapshot, i int) day.Day {
	p := &s.Model.Plantings[i]
	if !p.Ended.IsZero() || s.Stand.Dead(i) {
		return day.Day{}
	}
	var counted day.Day
	if last, ok := s.Book.LastCount(p.ID); ok {
		counted = last.CountedAt.Day()
	}
	waited := look.Once(s, waitedFor{}, func() map[day.Day]map[int]bool { return rowsWaitedFor(s) })
	for j, pick := range s.Forecast.PickDays {
		if pick.Sub(s.View.Today) > countAhead {
			break
		}
		next := s.Forecast.Plantings[i].ByPick[j][crop.Market]
		if rounds.CountDue(next.Sure(), next.Likely(), next.AtBest(), counted, pick) && (len(s.Book.Orders) == 0 || waited[pick][i]) {
			return pick
		}
	}
	return day.Day{}
}

// CountNow tells whether planting i is worth counting today.
func CountNow(s *look.Snapshot, i int) bool {
	pick := CountFor(s, i)
	return !pick.IsZero() && pick.Sub(s.View.Today) <= rounds.CountBefore
}

// waitedFor is the key of which rows somebody waits for.
type waitedFor struct{}

// rowsWaitedFor returns of which plantings somebody waits for stems of each pick.
func rowsWaitedFor(s *look.Snapshot) map[day.Day]map[int]bool {
	waited := make(map[day.Day]map[int]bool)
	for _, d := range market.Dues(s) {
		if waited[d.PickOn] == nil {
			waited[d.PickOn] = make(map[int]bool)
		}
		for _, w := range d.Lines {
			if w.Wanted == 0 {
				continue
			}
			for _, part := range market.PartsOf(s, w.OrderLine) {
				waited[d.PickOn][part.Planting] = true
			}
		}
	}
	return waited
}
