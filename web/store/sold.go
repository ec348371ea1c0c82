package store

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/market"
	ledger "dewcount/farm/store"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A soldView asks after a market what was sold: what was taken along and not brought back.
type soldView struct {
	Orders []page.Option
	Order  string
	Rows   []soldRow
	Fault  string
	None   string
}

type soldRow struct {
	Variety, Taken, Back         string
	TakenName, BackName, WhyName string
	Why                          []page.Option
	Hint                         string
	Fault                        string
}

// soldNames are the fields of a variety: its name stands in them, since what is in the store may change while the form is filled in.
func soldNames(variety string) (taken, back, why string) {
	return "taken " + variety, "back " + variety, "why " + variety
}

// goods returns what an order could take along today.
func (s view) goods(snap *say.Snapshot, order string, now day.Moment) (ledger.Ledger, []ledger.Goods) {
	promised := make(map[string]int)
	for _, d := range market.Dues(snap.Snapshot) {
		if d.Order.ID != order || d.On != snap.View.Today {
			continue
		}
		for _, w := range d.Lines {
			for _, g := range w.From {
				promised[g.Lot] += g.Stems
			}
		}
	}
	l := ledger.Of(snap.Book, now).For(order)
	return l, l.GoodsFor(snap.Book, order, snap.View.Today, promised)
}

func (s view) sold(c *echo.Context, snap *say.Snapshot) error {
	return s.soldPage(c, http.StatusOK, snap, soldOrder(snap, c.QueryParam("order")), nil, nil)
}

// soldOrder is the order that is meant: the one named, else the first that is due today, else the first.
func soldOrder(snap *say.Snapshot, named string) string {
	if named != "" {
		return named
	}
	for _, d := range market.Dues(snap.Snapshot) {
		if d.On == snap.View.Today {
			return d.Order.ID
		}
	}
	for _, o := range snap.Book.Orders {
		if o.Kind == "market" {
			return o.ID
		}
	}
	return ""
}

func (s view) soldPage(c *echo.Context, code int, snap *say.Snapshot, order string, from page.Typed, faults map[string]string) error {
	v := soldView{Order: order}
	for _, o := range snap.Book.Orders {
		v.Orders = append(v.Orders, page.Option{Value: o.ID, Label: o.ID, Chosen: o.ID == order})
	}
	_, goods := s.goods(snap, order, s.hour(snap))
	for _, g := range goods {
		row := soldRow{Variety: g.Variety, Hint: fmt.Sprintf("%d there", g.Stems)}
		row.TakenName, row.BackName, row.WhyName = soldNames(g.Variety)
		if g.Promised > 0 {
			row.Taken = strconv.Itoa(g.Promised)
		}
		row.Hint += beforeWords(g.Before)
		why := ""
		if from != nil {
			row.Taken, row.Back, why = from(row.TakenName), from(row.BackName), from(row.WhyName)
		}
		row.Why = append(row.Why, page.Option{Label: "why?"})
		for _, reason := range book.UnsoldReasons {
			row.Why = append(row.Why, page.Option{Value: reason, Label: reason, Chosen: reason == why})
		}
		row.Fault = faults[row.TakenName] + faults[row.BackName]
		delete(faults, row.TakenName)
		delete(faults, row.BackName)
		v.Rows = append(v.Rows, row)
	}
	v.Fault = page.Rest(nil, faults)
	if len(v.Rows) == 0 {
		v.None = "Nothing fresh stands in the store, so nothing can have been taken along."
	}
	return s.Show(c, code, "sold", "/store", "What was sold", snap, v)
}

// beforeWords says how a variety went the time before.
func beforeWords(b ledger.Before) string {
	switch {
	case b.On.IsZero():
		return ""
	case b.Back == 0:
		return fmt.Sprintf("; last time all %d were sold", b.Sold)
	}
	words := fmt.Sprintf("; last time %d were sold and %d came back", b.Sold, b.Back)
	if b.Why != "" {
		words += ": " + b.Why
	}
	return words
}

// keepSold records what was taken along and not brought back as sold.
func (s view) keepSold(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	f := book.NewFields(from).For(snap.Locale)
	order := f.Name("order", "the order")
	now := s.hour(snap)
	l, goods := s.goods(snap, order, now)
	var moves []book.Record
	var ids []string
	for _, g := range goods {
		takenName, backName, whyName := soldNames(g.Variety)
		taken, back := book.OrZero(f.OptWhole(takenName, 0, 100_000)), book.OrZero(f.OptWhole(backName, 0, 100_000))
		switch {
		case back > taken:
			f.Fault(backName, "%d cannot have come back of %d", back, taken)
			continue
		case taken == 0:
			continue
		}
		why := f.Word(whyName, append([]string{""}, book.UnsoldReasons...)...)
		takes, enough := g.Sells(&l, taken)
		if !enough {
			f.Fault(takenName, "%d cannot have been taken along: %d are there", taken, g.Stems)
			continue
		}
		record := func(h ledger.Heap, what string, stems int, note string) {
			if stems > 0 {
				m := book.Move{ID: newID(), Lot: h.Lot, At: now, What: what, Stems: stems, From: h.Place, Order: order, Note: note}
				moves, ids = append(moves, m.Record()), append(ids, m.ID)
			}
		}
		left := taken - back // what is sold went first, the rest came back
		for _, t := range takes {
			n := min(left, t.Stems)
			left -= n
			record(l.Heaps[t.Heap], book.Sold, n, "")
			record(l.Heaps[t.Heap], book.Unsold, t.Stems-n, why)
		}
	}
	if f.Faults() == nil && moves == nil {
		f.Fault("order", "write how many were taken along of something")
	}
	if by, only := page.FaultsBy(f.Faults()); only {
		return s.soldPage(c, http.StatusUnprocessableEntity, snap, order, from, by)
	}
	if err := s.Farm.Add(c.Request().Context(), page.By(c), moves...); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/store?done="+url.QueryEscape("recorded:"+book.Moves.Name+":"+joinIDs(slices.Clip(ids))))
}
