package web

import (
	"net/http"
	"net/url"
	"strings"

	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/plans"

	"github.com/labstack/echo/v5"
)

func bedFields(isNew bool) []field {
	fields := []field{
		{Name: "length_m", Label: "Length in m", Mode: "decimal", Hint: "Length and width make the squares."},
		{Name: "width_m", Label: "Width in m", Mode: "decimal"},
		{Name: "bearing_deg", Label: "Direction in which it runs", Mode: "decimal", Hint: "Compass degrees: 0 north, 90 east, 180 south, 270 west."},
		field{Name: "cover", Label: "Cover", Kind: "select"}.choose(option{Value: "", Label: "open ground"}, option{Value: "tunnel", Label: "tunnel"}, option{Value: "house", Label: "glasshouse"}, option{Value: "pot", Label: "pots"}),
		field{Name: "exposure", Label: "Wind", Kind: "select"}.choose(option{Value: "", Label: "not said"}, option{Value: "sheltered", Label: "sheltered"}, option{Value: "open", Label: "open"}, option{Value: "windy", Label: "windy"}),
		{Name: "zone", Label: "Water line", Hint: "Beds on one line are watered together."},
		{Name: "sun_h", Label: "Hours of sun", Mode: "decimal"},
	}
	if isNew {
		return append([]field{{Name: "bed", Label: "Name", Needed: true, Hint: "Such as Brook 1."}}, fields...)
	}
	return fields
}

func (s *server) newBed(c *echo.Context, snap *look.Snapshot) error {
	return s.bedForm(c, http.StatusOK, snap, "", func(string) string { return "" }, nil)
}

func (s *server) editBed(c *echo.Context, snap *look.Snapshot) error {
	b, ok := snap.Book.Bed(c.Param("bed"))
	if !ok {
		return book.ErrNoSuchRecord
	}
	shows(c, b.Record())
	return s.bedForm(c, http.StatusOK, snap, b.ID, of(b.Record()), nil)
}

func (s *server) bedForm(c *echo.Context, code int, snap *look.Snapshot, id string, from typed, faults map[string]string) error {
	v := formView{Heading: "Add a bed", Action: "/beds", Save: "Add the bed", Cancel: "/beds", Lead: "A bed is planned in squares. More or fewer squares is another length or width."}
	if id != "" {
		v.Heading, v.Action, v.Save = "Correct "+id, "/beds/"+url.PathEscape(id), "Keep the correction"
		v.Withdraw = &doneView{Words: "Withdraw this bed", Kind: book.Beds.Name, ID: id}
	}
	v.Fields = fill(bedFields(id == ""), from, faults)
	v.Fault = rest(v.Fields, faults)
	return s.show(c, code, "form", "/beds", v.Heading, snap, v)
}

// keepBed keeps a new bed, or another state of one.
func (s *server) keepBed(c *echo.Context, snap *look.Snapshot) error {
	from := posted(c)
	id := c.Param("bed")
	f := book.NewFields(func(name string) string {
		if name == "bed" && id != "" {
			return id
		}
		return from(name)
	})
	b := book.ReadBed(f)
	return s.keep(c, f.Faults(), b.Record(), id != "", func(faults map[string]string) error {
		return s.bedForm(c, http.StatusUnprocessableEntity, snap, id, from, faults)
	}, "beds")
}

// placeInBeds gives squares to one planting, or to all that have none.
func (s *server) placeInBeds(c *echo.Context, snap *look.Snapshot) error {
	year, _ := yearOf(c, snap)
	season, err := s.farm.Season(snap, year)
	if err != nil {
		return err
	}
	corrections, without := plans.Placing(season, c.FormValue("planting"))
	if len(corrections) > 0 {
		if err := s.farm.Correct(c.Request().Context(), by(c), corrections...); err != nil {
			return err
		}
	}
	q := url.Values{}
	if len(without) > 0 {
		q.Set("without", strings.Join(without, ", "))
	}
	return c.Redirect(http.StatusSeeOther, "/beds?"+q.Encode())
}
