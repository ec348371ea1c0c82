package farm

import (
	"fmt"

	"dewcount/core/plan"
)

// Ground returns what new sowings of a crop are tried on: the farm with the rows of that crop on record, so that what they taught counts.
// Of a variety, empty for any, its own rows teach more than the others. A bed, empty for open ground, lends its cover.
func (s *Snapshot) Ground(cropID, variety, bed string) (*plan.Ground, error) {
	profile := s.Book.Crop(cropID)
	if profile == nil {
		return nil, fmt.Errorf("%q is no crop of the table", cropID)
	}
	place, err := s.Book.Place()
	if err != nil {
		return nil, err
	}
	g := &plan.Ground{Farm: *s.Model}
	g.Farm.From, g.Farm.Plantings = s.View.From, nil
	for _, p := range s.Model.Plantings {
		if p.Growth.Profile.ID == cropID {
			g.Farm.Plantings = append(g.Farm.Plantings, p)
		}
	}
	row := Planting{ID: "trial", Variety: variety, Bed: bed, Method: profile.PreferredStart, StartedOn: s.View.Today, Plants: 1}
	g.Row = s.Book.planting(row, profile, place, s.View, s.Book.soundShares(s.View.Upto)[cropID])
	if profile.Steered() && bed == "" {
		g.Row.Cover = covers["tunnel"] // lamps and blackout want a roof
	}
	return g, nil
}
