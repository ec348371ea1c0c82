package work

import (
	"testing"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// At 46.9 N the sun of 9 July sets some 7.8 solar hours after noon; bees are home half an hour later. A spray is warned of heat from 25 °C
// on and of rain from 1 mm on, as it was observed or else foretold last.
func TestSprayingIsToldFromHeatAndRain(t *testing.T) {
	today := day.Must("2026-07-09")
	mm := func(x float64) *float64 { return &x }
	b := book.NewBook(nil)
	for key, value := range map[string]string{"name": "Meadow", "latitude": "46.9", "longitude": "7.2", "elevation_m": "400", "timezone": "Europe/Zurich", "pick_days": "tue fri"} {
		b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
	}
	b.Weather = []book.WeatherDay{
		{Date: today.Add(-1), TminC: 14, TmaxC: 24, RainMM: mm(9)},
		{Date: today, TminC: 14, TmaxC: 29, RainMM: mm(0.9)},
		{Date: today, TminC: 14, TmaxC: 29, RainMM: mm(20), IssuedOn: today.Add(-1)}, // it was observed since
		{Date: today.Add(1), TminC: 14, TmaxC: 24, RainMM: mm(6), IssuedOn: today},
		{Date: today.Add(1), TminC: 14, TmaxC: 24, RainMM: mm(0), IssuedOn: today.Add(-2)}, // foretold earlier
		{Date: today.Add(1), TminC: 14, TmaxC: 24, RainMM: mm(30), IssuedOn: today.Add(1)}, // not known yet
	}
	s, err := look.NewSnapshot(b, 0, look.Morning(today), nil)
	if err != nil {
		t.Fatal(err)
	}
	got := SprayingOn(s)
	if got.BeesHome < 20.2 || got.BeesHome > 20.5 {
		t.Errorf("bees are home at %.1f", got.BeesHome)
	}
	if got.HotC < 27 || got.HotC > 31 {
		t.Errorf("too hot at %.1f °C, want about 29", got.HotC)
	}
	if len(got.Rain) != 1 || got.Rain[0] != (RainyDay{today.Add(1), 6}) {
		t.Errorf("rain %v, want 6 mm tomorrow", got.Rain)
	}
}
