package look

import (
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/plan"
	"dewcount/farm/book"
)

// A BedStay is a planting in its bed.
type BedStay struct {
	plan.Stay
	Record    book.Planting
	Profile   *crop.Profile
	HighCM    float64
	SpacingCM float64
	Lasts     bool
	TooLow    bool // for cutting
}

// Stays returns how long each planting with a bed holds it, by bed, in the order in which they come into it. Those that have no squares
// yet have the zero Patch.
func (s *Season) Stays() map[string][]BedStay {
	stays := make(map[string][]BedStay)
	for i, p := range s.Model.Plantings {
		record, ok := s.Book.Planting(p.ID)
		if !ok || record.Bed == "" {
			continue
		}
		stay := BedStay{Record: record, Profile: p.Growth.Profile, HighCM: s.Book.HighCM(record.Variety, p.Growth.Profile),
			Lasts:     p.Growth.Profile.Lasts(record.Method),
			SpacingCM: s.Book.SpacingCM(record.Variety, p.Growth.Profile)}
		if v, ok := s.Book.Variety(record.Variety); ok {
			stay.TooLow = p.Growth.Profile.TooLow(book.OrNothing(v.HeightCM), book.OrNothing(v.StemCM))
		}
		stay.Planting, stay.From = p.ID, p.Growth.Out()
		stay.Until = plan.FreeFrom(p.Growth.Profile, record.Method, stay.From, s.Dates[i].LastCut.Likely, record.EndedOn)
		if grid, ok := s.Book.Grid(record.Bed); ok && record.Squares != "" {
			if patch, err := plan.ParsePatch(record.Squares, grid); err == nil {
				stay.Patch = patch
			}
		}
		stays[record.Bed] = append(stays[record.Bed], stay)
	}
	for _, of := range stays {
		slices.SortFunc(of, func(a, b BedStay) int {
			if c := a.From.Compare(b.From); c != 0 {
				return c
			}
			return strings.Compare(a.Planting, b.Planting)
		})
	}
	return stays
}

// PatchesOf returns the bare stays of a bed.
func PatchesOf(stays []BedStay) []plan.Stay {
	bare := make([]plan.Stay, len(stays))
	for i, s := range stays {
		bare[i] = s.Stay
	}
	return bare
}
