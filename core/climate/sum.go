package climate

import (
	"sort"

	"dewcount/core/day"
)

// quarters is how many steps of a day a Sum keeps: warmth comes in the afternoon, and a stem is cut in the morning.
const quarters = 4

// A Sum is a running sum of thermal time in °Cd from the first midnight of its days on. Every "when does X happen" is a
// search in it. It never falls.
type Sum struct {
	past  *Sum // of the days before first; nil where there are none
	first day.Day
	start float64   // its first instant
	cd    []float64 // at the end of each quarter day, and one before the first
}

// NewSum returns an empty sum that starts on day first with what was already gathered, in °Cd.
func NewSum(first day.Day, gatheredCd float64, days int) *Sum {
	return &Sum{first: first, start: first.At(0), cd: append(make([]float64, 0, quarters*days+1), gatheredCd)}
}

// Continue returns a sum that goes on where s ends and still knows what s knows: many weathers can share one past. It has
// room for so many days.
func (s *Sum) Continue(days int) *Sum {
	next := NewSum(s.End(), s.cd[len(s.cd)-1], days)
	next.past = s
	return next
}

// A Warmth is what the quarters of a day give, in °Cd.
type Warmth [quarters]float64

// Add appends a day's warmth, multiplied by rate (0 to 1).
func (s *Sum) Add(w Warmth, rate float64) {
	cd := s.cd[len(s.cd)-1]
	for _, more := range w {
		cd += more * rate
		s.cd = append(s.cd, cd)
	}
}

// AddEven appends a day over which so much is gathered evenly.
func (s *Sum) AddEven(more float64) {
	for range quarters {
		s.cd = append(s.cd, s.cd[len(s.cd)-1]+more/quarters)
	}
}

// End returns the first day that the sum no longer holds.
func (s *Sum) End() day.Day { return s.first.Add((len(s.cd) - 1) / quarters) }

// At returns the sum in °Cd at an instant in days, as day.Day.At gives it; before the first day it is what the sum
// started with, after the last what it ended with.
func (s *Sum) At(instant float64) float64 {
	place := (instant - s.start) * quarters
	if i := int(place); place > 0 && i < len(s.cd)-1 {
		return s.cd[i] + (place-float64(i))*(s.cd[i+1]-s.cd[i])
	}
	return s.outside(instant)
}

func (s *Sum) outside(instant float64) float64 {
	switch {
	case instant > s.start:
		return s.cd[len(s.cd)-1]
	case s.past != nil:
		return s.past.At(instant)
	default:
		return s.cd[0]
	}
}

// When returns the first instant in days at which the sum reaches cd, and whether it does so within its days.
func (s *Sum) When(cd float64) (float64, bool) {
	if s.past != nil && cd <= s.cd[0] {
		return s.past.When(cd)
	}
	i := sort.SearchFloat64s(s.cd, cd)
	if i == 0 {
		return s.first.At(0), true
	}
	if i == len(s.cd) {
		return s.End().At(0), false
	}
	part := (cd - s.cd[i-1]) / (s.cd[i] - s.cd[i-1])
	return s.first.At(0) + (float64(i-1)+part)/quarters, true
}
