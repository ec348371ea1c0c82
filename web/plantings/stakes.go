package plantings

import (
	"net/http"
	"net/url"

	"dewcount/farm/work"
	"dewcount/say"
	"dewcount/web/parts"

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
	QR               parts.QrView
}

func (s view) stakes(c *echo.Context, snap *say.Snapshot) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	v := stakesView{Address: s.Base(snap.Snapshot), Local: place.Address == ""}
	for _, id := range work.Walk(snap.Book, snap.View.Today) {
		if i := snap.Index(id); i < 0 || snap.Over(i) {
			continue
		}
		p, _ := snap.Book.Planting(id)
		code, err := parts.NewQR(v.Address+"/count?row="+url.QueryEscape(id), "Code of "+id)
		if err != nil {
			return err
		}
		v.Stakes = append(v.Stakes, stakeView{id, p.Variety, p.Bed, code})
	}
	return s.Show(c, http.StatusOK, "stakes", "/plantings", "Stakes", snap, v)
}
