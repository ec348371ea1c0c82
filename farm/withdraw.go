package farm

import (
	"errors"
	"fmt"
	"slices"

	"dewcount/core/day"
)

// ErrNoSuchRecord is that a record is neither on record nor in the history.
var ErrNoSuchRecord = errors.New("this is not on record: look at the page anew")

// Record returns the record of a kind and id as text, and whether it stands.
func (b *Book) Record(k *Kind, id string) (Record, bool) {
	return find(b.Records(k), func(r Record) bool { return r.ID() == id })
}

// byID returns the records of a kind by their ids.
func (b *Book) byID(k *Kind) map[string]Record {
	all := make(map[string]Record)
	for _, r := range b.Records(k) {
		all[r.ID()] = r
	}
	return all
}

// remove takes a record out of the book.
func (b *Book) remove(r Record) {
	id := r.ID()
	switch r.Kind {
	case &Settings:
		b.Settings = without(b.Settings, id)
	case &Weather:
		b.Weather = without(b.Weather, id)
	case &Beds:
		b.Beds = without(b.Beds, id)
	case &Trays:
		b.Trays = without(b.Trays, id)
	case &ExtraPicks:
		b.ExtraPicks = slices.DeleteFunc(slices.Clone(b.ExtraPicks), func(d day.Day) bool { return d.String() == id })
	case &Varieties:
		b.Varieties = without(b.Varieties, id)
	case &Plantings:
		b.Plantings = without(b.Plantings, id)
	case &Events:
		b.Events = without(b.Events, id)
	case &Counts:
		b.Counts = without(b.Counts, id)
	case &Cuts:
		b.Cuts = without(b.Cuts, id)
	case &Scoutings:
		b.Scoutings = without(b.Scoutings, id)
	case &Sprays:
		b.Sprays = without(b.Sprays, id)
	case &Jobs:
		b.Jobs = without(b.Jobs, id)
	case &Schools:
		b.Schools = without(b.Schools, id)
	case &Orders:
		b.Orders = without(b.Orders, id)
	case &OrderLines:
		b.OrderLines = without(b.OrderLines, id)
	case &Makers:
		b.Made = without(b.Made, id)
	case &RecipeLines:
		b.RecipeLines = without(b.RecipeLines, id)
	}
}

func without[T interface{ Record() Record }](all []T, id string) []T {
	return slices.DeleteFunc(slices.Clone(all), func(v T) bool { return v.Record().ID() == id })
}

// mayGo tells why a record cannot be withdrawn: others speak of it.
func (b *Book) mayGo(r Record) error {
	id := r.ID()
	uses := func(n int, what, advice string) error {
		if n == 0 {
			return nil
		}
		return Faults{{Field: r.Kind.Key[0], Advice: fmt.Sprintf("%d %s of %s on record: %s", n, what, id, advice)}}
	}
	switch r.Kind {
	case &Plantings:
		n := number(b.Counts, func(c Count) bool { return c.Planting == id }) + number(b.Cuts, func(c Cut) bool { return c.Planting == id }) +
			number(b.Events, func(e Event) bool { return e.Planting == id }) + number(b.Scoutings, func(s Scouting) bool { return s.Planting == id }) +
			number(b.Sprays, func(s Spray) bool { return s.Planting == id })
		return uses(n, "counts, cuts, dates and scoutings", "give the day it was pulled out instead")
	case &Beds:
		return uses(number(b.Plantings, func(p Planting) bool { return p.Bed == id }), "plantings", "give them another bed first")
	case &Trays:
		return uses(number(b.Plantings, func(p Planting) bool { return p.Tray == id }), "plantings", "give them another tray first")
	case &Varieties:
		return uses(number(b.Plantings, func(p Planting) bool { return p.Variety == id }), "plantings", "they would have no variety")
	case &Orders:
		return uses(number(b.OrderLines, func(l OrderLine) bool { return l.Order == id }), "lines", "withdraw its lines first")
	}
	return nil
}

// number returns how many of all there are of which something holds.
func number[T any](all []T, holds func(T) bool) int {
	n := 0
	for _, v := range all {
		if holds(v) {
			n++
		}
	}
	return n
}

// lastPast returns what was last superseded or withdrawn of a record.
func (b *Book) lastPast(k *Kind, id string) (Past, bool) {
	var last Past
	found := false
	for _, p := range b.History {
		if p.Kind == k.Name && p.ID == id {
			last, found = p, true // the store hands them over in the order they were made
		}
	}
	return last, found
}
