package cutting

import "dewcount/core/climate"

// A Span is a part of a day, in solar hours.
type Span struct{ From, To float64 }

// A Daytime is when stems can be cut on a day: in no span where there is no light, or no thaw.
type Daytime struct {
	Spans  []Span
	Hot    bool // the heat ends the first of them
	Frozen bool // it is the thaw that the morning waits for, and not the dew
}

// What cutting waits for. Nothing measures the dew: it is taken to be gone a fixed time after sunrise. The light goes with the end of civil
// twilight, half an hour after sunset or so. What is frozen breaks, and is cut when the air has thawed it. Growers stop "before it is hot": at UsualUntilC where they say nothing else, and nowhere later
// than hottestC.
const (
	dewHours      = 1.5
	twilightHours = 0.5
	UsualUntilC   = 22.0
	hottestC      = 24.0
	thawedC       = 1.0
	leastHour     = 1.0 // that is left of a day which is too hot from dawn on
)

// Hours returns the solar hours of a day in which stems can be cut: from when the dew has dried, or the frost has gone, until the air reaches untilC (°C), and in the
// evening from when it has cooled below that until the light goes. The morning lasts the whole day where it never grows so hot; where it is
// hotter from dawn on, its first hour is left. sunHours lie between sunrise and sunset.
func Hours(before, today, after climate.Extremes, sunHours, untilC float64) Daytime {
	hours := climate.Hours(before, today, after, sunHours)
	sun := min(23, max(1, sunHours))
	start, end := 12-sun/2+dewHours, min(24, 12+sun/2+twilightHours)
	if start >= end {
		return Daytime{}
	}
	limit := min(untilC, hottestC)
	at := func(h float64) float64 { // straight lines between the middles of the hours
		place := min(22.999, max(0, h-0.5))
		i := int(place)
		return hours[i] + (place-float64(i))*(hours[i+1]-hours[i])
	}
	const step = 0.25
	frozen := at(start) < thawedC
	for start < end && at(start) < thawedC {
		start += step
	}
	if start >= end {
		return Daytime{Frozen: true}
	}
	morning, evening := start, end
	for morning < end && at(morning) < limit {
		morning += step
	}
	if morning >= end {
		return Daytime{Spans: []Span{{start, end}}, Frozen: frozen}
	}
	for evening > morning && at(evening) < limit {
		evening -= step
	}
	spans := []Span{{start, max(morning, min(end, start+leastHour))}}
	if morning > start {
		spans[0].To = morning
	}
	if evening+step < end {
		spans = append(spans, Span{evening + step, end})
	}
	return Daytime{spans, true, frozen}
}
