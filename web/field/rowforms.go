package field

import (
	"crypto/rand"
	"maps"
	"net/http"

	"dewcount/farm/book"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A rowForm is how a kind of record of one row, such as a cut, is made and corrected on a page.
type rowForm struct {
	kind  *book.Kind
	path  string // of a new one, below its planting
	usual func(*say.Snapshot, book.Planting) map[string]string
	// show shows the form of a new record, or of the one with an id.
	show func(c *echo.Context, code int, snap *say.Snapshot, p book.Planting, id string, from page.Typed, faults map[string]string) error
	of   func(book.Record) page.Typed // what stands, as its form has it
	read rowReader
}

// A rowReader reads a record from what was typed, with what is wrong with it; nothing is recorded that has not come yet.
type rowReader func(from page.Typed, locale say.Locale) (book.Record, error)

func (s view) rowForms() []rowForm {
	return []rowForm{
		{book.Counts, "count", s.usualCount, s.countForm, ofCount, readCount},
		{book.Cuts, "cut", s.usualCut, s.cutForm, page.Of, readCut},
		{book.Scoutings, "scout", usualScouting, s.scoutingForm, page.Of, readScouting},
		{book.Sprays, "spray", s.usualSpray, s.sprayForm, page.Of, readSpray},
	}
}

// rowRoutes returns the addresses of a form: of a new record, and of one that stands.
func (s view) rowRoutes(f rowForm) []page.Route {
	fresh, stands := "/plantings/:planting/"+f.path, "/"+f.kind.Name+"/:id"
	return []page.Route{
		page.Get(fresh, page.Record, s.OnPlanting(func(c *echo.Context, snap *say.Snapshot, p book.Planting) error {
			usual := map[string]string{"id": rand.Text()}
			maps.Copy(usual, f.usual(snap, p))
			return f.show(c, http.StatusOK, snap, p, "", func(name string) string { return usual[name] }, nil)
		})),
		page.Post(fresh, page.Record, s.OnPlanting(func(c *echo.Context, snap *say.Snapshot, p book.Planting) error {
			return s.keepRow(c, snap, p, "", f)
		})),
		page.Get(stands, page.Record, s.onRecord(f.kind, func(c *echo.Context, snap *say.Snapshot, r book.Record, p book.Planting) error {
			return f.show(c, http.StatusOK, snap, p, r.ID(), f.of(r), nil)
		})),
		page.Post(stands, page.Record, s.onRecord(f.kind, func(c *echo.Context, snap *say.Snapshot, r book.Record, p book.Planting) error {
			return s.keepRow(c, snap, p, r.ID(), f)
		})),
	}
}

// keepRow keeps what a form was sent with, in the place of the record with an id if it has one.
func (s view) keepRow(c *echo.Context, snap *say.Snapshot, p book.Planting, id string, f rowForm) error {
	from := page.Posted(c)
	r, err := f.read(func(name string) string {
		switch {
		case name == "planting":
			return p.ID
		case name == "id" && id != "":
			return id
		}
		return from(name)
	}, snap.Locale)
	return s.KeepAs(c, err, r, id != "", f.of, func(faults map[string]string) error {
		return f.show(c, http.StatusUnprocessableEntity, snap, p, id, from, faults)
	}, "plantings", p.ID)
}

// onRecord is on for a page of the record of a kind that the address names, and of its planting.
func (s view) onRecord(k *book.Kind, show func(*echo.Context, *say.Snapshot, book.Record, book.Planting) error) echo.HandlerFunc {
	return s.On(func(c *echo.Context, snap *say.Snapshot) error {
		r, ok := snap.Book.Record(k, c.Param("id"))
		if !ok {
			return book.ErrNoSuchRecord
		}
		p, ok := snap.Book.Planting(r.Field("planting"))
		if !ok {
			return book.ErrNoSuchRecord
		}
		page.Shows(c, r)
		return show(c, snap, r, p)
	})
}
