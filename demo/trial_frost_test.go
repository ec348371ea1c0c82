package demo

import (
	"math"
	"slices"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/day"
	"dewcount/standin"
)

// Frost dates told from one to three years on record lie within five days of those of 200 years of the same weather: the one in ten and the usual one,
// of spring and autumn, of frosts that blacken and of hard ones. Minima that are told to differ as maxima do have them a fortnight off.
func TestFrostDatesComeTrue(t *testing.T) {
	const years, farms, most = 200, 12, 5
	newYear, summer := day.Must("2026-01-01"), 195
	for _, celsius := range []float64{0, -2} {
		var last, first []int // days of the year
		for seed := range uint64(years) {
			w, l, f := standin.NewWeather(standin.Valley, 1000+seed, newYear), 0, 365
			for i := range 365 {
				if w.On(newYear.Add(i)).TminC <= celsius {
					if i < summer {
						l = i
					} else {
						f = min(f, i)
					}
				}
			}
			last, first = append(last, l), append(first, f)
		}
		slices.Sort(last)
		slices.Sort(first)
		var told [4]float64
		for seed := range uint64(farms) {
			from := newYear.Add(-365 * (1 + int(seed)%3))
			w := standin.NewWeather(standin.Valley, seed, from)
			o := climate.Outlook{Latitude: 46.9, ElevationM: 520, From: newYear}
			for d := from; d.Before(newYear); d = d.Add(1) {
				on := w.On(d)
				o.Observed = append(o.Observed, climate.Dated{Day: d, Extremes: climate.Extremes{TminC: on.TminC, TmaxC: on.TmaxC}})
			}
			risk := climate.Frosts(climate.Series{First: newYear}, o.Members(60, 365, seed), celsius, o.Latitude, newYear.Add(summer))
			for k, d := range []day.Day{risk.Last(0.1), risk.Last(0.5), risk.First(0.1), risk.First(0.5)} {
				told[k] += float64(d.Sub(newYear)) / farms
			}
		}
		for k, came := range []int{last[years*9/10], last[years/2], first[years/10], first[years/2]} {
			if off := told[k] - float64(came); math.Abs(off) > most {
				t.Errorf("%v °C: date %d (last and first, one in ten and usual) is told %+.0f days beside the %s", celsius, k, off, newYear.Add(came))
			}
		}
	}
}
