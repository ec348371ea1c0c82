package store

import (
	"slices"

	"dewcount/core/day"
	"dewcount/farm/book"
)

// Goods is stems of a variety that an order could take along.
type Goods struct {
	Variety  string
	Stems    int // fresh ones that are there
	Promised int // of these, those that it was promised
	Before   Before
	Heaps    []int
}

// GoodsFor returns what stands in the store, with what an order was promised of it by lot, what was promised first.
func (l *Ledger) GoodsFor(b *book.Book, order string, on day.Day, promised map[string]int) []Goods {
	var goods []Goods
	for i, h := range l.Heaps {
		if h.Dry() || h.Now.Left[1] == 0 || h.Stems == 0 {
			continue
		}
		at := slices.IndexFunc(goods, func(g Goods) bool { return g.Variety == h.Variety })
		if at < 0 {
			at = len(goods)
			goods = append(goods, Goods{Variety: h.Variety, Before: BeforeOf(b, order, h.Variety, on)})
		}
		g := &goods[at]
		n := min(h.Stems, promised[h.Lot])
		promised[h.Lot] -= n
		g.Stems, g.Promised, g.Heaps = g.Stems+h.Stems, g.Promised+n, append(g.Heaps, i)
	}
	slices.SortStableFunc(goods, func(x, y Goods) int { return min(1, y.Promised) - min(1, x.Promised) })
	return goods
}

// Sells returns the stems that go when so many of a variety are sold, what goes first first, and whether there are so many.
func (g Goods) Sells(l *Ledger, stems int) ([]Taking, bool) {
	var takes []Taking
	for _, h := range g.Heaps {
		if n := min(stems, l.Heaps[h].Stems); n > 0 {
			takes = append(takes, Taking{Heap: h, Stems: n})
			stems -= n
		}
	}
	return takes, stems == 0
}
