package climate

import "dewcount/core/day"

// soilLagDays is over how many days the air is averaged to tell the warmth of the soil at 10 cm: the eleven-day mean of Zheng et al.
// (1993), Climate Research 2:183-191.
const soilLagDays = 11

// Soil returns the warmth of bare soil in °C on each day of a series: the mean of the air over the eleven days up to it, fewer at
// its beginning.
func (s Series) Soil() []float64 {
	soil := make([]float64, len(s.Days))
	sum := 0.0
	for i, e := range s.Days {
		sum += (e.TminC + e.TmaxC) / 2
		if i >= soilLagDays {
			gone := s.Days[i-soilLagDays]
			sum -= (gone.TminC + gone.TmaxC) / 2
		}
		soil[i] = sum / float64(min(i+1, soilLagDays))
	}
	return soil
}

// SoilWarm returns the first day not before from on which the soil is at least so warm, in °C, in a share (0 to 1) of the members
// after a past, and whether there is one.
func SoilWarm(past Series, members []Series, celsius, share float64, from day.Day) (day.Day, bool) {
	if len(members) == 0 {
		return day.Day{}, false
	}
	lead := past
	if n := len(past.Days); n > soilLagDays {
		lead = Series{past.First.Add(n - soilLagDays), past.Days[n-soilLagDays:]}
	}
	warm := make([]int, len(lead.Days)+len(members[0].Days))
	for _, m := range members {
		whole := Series{lead.First, append(append([]Extremes(nil), lead.Days...), m.Days...)}
		for i, celsiusNow := range whole.Soil() {
			if celsiusNow >= celsius {
				warm[i]++
			}
		}
	}
	for i, n := range warm {
		if d := lead.First.Add(i); !d.Before(from) && float64(n) >= share*float64(len(members)) {
			return d, true
		}
	}
	return day.Day{}, false
}
