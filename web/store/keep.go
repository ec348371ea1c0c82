package store

import (
	"net/http"
	"net/url"

	"dewcount/farm/book"
	"dewcount/farm/market"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// keepFor keeps for an order the stems of the store that it is given on a day as things stand: from then on they are for nobody else.
func (s view) keepFor(c *echo.Context, snap *say.Snapshot) error {
	order := c.FormValue("order")
	var moves []book.Record
	var ids []string
	for _, d := range market.Dues(snap.Snapshot) {
		if d.Order.ID != order || d.On.String() != c.FormValue("on") {
			continue
		}
		for _, g := range d.Keepable(snap.Book) {
			m := book.Move{ID: newID(), Lot: g.Lot, At: s.hour(snap), What: book.Kept, Stems: g.Stems, From: g.Place, Order: order}
			moves, ids = append(moves, m.Record()), append(ids, m.ID)
		}
	}
	back := "/orders/" + url.PathEscape(order)
	if moves == nil {
		return c.Redirect(http.StatusSeeOther, back)
	}
	if err := s.Farm.Add(c.Request().Context(), page.By(c), moves...); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, back+"?done="+url.QueryEscape("recorded:"+book.Moves.Name+":"+joinIDs(ids)))
}
