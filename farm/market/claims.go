package market

import (
	"dewcount/core/crop"
	"dewcount/core/day"
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
	Early bool // they are cut tighter than for the market, and open in water
	Late  bool // they stand further open than for the market
}

// Claims returns, by planting, for whom the stems of a pick are, as things usually go: no stem for two.
func Claims(s *look.Snapshot, pick day.Day) map[int][]Claim {
	claims := make(map[int][]Claim)
	for _, d := range Dues(s) {
		for _, w := range d.Lines {
			for _, g := range w.From {
				if g.Pick != pick {
					continue
				}
				c := Claim{Order: d.Order.ID, On: d.On, What: w.What, Use: UseOf(w.OrderLine, d.Order), Stems: g.Stems, Early: g.Early, Late: g.Late}
				if w.MinLengthCM != nil {
					c.MinCM = *w.MinLengthCM
				}
				claims[g.Planting] = append(claims[g.Planting], c)
			}
		}
	}
	return claims
}
