package page

import (
	"context"
	"errors"
	"fmt"
	"html/template"
	"io/fs"
	"log/slog"
	"net/http"
	"path"
	"strings"
	"time"

	"dewcount/core/day"
	"dewcount/devices"
	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/fault"
	"dewcount/people"
	"dewcount/say"

	"github.com/alexedwards/scs/v2"
	lru "github.com/hashicorp/golang-lru/v2"
	"github.com/labstack/echo/v5"
)

// Options are what a server needs beside its farm.
type Options struct {
	Hosts []string                        // the hosts that it answers to, with their port; any other is refused
	Step  func(ctx context.Context) error // lets a day of the demo pass; nil on a farm of its own
	Log   *slog.Logger

	Season      func() (address string, err error) // starts a season to be played beside the farm; nil where none can be
	Played      bool                               // the farm is a season that is played
	Box         devices.Set                        // the devices that can be heard
	People      *people.People                     // nil: whoever reaches the pages owns the farm
	Sessions    scs.Store                          // of those who are signed in; needed with People
	Visitor     string                             // the name as whom the demo signs its visitor in
	Name        string                             // of the site's cookies: farms that are served from one machine do not share them
	Secure      bool                               // the pages are reached by https alone
	Address     string                             // that the pages are reached by, unless the farm's settings have another
	Certificate []byte                             // of the farm's own authority, which phones must be told to trust; nil where there is none
}

// A server answers requests for one farm.
type Site struct {
	Farm   *farm.Farm
	Step   func(ctx context.Context) error
	Log    *slog.Logger
	Pages  Pages
	layout *template.Template
	Jobs   *jobs
	Wrote  *lru.Cache[string, int64] // by asker: the revision that their last form left, until they have seen it

	Season      func() (address string, err error)
	Played      bool
	Box         devices.Set
	People      *people.People
	Sessions    *scs.SessionManager
	Visitor     string
	Address     string
	Certificate []byte
	Secure      bool
}

// NewSite returns the site of a farm, with the pages that are of no view.
func NewSite(f *farm.Farm, o Options) (*Site, error) {
	s := &Site{Farm: f, Step: o.Step, Season: o.Season, Played: o.Played, Log: o.Log, Pages: make(Pages), Jobs: newJobs(), Box: o.Box, People: o.People, Visitor: o.Visitor, Address: o.Address, Certificate: o.Certificate, Secure: o.Secure}
	s.Wrote, _ = lru.New[string, int64](mostWriters) // an error is of a size below one
	if s.People != nil {
		s.Sessions = newSessions(o)
	}
	var err error
	if s.layout, err = layout(); err != nil {
		return nil, err
	}
	own, err := fs.Sub(templates, "templates/pages")
	if err != nil {
		return nil, fmt.Errorf("the templates: %w", err)
	}
	return s, s.Parse(own)
}

// WithSessions returns a handler that knows who is signed in.
func (s *Site) WithSessions(pages http.Handler) http.Handler {
	if s.Sessions == nil {
		return pages
	}
	known := s.Sessions.LoadAndSave(pages)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if IsFile(r) {
			pages.ServeHTTP(w, r)
			return
		}
		known.ServeHTTP(w, r)
	})
}

// IsFile tells whether a file of the page is asked for: it is the same for everybody, so nobody is looked up for it, and it brings no cookie that a proxy or
// a race could keep. It reads the path as the router does.
func IsFile(r *http.Request) bool {
	at := r.URL.EscapedPath()
	return r.Method == http.MethodGet && (strings.HasPrefix(at, "/assets/") || at == "/worker.js")
}

// On hands a page the farm as it stands; who comes to a farm without settings is sent to write them down.
func (s *Site) On(show func(*echo.Context, *say.Snapshot) error) echo.HandlerFunc {
	return func(c *echo.Context) error {
		snap, fresh, err := s.snapshot(c)
		if errors.Is(err, farm.ErrNoFarm) {
			return c.Redirect(http.StatusSeeOther, "/farm")
		}
		if err != nil {
			return err
		}
		if snap == nil {
			return s.working(c, nil, "", workingView{Heading: "Today's numbers"})
		}
		if !fresh {
			c.Set(StaleKey, true)
		}
		return show(c, ReadBy(c, snap))
	}
}

// patience is how long a page waits for the farm to be worked out before it shows the last state; staleKey says that it does.
const (
	patience = 60 * time.Millisecond
	StaleKey = "stale"
)

// snapshot returns the farm for a page, or its last state where newer records are still being worked out, and whether it is as it stands. What
// changes something waits for the farm as it stands, and so does who has changed something that the last state has not. It is nil for a page of a farm of
// which nothing is worked out today, after a start or a night, where that takes longer than a page should.
func (s *Site) snapshot(c *echo.Context) (*look.Snapshot, bool, error) {
	ctx := c.Request().Context()
	if c.Request().Method != http.MethodGet {
		snap, err := s.Farm.Snapshot(ctx)
		return snap, true, err
	}
	snap, fresh, err := s.Farm.SnapshotWithin(ctx, patience)
	if err == nil && !fresh {
		wrote, _ := s.Wrote.Get(asker(c))
		switch {
		case snap == nil && opens(c) && wrote == 0:
			return s.Farm.SnapshotWithin(ctx, soon-patience)
		case snap == nil || snap.Revision < wrote:
			snap, err = s.Farm.Snapshot(ctx)
			fresh = true
		}
	}
	if err == nil && fresh { // who has seen what they wrote can be told tomorrow that the day is worked out
		s.Wrote.Remove(asker(c))
	}
	return snap, fresh, err
}

