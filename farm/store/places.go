package store

import (
	"slices"
	"sort"

	"dewcount/core/day"
	"dewcount/core/postharvest"
	"dewcount/farm/book"
)

// readingLasts is for how many days a thermometer's reading is believed until the next: after that the place is what it is set to again.
const readingLasts = 0.5

// A keeper knows the places of a farm, and what their thermometers showed in the order of time.
type keeper struct {
	places   map[string]book.StorePlace
	readings map[string][]book.Reading
}

func newKeeper(b *book.Book) keeper {
	k := keeper{make(map[string]book.StorePlace), make(map[string][]book.Reading)}
	for _, p := range b.StorePlaces {
		k.places[p.ID] = p
	}
	for _, r := range b.Readings {
		k.readings[r.Place] = append(k.readings[r.Place], r)
	}
	for _, readings := range k.readings {
		slices.SortStableFunc(readings, func(x, y book.Reading) int { return x.At.Compare(y.At) })
	}
	return k
}

// On returns what a heap will be on the morning of a day if it stays where it stands from a moment on.
func (h *Heap) On(b *book.Book, now day.Moment, on day.Day) postharvest.Stem {
	celsius := restingC
	if p, ok := b.StorePlace(h.Place); ok {
		celsius = p.Celsius
	}
	days := max(0, on.At(cutHour)-now.Instant(cutHour))
	return postharvest.After(h.Crop, h.CutOn, append(slices.Clip(h.History), postharvest.Stay{Days: days, Celsius: celsius}))
}

// stay adds to a heap's history that it stood where it does up to an instant.
func (k keeper) stay(h *Heap, until float64) {
	if until <= h.since {
		return
	}
	place, ok := k.places[h.Place]
	if !ok {
		h.History = append(h.History, postharvest.Stay{Days: until - h.since, Celsius: restingC})
		h.since = until
		return
	}
	stays := k.temperatures(place, h.since, until)
	for _, s := range stays {
		if place.Kind != book.Loft {
			h.Lost += s.Days * (postharvest.Ages(h.Crop, s.Celsius) - postharvest.Ages(h.Crop, place.Celsius))
		}
	}
	h.History = append(h.History, stays...)
	h.since = until
}

// temperatures returns how warm a place was between two instants: as its thermometer showed, and what it is set to where nothing was read.
func (k keeper) temperatures(place book.StorePlace, from, until float64) postharvest.History {
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
	readings := k.readings[place.ID]
	first := sort.Search(len(readings), func(i int) bool { return readings[i].At.Instant(cutHour) >= from-readingLasts })
	for _, r := range readings[first:] {
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
