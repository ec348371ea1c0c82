package beds

import (
	"net/http"
	"net/url"
	"strings"

	"dewcount/farm/book"
	"dewcount/farm/plans"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

func bedFields(isNew bool) []page.Field {
	fields := []page.Field{
		{Name: "length_m", Label: "Length in m", Mode: "decimal", Hint: "Length and width make the squares."},
		{Name: "width_m", Label: "Width in m", Mode: "decimal"},
		{Name: "bearing_deg", Label: "Direction in which it runs", Mode: "decimal", Hint: "Compass degrees: 0 north, 90 east, 180 south, 270 west."},
		page.Field{Name: "cover", Label: "Cover", Kind: "select"}.Choose(page.Option{Value: "", Label: "open ground"}, page.Option{Value: "tunnel", Label: "tunnel"}, page.Option{Value: "house", Label: "glasshouse"}, page.Option{Value: "pot", Label: "pots"}),
		page.Field{Name: "exposure", Label: "Wind", Kind: "select"}.Choose(page.Option{Value: "", Label: "not said"}, page.Option{Value: "sheltered", Label: "sheltered"}, page.Option{Value: "open", Label: "open"}, page.Option{Value: "windy", Label: "windy"}),
		{Name: "zone", Label: "Water line", Hint: "Beds on one line are watered together."},
		{Name: "sun_h", Label: "Hours of sun", Mode: "decimal"},
	}
	if isNew {
		return append([]page.Field{{Name: "bed", Label: "Name", Needed: true, Hint: "Such as Brook 1."}}, fields...)
	}
	return fields
}

func (s view) newBed(c *echo.Context, snap *say.Snapshot) error {
	return s.bedForm(c, http.StatusOK, snap, "", func(string) string { return "" }, nil)
}

func (s view) editBed(c *echo.Context, snap *say.Snapshot) error {
	b, ok := snap.Book.Bed(c.Param("bed"))
	if !ok {
		return book.ErrNoSuchRecord
	}
	page.Shows(c, b.Record())
	return s.bedForm(c, http.StatusOK, snap, b.ID, page.Of(b.Record()), nil)
}

func (s view) bedForm(c *echo.Context, code int, snap *say.Snapshot, id string, from page.Typed, faults map[string]string) error {
	v := page.FormView{Heading: "Add a bed", Action: "/beds", Save: "Add the bed", Cancel: "/beds", Lead: "A bed is planned in squares. More or fewer squares is another length or width."}
	if id != "" {
		v.Heading, v.Action, v.Save = "Correct "+id, "/beds/"+url.PathEscape(id), "Keep the correction"
		v.Withdraw = &page.DoneView{Words: "Withdraw this bed", Kind: book.Beds.Name, ID: id}
	}
	v.Fields = page.Fill(c, bedFields(id == ""), from, faults)
	v.Fault = page.Rest(v.Fields, faults)
	return s.Show(c, code, "form", "/beds", v.Heading, snap, v)
}

// keepBed keeps a new bed, or another state of one.
func (s view) keepBed(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	id := c.Param("bed")
	f := book.NewFields(func(name string) string {
		if name == "bed" && id != "" {
			return id
		}
		return from(name)
	}).For(snap.Locale)
	b := book.ReadBed(f)
	return s.Keep(c, f.Faults(), b.Record(), id != "", func(faults map[string]string) error {
		return s.bedForm(c, http.StatusUnprocessableEntity, snap, id, from, faults)
	}, "beds")
}

// placeInBeds gives squares to one planting, or to all that have none.
func (s view) placeInBeds(c *echo.Context, snap *say.Snapshot) error {
	year, _ := page.YearOf(c, snap)
	season, err := s.Farm.Season(snap.Snapshot, year)
	if err != nil {
		return err
	}
	corrections, without := plans.Placing(season, c.FormValue("planting"))
	if len(corrections) > 0 {
		if err := s.Farm.Correct(c.Request().Context(), page.By(c), corrections...); err != nil {
			return err
		}
	}
	q := url.Values{}
	if len(without) > 0 {
		q.Set("without", strings.Join(without, ", "))
	}
	return c.Redirect(http.StatusSeeOther, "/beds?"+q.Encode())
}
