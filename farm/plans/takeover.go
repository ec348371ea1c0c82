package plans

import (
	"fmt"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// PlantingsOf returns the records that a plan of successions is taken over with, under a name or one made for it: sowings of one day, of which some
// plants are pinched, are one planting. Where a bed is named they get squares of it, as long as there are any.
func PlantingsOf(s *look.Snapshot, p *SuccessionPlan, name string) ([]book.Record, string) {
	if name == "" {
		name = freeSuccession(s.Book, p)
	}
	variety := p.Variety
	var records []book.Record
	if variety == "" {
		variety = s.Book.AnyVariety(p.Profile)
		if _, known := s.Book.Variety(variety); !known {
			records = append(records, book.Variety{Name: variety, Crop: p.Profile.ID}.Record())
		}
	}
	b := *s.Book
	b.Plantings = slices.Clone(b.Plantings)
	for _, d := range merged(p.Sowings) {
		record := book.Planting{ID: b.FreeName(variety), Variety: variety, Bed: p.Bed, Method: d.Method, StartedOn: d.Started, PlantedOutOn: d.Out,
			PinchedOn: d.PinchOn, Plants: d.Plants, Succession: name}
		if d.share < 1 && d.share > 0 {
			record.PinchedShare = &d.share
		}
		placeIn(s, &b, &record, d.SowingDates, p)
		b.Plantings = append(b.Plantings, record)
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

// placeIn gives a new planting the first squares of its bed that are free while it stands.
func placeIn(s *look.Snapshot, book *book.Book, record *book.Planting, d SowingDates, p *SuccessionPlan) {
	grid, ok := book.Grid(record.Bed)
	if !ok {
		return
	}
	until := d.LastCut
	if !until.IsZero() {
		until = until.Add(plan.ClearDays)
	}
	if patch, ok := grid.Place(record.Plants, book.SpacingCM(record.Variety, p.Profile), d.InBed(), until, standingIn(s, book, grid, record.Bed)); ok {
		record.Squares = patch.String()
	}
}

// standingIn returns the stays of a bed as far as they have squares: of what is on record, and of what a plan adds.
func standingIn(s *look.Snapshot, book *book.Book, grid plan.Grid, bed string) []plan.Stay {
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
		stays = append(stays, plan.Stay{Planting: o.ID, Patch: patch, From: from, Until: freeFrom(s, o, profile, from)})
	}
	return stays
}

// freeFrom returns the day from which a planting's squares are free again, zero where it stays.
func freeFrom(s *look.Snapshot, o book.Planting, profile *crop.Profile, inBed day.Day) day.Day {
	var last day.Day
	if i := s.Index(o.ID); i >= 0 && o.EndedOn.IsZero() {
		last = s.Milestones(i).LastCut.Likely
	}
	return plan.FreeFrom(profile, o.Method, inBed, last, o.EndedOn)
}

// freeSuccession makes a name for a plan that no other has.
func freeSuccession(b *book.Book, p *SuccessionPlan) string {
	what := p.Variety
	if what == "" {
		what = p.Profile.Name
	}
	year, _, _ := p.From.Date()
	for n := 1; ; n++ {
		name := fmt.Sprintf("%s %d", what, year)
		if n > 1 {
			name = fmt.Sprintf("%s (%d)", name, n)
		}
		if !slices.ContainsFunc(b.Plantings, func(o book.Planting) bool { return o.Succession == name }) {
			return name
		}
	}
}
