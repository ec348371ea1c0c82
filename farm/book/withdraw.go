package book

import (
	"errors"
)

// ErrNoSuchRecord is that a record is neither on record nor in the history.
var ErrNoSuchRecord = errors.New("this is not on record: look at the page anew")

// Record returns the record of a kind and id as text, and whether it stands.
func (b *Book) Record(k *Kind, id string) (Record, bool) { return k.in.find(b, id) }

// remove takes a record out of the book.
func (b *Book) remove(r Record) { r.Kind.in.remove(b, r.ID()) }

// MayGo tells why a record cannot be withdrawn: others speak of it.
func (b *Book) MayGo(r Record) error { return r.Kind.in.mayGo(b, r.Kind, r.ID()) }

func (b *Book) holdsPlanting(id string) (n int, what, todo string) {
	n = number(b.Counts, func(c Count) bool { return c.Planting == id }) + number(b.Cuts, func(c Cut) bool { return c.Planting == id }) +
		number(b.Events, func(e Event) bool { return e.Planting == id }) + number(b.Scoutings, func(s Scouting) bool { return s.Planting == id }) +
		number(b.Sprays, func(s Spray) bool { return s.Planting == id })
	return n, "counts, cuts, dates and scoutings", "give the day it was pulled out instead"
}

func (b *Book) holdsBed(id string) (n int, what, todo string) {
	return number(b.Plantings, func(p Planting) bool { return p.Bed == id }), "plantings", "give them another bed first"
}

func (b *Book) holdsTray(id string) (n int, what, todo string) {
	return number(b.Plantings, func(p Planting) bool { return p.Tray == id }), "plantings", "give them another tray first"
}

func (b *Book) holdsVariety(id string) (n int, what, todo string) {
	if n := number(b.Plantings, func(p Planting) bool { return p.Variety == id }); n > 0 {
		return n, "plantings", "they would have no variety"
	}
	return number(b.Stock, func(c StockCount) bool { return c.Variety == id }), "counts of its stock", "withdraw those first"
}

func (b *Book) holdsOrder(id string) (n int, what, todo string) {
	return number(b.OrderLines, func(l OrderLine) bool { return l.Order == id }), "lines", "withdraw its lines first"
}

func (b *Book) holdsOrderLine(id string) (n int, what, todo string) {
	return number(b.OrderDays, func(d OrderDay) bool { return OrderLine{Order: d.Order, Line: d.Line}.Record().ID() == id }), "days on which it is different", "withdraw those first"
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

// lastVersion returns what was last superseded or withdrawn of a record.
func (b *Book) lastVersion(k *Kind, id string) (Version, bool) {
	var last Version
	found := false
	for _, p := range b.History {
		if p.Kind == k.Name && p.ID == id {
			last, found = p, true // the store hands them over in the order they were made
		}
	}
	return last, found
}
