package market

import (
	"slices"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// An Ask is what somebody wants to know on the telephone: whether so many stems can be promised.
type Ask struct {
	Line  book.OrderLine // what, without its stems
	Stems int
	On    day.Day
	Kind  string // of order
}

// An Answer is how sure a day's stems would be, after all who have an order already.
type Answer struct {
	On   day.Day
	Want Want
}

// askedFor is the name of an order that nobody has made yet.
const askedFor = "\x00asked"

// lastOf is less important than any order on record.
const lastOf = 100

// Answer returns how sure stems would be on a day, if nobody who has an order already were to lose any.
func (a Ask) Answer(s *look.Snapshot, on day.Day) Answer {
	line := a.Line
	line.Stems = &a.Stems
	if due, ok := Try(s, book.Order{Kind: a.Kind, DueOn: on}, line); ok {
		return Answer{on, due.Lines[0]}
	}
	return Answer{On: on}
}

// Try returns how sure an order would be that nobody has made yet, on its first day, if nobody who has one already were to lose any; ok tells whether that day lies
// within the forecast.
func Try(s *look.Snapshot, o book.Order, lines ...book.OrderLine) (due Due, ok bool) {
	b := s.Book.Own()
	least := lastOf
	o.ID, o.Importance = askedFor, &least
	b.Orders = append(b.Orders, o)
	for i, l := range lines {
		l.Order, l.Line = askedFor, i+1
		b.OrderLines = append(b.OrderLines, l)
	}
	field := s.With(b)
	seedSupply(field, s)
	for _, d := range Dues(field) {
		if d.Order.ID == askedFor {
			return d, true
		}
	}
	return due, false
}

// Others returns the days near the one asked for on which the stems would be sure, the nearest first: at most so many.
func (a Ask) Others(s *look.Snapshot, most int) []Answer {
	var days []day.Day
	for off := 1; off <= 10; off++ {
		for _, d := range []day.Day{a.On.Add(off), a.On.Add(-off)} {
			if d.After(s.View.From) && !d.After(s.View.To) && follows(s, d) {
				days = append(days, d)
			}
		}
	}
	var sure []Answer
	for _, d := range days {
		if other := a.Answer(s, d); other.Want.Chance >= coveredChance {
			if sure = append(sure, other); len(sure) == most {
				break
			}
		}
	}
	return sure
}

// follows tells whether a day is the first after a pick: of those between two picks it is as sure as any.
func follows(s *look.Snapshot, d day.Day) bool {
	return slices.Contains(s.Forecast.PickDays, d.Add(-1))
}
