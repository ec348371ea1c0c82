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

// A Span is a part of a day, in solar hours.
type Span struct{ From, To float64 }

// What cutting waits for: dew is gone so many hours after sunrise, and stems are not cut above hotC, or where the day is cool not
// in the upper part of its range.
const (
	dewHours  = 1.5
	hotC      = 22.0
	upperPart = 0.75
)

// CuttingHours returns the solar hours of a day in which stems can be cut: from when the dew has dried until it grows hot, and in the
// evening from when it has cooled until an hour after sunset. The morning may last the whole day where it never grows hot. The
// limits are ours: growers say "once the dew has dried and before it is hot".
func CuttingHours(before, today, after Extremes, sunHours float64) []Span {
	hours := Hours(before, today, after, sunHours)
	sun := min(23, max(1, sunHours))
	sunrise, end := 12-sun/2, min(24, 12+sun/2+1)
	start := sunrise + dewHours
	if today.TmaxC <= hotC {
		return []Span{{start, end}}
	}
	limit := max(hotC, today.TminC+upperPart*(today.TmaxC-today.TminC))
	at := func(h float64) float64 { // straight lines between the middles of the hours
		place := min(22.999, max(0, h-0.5))
		i := int(place)
		return hours[i] + (place-float64(i))*(hours[i+1]-hours[i])
	}
	const step = 0.25
	morning, evening := start, end
	for morning < 15 && at(morning) < limit {
		morning += step
	}
	for evening > 15 && at(evening) < limit {
		evening -= step
	}
	var spans []Span
	if morning > start {
		spans = append(spans, Span{start, morning})
	}
	if evening+step < end {
		spans = append(spans, Span{evening + step, end})
	}
	return spans
}
