package market

import (
	"cmp"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/look"
)

// A Claim is stems of a row that are cut on a pick for a line of an order.
type Claim struct {
	Order string
	On    day.Day
	What  string
	Use   crop.Use
	MinCM float64 // least length; 0 for any
	Stems int
}

// Claims returns, by planting, for whom the likely stems of a pick are, each counted once: lines take from the rows with most left, in the order
// in which orders are served, and where a row gives several uses from what is ready for all of them. What a line lacks is not here.
func Claims(s *look.Snapshot, pick day.Day) map[int][]Claim {
	at := slices.Index(s.Forecast.PickDays, pick)
	claims := make(map[int][]Claim)
	if at < 0 {
		return claims
	}
	taken := make(map[int]int)
	for _, d := range Dues(s) {
		if d.PickOn != pick {
			continue
		}
		for _, w := range d.Lines {
			use, want := UseOf(w.OrderLine, d.Order), w.Wanted-min(w.Wanted, w.Have)
			left := func(i int) int { return s.Forecast.Plantings[i].ByPick[at][use].Likely() - taken[i] }
			parts := PartsOf(s, w.OrderLine)
			slices.SortStableFunc(parts, func(a, b forecast.Part) int { return cmp.Compare(left(b.Planting), left(a.Planting)) })
			for _, part := range parts {
				n := min(want, int(part.Share*float64(max(0, left(part.Planting)))))
				if n <= 0 {
					continue
				}
				c := Claim{Order: d.Order.ID, On: d.On, What: w.What, Use: use, Stems: n}
				if w.MinLengthCM != nil {
					c.MinCM = *w.MinLengthCM
				}
				claims[part.Planting] = append(claims[part.Planting], c)
				taken[part.Planting] += n
				want -= n
			}
		}
	}
	return claims
}
