package say

import (
	"strings"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/look"
)

// By as many days as what is supposed is worth, all of them 4 °C colder by night than was said: half of that is believed, and middles that are 2 °C
// off err by √((1.21 + 1) / 2) = 1.05 °C a day ahead; 7^0.6 = 3.2 times that a week ahead would be more than the season's own 3.3 °C.
func TestServiceIsSaid(t *testing.T) {
	foretold := func(n int, nightC, dayC float64) *Snapshot {
		m := &forecast.Farm{Outlook: climate.Outlook{Latitude: 46.9, ElevationM: 520}}
		for i := range n {
			said := climate.Extremes{TminC: 9, TmaxC: 20}
			m.Outlook.Foretold = append(m.Outlook.Foretold, climate.Foretold{Dated: climate.Dated{Day: day.Must("2026-05-01").Add(i), Extremes: said},
				LeadDays: 1, Came: climate.Extremes{TminC: 9 + nightC, TmaxC: 20 + dayC}})
		}
		return &Snapshot{Snapshot: &look.Snapshot{Model: m}}
	}
	for want, snap := range map[string]*Snapshot{
		"": foretold(69, -4, 0),
		"By 140 days that were forecast and have come, the weather forecast errs by about 1.1 °C for the next day and 3.3 °C a week ahead; nights are expected 2.0 °C colder than it says and days as it says.": foretold(140, -4, 0),
		"By 70 days that were forecast and have come, the weather forecast errs by about 0.9 °C for the next day and 2.9 °C a week ahead; nights and days are expected as it says.":                             foretold(70, 0, 0),
	} {
		if got := Service(snap); !strings.HasPrefix(got, want) || (want == "") != (got == "") {
			t.Errorf("said: %s, want %s", got, want)
		}
	}
}
