package web

import (
	"crypto/rand"
	"maps"
	"net/http"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"

	"github.com/labstack/echo/v5"
)

// A rowForm is how a kind of record of one row, such as a cut, is made and corrected on a page.
type rowForm struct {
	kind  *book.Kind
	path  string // of a new one, below its planting
	usual func(*look.Snapshot, book.Planting) map[string]string
	// show shows the form of a new record, or of the one with an id.
	show func(c *echo.Context, code int, snap *look.Snapshot, p book.Planting, id string, from typed, faults map[string]string) error
	of   func(book.Record) typed // what stands, as its form has it
	read rowReader
}

// A rowReader reads a record from what was typed, with what is wrong with it; nothing is recorded that has not come yet.
type rowReader func(from typed, today day.Day) (book.Record, error)

func (s *server) rowForms() []rowForm {
	return []rowForm{
		{book.Counts, "count", s.usualCount, s.countForm, ofCount, readCount},
		{book.Cuts, "cut", s.usualCut, s.cutForm, of, readCut},
		{book.Scoutings, "scout", usualScouting, s.scoutingForm, of, readScouting},
		{book.Sprays, "spray", s.usualSpray, s.sprayForm, of, readSpray},
	}
}

// rowRoutes returns the addresses of a form: of a new record, and of one that stands.
func (s *server) rowRoutes(f rowForm) []route {
	fresh, stands := "/plantings/:planting/"+f.path, "/"+f.kind.Name+"/:id"
	return []route{
		{http.MethodGet, fresh, record, s.onPlanting(func(c *echo.Context, snap *look.Snapshot, p book.Planting) error {
			usual := map[string]string{"id": rand.Text()}
			maps.Copy(usual, f.usual(snap, p))
			return f.show(c, http.StatusOK, snap, p, "", func(name string) string { return usual[name] }, nil)
		})},
		{http.MethodPost, fresh, record, s.onPlanting(func(c *echo.Context, snap *look.Snapshot, p book.Planting) error {
			return s.keepRow(c, snap, p, "", f)
		})},
		{http.MethodGet, stands, record, s.onRecord(f.kind, func(c *echo.Context, snap *look.Snapshot, r book.Record, p book.Planting) error {
			return f.show(c, http.StatusOK, snap, p, r.ID(), f.of(r), nil)
		})},
		{http.MethodPost, stands, record, s.onRecord(f.kind, func(c *echo.Context, snap *look.Snapshot, r book.Record, p book.Planting) error {
			return s.keepRow(c, snap, p, r.ID(), f)
		})},
	}
}

// keepRow keeps what a form was sent with, in the place of the record with an id if it has one.
func (s *server) keepRow(c *echo.Context, snap *look.Snapshot, p book.Planting, id string, f rowForm) error {
	from := posted(c)
	r, err := f.read(func(name string) string {
		switch {
		case name == "planting":
			return p.ID
		case name == "id" && id != "":
			return id
		}
		return from(name)
	}, snap.View.Today)
	return s.keepAs(c, err, r, id != "", f.of, func(faults map[string]string) error {
		return f.show(c, http.StatusUnprocessableEntity, snap, p, id, from, faults)
	}, "plantings", p.ID)
}

// onRecord is on for a page of the record of a kind that the address names, and of its planting.
func (s *server) onRecord(k *book.Kind, show func(*echo.Context, *look.Snapshot, book.Record, book.Planting) error) echo.HandlerFunc {
	return s.on(func(c *echo.Context, snap *look.Snapshot) error {
		r, ok := snap.Book.Record(k, c.Param("id"))
		if !ok {
			return book.ErrNoSuchRecord
		}
		p, ok := snap.Book.Planting(r.Field("planting"))
		if !ok {
			return book.ErrNoSuchRecord
		}
		shows(c, r)
		return show(c, snap, r, p)
	})
}