// opens tells whether a browser opens a page, and not a file or what a script asks for: only it can be shown that something is being worked out.
func opens(c *echo.Context) bool {
	return c.Request().Header.Get("Sec-Fetch-Dest") == "document" && path.Ext(c.Request().URL.Path) == ""
}

// noteWriting remembers up to which revision somebody knows the farm's records, having sent a form. Nobody waits for a page of what phones send from
// the field, but whoever looks next wants it reckoned with.
func (s *Site) noteWriting(c *echo.Context) error {
	if c.Request().Method != http.MethodPost {
		return nil
	}
	if c.Path() == FieldPath {
		s.Farm.WorkAhead()
		return nil
	}
	revision, err := s.Farm.Revision(c.Request().Context())
	if err == nil {
		s.Wrote.Add(asker(c), revision)
	}
	return err
}

// mostWriters is of how many people it is remembered what they wrote last.
const mostWriters = 100

// OnPlanting is on for a page of the planting that the address names.
func (s *Site) OnPlanting(show func(*echo.Context, *say.Snapshot, book.Planting) error) echo.HandlerFunc {
	return s.On(func(c *echo.Context, snap *say.Snapshot) error {
		p, ok := snap.Book.Planting(c.Param("planting"))
		if !ok {
			return book.ErrNoSuchRecord
		}
		Shows(c, p.Record())
		return show(c, snap, p)
	})
}

// OnOrder is on for a page of the order that the address names.
func (s *Site) OnOrder(show func(*echo.Context, *say.Snapshot, book.Order) error) echo.HandlerFunc {
	return s.On(func(c *echo.Context, snap *say.Snapshot) error {
		o, ok := snap.Book.Order(c.Param("order"))
		if !ok {
			return book.ErrNoSuchRecord
		}
		Shows(c, o.Record())
		return show(c, snap, o)
	})
}

// Fail makes a page of an error: the advice for the person, the whole chain for the log.
func (s *Site) Fail(c *echo.Context, err error) {
	code, advice := http.StatusInternalServerError, "Something went wrong here. Nothing was changed: go back and try again."
	if c.Request().Context().Err() != nil {
		return // whoever asked has gone: nobody reads the answer, and nothing is wrong
	}
	var conflict *book.Conflict
	var changed *book.Changed
	var faults fault.List
	var known *echo.HTTPError
	var words *fault.Advice
	var closed *denied
	switch {
	case errors.As(err, &closed):
		code, advice = closed.code, say.Sentence(closed.words)
	case errors.As(err, &words):
		advice = say.Sentence(words.Words)
	case errors.As(err, &changed):
		code, advice = http.StatusConflict, say.Sentence(changed.Error())
	case errors.As(err, &conflict):
		code, advice = http.StatusConflict, say.Sentence(conflict.Error())
	case errors.As(err, &faults):
		code, advice = http.StatusUnprocessableEntity, say.Sentence(faults.Error())
	case errors.Is(err, book.ErrNoSuchRecord):
		code, advice = http.StatusNotFound, say.Sentence(err.Error())
	case echo.StatusCode(err) == http.StatusForbidden:
		code, advice = http.StatusForbidden, "This form has lain too long. Nothing was changed: go back, reload the page and send it again."
	case echo.StatusCode(err) == http.StatusNotFound:
		code, advice = http.StatusNotFound, "There is no such page here."
	case errors.As(err, &known):
		code, advice = known.Code, say.Sentence(known.Message)
	case echo.StatusCode(err) != 0:
		code = echo.StatusCode(err)
	}
	if code >= http.StatusInternalServerError {
		s.Log.Error("request failed", "method", c.Request().Method, "path", c.Request().URL.Path, "error", err)
	}
	if wantsJSON(c) {
		if err := c.JSON(code, Refusal{Advice: advice}); err != nil {
			s.Log.Error("refusal failed", "error", err)
		}
		return
	}
	if err := s.Render(c, code, "error", Frame{Title: "Not done"}, errorView{Advice: advice}); err != nil {
		s.Log.Error("error page failed", "error", err)
	}
}

type errorView struct{ Advice string }

// FieldPath is where phones send what was recorded without a page.
const FieldPath = "/field"

// Today returns the farm's day without working anything out.
func (s *Site) Today(c *echo.Context) (day.Day, error) {
	book, err := s.Farm.Load(c.Request().Context())
	if err != nil {
		return day.Day{}, err
	}
	place, err := book.Place()
	if err != nil {
		return day.Day{}, err
	}
	return s.Farm.Today(place), nil
}
