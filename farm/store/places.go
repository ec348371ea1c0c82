package store

import (
	"slices"

	"dewcount/core/postharvest"
	"dewcount/farm/book"
)

// readingLasts is for how many days a thermometer's reading is believed until the next: after that the place is what it is set to again.
const readingLasts = 0.5

// stay adds to a heap's history that it stood where it does up to an instant.
func (h *Heap) stay(b *book.Book, until float64) {
	if until <= h.since {
		return
	}
	place, ok := b.StorePlace(h.Place)
	if !ok {
		h.History = append(h.History, postharvest.Stay{Days: until - h.since, Celsius: restingC})
		h.since = until
		return
	}
	stays := Temperatures(b, place, h.since, until)
	for _, s := range stays {
		if place.Kind != book.Loft {
			h.Lost += s.Days * (postharvest.Ages(h.Crop, s.Celsius) - postharvest.Ages(h.Crop, place.Celsius))
		}
	}
	h.History = append(h.History, stays...)
	h.since = until
}

// Temperatures returns how warm a place was between two instants: as its thermometer showed, and what it is set to where nothing was read.
func Temperatures(b *book.Book, place book.StorePlace, from, until float64) postharvest.History {
	var history postharvest.History
	at, celsius, believed := from, place.Celsius, from
	add := func(to, c float64) {
		if to = min(to, until); to > at {
			history = append(history, postharvest.Stay{Days: to - at, Celsius: c})
			at = to
		}
	}
	step := func(to float64) {
		add(min(to, believed), celsius)
		add(to, place.Celsius)
	}
	readings := slices.DeleteFunc(slices.Clone(b.Readings), func(r book.Reading) bool { return r.Place != place.ID })
	slices.SortStableFunc(readings, func(x, y book.Reading) int { return x.At.Compare(y.At) })
	for _, r := range readings {
		when := r.At.Instant(cutHour)
		if when >= until {
			break
		}
		if when > from {
			step(when)
		}
		celsius, believed = r.Celsius, when+readingLasts
	}
	step(until)
	return history
}
