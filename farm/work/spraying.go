package work

import (
	"dewcount/core/climate"
	"dewcount/core/day"
	"dewcount/farm/look"
)

// When a spray does no good, or harm.
const (
	beesHome  = 0.5 // hours after sunset until the last bees are home
	burningC  = 25  // °C, from which on a spray burns leaves and dries before it works
	washingMM = 1   // mm of rain that wash it off
)

// Spraying is what the sky of today and tomorrow has to say to a spray.
type Spraying struct {
	BeesHome float64    // the solar hour of tonight from which on no bees fly
	HotC     float64    // °C of today where it is too hot, else 0
	Rain     []RainyDay // that would wash it off
}

// A RainyDay is a day with its rain in mm, on record or foretold.
type RainyDay struct {
	Day day.Day
	MM  float64
}

// SprayingOn tells when and whether to spray on the day that a snapshot is of.
func SprayingOn(s *look.Snapshot) Spraying {
	today := s.View.Today
	sunset := 12 + min(23, max(1, climate.SunHours(s.Model.Outlook.Latitude, today.YearDay())))/2
	out := Spraying{BeesHome: sunset + beesHome}
	if e := s.Stand.Weather(today); e.TmaxC >= burningC {
		out.HotC = e.TmaxC
	}
	rain := s.Book.Rain(today)
	for _, d := range []day.Day{today, today.Add(1)} {
		if mm := rain[d]; mm >= washingMM {
			out.Rain = append(out.Rain, RainyDay{d, mm})
		}
	}
	return out
}
