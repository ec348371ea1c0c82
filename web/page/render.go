package page

import (
	"bytes"
	"dewcount/core/day"
	"embed"
	"fmt"
	"html/template"
	"io/fs"
	"net/url"
	"slices"
	"strings"

	"dewcount/farm/book"
	"dewcount/say"
	"dewcount/web/assets"
	"dewcount/web/draw"

	"github.com/labstack/echo/v5"
)

//go:embed templates
var templates embed.FS

// Pages are the parsed pages by name: each a clone of the layout and its parts.
type Pages map[string]*template.Template

// layout returns what all pages share: the layout, its parts and the drawings.
func layout() (*template.Template, error) {
	functions := template.FuncMap{"asset": assets.Address, "path": url.PathEscape, "anchor": anchor, "drawing": draw.DrawingAddress, "mark": draw.ProductMark,
		"drawn": func(e draw.Elements) template.HTML { return template.HTML(e) }, // nothing typed is in it
		"list":  func(words ...string) []string { return words }, "withdrawal": newWithdrawal}
	shared, err := template.New("layout.html").Funcs(functions).Option("missingkey=error").ParseFS(templates, "templates/layout.html", "templates/parts.html")
	if err != nil {
		return nil, fmt.Errorf("the layout: %w", err)
	}
	if shared, err = shared.ParseFS(draw.Templates, "templates/*.html"); err != nil {
		return nil, fmt.Errorf("the drawings: %w", err)
	}
	return shared, nil
}

// Parse adds the pages of a folder.
func (s *Site) Parse(folder fs.FS) error {
	names, err := fs.Glob(folder, "*.html")
	if err != nil {
		return fmt.Errorf("the templates: %w", err)
	}
	for _, file := range names {
		page, err := s.layout.Clone()
		if err != nil {
			return fmt.Errorf("template %s: %w", file, err)
		}
		if s.Pages[strings.TrimSuffix(file, ".html")], err = page.ParseFS(folder, file); err != nil {
			return fmt.Errorf("template %s: %w", file, err)
		}
	}
	return nil
}

// A withdrawal is the form that takes a record away.
type withdrawal struct {
	CSRF, Shown string
	*DoneView
}

func newWithdrawal(csrf, shown string, of *DoneView) withdrawal { return withdrawal{csrf, shown, of} }

// anchor writes a name as an id of an element, which must not hold blanks: an attribute that names ids would take it for two.
func anchor(name string) string { return strings.ReplaceAll(url.QueryEscape(name), "%", "_") }

// A Frame is what every page has around its body.
type Frame struct {
	Title, Farm, Today string
	Here               string // the view in the navigation
	IsDemo, HasFarm    bool
	IsPlayed           bool   // the farm is a season that is played
	SignedOut          bool   // of somebody who is not signed in
	Person             string // who is; empty where nobody is set up
	MayOwn, MayRecord  bool
	CSRF               string
	Done               *DoneView
	Shown              string // mark of the record that the page shows, which its form carries
	Zone, Clock        string // the farm's time zone, and its clock where that stands as the demo's does
	AsOf               string // the hour of what is shown, for who looks at it without signal
	Stale              string // since when what is shown is worked out, where newer records are not in it yet
	Jumps              []string
	Body               any
}

// A viewLink is a view in the navigation; those of the field stand in a phone's bar, the others behind its More.
type viewLink struct {
	Name, Href  string
	Field, Here bool
}

// Views are the views that somebody may open.
func (p Frame) Views() []viewLink {
	var links []viewLink
	add := func(may bool, name, href string, field bool) {
		if may {
			links = append(links, viewLink{name, href, field, p.Here == href})
		}
	}
	add(true, "Morning", "/", true)
	add(true, "Rounds", "/rounds", true)
	add(p.MayRecord, "Count", "/count", true)
	add(p.MayRecord, "Cut", "/cut", true)
	add(true, "Store", "/store", false)
	add(true, "Plantings", "/plantings", !p.MayRecord)
	add(true, "Orders", "/orders", false)
	add(true, "Season", "/season", false)
	add(true, "Beds", "/beds", false)
	add(true, "Seeds", "/seeds", false)
	add(true, "Crops", "/crops", false)
	add(true, "School", "/school", false)
	add(p.MayOwn, "Farm", "/farm", false)
	return links
}

// MoreHere tells whether the open view is behind the More of a phone's bar.
func (p Frame) MoreHere() bool {
	return slices.ContainsFunc(p.Views(), func(v viewLink) bool { return v.Here && !v.Field })
}

// A DoneView tells what was just done, and lets it be undone.
type DoneView struct{ Words, Kind, ID string }

// Show fills what every page has from a snapshot, and renders.
func (s *Site) Show(c *echo.Context, code int, name, here, title string, snap *say.Snapshot, body any) error {
	p := Frame{Title: title, Here: here, IsDemo: s.Step != nil, IsPlayed: s.Played, HasFarm: snap != nil}
	if snap != nil {
		if place, err := snap.Book.Place(); err == nil {
			p.Farm, p.Zone = place.Name, place.Zone.String()
			if !place.DemoDay.IsZero() {
				p.Clock = day.At(snap.View.Today, 8, 0).String()
			}
		}
		p.Today = snap.FullDate(snap.View.Today)
		p.AsOf = snap.Moment(snap.WorkedAt)
		for _, planting := range snap.Book.Plantings {
			p.Jumps = append(p.Jumps, planting.ID+" "+planting.Variety)
		}
		for _, o := range snap.Book.Orders {
			p.Jumps = append(p.Jumps, o.ID)
		}
	}
	p.Done = ReadDone(c.QueryParam("done"))
	p.Shown = shown(c)
	if c.Get(StaleKey) != nil {
		p.Stale = snap.WorkedAt.Clock()
		if here == "/" || name == "why" { // pages on which nothing is typed
			c.Response().Header().Set("Refresh", "2")
		}
	}
	return s.Render(c, code, name, p, body)
}

func (s *Site) Render(c *echo.Context, code int, name string, p Frame, body any) error {
	p.Body = body
	person := Who(c)
	p.Person, p.MayOwn, p.MayRecord = person.Name, person.Role.May(Own), person.Role.May(Record)
	if token, ok := c.Get("csrf").(string); ok {
		p.CSRF = token
	}
	var text bytes.Buffer
	if err := s.Pages[name].ExecuteTemplate(&text, "layout.html", p); err != nil {
		return fmt.Errorf("page %s: %w", name, err)
	}
	return c.HTMLBlob(code, text.Bytes())
}

// done reads "recorded:counts:ID" from an address.
func ReadDone(text string) *DoneView {
	parts := strings.SplitN(text, ":", 3)
	if len(parts) != 3 || book.KindNamed(parts[1]) == nil {
		return nil
	}
	word := map[string]string{"recorded": "recorded", "corrected": "corrected", "withdrawn": "withdrawn", "undone": "put back as it was"}[parts[0]]
	if word == "" {
		return nil
	}
	return &DoneView{say.Sentence(book.KindNamed(parts[1]).Singular + " " + word), parts[1], parts[2]}
}
