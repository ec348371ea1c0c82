// Package climate turns daily temperature extremes into what plants feel: hourly temperatures, thermal time in degree-days,
// hours of light; and it draws the possible weathers of the days ahead.
//
// Times are solar: within a day nothing here depends on the zone of the clock. Temperatures are °C, thermal times °Cd.
package climate

import (
	"dewcount/core/day"
)

// A Series is the extremes of consecutive days.
type Series struct {
	First day.Day
	Days  []Extremes
}

// End returns the first day after the series.
func (s Series) End() day.Day { return s.First.Add(len(s.Days)) }

// Warmer returns the series as it is under a cover that adds so many °C to the nights' and the days' extremes.
func (s Series) Warmer(nightC, dayC float64) Series {
	days := make([]Extremes, len(s.Days))
	for i, e := range s.Days {
		days[i] = Extremes{e.TminC + nightC, e.TmaxC + dayC}
	}
	return Series{s.First, days}
}

// FirstAtOrBelow returns the first day not before from whose minimum is at or below celsius.
func (s Series) FirstAtOrBelow(celsius float64, from day.Day) (day.Day, bool) {
	for i := max(0, from.Sub(s.First)); i < len(s.Days); i++ {
		if s.Days[i].TminC <= celsius {
			return s.First.Add(i), true
		}
	}
	return day.Day{}, false
}

// Hourly is the temperatures in °C of each hour of consecutive days, as thermal time takes them, and the middles of their extremes.
type Hourly struct {
	First   day.Day
	Hours   [][24]float64
	Middles []float64
}

// To returns the first days of h, so many at most.
func (h *Hourly) To(days int) *Hourly {
	days = min(days, len(h.Hours))
	return &Hourly{h.First, h.Hours[:days], h.Middles[:days]}
}

// Hourly returns the WarmthHours of each day at a latitude in degrees north. The days outside the series
// are taken to be like its first and last.
func (s Series) Hourly(latitude float64) *Hourly {
	h := &Hourly{s.First, make([][24]float64, len(s.Days)), make([]float64, len(s.Days))}
	var sun [366]float64
	for i := range sun {
		sun[i] = SunHours(latitude, i+1)
	}
	yearDay := s.First.YearDay()
	for i, today := range s.Days {
		if i > 0 {
			if yearDay++; yearDay >= 366 {
				yearDay = s.First.Add(i).YearDay()
			}
		}
		before, after := s.Days[max(0, i-1)], s.Days[min(len(s.Days)-1, i+1)]
		h.Hours[i] = WarmthHours(before, today, after, sun[yearDay-1])
		h.Middles[i] = (today.TminC + today.TmaxC) / 2
	}
	return h
}
