package climate

import (
	"math"

	"dewcount/core/day"

	"gonum.org/v1/gonum/mat"
)

// A Season is the smooth seasonal mean of a place's daily extremes: a yearly wave for the minimum and one for the maximum.
type Season struct{ tmin, tmax yearWave }

// A yearWave is a mean and a wave over the year, in °C.
type yearWave struct{ mean, cos, sin float64 }

func (w yearWave) on(yearDay int) float64 {
	angle := 2 * math.Pi * float64(yearDay) / 365.25
	return w.mean + w.cos*math.Cos(angle) + w.sin*math.Sin(angle)
}

// On returns the mean extremes of a day of the year (1 to 366).
func (s Season) On(yearDay int) Extremes {
	return Extremes{s.tmin.on(yearDay), s.tmax.on(yearDay)}
}

// warmestDay is the day of the year on which the northern mean is highest, about a month after the longest day.
const warmestDay = 201

// UsualSeason is the season to expect at a latitude in degrees north and a height in metres where no day is on record. It is a
// coarse fit by eye to temperate places; the yearly mean falls by 6.5 °C a kilometre (ICAO standard atmosphere, 1993).
func UsualSeason(latitude, elevationM float64) Season {
	mean := 28 - 0.0065*latitude*latitude - 0.0065*elevationM
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

// How far a place may lie from its UsualSeason, and how much one day tells of it: neighbouring days repeat each other, so that a
// day counts for an eighth of an independent one.
const (
	usualMeanSdC = 4.0
	usualWaveSdC = 2.5
	dayMeanVarC2 = 8 * 4.0 * 4.0
)

// Fitted returns the season corrected by what is on record: least squares held back towards s (ridge regression, Hoerl &
// Kennard 1970), so that a short record moves the mean and a long one the whole wave.
func (s Season) Fitted(record []Dated) Season {
	if len(record) == 0 {
		return s
	}
	fit := func(usual yearWave, value func(Extremes) float64) yearWave {
		information := mat.NewSymDense(3, []float64{
			1 / (usualMeanSdC * usualMeanSdC), 0, 0,
			0, 1 / (usualWaveSdC * usualWaveSdC), 0,
			0, 0, 1 / (usualWaveSdC * usualWaveSdC)})
		pull := mat.NewVecDense(3, nil)
		for _, d := range record {
			yearDay := d.Day.YearDay()
			angle := 2 * math.Pi * float64(yearDay) / 365.25
			terms := mat.NewVecDense(3, []float64{1, math.Cos(angle), math.Sin(angle)})
			information.SymRankOne(information, 1/dayMeanVarC2, terms)
			pull.AddScaledVec(pull, (value(d.Extremes)-usual.on(yearDay))/dayMeanVarC2, terms)
		}
		var factored mat.Cholesky
		var shift mat.VecDense
		if !factored.Factorize(information) || factored.SolveVecTo(&shift, pull) != nil {
			return usual // the prior keeps the matrix definite; only values that are no numbers come here
		}
		return yearWave{usual.mean + shift.AtVec(0), usual.cos + shift.AtVec(1), usual.sin + shift.AtVec(2)}
	}
	return Season{
		tmin: fit(s.tmin, func(e Extremes) float64 { return e.TminC }),
		tmax: fit(s.tmax, func(e Extremes) float64 { return e.TmaxC }),
	}
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
