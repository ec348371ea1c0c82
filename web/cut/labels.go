package cut

import (
	"fmt"
	"net/http"
	"net/url"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/work"
	"dewcount/say"
	"dewcount/web/parts"

	"github.com/labstack/echo/v5"
)

// A labelsView is a label for each bucket of a pick.
type labelsView struct {
	Heading, Pick string
	Labels        []labelView
	Address       string
	Local         bool // the codes lead to this machine alone
}

type labelView struct {
	Variety, Colour, Crop string
	Stems, Cut, For       string
	Row                   string
	QR                    parts.QrView
}

// labels shows the labels of a pick's buckets, whose codes open what became of the stems.
func (s view) labels(c *echo.Context, snap *say.Snapshot) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	pick, ok := pickOf(c, snap)
	v := labelsView{Heading: "Bucket labels", Address: s.Base(snap.Snapshot), Local: place.Address == ""}
	if !ok {
		return s.Show(c, http.StatusOK, "bucketlabels", "/cut", v.Heading, snap, v)
	}
	sheet, _ := work.SheetOf(snap.Snapshot, pick)
	v.Pick = snap.Date(pick)
	for _, l := range sheet.Labels(snap.Snapshot) {
		p := snap.Model.Plantings[l.Planting]
		variety, _ := snap.Book.Variety(p.Variety)
		code, err := parts.NewQR(v.Address+"/cut/bucket?"+url.Values{"planting": {p.ID}, "on": {pick.String()}}.Encode(), "Code of "+p.ID)
		if err != nil {
			return err
		}
		label := labelView{Variety: p.Variety, Crop: p.Growth.Profile.Name, Colour: variety.Colour, Stems: say.Stems(l.Stems), Cut: "cut " + snap.Date(pick), For: "not promised", Row: p.ID, QR: code}
		if len(variety.Colours()) > 1 {
			label.Colour = "mixed"
		}
		if l.Order != "" {
			label.For = fmt.Sprintf("for %s, %s", l.Order, snap.Date(l.On))
		}
		v.Labels = append(v.Labels, label)
	}
	return s.Show(c, http.StatusOK, "bucketlabels", "/cut", v.Heading+" "+v.Pick, snap, v)
}

// bucket leads from a label's code to what became of its stems: to the lot of the row that was cut on the label's day or on the evening before, or to
// the sheet where no cut is on record yet.
func (s view) bucket(c *echo.Context, snap *say.Snapshot) error {
	on, err := day.Parse(c.QueryParam("on"))
	if err != nil {
		return book.ErrNoSuchRecord
	}
	var lot book.Cut
	for _, cut := range snap.Book.Cuts {
		if d := cut.CutAt.Day(); cut.Planting == c.QueryParam("planting") && cut.Stems > 0 && !d.After(on) && on.Sub(d) <= 1 {
			lot = cut
		}
	}
	if lot.ID == "" {
		return c.Redirect(http.StatusSeeOther, "/cut?pick="+on.String())
	}
	return c.Redirect(http.StatusSeeOther, "/store/move?"+url.Values{"lot": {lot.ID}}.Encode())
}
