package climate

import "math"

// Extremes are a day's lowest and highest air temperature in °C.
type Extremes struct{ TminC, TmaxC float64 }

// The coefficients of Parton & Logan (1981) for air at 1.5 m.
const (
	maximumLagH  = 1.86  // a: hours by which the warmest hour lags noon, doubled in the sine
	nightDecay   = 2.20  // b: how steeply the night cools
	minimumLeadH = -0.17 // c: hours from sunrise to the coldest hour
)

// Hours returns the air temperature in °C in the middle of each hour of a day, in solar time, from its extremes and its
// neighbours' and the hours from sunrise to sunset (0 to 24; held to 1 to 23 so that polar days have a wave too).
//
// By day it is a sine, by night an exponential fall: Parton & Logan (1981), Agricultural Meteorology 23:205-216. The fall
// is stretched so that it reaches the next morning's minimum, which theirs misses by a ninth of the way.
func Hours(before, today, after Extremes, sunHours float64) [24]float64 {
	sun := min(23, max(1, sunHours))
	wave := wave{lightH: sun, coldestH: 12 - sun/2 + minimumLeadH}
	var hours [24]float64
	for h := range hours {
		at := float64(h) + 0.5
		switch {
		case at < wave.coldestH:
			hours[h] = wave.night(at+24, before, today.TminC)
		case at < wave.sunsetH():
			hours[h] = wave.day(at, today)
		default:
			hours[h] = wave.night(at, today, after.TminC)
		}
	}
	return hours
}

// evenSunH is how many hours of sun a day has whose Hours are on their mean what its extremes are.
const evenSunH = 13.7

// WarmthHours returns the hours of a day as thermal time takes them: those of a day whose sun lies half way to a day of even hours. The course above
// has the mean of a short day below the middle of its extremes and that of a long day above it, by 0.4 °C at 47 degrees, while crop tables
// count from the middle (McMaster & Wilhelm 1997, Agric. Forest Meteorol. 87:291-300, method 1). Which of them a farm's days are nearer to is not
// known, so half of the difference is believed (our choice).
func WarmthHours(before, today, after Extremes, sunHours float64) [24]float64 {
	return Hours(before, today, after, (sunHours+evenSunH)/2)
}

type wave struct{ lightH, coldestH float64 }

func (w wave) sunsetH() float64 { return 12 + w.lightH/2 }

func (w wave) day(at float64, e Extremes) float64 {
	return e.TminC + (e.TmaxC-e.TminC)*math.Sin(math.Pi*(at-w.coldestH)/(w.lightH+2*maximumLagH))
}

func (w wave) night(at float64, evening Extremes, coldest float64) float64 {
	sunset := w.sunsetH()
	length := 24 + w.coldestH - sunset
	fallen := (1 - math.Exp(-nightDecay*(at-sunset)/length)) / (1 - math.Exp(-nightDecay))
	from := w.day(sunset, evening)
	return from + (coldest-from)*fallen
}
