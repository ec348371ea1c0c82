package web

import (
	"net/http"
	"net/url"

	"dewcount/farm/look"
	"dewcount/farm/work"

	"github.com/labstack/echo/v5"
)

// A stakesView is a label for the stake of each row, whose code opens its count.
type stakesView struct {
	Stakes  []stakeView
	Address string
	Local   bool // the codes lead to this machine alone
}

type stakeView struct {
	ID, Variety, Bed string
	QR               qrView
}

func (s *server) stakes(c *echo.Context, snap *look.Snapshot) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	v := stakesView{Address: s.base(snap), Local: place.Address == ""}
	for _, id := range work.Walk(snap.Book, snap.View.Today) {
		if i := snap.Index(id); i < 0 || snap.Over(i) {
			continue
		}
		p, _ := snap.Book.Planting(id)
		code, err := newQR(v.Address + "/count?row=" + url.QueryEscape(id))
		if err != nil {
			return err
		}
		v.Stakes = append(v.Stakes, stakeView{id, p.Variety, p.Bed, code})
	}
	return s.show(c, http.StatusOK, "stakes", "/plantings", "Stakes", snap, v)
}
