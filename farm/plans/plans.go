// Package plans works out what to sow and where: successions, sowings for a date, the year of the beds, seed and trays. The search is the
// core's; what it is given, and what its answer means on this farm, is here.
package plans

import (
	"fmt"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// GroundOf returns what new sowings of a crop are tried on: the farm with the rows of that crop on record, so that what they taught counts.
// Of a variety, empty for any, its own rows teach more than the others. A bed, empty for open ground, lends its cover.
func GroundOf(s *look.Snapshot, cropID, variety, bed string) (*plan.Ground, error) {
	v, ok := s.Book.Variety(variety)
	if !ok || v.Crop != cropID {
		v = book.Variety{Crop: cropID}
	}
	profile := s.Book.CropOf(v)
	if profile == nil {
		return nil, fmt.Errorf("%q is no crop of the table", cropID)
	}
	g := &plan.Ground{Farm: *s.Model}
	g.Farm.From, g.Farm.Plantings = s.View.From, nil
	for _, p := range s.Model.Plantings {
		if p.Growth.Profile.ID == cropID {
			g.Farm.Plantings = append(g.Farm.Plantings, p)
		}
	}
	row := book.Planting{ID: "trial", Variety: variety, Bed: bed, Method: profile.PreferredStart, StartedOn: s.View.Today, Plants: 1}
	var err error
	if g.Row, err = s.Row(row, profile); err != nil {
		return nil, err
	}
	if profile.Steered() && bed == "" {
		g.Row.Cover = look.Tunnel // lamps and blackout want a roof
	}
	return g, nil
}

// startsOf returns the ways in which sowings on a ground may be started, and when.
func startsOf(s *look.Snapshot, g *plan.Ground, methods []crop.Method, pinch bool) plan.Starts {
	return plan.Starts{Profile: g.Row.Growth.Profile, Methods: methods, Season: s.Model.Outlook.Season(), Frost: frostOver(s, g), From: s.View.Today, Pinch: pinch}
}

// frostOver returns when frost ends and begins on a ground: as the farm has it, under a roof as the weather tells of what is warmer by so much at night.
func frostOver(s *look.Snapshot, g *plan.Ground) plan.Frost {
	f := s.FrostDates(s.View.Today)
	if warmer := g.Row.Cover.NightC; warmer > 0 {
		f = s.FrostsUnder(warmer)
	}
	return plan.Frost{Last: f.Last, First: f.First}
}

// StartsBetween returns the sowings of a variety, as the farm starts it, whose stems could be cut within a period: one every step days, each in its season.
func StartsBetween(s *look.Snapshot, cropID, variety string, from, to day.Day, step int) ([]plan.Sowing, error) {
	g, err := GroundOf(s, cropID, variety, "")
	if err != nil {
		return nil, err
	}
	starts := startsOf(s, g, []crop.Method{g.Row.Growth.Profile.PreferredStart}, false)
	return starts.Between(from, to, step), nil
}
