package say

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// Where no winter is as cold as a peony wants it, its row says so; a hydrangea, which wants none, has nothing to say, nor has a peony in the foothills.
func TestWhatStandsWhereWintersAreMild(t *testing.T) {
	const none = "Old pink wants 60 cold days before it flowers, and a usual winter here has fewer: none is promised."
	for _, c := range []struct{ climate, latitude, crop, want string }{
		{"mediterranean-39n", "39", "peony", none}, {"mediterranean-39n", "39", "hydrangea", ""}, {"foothills-47n", "47", "peony", ""},
	} {
		b := book.NewBook(nil)
		for key, value := range map[string]string{"name": "Border", "latitude": c.latitude, "longitude": "7", "elevation_m": "100", "climate": c.climate, "timezone": "UTC", "pick_days": "mon"} {
			b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
		}
		b.Varieties = append(b.Varieties, book.Variety{Name: "Old pink", Crop: c.crop})
		b.Plantings = append(b.Plantings, book.Planting{ID: "P1", Variety: "Old pink", Method: crop.Established, StartedOn: day.Must("2022-11-01"), Plants: 20})
		s, err := look.NewSnapshot(b, 0, look.Morning(day.Must("2026-11-29")), nil)
		if err != nil {
			t.Fatal(err)
		}
		if words := DoubtWords(&Snapshot{Snapshot: s}, 0); words != c.want {
			t.Errorf("%s at %s: %q, want %q", c.crop, c.climate, words, c.want)
		}
	}
}

// Sweet williams that are planted out in January do not root; those of September do.
func TestWhatIsPlantedOutIntoColdGround(t *testing.T) {
	for out, want := range map[string]string{"2027-01-22": "The ground is too cold for it to root when it is planted out: wait for spring, plant sooner in autumn, or give it a roof.", "2026-09-11": ""} {
		b := book.NewBook(nil)
		for key, value := range map[string]string{"name": "Border", "latitude": "47", "longitude": "7", "elevation_m": "520", "climate": "foothills-47n", "timezone": "UTC", "pick_days": "mon"} {
			b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
		}
		b.Varieties = append(b.Varieties, book.Variety{Name: "Dark", Crop: "sweet-william"})
		on := day.Must(out)
		b.Plantings = append(b.Plantings, book.Planting{ID: "W1", Variety: "Dark", Method: crop.Tray, StartedOn: on.Add(-46), PlantedOutOn: on, Plants: 20})
		s, err := look.NewSnapshot(b, 0, look.Morning(on.Add(-44)), nil)
		if err != nil {
			t.Fatal(err)
		}
		if words := DoubtWords(&Snapshot{Snapshot: s}, 0); words != want {
			t.Errorf("planted out on %s: %q, want %q", out, words, want)
		}
	}
}
