package store

import (
	"math"
	"slices"

	"dewcount/core/day"
	"dewcount/farm/book"
)

// Before is how stems of a variety went at an order the last time; the zero where nothing is on record.
type Before struct {
	On         day.Day
	Sold, Back int
	Why        string // they came back, as most of them have it; one of book.UnsoldReasons, or empty
}

// BeforeOf returns how a variety went at an order on the last day before one.
func BeforeOf(b *book.Book, order, variety string, on day.Day) Before {
	var last Before
	why := make(map[string]int)
	for _, m := range b.Moves {
		d := m.At.Day()
		if m.What != book.Sold && m.What != book.Unsold || m.Order != order || !d.Before(on) || d.Before(last.On) || b.VarietyOf(m.Lot) != variety {
			continue
		}
		if d.After(last.On) {
			last = Before{On: d}
			clear(why)
		}
		if m.What == book.Sold {
			last.Sold += m.Stems
			continue
		}
		last.Back += m.Stems
		why[m.Note] += m.Stems
	}
	for _, reason := range book.UnsoldReasons {
		if why[reason] > why[last.Why] {
			last.Why = reason
		}
	}
	return last
}

// OfTheStems tells that stems came back for what they were like and not for want of buyers.
func (b Before) OfTheStems() bool {
	return slices.Contains([]string{book.TooOpen, book.TooTight, book.TooShort, book.WereMarked}, b.Why)
}

// Next returns how many stems to take along the next time: as many as were sold, a tenth more where none came back, and as many as were taken where it was
// not for want of buyers that some did.
func (b Before) Next() int {
	const more = 1.1
	switch {
	case b.Back == 0:
		return int(math.Ceil(more*float64(b.Sold) - 1e-9))
	case b.OfTheStems():
		return b.Sold + b.Back
	}
	return b.Sold
}
