package market

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"dewcount/farm/book"
	"dewcount/farm/look"
)

// mostSubstitutes is how many crops are tried for one line or ingredient that is short.
const mostSubstitutes = 3

// substitutes returns for each line and ingredient that is short what would come of taking another crop of its role and colour where it is short.
func substitutes(s *look.Snapshot, d Due) []Option {
	var options []Option
	for i, w := range d.Lines {
		line, part, ok := lineOf(s, d, i)
		if !ok || !w.lacks() {
			continue
		}
		for _, id := range instead(s, part.OrderLine) {
			o := Option{Kind: Looser, Line: w.Line, What: cropName(s, id), For: w.What}
			if line.Recipe == "" {
				line.Substitutes = more(part.OrderLine.Substitutes, id)
				if v, ok := s.Book.Variety(line.Variety); ok && line.Colour == "" && len(v.Colours()) == 1 {
					line.Colour = v.Colours()[0]
				}
				o.Change.Correct = []book.Record{line.Record()}
			} else {
				one := part.RecipeLine
				one.Substitutes = more(one.Substitutes, id)
				o.Change.Correct = []book.Record{one.Record()}
			}
			options = append(options, o)
		}
	}
	return options
}

// more adds the id of a crop to written substitutes.
func more(written, id string) string {
	return strings.Join(append(book.Substitutes(written), id), " / ")
}

// lineOf returns the line of an order that the i-th of what is due wants, as it is on record, and the ingredient of its recipe.
func lineOf(s *look.Snapshot, d Due, i int) (book.OrderLine, ingredient, bool) {
	w := d.Lines[i]
	line, ok := book.Find(s.Book.OrderLines, func(l book.OrderLine) bool { return l.Order == d.Order.ID && l.Line == w.Line })
	first := slices.IndexFunc(d.Lines, func(o Want) bool { return o.Line == w.Line })
	if parts := ingredients(s, s.Book.LineOn(line, d.On)); ok && i-first < len(parts) {
		return line, parts[i-first], true
	}
	return line, ingredient{}, false
}

// instead returns the ids of crops that grow in the role and colour of a line and that it does not take yet, those of the farm's first varieties first.
func instead(s *look.Snapshot, l book.OrderLine) []string {
	like, ok := varietyFor(s, l)
	role, colour := cmp.Or(l.Role, like.Role), l.Colour
	if colours := like.Colours(); l.Variety != "" && colour == "" && len(colours) == 1 {
		colour = colours[0]
	}
	if !ok && l.Role == "" || role == "" {
		return nil
	}
	var ids []string
	for _, v := range s.Book.Varieties {
		if v.Role != role || v.ColourShare(colour) == 0 || takes(l, v) || slices.Contains(ids, v.Crop) || len(ids) == mostSubstitutes {
			continue
		}
		if len(PartsOf(s, book.OrderLine{Crop: v.Crop, Role: role, Colour: colour})) > 0 {
			ids = append(ids, v.Crop)
		}
	}
	return ids
}

// fewerBouquets returns for each line of bouquets how many are sure, where that is fewer than are wanted.
func fewerBouquets(s *look.Snapshot, d Due) []Option {
	var options []Option
	for _, at := range slices.Sorted(maps.Keys(d.Bouquets)) {
		n := d.Bouquets[at].Sure()
		line, ok := book.Find(s.Book.OrderLines, func(l book.OrderLine) bool { return l.Order == d.Order.ID && l.Line == at })
		if !ok || n == 0 || n >= book.OrZero(s.Book.LineOn(line, d.On).Quantity) {
			continue
		}
		options = append(options, Option{Kind: Smaller, Line: line.Line, What: line.Recipe, N: n, Change: numberOn(s.Book, d, line, n)})
	}
	return options
}

// numberOn changes how many stems or bouquets a line of an order wants on a day: on that day alone where the order comes again.
func numberOn(b *book.Book, d Due, l book.OrderLine, n int) book.Change {
	if d.Order.Repeats == "" {
		if l.Recipe != "" {
			l.Quantity = &n
		} else {
			l.Stems = &n
		}
		return book.Change{Correct: []book.Record{l.Record()}}
	}
	record := book.OrderDay{Order: l.Order, Line: l.Line, On: d.On, Number: n}.Record()
	if _, there := b.Record(book.OrderDays, record.ID()); there {
		return book.Change{Correct: []book.Record{record}}
	}
	return book.Change{Add: []book.Record{record}}
}

// slimmer returns for each line of bouquets of which an ingredient is short as many with fewer stems of it each, where they are bouquets still.
func slimmer(s *look.Snapshot, d Due) []Option {
	const least = 2.0 / 3 // of the stems of a bouquet, below which nobody would call it the same
	var options []Option
	for _, at := range slices.Sorted(maps.Keys(d.Bouquets)) {
		var recipe []book.RecipeLine
		var line book.OrderLine
		before, now := 0, 0
		for i, w := range d.Lines {
			whole, part, ok := lineOf(s, d, i)
			quantity := book.OrZero(part.OrderLine.Quantity)
			if w.Line != at || !ok || quantity == 0 {
				continue
			}
			one := part.RecipeLine
			before += one.Stems
			line, one.Stems = whole, min(one.Stems, w.Filled.Sure()/quantity)
			if now += one.Stems; one.Stems > 0 {
				recipe = append(recipe, one)
			}
		}
		if now == before || float64(now) < least*float64(before) {
			continue
		}
		options = append(options, Option{Kind: Slimmer, Line: at, What: line.Recipe, N: now, Change: inRecipe(s.Book, d, line, fmt.Sprintf("%s of %d", line.Recipe, now), recipe)})
	}
	return options
}

// inRecipe makes the bouquets of a line by another recipe, which is written down as well: on its day alone where the order comes again, as a line of its own.
func inRecipe(b *book.Book, d Due, l book.OrderLine, name string, recipe []book.RecipeLine) book.Change {
	taken := func() bool {
		return slices.ContainsFunc(b.RecipeLines, func(r book.RecipeLine) bool { return r.Recipe == name })
	}
	for n, wanted := 2, name; taken(); n++ {
		name = fmt.Sprintf("%s (%d)", wanted, n)
	}
	var c book.Change
	for _, r := range recipe {
		r.Recipe = name
		c.Add = append(c.Add, r.Record())
	}
	if d.Order.Repeats == "" {
		l.Recipe = name
		c.Correct = append(c.Correct, l.Record())
		return c
	}
	quantity, none := book.OrZero(b.LineOn(l, d.On).Quantity), 0
	without := numberOn(b, d, l, 0)
	c.Add, c.Correct = append(c.Add, without.Add...), append(c.Correct, without.Correct...)
	l.Line, l.Recipe, l.Quantity = b.NextLine(l.Order), name, &none
	c.Add = append(c.Add, l.Record(), book.OrderDay{Order: l.Order, Line: l.Line, On: d.On, Number: quantity}.Record())
	return c
}
