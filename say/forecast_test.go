package say

import (
	"strings"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/look"
)

// A page says of a new farm what its season rests on: the climate that was chosen, or the place alone.
func TestWhatAForecastRestsOnWithoutWeather(t *testing.T) {
	chosen := climate.UsualSeason(47, 500)
	for usual, want := range map[*climate.Season]string{nil: "usual for this latitude and height.", &chosen: "that of the climate in the settings."} {
		s := &Snapshot{Snapshot: &look.Snapshot{Model: &forecast.Farm{Outlook: climate.Outlook{Usual: usual}}, Stand: &forecast.Stand{}}}
		if words := Rests(s); !strings.HasPrefix(words, "No weather is on record: ") || !strings.HasSuffix(words, want) {
			t.Errorf("%q, want it to end in %q", words, want)
		}
	}
}

// The next cut is the first at which stems are likely; where none are, the page says when most may be.
func TestWhenTheNextCutIs(t *testing.T) {
	of := func(picks ...[]int32) string {
		f := &forecast.Forecast{Plantings: make([]forecast.Cells, 1)}
		for j, stems := range picks {
			f.PickDays = append(f.PickDays, day.Of(2026, 7, 10+j))
			var uses [crop.Uses]forecast.Spread
			uses[crop.Market] = forecast.SpreadOf(stems)
			f.Plantings[0].ByPick = append(f.Plantings[0].ByPick, uses)
		}
		return NextCut(&Snapshot{Snapshot: &look.Snapshot{Forecast: f}}, 0)
	}
	none := []int32{0, 0, 0}
	for got, want := range map[string]string{
		of(none, none): "Nothing to cut in the next five weeks.",
		of(none, []int32{0, 0, 4}, []int32{0, 0, 9}): "Likely nothing to cut in the next five weeks; at best 9 stems on Sun 12 July.",
		of([]int32{0, 0, 4}, []int32{2, 5, 6}, none): "Sat 11 July: 2 sure, 5 likely, 6 at best.",
		of([]int32{0, 0, 1}, none, []int32{0, 0, 1}): "Likely nothing to cut in the next five weeks; at best 1 stem on Fri 10 July.",
	} {
		if got != want {
			t.Errorf("%q, want %q", got, want)
		}
	}
}
