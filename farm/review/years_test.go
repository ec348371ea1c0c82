package review

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
)

// By hand: two rows of two years, one cut over New Year's bounds of the south. Forty stems of ten plants are four a plant; a frost of 3 May is the spring's last in
// the north and the autumn's first in the south.
func TestYearsByHand(t *testing.T) {
	culled, rain := 3, 4.5
	for _, c := range []struct {
		latitude         string
		first, second    int
		last, firstFrost string
	}{{"47", 2025, 2026, "2025-05-03", "2025-10-20"}, {"-42", 2024, 2025, "", "2025-05-03"}} {
		b := book.NewBook(nil)
		for key, value := range map[string]string{"name": "Meadow", "latitude": c.latitude, "longitude": "7.2", "elevation_m": "400", "timezone": "Europe/Zurich", "pick_days": "tue fri"} {
			b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
		}
		b.Varieties = []book.Variety{{Name: "Coral", Crop: "zinnia-tall"}}
		b.Plantings = []book.Planting{{ID: "A", Variety: "Coral", Method: crop.Direct, StartedOn: day.Must("2025-04-20"), Plants: 10}, {ID: "B", Variety: "Coral", Method: crop.Direct, StartedOn: day.Must("2026-04-20"), Plants: 20}}
		b.Cuts = []book.Cut{{ID: "1", Planting: "A", CutAt: day.At(day.Must("2025-06-20"), 7, 0), Stems: 25, Culled: &culled}, {ID: "2", Planting: "A", CutAt: day.At(day.Must("2025-06-28"), 7, 0), Stems: 15}}
		b.Weather = []book.WeatherDay{{Date: day.Must("2025-05-03"), TminC: -1, TmaxC: 11, RainMM: &rain}, {Date: day.Must("2025-10-20"), TminC: -2, TmaxC: 8}}
		all := Years(b, day.Must("2026-07-01"))
		find := func(year int) Year {
			for _, y := range all {
				if y.Year == year {
					return y
				}
			}
			t.Fatalf("%s: there is no %d: %+v", c.latitude, year, all)
			return Year{}
		}
		a := find(c.first)
		if a.Cut != 40 || a.Culled != 3 || a.Plantings != 1 || len(a.Crops) != 1 || a.Crops[0].StemsAPlant != 4 || a.FirstCut != day.Must("2025-06-20") || a.LastCut != day.Must("2025-06-28") {
			t.Errorf("%s: %+v", c.latitude, a)
		}
		if a.LastFrost.String() != c.last || a.FirstFrost.String() != c.firstFrost {
			t.Errorf("%s: frost until %s and from %s", c.latitude, a.LastFrost, a.FirstFrost)
		}
		if next := find(c.second); next.Plantings != 1 || next.Cut != 0 || next.Plants != 20 {
			t.Errorf("%s: %+v", c.latitude, next)
		}
	}
}
