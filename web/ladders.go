package web

import (
	"net/http"
	"slices"

	"dewcount/core/crop"
	"dewcount/farm/look"
	"dewcount/web/ladder"

	"github.com/labstack/echo/v5"
)

// A ladderSheet is the ladders of all forms side by side: for the wall of the packing shed.
type ladderSheet struct{ Forms []ladderView }

type ladderView struct {
	Name  string
	Crops string
	Rungs []rungView
}

func (s *server) ladders(c *echo.Context, snap *look.Snapshot) error {
	crops := snap.Book.Crops()
	var v ladderSheet
	for _, form := range ladder.Forms()[1:] {
		f := ladderView{Name: form}
		var names []string
		for _, p := range crops {
			if ladder.Known(p.Ladder) == form {
				names = append(names, p.Name)
			}
		}
		f.Crops = list(names)
		for k := range crop.Rung(crop.Rungs) {
			f.Rungs = append(f.Rungs, newRung(form, k))
		}
		v.Forms = append(v.Forms, f)
	}
	v.Forms = slices.DeleteFunc(v.Forms, func(f ladderView) bool { return f.Crops == "" })
	return s.show(c, http.StatusOK, "ladders", "/crops", "Bud ladders", snap, v)
}
