package find

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"unicode"

	"dewcount/core/day"
	"dewcount/farm/book"
	finder "dewcount/farm/find"
	"dewcount/say"

	"github.com/labstack/echo/v5"
)

// A foundView is what a question found, notes first.
type foundView struct {
	Asked  string
	Lead   string // what was found, and when
	None   string
	Groups []groupView
	Latest []findView // notes, where nothing was asked
}

type groupView struct {
	Name  string
	Finds []findView
}

// A findView is one document, with the part of its words that was looked for.
type findView struct {
	Title, Href, When, Who string
	Said                   []saidView
}

// A saidView is a piece of text that was looked for, or that stands between such.
type saidView struct {
	Words string
	Mark  bool
}

// groupNames are the kinds of documents in the order in which they are shown.
var groupNames = []struct{ kind, name string }{{finder.Note, "Notes"}, {finder.Planting, "Plantings"}, {finder.Order, "Orders"}, {finder.Variety, "Varieties"}, {finder.Crop, "Crops"}, {finder.Scouting, "Pests and damage"},
	{finder.Spray, "Sprays"}, {finder.Inquiry, "Inquiries"}, {finder.Bed, "Beds"}, {finder.Year, "Years"}}

func (s view) find(c *echo.Context, snap *say.Snapshot) error {
	v := foundView{Asked: strings.TrimSpace(c.QueryParam("q"))}
	q, found, elsewhen, err := s.Farm.Find(c.Request().Context(), v.Asked)
	if err != nil {
		return err
	}
	for _, g := range groupNames {
		group := groupView{Name: g.name}
		for _, d := range found {
			if d.Kind == g.kind {
				group.Finds = append(group.Finds, newFind(snap, d, q.Words))
			}
		}
		if group.Finds != nil {
			v.Groups = append(v.Groups, group)
		}
	}
	switch {
	case v.Asked == "" || q.IsEmpty():
		v.Latest = latest(snap)
	case len(found) == 0:
		v.None = fmt.Sprintf("Nothing was written down that holds %s. Try fewer words, or the beginning of one.", quoted(q.Words))
	case elsewhen:
		v.Lead = fmt.Sprintf("Nothing of %s; this is of other times.", span(snap, q.From, q.To))
	case !q.From.IsZero():
		v.Lead = "Of " + span(snap, q.From, q.To) + "."
	}
	return s.Show(c, http.StatusOK, "find", "", "Find", snap, v)
}

// latest are the last notes.
func latest(snap *say.Snapshot) []findView {
	const most = 10
	var finds []findView
	for i := len(snap.Book.Notes) - 1; i >= 0 && len(finds) < most; i-- {
		n := snap.Book.Notes[i]
		finds = append(finds, newFind(snap, finder.Doc{Kind: finder.Note, ID: n.ID, On: n.On.String(), Title: strings.TrimPrefix(onWhat(snap, n.About, n.Subject), " on "), Words: n.Words}, nil))
	}
	return finds
}

func quoted(words []string) string {
	if len(words) == 0 {
		return "anything of that time"
	}
	return "“" + strings.Join(words, "” and “") + "”"
}

func span(snap *say.Snapshot, from, to day.Day) string {
	if from == to {
		return snap.FullDate(from)
	}
	return snap.FullDate(from) + " to " + snap.FullDate(to)
}

func newFind(snap *say.Snapshot, d finder.Doc, words []string) findView {
	v := findView{Title: d.Title, Href: hrefOf(snap, d), Said: said(d.Words, words)}
	if on, err := day.Parse(d.On); err == nil {
		v.When = snap.FullDate(on)
	}
	if kind := map[string]*book.Kind{finder.Note: book.Notes, finder.Scouting: book.Scoutings, finder.Spray: book.Sprays}[d.Kind]; kind != nil {
		if made, ok := snap.Book.AuthorOf(kind, d.ID); ok {
			v.Who = made.By
		}
	}
	return v
}

// hrefOf is the page on which a document can be read whole.
func hrefOf(snap *say.Snapshot, d finder.Doc) string {
	id := url.PathEscape(d.ID)
	planting := func(kind *book.Kind) string {
		r, _ := snap.Book.Record(kind, d.ID)
		return "/plantings/" + url.PathEscape(r.Field("planting"))
	}
	switch d.Kind {
	case finder.Note:
		if n, ok := noteOf(snap, d.ID); ok && n.About != "" {
			return homeOf(n.About, n.Subject)
		}
		return "/notes/" + id
	case finder.Planting:
		return "/plantings/" + id
	case finder.Order:
		return "/orders/" + id
	case finder.Variety:
		v, _ := snap.Book.Variety(d.ID)
		return "/crops/" + url.PathEscape(v.Crop)
	case finder.Crop:
		return "/crops/" + id
	case finder.Scouting:
		return planting(book.Scoutings)
	case finder.Spray:
		return planting(book.Sprays)
	case finder.Inquiry:
		return "/ask"
	case finder.Year:
		return "/years"
	}
	return "/beds"
}

// around is how many letters of a long text are shown before the first word that was looked for, and mostSaid how many in all.
const (
	around   = 60
	mostSaid = 260
)

// said cuts a text down to what surrounds the words that were looked for, and marks them.
func said(text string, words []string) []saidView {
	runes := []rune(text)
	plain := []rune(strings.ToLower(text))
	if len(plain) != len(runes) { // some letters change their length: nothing is marked then
		return []saidView{{Words: text}}
	}
	marked := make([]bool, len(runes))
	first := -1
	for _, w := range words {
		w := []rune(strings.TrimSuffix(w, "s"))
		for i := 0; i+len(w) <= len(plain); i++ {
			if string(plain[i:i+len(w)]) != string(w) || i > 0 && letter(plain[i-1]) {
				continue
			}
			if first < 0 || i < first {
				first = i
			}
			for k := i; k < i+len(w); k++ {
				marked[k] = true
			}
		}
	}
	from := max(0, first-around)
	to := min(len(runes), from+mostSaid)
	var parts []saidView
	if from > 0 {
		parts = append(parts, saidView{Words: "… "})
	}
	for i := from; i < to; {
		k := i
		for k < to && marked[k] == marked[i] {
			k++
		}
		parts = append(parts, saidView{string(runes[i:k]), marked[i]})
		i = k
	}
	if to < len(runes) {
		parts = append(parts, saidView{Words: " …"})
	}
	return parts
}

func letter(r rune) bool { return unicode.IsLetter(r) || unicode.IsDigit(r) }
