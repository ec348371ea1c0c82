package climate

import (
	"math"
	"math/rand/v2"
)

// A Foretold is a forecast of a day that has been observed since.
type Foretold struct {
	Dated        // the day, and what was said of it
	LeadDays int // from the evening on which it was issued: 1 is the day after
	Came     Extremes
}

// How the error of an issued forecast grows: its standard deviation in °C is forecastDayC times the lead in days to the power
// forecastGrowth.
const (
	forecastDayC   = 1.1
	forecastGrowth = 0.6
)

// A Service is how forecasts err at a place, in the middles and in the ranges of days.
type Service struct {
	Days         int // that it was learned from
	middle, span forecastError
}

// A forecastError is by how much days come out above what is said of them, in °C, and the standard deviation of that at a lead of one day and at
// most, which is that of the season: nobody errs by more who says that a day will be as usual.
type forecastError struct{ biasC, dayC, mostC float64 }

// Known tells whether enough of what it said has come to say something of it: ten evenings' forecasts of a week.
func (s Service) Known() bool {
	const enough = 10 * 7
	return s.Days >= enough
}

// NightsC returns by how much nights come out warmer than is said of them, in °C; below 0 for colder.
func (s Service) NightsC() float64 { return s.middle.biasC - s.span.biasC/2 }

// DaysC returns by how much days come out warmer than is said of them, in °C; below 0 for colder.
func (s Service) DaysC() float64 { return s.middle.biasC + s.span.biasC/2 }

// ErrsC returns the standard deviation of a forecast's error of the middle of a day, in °C, so many days ahead (1 or more).
func (s Service) ErrsC(leadDays int) float64 { return s.middle.sdC(leadDays) }

func (f forecastError) sdC(leadDays int) float64 {
	return min(f.mostC, f.dayC*math.Pow(float64(leadDays), forecastGrowth))
}

// supposedDays is how many days that were foretold and came tell as much as what is supposed: twenty evenings' forecasts of a week, since the days of
// one evening, and evenings that follow each other, are much the same news.
const supposedDays = 20 * 7

// Service returns how the forecasts on record have erred. Where none is they are taken to be right on average, and to err as forecasts do.
func (o Outlook) Service() Service { return o.service(o.habits(o.Season())) }

func (o Outlook) service(season habits) Service {
	var middle, span errorSums
	for _, f := range o.Foretold {
		missed := (f.Came.TminC + f.Came.TmaxC - f.TminC - f.TmaxC) / 2
		if math.Abs(missed) > oddC {
			continue // the pen slipped
		}
		middle.add(f.LeadDays, missed)
		span.add(f.LeadDays, f.Came.TmaxC-f.Came.TminC-f.TmaxC+f.TminC)
	}
	return Service{int(middle.n), middle.learned(season.middle), span.learned(season.span)}
}

// errorSums are sums over days that were foretold, each error as a multiple of how far forecasts of its lead err beside those of one day.
type errorSums struct{ n, weight, errors, squares float64 }

func (e *errorSums) add(leadDays int, errorC float64) {
	weight := math.Pow(float64(leadDays), -2*forecastGrowth)
	e.n++
	e.weight += weight
	e.errors += weight * errorC
	e.squares += weight * errorC * errorC
}

// learned returns the mean of the errors and their spread about it, each drawn towards what is supposed as a conjugate prior does (Gelman et al. 2013,
// Bayesian Data Analysis, 3rd ed., ch. 2.5 and 2.6).
func (e *errorSums) learned(season habit) forecastError {
	if e.n == 0 {
		return forecastError{0, forecastDayC, season.sdC}
	}
	bias := e.errors / e.weight * e.n / (e.n + supposedDays)
	squares := e.squares - 2*bias*e.errors + bias*bias*e.weight
	return forecastError{bias, math.Sqrt((supposedDays*forecastDayC*forecastDayC + squares) / (supposedDays + e.n)), season.sdC}
}

// after returns the error of a forecast for lead days ahead (from 0), its mean beside, after its error a day earlier, of which so much stays.
func (f forecastError) after(before float64, lead int, stays float64, random *rand.Rand) float64 {
	now, then := f.sdC(lead+1), f.sdC(lead)
	kept := stays * then
	return stays*before + math.Sqrt(max(0, now*now-kept*kept))*random.NormFloat64()
}
