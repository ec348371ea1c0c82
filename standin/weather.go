package standin

import (
	"math"
	"math/rand/v2"
	"slices"

	"dewcount/core/day"
)

// A Day is the weather of one day.
type Day struct{ TminC, TmaxC, RainMM float64 }

// A Climate is the means of each month's extremes at a place, in °C.
type Climate struct{ TminC, TmaxC [12]float64 }

// Valley is the climate of a made-up valley on the northern edge of mountains: 46.9 °N, 520 m.
var Valley = Climate{
	TminC: [12]float64{-2.8, -2.4, 0.6, 3.7, 8.0, 11.4, 13.3, 13.0, 9.6, 6.0, 1.3, -1.8},
	TmaxC: [12]float64{3.0, 5.0, 10.2, 14.4, 18.8, 22.5, 24.9, 24.2, 19.5, 14.0, 7.4, 3.6},
}

// A Weather is a weather service for a place. Spells of settled, mixed, wet and cold days follow each other; the same seed has the
// same weather.
type Weather struct {
	climate Climate
	seed    uint64
	first   day.Day
	days    []Day
	random  *rand.Rand
	spell   int
	noise   float64
}

// NewWeather returns a service whose weather begins on a day.
func NewWeather(c Climate, seed uint64, first day.Day) *Weather {
	return &Weather{climate: c, seed: seed, first: first, random: stream(seed, "weather"), spell: mixed}
}

const (
	settled = iota
	mixed
	wet
	cold
	spells
)

// A character is what a kind of spell does to the extremes in °C, how likely it rains and how much in mm, how long it lasts in
// days, and how often each kind follows it.
type character struct {
	tmin, tmax  float64
	rains, rain float64
	lasts       float64
	next        [spells]float64
}

var characters = [spells]character{
	settled: {-0.8, 3.4, 0.06, 2, 5, [spells]float64{0, 0.55, 0.35, 0.10}},
	mixed:   {0.4, 0.2, 0.35, 5, 3, [spells]float64{0.45, 0, 0.40, 0.15}},
	wet:     {0.9, -3.8, 0.85, 9, 2.5, [spells]float64{0.25, 0.55, 0, 0.20}},
	cold:    {-3.0, -3.4, 0.35, 3, 3, [spells]float64{0.45, 0.45, 0.10, 0}},
}

// On returns the weather of a day from the first on.
func (w *Weather) On(d day.Day) Day {
	for len(w.days) <= d.Sub(w.first) {
		w.days = append(w.days, w.next(w.first.Add(len(w.days))))
	}
	return w.days[d.Sub(w.first)]
}

// Otherwise is the same weather up to a day, and another one of the same climate from then on.
func (w *Weather) Otherwise(from day.Day, seed uint64) *Weather {
	w.On(from)
	other := *w
	other.days = slices.Clone(w.days[:from.Sub(w.first)])
	other.seed, other.random, other.noise, other.spell = seed, stream(seed, "weather"), 0, mixed
	return &other
}

func (w *Weather) next(d day.Day) Day {
	c := characters[w.spell]
	if w.random.Float64() < 1/c.lasts {
		u := w.random.Float64()
		for kind, share := range c.next {
			if u -= share; u < 0 {
				w.spell = kind
				break
			}
		}
		c = characters[w.spell]
	}
	w.noise = 0.55*w.noise + 1.3*w.random.NormFloat64()
	usual := w.climate.on(d)
	out := Day{
		TminC: usual.TminC + c.tmin + 0.8*w.noise + 0.7*w.random.NormFloat64(),
		TmaxC: usual.TmaxC + c.tmax + w.noise + 0.9*w.random.NormFloat64(),
	}
	if w.random.Float64() < c.rains {
		out.RainMM = c.rain * w.random.ExpFloat64()
	}
	return out.tidy()
}

// on is the mean of a day: straight lines between the middles of the months.
func (c Climate) on(d day.Day) Day {
	_, month, date := d.Date()
	place := float64(month-1) + (float64(date)-15)/30.4
	low := int(math.Floor(place))
	part := place - float64(low)
	a, b := (low+12)%12, (low+13)%12
	return Day{TminC: c.TminC[a] + part*(c.TminC[b]-c.TminC[a]), TmaxC: c.TmaxC[a] + part*(c.TmaxC[b]-c.TmaxC[a])}
}

// tidy rounds to the tenths that a service gives, and keeps the extremes apart.
func (d Day) tidy() Day {
	tenth := func(v float64) float64 { return math.Round(v*10)/10 + 0 } // no nought below nought
	return Day{tenth(d.TminC), tenth(max(d.TmaxC, d.TminC+0.5)), tenth(d.RainMM)}
}

// ForecastDays is how far a forecast reaches.
const ForecastDays = 7

// Forecast returns what the service says on the evening of a day of each of the days after it. Its error grows with the lead,
// and a whole forecast errs to one side.
func (w *Weather) Forecast(issued day.Day) []Day {
	r := stream(w.seed, "forecast", issued.String())
	bias, days := 0.0, make([]Day, ForecastDays)
	for lead := range days {
		d := issued.Add(lead + 1)
		truth, usual := w.On(d), w.climate.on(d)
		bias += 0.45 * r.NormFloat64()
		fades := 0.04 * float64(lead)
		days[lead] = Day{
			TminC:  truth.TminC + fades*(usual.TminC-truth.TminC) + 0.8*bias + 0.6*r.NormFloat64(),
			TmaxC:  truth.TmaxC + fades*(usual.TmaxC-truth.TmaxC) + bias + 0.7*r.NormFloat64(),
			RainMM: truth.RainMM * lognormal(r, 0.3+0.1*float64(lead)),
		}.tidy()
	}
	return days
}
