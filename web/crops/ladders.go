package crops

import (
	"net/http"
	"slices"

	"dewcount/core/crop"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/draw/ladder"

	"github.com/labstack/echo/v5"
)

// A ladderSheet is the ladders of all forms side by side: for the wall of the packing shed.
type ladderSheet struct{ Forms []ladderView }

type ladderView struct {
	Name  string
	Crops string
	Rungs []draw.RungView
}

func (s view) ladders(c *echo.Context, snap *say.Snapshot) error {
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
		f.Crops = say.List(names)
		for k := range crop.Rung(crop.Rungs) {
			f.Rungs = append(f.Rungs, draw.NewRung(form, k))
		}
		v.Forms = append(v.Forms, f)
	}
	v.Forms = slices.DeleteFunc(v.Forms, func(f ladderView) bool { return f.Crops == "" })
	return s.Show(c, http.StatusOK, "ladders", "/crops", "Bud ladders", snap, v)
}
