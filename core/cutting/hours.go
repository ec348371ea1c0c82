package cutting

import "dewcount/core/climate"

// A Span is a part of a day, in solar hours.
type Span struct{ From, To float64 }

// What cutting waits for. Nothing measures the dew: it is taken to be gone a fixed time after sunrise. The light goes with the end of civil
// twilight, half an hour after sunset or so. Growers stop "before it is hot": at UsualUntilC where they say nothing else, and nowhere later
// than hottestC.
const (
	dewHours      = 1.5
	twilightHours = 0.5
	UsualUntilC   = 22.0
	hottestC      = 24.0
	leastHour     = 1.0 // that is left of a day which is too hot from dawn on
)

// Hours returns the solar hours of a day in which stems can be cut: from when the dew has dried until the air reaches untilC (°C), and in the
// evening from when it has cooled below that until the light goes. The morning lasts the whole day where it never grows so hot; where it is
// hotter from dawn on, its first hour is left. sunHours lie between sunrise and sunset. hot tells whether it is the heat that ends the morning.
func Hours(before, today, after climate.Extremes, sunHours, untilC float64) (spans []Span, hot bool) {
	hours := climate.Hours(before, today, after, sunHours)
	sun := min(23, max(1, sunHours))
	start, end := 12-sun/2+dewHours, min(24, 12+sun/2+twilightHours)
	if start >= end {
		return nil, false
	}
	limit := min(untilC, hottestC)
	at := func(h float64) float64 { // straight lines between the middles of the hours
		place := min(22.999, max(0, h-0.5))
		i := int(place)
		return hours[i] + (place-float64(i))*(hours[i+1]-hours[i])
	}
	const step = 0.25
	morning, evening := start, end
	for morning < end && at(morning) < limit {
		morning += step
	}
	if morning >= end {
		return []Span{{start, end}}, false
	}
	for evening > morning && at(evening) < limit {
		evening -= step
	}
	spans = []Span{{start, max(morning, min(end, start+leastHour))}}
	if morning > start {
		spans[0].To = morning
	}
	if evening+step < end {
		spans = append(spans, Span{evening + step, end})
	}
	return spans, true
}
