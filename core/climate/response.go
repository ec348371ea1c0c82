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
func (r Response) Rate(celsius float64) float64 {
	return r.scale() * r.beta(celsius)
}

// beta returns the rate as a part of that at the optimum.
func (r Response) beta(celsius float64) float64 {
	if celsius <= r.BaseC || celsius >= r.CeilingC {
		return 0
	}
	shape := (r.OptC - r.BaseC) / (r.CeilingC - r.OptC)
	return (r.CeilingC - celsius) / (r.CeilingC - r.OptC) * math.Pow((celsius-r.BaseC)/(r.OptC-r.BaseC), shape)
}

// scale returns the rate at the optimum, in °C.
func (r Response) scale() float64 {
	above := agrees * (r.OptC - r.BaseC)
	return above / r.beta(r.BaseC+above)
}

// A Curve is a response worked out in steps: a year of hours in forty weathers asks for it millions of times.
type Curve struct {
	baseC float64
	rates [curveSteps + 2]float64
	step  float64
}

// curveSteps is how finely a curve is kept; between its steps it is straight, which is off by less than a thousandth of the optimum's rate
// but within a step of the ends.
const curveSteps = 256

// Curve returns the response in steps.
func (r Response) Curve() *Curve {
	c := &Curve{baseC: r.BaseC, step: (r.CeilingC - r.BaseC) / curveSteps}
	for i := range c.rates {
		c.rates[i] = r.Rate(r.BaseC + float64(i)*c.step)
	}
	return c
}

func (c *Curve) rate(celsius float64) float64 {
	place := (celsius - c.baseC) / c.step
	if !(place > 0 && place < curveSteps) {
		return 0
	}
	i := int(place)
	return c.rates[i] + (place-float64(i))*(c.rates[i+1]-c.rates[i])
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
// in °C, and a straight mean where both are the same.
func (r Response) SteadyDegreeDays(e Extremes) float64 {
	return r.DegreeDays(Hours(e, e, e, 12))
}
