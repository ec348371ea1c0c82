package web

import (
	"bytes"
	"embed"
	"fmt"
	"html/template"
	"net/url"
	"path"
	"slices"
	"strings"

	"dewcount/farm/book"
	"dewcount/farm/look"

	"github.com/labstack/echo/v5"
)

//go:embed templates/*.html
var templates embed.FS

// pages are the parsed pages by name: each a clone of the layout and its parts.
type pages map[string]*template.Template

func parsePages() (pages, error) {
	shared := []string{"layout.html", "parts.html", "ladder.html", "drawings.html"}
	base := template.New("layout.html").Funcs(template.FuncMap{"asset": assetAddress, "path": url.PathEscape, "anchor": anchor, "drawing": drawingAddress, "mark": productMark}).Option("missingkey=error")
	for _, name := range shared {
		if _, err := base.ParseFS(templates, path.Join("templates", name)); err != nil {
			return nil, fmt.Errorf("template %s: %w", name, err)
		}
	}
	entries, err := templates.ReadDir("templates")
	if err != nil {
		return nil, fmt.Errorf("the templates: %w", err)
	}
	parsed := make(pages)
	for _, e := range entries {
		name := strings.TrimSuffix(e.Name(), ".html")
		if slices.Contains(shared, e.Name()) {
			continue
		}
		clone, err := base.Clone()
		if err != nil {
			return nil, fmt.Errorf("template %s: %w", name, err)
		}
		if parsed[name], err = clone.ParseFS(templates, path.Join("templates", e.Name())); err != nil {
			return nil, fmt.Errorf("template %s: %w", name, err)
		}
	}
	return parsed, nil
}

// anchor writes a name as an id of an element, which must not hold blanks: an attribute that names ids would take it for two.
func anchor(name string) string { return strings.ReplaceAll(url.QueryEscape(name), "%", "_") }

// A page is what every page has around its body.
type page struct {
	Title, Farm, Today string
	Here               string // the view in the navigation
	IsDemo, HasFarm    bool
	AtTheDoor          bool   // of somebody who is not signed in
	Person             string // who is; empty where nobody is set up
	MayOwn, MayRecord  bool
	CSRF               string
	Done               *doneView
	Shown              string // mark of the record that the page shows, which its form carries
	Stale              string // since when what is shown is worked out, where newer records are not in it yet
	Jumps              []string
	Body               any
}

// A viewLink is a view in the navigation; those of the field stand in a phone's bar, the others behind its door.
type viewLink struct {
	Name, Href  string
	Field, Here bool
}

// Views are the views that somebody may open.
func (p page) Views() []viewLink {
	var links []viewLink
	add := func(may bool, name, href string, field bool) {
		if may {
			links = append(links, viewLink{name, href, field, p.Here == href})
		}
	}
	add(true, "Morning", "/", true)
	add(true, "Rounds", "/rounds", true)
	add(p.MayRecord, "Count", "/count", true)
	add(true, "Plantings", "/plantings", true)
	add(true, "Orders", "/orders", false)
	add(true, "Season", "/season", false)
	add(true, "Beds", "/beds", false)
	add(true, "Seeds", "/seeds", false)
	add(true, "Crops", "/crops", false)
	add(p.MayOwn, "Farm", "/farm", false)
	return links
}

// MoreHere tells whether the open view is behind the door.
func (p page) MoreHere() bool {
	return slices.ContainsFunc(p.Views(), func(v viewLink) bool { return v.Here && !v.Field })
}

// A doneView tells what was just done, and lets it be undone.
type doneView struct{ Words, Kind, ID string }

// show fills what every page has from a snapshot, and renders.
func (s *server) show(c *echo.Context, code int, name, here, title string, snap *look.Snapshot, body any) error {
	p := page{Title: title, Here: here, IsDemo: s.step != nil, HasFarm: snap != nil}
	if snap != nil {
		if place, err := snap.Book.Place(); err == nil {
			p.Farm = place.Name
		}
		p.Today = fullDay(snap.View.Today)
		for _, planting := range snap.Book.Plantings {
			p.Jumps = append(p.Jumps, planting.ID+" "+planting.Variety)
		}
		for _, o := range snap.Book.Orders {
			p.Jumps = append(p.Jumps, o.ID)
		}
	}
	p.Done = done(c.QueryParam("done"))
	p.Shown = shown(c)
	if c.Get(staleKey) != nil {
		p.Stale = snap.WorkedAt.Clock()
		if here == "/" || name == "why" { // pages on which nothing is typed
			c.Response().Header().Set("Refresh", "2")
		}
	}
	return s.render(c, code, name, p, body)
}

func (s *server) render(c *echo.Context, code int, name string, p page, body any) error {
	p.Body = body
	person := who(c)
	p.Person, p.MayOwn, p.MayRecord = person.Name, person.Role.May(own), person.Role.May(record)
	if token, ok := c.Get("csrf").(string); ok {
		p.CSRF = token
	}
	var text bytes.Buffer
	if err := s.pages[name].ExecuteTemplate(&text, "layout.html", p); err != nil {
		return fmt.Errorf("page %s: %w", name, err)
	}
	return c.HTMLBlob(code, text.Bytes())
}

// done reads "recorded:counts:ID" from an address.
func done(text string) *doneView {
	parts := strings.SplitN(text, ":", 3)
	if len(parts) != 3 || book.KindNamed(parts[1]) == nil {
		return nil
	}
	word := map[string]string{"recorded": "recorded", "corrected": "corrected", "withdrawn": "withdrawn", "undone": "put back as it was"}[parts[0]]
	if word == "" {
		return nil
	}
	return &doneView{sentence(book.KindNamed(parts[1]).Singular + " " + word), parts[1], parts[2]}
}
