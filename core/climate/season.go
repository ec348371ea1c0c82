package climate

import (
	"math"

	"dewcount/core/day"
)

// A Season is the smooth seasonal mean of a place's daily extremes: a yearly wave for the minimum and one for the maximum.
type Season struct{ tmin, tmax yearWave }

// terms is how many numbers make a yearly wave: its mean, and the cosine and sine of a whole and of a half year.
const terms = 5

// A yearWave is a mean and two waves over the year, in °C.
type yearWave [terms]float64

// basis returns what a yearly wave is weighed with on a day of the year.
func basis(yearDay float64) [terms]float64 {
	angle := 2 * math.Pi * yearDay / 365.25
	return [terms]float64{1, math.Cos(angle), math.Sin(angle), math.Cos(2 * angle), math.Sin(2 * angle)}
}

func (w yearWave) on(yearDay int) float64 {
	sum := 0.0
	for i, b := range basis(float64(yearDay)) {
		sum += w[i] * b
	}
	return sum
}

// On returns the mean extremes of a day of the year (1 to 366).
func (s Season) On(yearDay int) Extremes {
	return Extremes{s.tmin.on(yearDay), s.tmax.on(yearDay)}
}

// lapseC is by how many °C the yearly mean falls with every metre of height (ICAO standard atmosphere, 1993).
const lapseC = 0.0065

// warmestDay is the day of the year on which the northern mean is highest, about a month after the longest day.
const warmestDay = 201

// UsualSeason is the season to expect at a latitude in degrees north and a height in metres where no day is on record. It is a
// coarse fit by eye to temperate places.
func UsualSeason(latitude, elevationM float64) Season {
	mean := 28 - 0.0065*latitude*latitude - lapseC*elevationM
	half := 0.2 * math.Abs(latitude)
	peak := 2 * math.Pi * warmestDay / 365.25
	if latitude < 0 {
		peak += math.Pi
	}
	wave := func(shift, amplitude float64) yearWave {
		return yearWave{mean + shift, amplitude * math.Cos(peak), amplitude * math.Sin(peak)}
	}
	return Season{tmin: wave(-5, half-0.5), tmax: wave(5, half+1.5)}
}

// MonthlySeason returns the season whose means over the twelve months, January first, come near to given ones in °C. A month's mean
// is flatter than the wave it is taken of, which is made up for.
func MonthlySeason(tminC, tmaxC [12]float64) Season {
	const month = 365.25 / 12
	wave := func(means [12]float64) yearWave {
		var w yearWave
		for i, mean := range means {
			for k, b := range basis((float64(i) + 0.5) * month) {
				w[k] += mean * b / 6
			}
		}
		w[0] /= 2
		for k := 1; k < terms; k++ {
			turns := float64((k + 1) / 2)
			flat := math.Pi * turns / 12
			w[k] *= flat / math.Sin(flat)
		}
		return w
	}
	return Season{wave(tminC), wave(tmaxC)}
}

// A Dated is the extremes of one day.
type Dated struct {
	Day day.Day
	Extremes
}

// An anomaly is how far a day lies from the seasonal mean: its middle and its range, in °C.
type anomaly struct{ middle, span float64 }

func (s Season) anomaly(d day.Day, e Extremes) anomaly {
	usual := s.On(d.YearDay())
	return anomaly{
		middle: (e.TminC+e.TmaxC)/2 - (usual.TminC+usual.TmaxC)/2,
		span:   (e.TmaxC - e.TminC) - (usual.TmaxC - usual.TminC),
	}
}

// leastSpanC is the least difference between a day's extremes that the members have.
const leastSpanC = 1.0

func (s Season) with(d day.Day, a anomaly) Extremes {
	usual := s.On(d.YearDay())
	middle := (usual.TminC+usual.TmaxC)/2 + a.middle
	half := max(leastSpanC, usual.TmaxC-usual.TminC+a.span) / 2
	return Extremes{middle - half, middle + half}
}
