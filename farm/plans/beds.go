package plans

import (
	"cmp"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/look"

	"github.com/maruel/natural"
)

// A BedYear is a bed through a season: who stands where and when, and what does not go well.
type BedYear struct {
	Bed      book.Bed
	Grid     plan.Grid
	HasGrid  bool // its length and width are on record
	Stays    []look.BedStay
	Clashes  []plan.Clash
	Notes    []plan.Note
	Idles    []plan.Idle
	Unplaced []look.BedStay
}

// BedYears returns the season's beds, in the order of their names, with numbers in them as numbers.
func BedYears(s *look.Season) []BedYear {
	place, err := s.Book.Place()
	if err != nil {
		return nil // a season was made of it, so it is sound
	}
	byBed := s.Stays()
	zones := make(map[string][]plan.Guest)
	zoneOf := make(map[string]string)
	var beds []BedYear
	for _, b := range s.Book.Beds {
		y := BedYear{Bed: b}
		y.Grid, y.HasGrid = s.Book.Grid(b.ID)
		var guests []plan.Guest
		for _, stay := range byBed[b.ID] {
			if !stay.From.Before(s.Until) || !stay.Until.IsZero() && !stay.Until.After(s.From) {
				continue
			}
			y.Stays = append(y.Stays, stay)
			if stay.Patch == (plan.Patch{}) {
				y.Unplaced = append(y.Unplaced, stay)
			}
			g := guestOf(s, stay)
			guests = append(guests, g)
			if b.Zone != "" {
				zones[b.Zone] = append(zones[b.Zone], g)
			}
			zoneOf[stay.Planting] = b.ID
		}
		if y.HasGrid {
			y.Clashes = plan.Clashes(look.PatchesOf(y.Stays))
			bearing := 0.0
			if b.BearingDeg != nil {
				bearing = *b.BearingDeg
			}
			y.Notes = y.Grid.NotesOn(guests, bearing, place.Latitude, b.Exposure == "windy")
			from, until := growingTime(s)
			if len(y.Unplaced) == 0 {
				y.Idles = y.Grid.Idles(from, until, look.PatchesOf(y.Stays))
			}
		}
		beds = append(beds, y)
	}
	for _, of := range zones {
		for _, n := range plan.WaterClashes(of) {
			for i := range beds {
				if beds[i].Bed.ID == zoneOf[n.A.Planting] {
					beds[i].Notes = append(beds[i].Notes, n)
				}
			}
		}
	}
	slices.SortFunc(beds, func(a, b BedYear) int { return natural.Compare(a.Bed.ID, b.Bed.ID) })
	return beds
}

// Crowded returns how many plants the squares of a stay hold, and whether it has clearly more.
func (b BedYear) Crowded(stay look.BedStay) (holds int, crowded bool) {
	const clearly = 1.15
	holds = b.Grid.Plants(stay.Patch, stay.SpacingCM)
	return holds, float64(stay.Record.Plants) > clearly*float64(holds)
}

// guestOf returns a stay as its company sees it.
func guestOf(s *look.Season, stay look.BedStay) plan.Guest {
	g := plan.Guest{Stay: stay.Stay, Crop: stay.Profile.ID, HighCM: stay.HighCM, Netted: stay.Profile.Support != "none"}
	switch stay.Record.Method {
	case crop.Direct:
		if i := s.Index(stay.Planting); i >= 0 {
			g.MoistUntil = s.Dates[i].Emerged.Likely
		}
		if g.MoistUntil.IsZero() {
			g.MoistUntil = stay.From.Add(int(stay.Profile.Germination.Days[1]))
		}
	case crop.Tuber:
		g.DryUntil = plan.DryUntil(stay.From)
	}
	return g
}

// growingTime returns the part of the season in which an empty square is a loss: from a month before the last frost to a month before the first, or
// all of it.
func growingTime(s *look.Season) (from, until day.Day) {
	const month = 30
	from, until = s.From, s.Until
	if last := s.Frosts.Last(0.5); !last.IsZero() && last.Add(-month).After(from) {
		from = last.Add(-month)
	}
	if first := s.Frosts.First(0.5); !first.IsZero() && first.Before(until) {
		until = first
	}
	return from, until
}

// Warm tells whether things grow on a day of the season.
func Warm(s *look.Season, d day.Day) bool {
	from, until := growingTime(s)
	return !d.Before(from) && d.Before(until)
}

// Placing returns corrections that give squares of their beds to plantings that have none: of one planting, or of all where it is empty. Those for
// which there is no room stay as they are, and are named.
func Placing(s *look.Season, planting string) (corrections []book.Record, without []string) {
	stays := s.Stays()
	for _, b := range s.Book.Beds {
		grid, ok := s.Book.Grid(b.ID)
		if !ok {
			continue
		}
		placed := look.PatchesOf(stays[b.ID])
		for i, stay := range stays[b.ID] {
			if stay.Patch != (plan.Patch{}) || planting != "" && stay.Planting != planting || !stay.Until.IsZero() && !stay.Until.After(s.View.Today) {
				continue
			}
			spacing := s.Book.SpacingCM(stay.Record.Variety, stay.Profile)
			patch, ok := grid.Place(stay.Record.Plants, spacing, stay.From, stay.Until, placed)
			if !ok {
				without = append(without, stay.Planting)
				continue
			}
			placed[i].Patch = patch
			record := stay.Record
			record.Squares = patch.String()
			corrections = append(corrections, record.Record())
		}
	}
	return corrections, without
}

// Fits returns the crops that an idle strip could still take, so that they flower before the frost and leave in time: the farm's own first.
func Fits(s *look.Season, idle plan.Idle) []*crop.Profile {
	grown := make(map[string]bool)
	for _, v := range s.Book.Varieties {
		grown[v.Crop] = true
	}
	start := idle.From
	if start.Before(s.View.Today) {
		start = s.View.Today
	}
	const leastBloom = 14
	days := idle.Until.Sub(start) - leastBloom
	var fits []*crop.Profile
	for _, p := range s.Book.Crops() {
		if plan.Succeeds(p) && p.HasStart(crop.Direct) && p.TypicalDays[1] <= days && p.SowEveryDays[0] > 0 {
			fits = append(fits, p)
		}
	}
	slices.SortStableFunc(fits, func(a, b *crop.Profile) int {
		return cmp.Or(boolOrder(grown[b.ID], grown[a.ID]), cmp.Compare(a.TypicalDays[1], b.TypicalDays[1]))
	})
	const few = 3
	return fits[:min(few, len(fits))]
}
