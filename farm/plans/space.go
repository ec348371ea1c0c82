package plans

import (
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// A Space is what all that is planned takes of all beds where it takes most, with a plan of successions beside it, in squares. A farm without beds has none.
type Space struct {
	Beds, Taken, Plan int     // Plan is of Taken
	On                day.Day // the Monday of the week in which most is taken while the plan stands
}

// Tight tells whether more is planned than the beds have room for.
func (s Space) Tight() bool { return s.Beds > 0 && s.Taken > s.Beds }

// A tenant is squares that are taken from one day until another, zero where they stay.
type tenant struct {
	squares     int
	from, until day.Day
	isPlan      bool
}

func (t tenant) there(d day.Day) bool {
	return !d.Before(t.from) && (t.until.IsZero() || d.Before(t.until))
}

// spaceOf adds up what the plan's sowings and everything on record take, placed in a bed or not: what has no bed yet will want one.
func spaceOf(s *look.Snapshot, out *SuccessionPlan, place book.Place) Space {
	var space Space
	for _, b := range s.Book.Beds {
		if grid, ok := s.Book.Grid(b.ID); ok {
			space.Beds += grid.Squares()
		}
	}
	if space.Beds == 0 || len(out.Sowings) == 0 {
		return space
	}
	var all []tenant
	for _, p := range s.Book.Plantings {
		profile := s.Book.ProfileOf(p)
		if profile == nil {
			continue
		}
		from := p.StartedOn
		if !p.PlantedOutOn.IsZero() {
			from = p.PlantedOutOn
		}
		all = append(all, tenant{squaresFor(place, p.Plants, s.Book.SpacingCM(p.Variety, profile)), from, freeFrom(s, p, profile, from), false})
	}
	first, last := out.Sowings[0].InBed(), day.Day{}
	for _, w := range out.Sowings {
		until := plan.FreeFrom(out.Profile, w.Method, w.InBed(), w.LastCut, day.Day{})
		all = append(all, tenant{w.Squares, w.InBed(), until, true})
		if w.InBed().Before(first) {
			first = w.InBed()
		}
		if until.After(last) {
			last = until
		}
	}
	for d := plan.WeekOf(first).Monday; d.Before(last); d = d.Add(7) {
		taken, own := 0, 0
		for _, t := range all {
			if t.there(d) {
				taken += t.squares
				if t.isPlan {
					own += t.squares
				}
			}
		}
		if taken > space.Taken {
			space.Taken, space.Plan, space.On = taken, own, d
		}
	}
	return space
}

// squaresFor returns how many squares of a bed so many plants take up.
func squaresFor(place book.Place, plants int, spacingCM float64) int {
	each, side := plan.Grid{SideCM: place.SquareCM}.Pattern(spacingCM)
	return (plants + each - 1) / each * side * side
}
