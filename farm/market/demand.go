package market

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/promise"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// importance returns the class of an order: what is promised for one day is served before standing buckets, and these before markets, unless the grower
// orders them otherwise. The lower the more important.
func importance(o book.Order) int {
	if o.Importance != nil {
		return *o.Importance
	}
	return map[string]int{"event": 1, "standing": 2, "market": 3}[o.Kind]
}

// A demand is what all orders of some days want, as it is shared out.
type demand struct {
	dues     []Due
	wants    []want
	bouquets []promise.Bouquet
	ranks    []promise.Rank
}

// A want is a line of an order on one of its days, or an ingredient of its recipe.
type want struct {
	promise.Want
	due, line int // its places in the dues and in their lines
	on        day.Day
	part      book.OrderLine
	use       crop.Use
	rung      *crop.Rung // that is wanted on the day, where the recipe says so
}

// demandOf returns what is due between two days, in the order in which it is served: by importance, by day, and within a day whole bouquets first, then by
// the lines' priority, the smallest first.
func demandOf(s *look.Snapshot, first, last day.Day) *demand {
	place, err := s.Book.Place()
	if err != nil {
		return &demand{} // a snapshot was made of it, so it is sound
	}
	picks := s.Book.PickDays(place)
	d := &demand{}
	for _, o := range s.Book.Orders {
		for _, on := range o.Between(first, last) {
			d.dues = append(d.dues, Due{Order: o, On: on, PickOn: picks.Before(on, on.Add(-7))})
		}
	}
	slices.SortFunc(d.dues, func(a, b Due) int { return cmp.Or(a.On.Compare(b.On), cmp.Compare(a.Order.ID, b.Order.ID)) })
	for i := range d.dues {
		d.add(s, i)
	}
	d.rank()
	return d
}

// add adds what the lines of a due day want.
func (d *demand) add(s *look.Snapshot, at int) {
	due := &d.dues[at]
	gone := goneTo(s, due)
	lines := slices.DeleteFunc(slices.Clone(s.Book.OrderLines), func(l book.OrderLine) bool { return l.Order != due.Order.ID })
	slices.SortStableFunc(lines, func(a, b book.OrderLine) int { return cmp.Compare(a.Line, b.Line) })
	for _, usual := range lines {
		l := s.Book.LineOn(usual, due.On)
		made := 0
		if l.Recipe != "" {
			made = min(book.OrZero(l.Quantity), s.Book.MadeUp(l.Order, l.Recipe, due.On, s.View.Upto))
		}
		bouquet := -1
		for _, part := range ingredients(s, l) {
			w := wantOf(s, part.OrderLine)
			w.Have = made * part.RecipeLine.Stems
			if w.Part = partName(due.Lines, part); l.Recipe == "" {
				if w.Have = gone.take(s, part.OrderLine); w.Have > 0 && w.Have >= book.OrZero(part.OrderLine.Stems) {
					w.Wanted = w.Have // a set that was made up wants no spare stems any more
				}
			}
			one := want{Want: promise.Want{Stems: w.Wanted - w.Have, Bouquet: -1}, due: at, line: len(due.Lines), on: due.On, part: part.OrderLine, use: UseOf(part.OrderLine, due.Order)}
			if rung, err := crop.ParseRung(cmp.Or(part.RecipeLine.Rung, part.OrderLine.Rung)); err == nil {
				one.rung = &rung
			}
			if part.RecipeLine.Stems > 0 {
				if bouquet < 0 {
					bouquet = len(d.bouquets)
					d.bouquets = append(d.bouquets, promise.Bouquet{Quantity: book.OrZero(l.Quantity) - made})
				}
				one.Bouquet, one.Each = bouquet, part.RecipeLine.Stems
			}
			due.Lines = append(due.Lines, w)
			d.wants = append(d.wants, one)
		}
	}
}

// nextOf returns the next day on which an order is due after another; zero where there is none.
func (d *demand) nextOf(order string, after day.Day) day.Day {
	for i := range d.dues { // in the order of days
		if d.dues[i].Order.ID == order && d.dues[i].On.After(after) {
			return d.dues[i].On
		}
	}
	return day.Day{}
}

