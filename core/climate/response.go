package climate

import "math"

// A Response is how fast a crop develops at a temperature: 0 at and below BaseC, fastest at OptC and 0 again at CeilingC (all °C, in that
// order).
type Response struct{ BaseC, OptC, CeilingC float64 }

// agrees is how far between BaseC and OptC a crop's values were measured, as we take it: there the rate is the degrees above the base.
const agrees = 0.6

// Rate returns the degrees above the base that a temperature counts for, in °C, never negative. It is the beta function of Yan & Hunt
// (1999), Annals of Botany 84:607-614, brought to the scale of degree-days: plants answer smoothly to temperature, and near their
// optimum hardly at all.
func (r Response) Rate(celsius float64) float64 { return r.rate(celsius, AsTable) }

// An Answer is how steeply a crop's pace rises with the temperature: a flat one minds the cold less than the table's three temperatures say,
// and makes less of warmth. Where the table's values were measured all answers agree.
type Answer int8

const (
	Flat    Answer = -1
	AsTable Answer = 0
	Steep   Answer = 1
)

// Answers are all there are.
var Answers = [...]Answer{Flat, AsTable, Steep}

// steepness is the power that the beta function is raised to (the curvature of Yin et al. 1995, Agric. Forest Meteorol. 77:1-16).
var steepness = [len(Answers)]float64{0.66, 1, 1.52}

// rate is Rate with any answer.
func (r Response) rate(celsius float64, as Answer) float64 {
	above := agrees * (r.OptC - r.BaseC)
	power := steepness[as-Flat]
	return above * math.Pow(r.beta(celsius)/r.beta(r.BaseC+above), power)
}

// beta returns the rate as a part of that at the optimum.
func (r Response) beta(celsius float64) float64 {
	if celsius <= r.BaseC || celsius >= r.CeilingC {
		return 0
	}
	shape := (r.OptC - r.BaseC) / (r.CeilingC - r.OptC)
	return (r.CeilingC - celsius) / (r.CeilingC - r.OptC) * math.Pow((celsius-r.BaseC)/(r.OptC-r.BaseC), shape)
}

// A Curve is a response worked out in steps, with each answer: a year of hours in forty weathers asks for it millions of times.
type Curve struct {
	baseC float64
	rates [curveSteps + 2][len(Answers)]float64
	step  float64
}

// curveSteps is how finely a curve is kept; between its steps it is straight, which is off by less than a thousandth of the optimum's rate
// but within a step of the ends.
const curveSteps = 256

// Curve returns the response in steps.
func (r Response) Curve() *Curve {
	c := &Curve{baseC: r.BaseC, step: (r.CeilingC - r.BaseC) / curveSteps}
	for i := range c.rates {
		for k, answer := range Answers {
			c.rates[i][k] = r.rate(r.BaseC+float64(i)*c.step, answer)
		}
	}
	return c
}

// Warmth returns what hourly temperatures in °C are worth, with each answer.
func (c *Curve) Warmth(hours *[24]float64) [len(Answers)]Warmth {
	var all [len(Answers)]Warmth
	const each = 24 / quarters
	for i, celsius := range hours {
		place := (celsius - c.baseC) / c.step
		if !(place > 0 && place < curveSteps) {
			continue
		}
		at := int(place)
		low, high, part := &c.rates[at], &c.rates[at+1], place-float64(at)
		for k := range all {
			all[k][i/each] += (low[k] + part*(high[k]-low[k])) / 24
		}
	}
	return all
}

// DegreeDays returns the thermal time of a day in °Cd: the mean response over its hours.
func (r Response) DegreeDays(hours [24]float64) float64 {
	sum := 0.0
	for _, celsius := range hours {
		sum += r.Rate(celsius)
	}
	return sum / 24
}

// SteadyDegreeDays returns the thermal time in °Cd of a day under cover that swings as a sine between two temperatures
// in °C, whatever the season, and a straight mean where both are the same.
func (r Response) SteadyDegreeDays(e Extremes) float64 {
	return r.DegreeDays(Hours(e, e, e, evenSunH))
}
