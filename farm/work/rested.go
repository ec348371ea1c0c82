package work

import (
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/look"
)

// A Haste is an order that is needed before its stems have rested as long as the farm's schools have it.
type Haste struct {
	Order          string
	On             day.Day
	Hour           float64 // at which it is needed
	Rested, Wanted float64 // hours of its stems that rest least beside what they want
}

// Hasty returns the orders whose stems of a sheet will not have rested when they are needed, where cutting is done at an hour of the pick day.
func (s *Sheet) Hasty(on *look.Snapshot, done float64) []Haste {
	var all []Haste
	for _, r := range s.Rows {
		profile := on.Model.Plantings[r.Planting].Growth.Profile
		wanted := crop.RestHours(on.Book.Chosen(profile, "rest"))
		for _, c := range r.Claims {
			o, ok := on.Book.Order(c.Order)
			if !ok || o.Hour == nil {
				continue
			}
			rested := float64(24*c.On.Sub(s.Pick)) + *o.Hour - done
			if rested >= wanted {
				continue
			}
			at := slices.IndexFunc(all, func(h Haste) bool { return h.Order == c.Order && h.On == c.On })
			if at < 0 {
				at = len(all)
				all = append(all, Haste{c.Order, c.On, *o.Hour, rested, wanted})
			}
			if wanted-rested > all[at].Wanted-all[at].Rested {
				all[at].Rested, all[at].Wanted = rested, wanted
			}
		}
	}
	return all
}
