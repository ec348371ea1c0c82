package morning

import (
	"strings"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/say"
)

// A forecast of −5 °C for the third night names that night and the tender row, and not the cornflower, which bears it; 38 °C the day before
// name that day.
func TestFrostAndHeatWarningsNameTheDayAndTheRows(t *testing.T) {
	b := book.NewBook(nil)
	for key, value := range map[string]string{"name": "Meadow", "latitude": "46.9", "longitude": "7.2", "elevation_m": "400",
		"timezone": "Europe/Zurich", "pick_days": "tue fri"} {
		b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
	}
	for id, cropID := range map[string]string{"ZC1": "zinnia-tall", "CO1": "cornflower"} {
		b.Varieties = append(b.Varieties, book.Variety{Name: id, Crop: cropID})
		b.Plantings = append(b.Plantings, book.Planting{ID: id, Variety: id, Method: crop.Direct, StartedOn: day.Must("2026-07-20"), Plants: 60})
	}
	today := day.Must("2026-09-20")
	for d := day.Must("2026-07-01"); d.Before(today); d = d.Add(1) {
		b.Weather = append(b.Weather, book.WeatherDay{Date: d, TminC: 12, TmaxC: 22})
	}
	for i, span := range [][2]float64{{12, 20}, {11, 38}, {-5, 20}, {9, 20}, {10, 20}} {
		b.Weather = append(b.Weather, book.WeatherDay{Date: today.Add(i), TminC: span[0], TmaxC: span[1], IssuedOn: today.Add(-1)})
	}
	snap, err := look.NewSnapshot(b, 0, look.Morning(today), nil)
	if err != nil {
		t.Fatal(err)
	}
	got := ""
	for _, w := range warnings(&say.Snapshot{Snapshot: snap}) {
		got += w.Words + " "
		if w.Frost != strings.HasPrefix(w.Words, "Frost") {
			t.Errorf("%q leads to the page of a frost: %v", w.Words, w.Frost)
		}
	}
	if !strings.Contains(got, "Frost may kill ZC1 by Tue 22 September") || strings.Contains(got, "CO1") {
		t.Errorf("the warnings are %q", got)
	}
	if !strings.Contains(got, "°C are expected on Mon 21 September: stems open fast in such heat. Cut them early, a rung tighter than usual,") {
		t.Errorf("of the heat before it they say %q", got)
	}
}