// partName names an ingredient by its role, its crop where it has none, and counts those of one name.
func partName(before []Want, part ingredient) string {
	if part.RecipeLine.Stems == 0 {
		return ""
	}
	name := cmp.Or(part.RecipeLine.Role, part.RecipeLine.Crop, part.RecipeLine.Colour, "any")
	n := 1
	for _, w := range before {
		if w.Line == part.Line && (w.Part == name || strings.HasPrefix(w.Part, name+"-")) {
			n++
		}
	}
	if n > 1 {
		name += "-" + strconv.Itoa(n)
	}
	return name
}

// rank puts the wants into the order in which they are served.
func (d *demand) rank() {
	order := make([]int, len(d.dues))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int {
		x, y := &d.dues[a], &d.dues[b]
		return cmp.Or(cmp.Compare(importance(x.Order), importance(y.Order)), x.On.Compare(y.On))
	})
	byDue := make([][]int, len(d.dues))
	for w := range d.wants {
		byDue[d.wants[w].due] = append(byDue[d.wants[w].due], w)
	}
	for i := 0; i < len(order); {
		from := &d.dues[order[i]]
		var wants []int
		for ; i < len(order) && d.dues[order[i]].On == from.On && importance(d.dues[order[i]].Order) == importance(from.Order); i++ {
			wants = append(wants, byDue[order[i]]...)
		}
		slices.SortStableFunc(wants, func(a, b int) int {
			x, y := &d.wants[a], &d.wants[b]
			return cmp.Or(cmp.Compare(book.OrZero(y.part.Priority), book.OrZero(x.part.Priority)), cmp.Compare(x.Stems, y.Stems))
		})
		var rank promise.Rank
		for _, w := range wants {
			switch b := d.wants[w].Bouquet; {
			case b < 0:
				rank.Straight = append(rank.Straight, w)
			case !slices.Contains(rank.Bouquets, b):
				rank.Bouquets = append(rank.Bouquets, b)
			}
		}
		d.ranks = append(d.ranks, rank)
	}
}

// An ingredient is a line as it stands, or what its recipe takes for so many bouquets.
type ingredient struct {
	book.OrderLine
	book.RecipeLine // zero for straight stems
}

func ingredients(s *look.Snapshot, l book.OrderLine) []ingredient {
	var lines []ingredient
	for _, r := range s.Book.RecipeLines {
		if l.Recipe != "" && r.Recipe == l.Recipe {
			stems := r.Stems * book.OrZero(l.Quantity)
			part := l
			part.Role, part.Crop, part.Colour, part.MinLengthCM, part.Stems, part.Spares = r.Role, r.Crop, cmp.Or(r.Colour, l.Colour), r.MinLengthCM, &stems, nil
			part.Substitutes = cmp.Or(r.Substitutes, l.Substitutes)
			lines = append(lines, ingredient{part, r})
		}
	}
	if lines == nil {
		return []ingredient{{OrderLine: l}}
	}
	return lines
}

// gone is stems that were made up or sold for an order on its day already, by variety; bouquets of a recipe apart.
type gone map[string]int

func goneTo(s *look.Snapshot, due *Due) gone {
	g := make(gone)
	for _, m := range s.Book.Moves {
		if m.Order != due.Order.ID || m.At.Day().After(s.View.Upto) || s.Book.IsBouquet(m) {
			continue
		}
		switch since := due.On.Sub(m.At.Day()); {
		case m.What == book.MadeUp && since >= 0 && since <= book.MadeAhead:
		case m.What == book.Sold && since == 0:
		default:
			continue
		}
		g[s.Book.VarietyOf(m.Lot)] += m.Stems
	}
	return g
}

// take takes what went to a line out of what is gone, and returns how many stems that were.
func (g gone) take(s *look.Snapshot, l book.OrderLine) int {
	n := 0
	for _, v := range s.Book.Varieties {
		if left := g[v.Name]; left > 0 && takes(l, v) && v.ColourShare(l.Colour) > 0 {
			taken := min(left, book.OrZero(l.Stems)-n)
			g[v.Name] -= taken
			n += taken
		}
	}
	return n
}

// takes tells whether a line can be filled with a variety, its colour aside.
func takes(l book.OrderLine, v book.Variety) bool {
	does, _ := l.Takes(v)
	return does
}
