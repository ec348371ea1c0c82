package farm

import (
	"slices"

	"dewcount/core/day"
	"dewcount/core/plan"
)

// Plantings returns the records that a plan of successions is taken over with, under a name or one made for it: sowings of one day, of which some
// plants are pinched, are one planting. Where a bed is named they get squares of it, as long as there are any.
func (s *Snapshot) Plantings(p *SuccessionPlan, name string) ([]Record, string) {
	if name == "" {
		name = s.Book.freeSuccession(p)
	}
	variety := p.Variety
	var records []Record
	if variety == "" {
		variety = s.Book.anyVariety(p.Profile.ID, p.Profile.Name)
		if _, known := s.Book.Variety(variety); !known {
			records = append(records, Variety{Name: variety, Crop: p.Profile.ID}.Record())
		}
	}
	book := *s.Book
	book.Plantings = slices.Clone(book.Plantings)
	for _, d := range merged(p.Sowings) {
		record := Planting{ID: book.FreeName(variety), Variety: variety, Bed: p.Bed, Method: d.Method, StartedOn: d.Started, PlantedOutOn: d.Out,
			PinchedOn: d.PinchOn, Plants: d.Plants, Succession: name}
		if d.share < 1 && d.share > 0 {
			record.PinchedShare = &d.share
		}
		s.squares(&book, &record, d.SowingDates, p)
		book.Plantings = append(book.Plantings, record)
		records = append(records, record.Record())
	}
	return records, name
}

// mergedSowing is one planting of a plan, of which a share is pinched.
type mergedSowing struct {
	SowingDates
	share float64
}

// merged joins the sowings of one day that differ in nothing but the pinch.
func merged(sowings []SowingDates) []mergedSowing {
	var out []mergedSowing
	for _, d := range sowings {
		share := 0.0
		if d.Pinched {
			share = 1
		}
		i := slices.IndexFunc(out, func(m mergedSowing) bool {
			return m.Started == d.Started && m.Method == d.Method && m.Out == d.Out
		})
		if i < 0 {
			out = append(out, mergedSowing{d, share})
			continue
		}
		m := &out[i]
		plants := m.Plants + d.Plants
		m.share = (m.share*float64(m.Plants) + share*float64(d.Plants)) / float64(plants)
		m.Plants, m.Squares = plants, m.Squares+d.Squares
		if m.PinchOn.IsZero() {
			m.PinchOn = d.PinchOn
		}
	}
	return out
}

// squares gives a new planting the first squares of its bed that are free while it stands.
func (s *Snapshot) squares(book *Book, record *Planting, d SowingDates, p *SuccessionPlan) {
	grid, ok := book.Grid(record.Bed)
	if !ok {
		return
	}
	until := d.LastCut
	if !until.IsZero() {
		until = until.Add(clearDays)
	}
	if patch, ok := grid.Place(record.Plants, book.SpacingCM(record.Variety, p.Profile), d.InBed(), until, s.standing(book, grid, record.Bed)); ok {
		record.Squares = patch.String()
	}
}

// standing returns the stays of a bed as far as they have squares: of what is on record, and of what a plan adds.
func (s *Snapshot) standing(book *Book, grid plan.Grid, bed string) []plan.Stay {
	var stays []plan.Stay
	for _, o := range book.Plantings {
		profile := book.ProfileOf(o)
		if o.Bed != bed || o.Squares == "" || profile == nil {
			continue
		}
		patch, err := plan.ParsePatch(o.Squares, grid)
		if err != nil {
			continue
		}
		from := o.StartedOn
		if !o.PlantedOutOn.IsZero() {
			from = o.PlantedOutOn
		}
		stays = append(stays, plan.Stay{Planting: o.ID, Patch: patch, From: from, Until: s.until(o)})
	}
	return stays
}

// until returns the day from which a planting's squares are free again, zero where it stays.
func (s *Snapshot) until(o Planting) day.Day {
	profile := s.Book.ProfileOf(o)
	i := s.Index(o.ID)
	switch {
	case !o.EndedOn.IsZero():
		return o.EndedOn
	case profile == nil || profile.Lasts(o.Method):
		return day.Day{}
	case i >= 0:
		if last := s.Milestones(i).LastCut.Likely; !last.IsZero() {
			return last.Add(clearDays)
		}
	}
	const bloom = 45
	return o.StartedOn.Add(bloom + clearDays + s.usualDays(o))
}

func (s *Snapshot) usualDays(o Planting) int {
	if p := s.Book.ProfileOf(o); p != nil {
		return p.TypicalDays[1]
	}
	return 0
}
