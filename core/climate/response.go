package climate

// A Response is how fast a crop develops at a temperature: 0 at and below BaseC, rising in a straight line to OptC,
// falling in a straight line to 0 at CeilingC (all °C, in that order).
type Response struct{ BaseC, OptC, CeilingC float64 }

// Rate returns the degrees above the base that a temperature counts for, in °C, never negative.
func (r Response) Rate(celsius float64) float64 {
	switch {
	case celsius <= r.BaseC || celsius >= r.CeilingC:
		return 0
	case celsius <= r.OptC:
		return celsius - r.BaseC
	default:
		return (r.OptC - r.BaseC) * (r.CeilingC - celsius) / (r.CeilingC - r.OptC)
	}
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
