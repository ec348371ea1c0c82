package market

import (
	"cmp"
	"maps"
	"slices"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/store"
)

// A PastDue is what went to an order on a day that is past: stems by variety, the most first.
type PastDue struct {
	On     day.Day
	Wanted int // stems, as its lines say
	Gone   []Went
	Back   []Came
}

// Came is what was taken along of a variety and came back in part, with how it sold and how many stems to take along the next time.
type Came struct {
	Variety string
	store.Before
}

// Went is so many stems of a variety, made up or sold.
type Went struct {
	Variety string
	Stems   int
}

// Past returns the last days on which an order was due, the latest first, so many at most; none on a farm that keeps no store: there nobody wrote down what went.
func Past(s *look.Snapshot, o book.Order, most int) []PastDue {
	since, kept := s.Book.KeptSince()
	if !kept {
		return nil
	}
	days := o.Between(since, s.View.Today.Add(-1))
	slices.Reverse(days)
	var past []PastDue
	for _, on := range days[:min(most, len(days))] {
		p := PastDue{On: on}
		for _, l := range s.Book.OrderLines {
			if l.Order == o.ID {
				for _, part := range ingredients(s, s.Book.LineOn(l, on)) {
					p.Wanted += book.OrZero(part.OrderLine.Stems)
				}
			}
		}
		stems, taken := make(map[string]int), make(map[string]bool)
		for _, m := range s.Book.Moves {
			ago := on.Sub(m.At.Day())
			if m.Order == o.ID && ((m.What == book.Sold || m.What == book.Unsold) && ago == 0 || m.What == book.MadeUp && ago >= 0 && ago <= book.MadeAhead) {
				v := s.Book.VarietyOf(m.Lot)
				if taken[v] = true; m.What != book.Unsold {
					stems[v] += m.Stems
				}
			}
		}
		for v, n := range stems {
			p.Gone = append(p.Gone, Went{v, n})
		}
		slices.SortFunc(p.Gone, func(a, b Went) int {
			return cmp.Or(cmp.Compare(b.Stems, a.Stems), cmp.Compare(a.Variety, b.Variety))
		})
		for _, v := range slices.Sorted(maps.Keys(taken)) {
			if before := store.BeforeOf(s.Book, o.ID, v, on.Add(1)); before.On == on && before.Back > 0 {
				p.Back = append(p.Back, Came{v, before})
			}
		}
		past = append(past, p)
	}
	return past
}

// A Lack is stems that an order wants, as something that could be sown for it.
type Lack struct {
	What, Crop, Variety string // a variety of the farm where the order leaves it open
	Stems               int
	Use                 string
	TooLate             bool // sown today it would not come by the order's day: half of its shortest usual time is not left
}

// ToSow returns what could be sown for an order on a day, a line or an ingredient each; what several things could give is named by the first of the farm.
func ToSow(s *look.Snapshot, o book.Order, on day.Day) []Lack {
	var lacks []Lack
	for _, l := range s.Book.OrderLines {
		if l.Order != o.ID {
			continue
		}
		for _, part := range ingredients(s, s.Book.LineOn(l, on)) {
			v, known := varietyFor(s, part.OrderLine)
			lack := Lack{What: What(s, part.OrderLine), Crop: part.OrderLine.Crop, Variety: part.OrderLine.Variety, Stems: book.OrZero(part.OrderLine.Stems), Use: UseOf(l, o).String()}
			if known {
				lack.Crop = v.Crop
			}
			p := s.Book.Crop(lack.Crop)
			if p == nil || lack.Stems == 0 {
				continue
			}
			lack.TooLate = on.Sub(s.View.Today) < p.TypicalDays[0]/2
			lacks = append(lacks, lack)
		}
	}
	return lacks
}
