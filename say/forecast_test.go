package say

import (
	"strings"
	"testing"

	"dewcount/core/climate"
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
