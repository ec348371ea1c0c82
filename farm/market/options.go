package market

import (
	"cmp"
	"slices"

	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// A Kind is what an option does.
type Kind string

// The options for a shortfall.
const (
	First     Kind = "first"      // the order goes before all others
	Looser    Kind = "looser"     // a line or an ingredient takes another crop of the same role and colour where it is short
	Fewer     Kind = "fewer"      // a line asks for what is sure
	Smaller   Kind = "smaller"    // so many bouquets as are sure
	Slimmer   Kind = "slimmer"    // as many bouquets, of so many stems
	ExtraPick Kind = "extra-pick" // a pick day beside the others
	Buy       Kind = "buy"        // so many stems
	Fleece    Kind = "fleece"     // laid over a row, whose stems come sooner
	Shade     Kind = "shade"      // over a row whose stems would be over by then
	Pinch     Kind = "pinch"      // half of a row, whose stems come later then
	Long      Kind = "long"       // a row is cut long and its side buds are wiped off, so that its stems reach the length
	Leave     Kind = "leave"      // a row stands longer than it was to
)

// An Option is something that can be done about a shortfall, tried: what it would make of the order's chance, and what it costs others.
type Option struct {
	Kind   Kind
	Line   int // of the order; 0 for all of it
	What   string
	For    string  // of a substitute: instead of what
	N      int     // stems or bouquets, of what has a number
	On     day.Day // of an extra pick
	Row    string  // planting to which something is done
	Change book.Change
	Chance float64 // that all of the order is filled then
	Short  int     // stems that are likely missing then, of all lines
	Before int     // and now
	OfLine float64 // chance that its line is filled then; 0 where it is of the whole order
	Losers []Loser
}

// A Loser is an order whose chance would fall.
type Loser struct {
	Order       string
	On          day.Day
	Before, Now float64
}

// worthTelling is by how much a chance has to change to be worth a word.
const worthTelling = 0.05

// OptionsFor returns what can be done about an order on a day on which it is due that is likely short, the best first. Each is tried: the world is changed, and
// all orders are served anew.
func OptionsFor(s *look.Snapshot, order string, on day.Day) []Option {
	at := slices.IndexFunc(Dues(s), func(d Due) bool { return d.Order.ID == order && d.On == on })
	if at < 0 {
		return nil
	}
	now := Dues(s)[at]
	var options []Option
	add := func(o Option, b *book.Book, field *look.Snapshot) {
		if field == nil {
			field = s.With(b)
			seedSupply(field, s)
		}
		then := Dues(field)
		k := slices.IndexFunc(then, func(d Due) bool { return d.Order.ID == order && d.On == on })
		if k < 0 {
			return
		}
		o.Chance, o.Short, o.Before = then[k].Chance, shortOf(then[k]), shortOf(now)
		for _, w := range then[k].Lines {
			if o.Line > 0 && w.Line == o.Line && (o.OfLine == 0 || w.Chance < o.OfLine) {
				o.OfLine = w.Chance // of a recipe the least sure ingredient tells
			}
		}
		if o.Chance < now.Chance+worthTelling && o.Short >= o.Before {
			return // it does not help
		}
		for _, before := range Dues(s) {
			for _, d := range then {
				if d.Order.ID == before.Order.ID && d.On == before.On && d.Order.ID != order && d.Chance < before.Chance-worthTelling {
					o.Losers = append(o.Losers, Loser{d.Order.ID, d.On, before.Chance, d.Chance})
				}
			}
		}
		options = append(options, o)
	}
	try := func(o Option) {
		b := s.Book.Own()
		if b.Apply(o.Change, book.OfForm) == nil {
			add(o, b, nil)
		}
	}
	if one := 1; now.Order.Importance == nil || *now.Order.Importance > 1 {
		first := now.Order
		first.Importance = &one
		try(Option{Kind: First, Change: book.Change{Correct: []book.Record{first.Record()}}})
	}
	for _, w := range now.Lines {
		if !w.lacks() {
			continue
		}
		line, ok := book.Find(s.Book.OrderLines, func(l book.OrderLine) bool { return l.Order == order && l.Line == w.Line })
		if !ok {
			continue
		}
		if v, ok := varietyFor(s, w.OrderLine); ok {
			lot := book.Bought{ID: "bought-" + order + "-" + on.String() + "-" + w.What, Variety: v.Name, Stems: w.Wanted - w.Filled.Sure(), At: day.At(s.View.Upto, cutHour, 0), Note: order}
			if p := s.Book.CropOf(v); p != nil {
				right, _ := p.Window(UseOf(line, now.Order), "")
				lot.Rung = right.From
			}
			try(Option{Kind: Buy, Line: line.Line, What: v.Name, N: lot.Stems, Change: book.Change{Add: []book.Record{lot.Record()}}})
		}
		if line.Recipe != "" {
			continue // its recipe says what goes into a bouquet, and its number is told below
		}
		if sure := max(0, w.Filled.Sure()-book.OrZero(line.Spares)) / line.Each() * line.Each(); sure > 0 { // whole bunches
			try(Option{Kind: Fewer, Line: line.Line, What: w.What, N: sure, Change: numberOn(s.Book, now, line, sure)})
		}
	}
	for _, o := range slices.Concat(substitutes(s, now), fewerBouquets(s, now), slimmer(s, now)) {
		try(o)
	}
	regrown := func(o Option) { // what changes the field is forecast anew
		b := s.Book.Own()
		if b.Apply(o.Change, book.OfForm) != nil {
			return
		}
		if field, err := look.NewSnapshot(b, s.Revision, s.View, s); err == nil {
			add(o, b, field)
		}
	}
	for _, d := range extraDays(s, on) {
		regrown(Option{Kind: ExtraPick, On: d, Change: book.Change{Add: []book.Record{book.PickRecord(d)}}})
	}
	for _, o := range onRows(s, now) {
		regrown(o)
	}
	slices.SortStableFunc(options, func(a, b Option) int {
		return cmp.Or(cmp.Compare(a.less(), b.less()), cmp.Compare(a.Short, b.Short), cmp.Compare(b.Chance, a.Chance), cmp.Compare(len(a.Losers), len(b.Losers)))
	})
	return options
}

// less tells apart what gives the customer less than was ordered: it comes last.
func (o Option) less() int { return map[Kind]int{Slimmer: 1, Fewer: 2, Smaller: 2}[o.Kind] }

func shortOf(d Due) int {
	n := 0
	for _, w := range d.Lines {
		n += w.Short()
	}
	return n
}

// seedSupply lets a snapshot on the same field use what is worked out of it.
func seedSupply(to, from *look.Snapshot) {
	supply := supplyOf(from)
	look.Once(to, supplyKey{}, func() *forecast.Supply { return supply })
}

// varietyFor returns a variety of the farm that a line asks for.
func varietyFor(s *look.Snapshot, l book.OrderLine) (book.Variety, bool) {
	return book.Find(s.Book.Varieties, func(v book.Variety) bool { return takes(l, v) && v.ColourShare(l.Colour) > 0 })
}

// extraDays are the days before a due day on which a pick beside the others may help: of the last three, those that are none.
func extraDays(s *look.Snapshot, due day.Day) []day.Day {
	place, err := s.Book.Place()
	if err != nil {
		return nil
	}
	picks := s.Book.PickDays(place)
	var days []day.Day
	for ago := 1; ago <= 3; ago++ {
		if d := due.Add(-ago); !d.Before(s.View.From) && !picks.Has(d) {
			days = append(days, d)
		}
	}
	return days[:min(len(days), 2)]
}
