package find

import (
	"net/http"
	"net/url"

	"dewcount/farm/book"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

func (s view) newNote(c *echo.Context, snap *say.Snapshot) error {
	return s.noteForm(c, http.StatusOK, snap, "", func(name string) string {
		if name == "on" {
			return snap.View.Today.String()
		}
		return c.QueryParam(name)
	}, nil)
}

func (s view) editNote(c *echo.Context, snap *say.Snapshot) error {
	n, ok := noteOf(snap, c.Param("note"))
	if !ok {
		return book.ErrNoSuchRecord
	}
	page.Shows(c, n.Record())
	return s.noteForm(c, http.StatusOK, snap, n.ID, page.Of(n.Record()), nil)
}

func noteOf(snap *say.Snapshot, id string) (book.Note, bool) {
	return book.Find(snap.Book.Notes, func(n book.Note) bool { return n.ID == id })
}

// noteForm shows the form of a note: of a new one, or of the one with an id.
func (s view) noteForm(c *echo.Context, code int, snap *say.Snapshot, id string, from page.Typed, faults map[string]string) error {
	about, subject := from("about"), from("subject")
	v := page.FormView{Heading: "A note" + onWhat(snap, about, subject), Action: "/notes", Save: "Keep the note", Cancel: homeOf(about, subject), Lead: "What no number says: it is found again by any of its words, in ten years too."}
	if id != "" {
		v.Action, v.Save = "/notes/"+url.PathEscape(id), "Keep the correction"
		v.Withdraw = &page.DoneView{Words: "Withdraw the note", Kind: book.Notes.Name, ID: id}
	}
	v.Fields = page.Fill(c, []page.Field{
		{Name: "words", Label: "Note", Kind: "area", Needed: true},
		{Name: "on", Label: "Of", Kind: "date", Needed: true},
		{Name: "about", Kind: "hidden"},
		{Name: "subject", Kind: "hidden"},
	}, from, faults)
	v.Fault = page.Rest(v.Fields, faults)
	if faults["subject"] != "" { // it stands in a field that nobody sees
		v.Fault = faults["subject"]
	}
	return s.Show(c, code, "form", "", v.Heading, snap, v)
}

// onWhat says what a note is about.
func onWhat(snap *say.Snapshot, about, subject string) string {
	switch about {
	case "":
		return " of the day"
	case book.AboutCrop:
		if p := snap.Book.Crop(subject); p != nil {
			return " on " + p.Name
		}
	case book.AboutPlanting:
		if p, ok := snap.Book.Planting(subject); ok {
			return " on " + subject + " " + p.Variety
		}
	}
	return " on " + subject
}

// homeOf is the page of what a note is about.
func homeOf(about, subject string) string {
	switch about {
	case book.AboutPlanting:
		return "/plantings/" + url.PathEscape(subject)
	case book.AboutOrder:
		return "/orders/" + url.PathEscape(subject)
	case book.AboutCrop:
		return "/crops/" + url.PathEscape(subject)
	case book.AboutBed:
		return "/beds"
	}
	return "/find"
}

// keepNote keeps a new note, or other words of one.
func (s view) keepNote(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	old, known := noteOf(snap, c.Param("note"))
	if c.Param("note") != "" && !known {
		return book.ErrNoSuchRecord
	}
	f := book.NewFields(func(name string) string {
		if known && name == "id" {
			return old.ID
		}
		return from(name)
	})
	n := book.ReadNote(f)
	if n.On.After(snap.View.Today) {
		f.Fault("on", "%s is still to come: choose today or a day before", snap.Date(n.On))
	}
	parts := map[string][]string{book.AboutPlanting: {"plantings", n.Subject}, book.AboutOrder: {"orders", n.Subject}, book.AboutCrop: {"crops", n.Subject}, book.AboutBed: {"beds"}}[n.About]
	if parts == nil {
		parts = []string{"find"}
	}
	return s.Keep(c, f.Faults(), n.Record(), known, func(faults map[string]string) error {
		return s.noteForm(c, http.StatusUnprocessableEntity, snap, old.ID, from, faults)
	}, parts...)
}
