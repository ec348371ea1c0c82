package work

import (
	"dewcount/core/climate"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/look"
)

// A seasonSky is the weather of a season as the rounds ask for it.
type seasonSky struct {
	stand    *forecast.Stand
	today    day.Day
	latitude float64
	rain     map[day.Day]float64
	seen     map[day.Day]climate.Extremes
	warm     map[growingDay]float64
}

// A growingDay is a day for crops that answer alike to its weather: what it brings is asked for by every sowing of theirs.
type growingDay struct {
	of climate.Response
	on day.Day
}

func newSeasonSky(s *look.Season) *seasonSky {
	return &seasonSky{stand: s.Stand, today: s.View.Today, latitude: s.Model.Outlook.Latitude, rain: s.Book.Rain(s.View.Today), seen: make(map[day.Day]climate.Extremes), warm: make(map[growingDay]float64)}
}

// Extremes returns a day's lowest and highest temperature, on record or the mean of the weathers that are possible.
func (s *seasonSky) Extremes(d day.Day) climate.Extremes {
	e, ok := s.seen[d]
	if !ok {
		e = s.stand.Weather(d)
		s.seen[d] = e
	}
	return e
}

// DegreeDays returns what a day's weather brings crops of a response, in °Cd.
func (s *seasonSky) DegreeDays(of climate.Response, d day.Day) float64 {
	key := growingDay{of, d}
	sum, ok := s.warm[key]
	if !ok {
		sum = of.SteadyDegreeDays(s.Extremes(d))
		s.warm[key] = sum
	}
	return sum
}

// Rain returns a day's rain in mm, and whether it is on record or foretold.
func (s *seasonSky) Rain(d day.Day) (float64, bool) {
	mm, known := s.rain[d]
	return mm, known
}

// NightBelow returns the chance that the minimum of a day is at or below celsius.
func (s *seasonSky) NightBelow(d day.Day, celsius float64) float64 {
	return s.stand.NightBelow(d, celsius)
}

// FirstBelow returns the likely day of the coming winter's first such minimum, zero if none is likely.
func (s *seasonSky) FirstBelow(celsius float64) day.Day {
	first := s.stand.Frosts(celsius, s.today).First(0.5)
	if first.Before(s.today) {
		return day.Day{}
	}
	return first
}

// WinterC returns the expected lowest temperature of the year to come.
func (s *seasonSky) WinterC() float64 { return s.stand.WinterC() }

// Latitude returns the farm's, in degrees north.
func (s *seasonSky) Latitude() float64 { return s.latitude }
