package look

import (
	"slices"

	"dewcount/core/forecast"
	"dewcount/farm/book"
)

// What is laid over a row makes its nights and days warmer by so many °C. Fleece as Wells & Loy (1985), HortScience 20:822-826, found of covers of spun fibre;
// shade cloth that takes half of the light is a guess.
var (
	fleece = forecast.Laid{NightC: 1.5, DayC: 4}
	shade  = forecast.Laid{NightC: 0, DayC: -2.5}
)

// laidOver returns what was last laid over a row, as its events have it.
func laidOver(events []book.Event) (laid [2]forecast.Laid) {
	events = slices.Clone(events)
	slices.SortStableFunc(events, func(a, b book.Event) int { return a.On.Compare(b.On) })
	for _, e := range events {
		lies := laid[1].Until.IsZero() && !laid[1].From.IsZero()
		switch e.Event {
		case book.Fleeced, book.Shaded, book.Uncovered:
			if lies {
				laid[1].Until = e.On // one thing lies at a time
			}
		}
		if next, ok := map[string]forecast.Laid{book.Fleeced: fleece, book.Shaded: shade}[e.Event]; ok {
			next.From = e.On
			laid[0], laid[1] = laid[1], next
		}
	}
	return laid
}
