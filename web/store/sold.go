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
	Variety, Taken, Back string
	TakenName, BackName  string
	Hint                 string
	Fault                string
}

// soldNames are the fields of a variety: its name stands in them, since what is in the store may change while the form is filled in.
func soldNames(variety string) (taken, back string) { return "taken " + variety, "back " + variety }

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
		row.TakenName, row.BackName = soldNames(g.Variety)
		if g.Promised > 0 {
			row.Taken = strconv.Itoa(g.Promised)
		}
		if g.Before > 0 {
			row.Hint += fmt.Sprintf(", %d sold last time", g.Before)
		}
		if from != nil {
			row.Taken, row.Back = from(row.TakenName), from(row.BackName)
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
		takenName, backName := soldNames(g.Variety)
		taken, back := book.OrZero(f.OptWhole(takenName, 0, 100_000)), book.OrZero(f.OptWhole(backName, 0, 100_000))
		switch {
		case back > taken:
			f.Fault(backName, "%d cannot have come back of %d", back, taken)
			continue
		case taken == back:
			continue
		}
		takes, enough := g.Sells(&l, taken-back)
		if !enough {
			f.Fault(takenName, "%d cannot have been sold: %d are there", taken-back, g.Stems)
			continue
		}
		for _, t := range takes {
			h := l.Heaps[t.Heap]
			m := book.Move{ID: newID(), Lot: h.Lot, At: now, What: book.Sold, Stems: t.Stems, From: h.Place, Order: order}
			moves, ids = append(moves, m.Record()), append(ids, m.ID)
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
