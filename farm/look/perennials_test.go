package look

import (
	"fmt"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
)

// Established perennials and shrubs are first cut in their own months, from the north of the continents to the Mediterranean: peonies about the first of June, goldenrod
// in August, Michaelmas asters in September or October, not in a spring whose days are as short. Where winters are mild what wants no cold blooms all the same.
func TestPerennialsBloomInTheirMonths(t *testing.T) {
	for _, c := range []struct {
		climate string
		months  map[string][2]string // the first cut, at the earliest and at the latest
	}{
		{"oceanic-north-57n", map[string][2]string{"peony": {"06-05", "06-30"}, "goldenrod": {"08-15", "09-20"}, "hydrangea": {"08-01", "09-15"}}},
		{"maritime-52n", map[string][2]string{"peony": {"05-20", "06-15"}, "goldenrod": {"08-01", "09-01"}, "michaelmas-aster": {"09-05", "10-10"}, "sedum": {"08-01", "09-05"}}},
		{"inland-51n", map[string][2]string{"lilac": {"05-10", "06-05"}, "goldenrod": {"08-01", "09-01"}, "michaelmas-aster": {"09-05", "10-10"}, "bearded-iris": {"05-20", "06-12"}}},
		{"foothills-47n", map[string][2]string{"goldenrod": {"07-25", "08-25"}, "michaelmas-aster": {"08-25", "09-30"}, "hydrangea": {"07-15", "08-20"}}},
		{"mediterranean-39n", map[string][2]string{"hydrangea": {"05-20", "07-10"}, "bearded-iris": {"03-10", "05-01"}, "sedum": {"06-20", "08-20"}, "michaelmas-aster": {"07-15", "10-15"}}},
		{"temperate-38s", map[string][2]string{"hydrangea": {"11-15", "12-31"}, "michaelmas-aster": {"01-10", "04-15"}}},
	} {
		region, ok := climate.RegionNamed(c.climate)
		if !ok {
			t.Fatal(c.climate)
		}
		b := book.NewBook(nil)
		for key, value := range map[string]string{"name": "Border", "latitude": fmt.Sprint(region.Latitude), "longitude": "7", "elevation_m": fmt.Sprint(region.ElevationM), "climate": c.climate, "timezone": "UTC", "pick_days": "mon wed fri"} {
			b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
		}
		for id := range c.months {
			b.Varieties = append(b.Varieties, book.Variety{Name: id, Crop: id})
			b.Plantings = append(b.Plantings, book.Planting{ID: id, Variety: id, Method: crop.Established, StartedOn: day.Must("2024-10-01"), Plants: 20})
		}
		winter := "2026-12-01"
		if region.Latitude < 0 {
			winter = "2026-06-01"
		}
		s, err := NewSnapshot(b, 0, Morning(day.Must(winter)), nil)
		if err != nil {
			t.Fatal(err)
		}
		for i := range s.Model.Plantings {
			id := s.Model.Plantings[i].ID
			first := s.Milestones(i).FirstCut.Likely
			if first.IsZero() || first.String()[5:] < c.months[id][0] || first.String()[5:] > c.months[id][1] {
				t.Errorf("%s: %s is first cut on %q, want it from %s to %s", c.climate, id, first, c.months[id][0], c.months[id][1])
			}
		}
	}
}
