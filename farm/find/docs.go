// Package find makes what is on record findable by words: what a document says, and what somebody's question asks for.
package find

import (
	"fmt"
	"slices"
	"strings"

	"dewcount/core/day"
	"dewcount/farm/book"
)

// Kinds of documents.
const (
	Note     = "note"
	Planting = "planting"
	Variety  = "variety"
	Crop     = "crop"
	Order    = "order"
	Bed      = "bed"
	Inquiry  = "inquiry"
	Scouting = "scouting"
	Spray    = "spray"
	Year     = "year"
)

// A Doc is something that can be found: its title and its words are searched, the rest says what it is.
type Doc struct {
	Kind  string `db:"kind"`
	ID    string `db:"id"`
	On    string `db:"on"` // its day, 2026-07-09; empty where it has none
	Title string `db:"title"`
	Words string `db:"words"`
	Also  string `db:"also"` // by what else it is found, and which is not shown
}

// Docs returns all that can be found of a book, each kind and id once.
func Docs(b *book.Book) []Doc {
	d := docs{b: b}
	for _, n := range b.Notes {
		d.add(Note, n.ID, n.On, d.subject(n.About, n.Subject), n.Words)
		d.also(d.describes(n.About, n.Subject))
	}
	for _, p := range b.Plantings {
		d.add(Planting, p.ID, p.StartedOn, p.ID+" "+p.Variety, d.variety(p.Variety), "in "+p.Bed, string(p.Method), p.Succession)
	}
	for _, v := range b.Varieties {
		d.add(Variety, v.Name, day.Day{}, v.Name, d.variety(v.Name))
	}
	for _, p := range b.Crops() {
		e, _, _ := b.Entry(p.ID)
		d.add(Crop, p.ID, day.Day{}, p.Name, p.Botanical, p.ID, e.Form, strings.Join(e.Care, " "), strings.Join(e.Pests, ", "))
	}
	for _, o := range b.Orders {
		var wants []string
		for _, l := range b.OrderLines {
			if l.Order == o.ID {
				wants = append(wants, b.Called(l)+" "+l.Recipe)
			}
		}
		d.add(Order, o.ID, o.DueOn, o.ID, o.Customer, o.Place, o.Kind, o.Palette, o.Note, strings.Join(wants, ", "))
	}
	for _, x := range b.Beds {
		d.add(Bed, x.ID, day.Day{}, x.ID, x.Zone, x.Cover)
	}
	for _, q := range b.Inquiries {
		d.add(Inquiry, q.ID, q.AskedOn, q.Customer, fmt.Sprintf("%d %s", q.Stems, q.What), q.Note)
	}
	for _, x := range b.Scoutings {
		d.add(Scouting, x.ID, x.On, d.subject(book.AboutPlanting, x.Planting), x.Cause, x.Done, x.Note)
		d.also(d.describes(book.AboutPlanting, x.Planting))
	}
	for _, x := range b.Sprays {
		d.add(Spray, x.ID, x.SprayedAt.Day(), d.subject(book.AboutPlanting, x.Planting), x.Product, x.Note)
		d.also(d.describes(book.AboutPlanting, x.Planting))
	}
	for _, year := range d.years() {
		d.add(Year, fmt.Sprint(year), day.Day{}, fmt.Sprintf("Season %d", year), "year against year")
	}
	return d.all
}

type docs struct {
	b   *book.Book
	all []Doc
}

func (d *docs) add(kind, id string, on day.Day, title string, words ...string) {
	said := slices.DeleteFunc(words, func(w string) bool { return strings.TrimSpace(w) == "" || w == "in " })
	d.all = append(d.all, Doc{Kind: kind, ID: id, On: on.String(), Title: title, Words: strings.Join(said, "; ")})
}

// also lets the last document be found by more words.
func (d *docs) also(words string) { d.all[len(d.all)-1].Also = words }

// variety says what a variety is.
func (d *docs) variety(name string) string {
	v, ok := d.b.Variety(name)
	if !ok {
		return ""
	}
	words := []string{v.Colour, v.Role, v.Traits}
	if p := d.b.Crop(v.Crop); p != nil {
		words = append(words, p.Name, p.Botanical)
	}
	return strings.Join(slices.DeleteFunc(words, func(w string) bool { return w == "" }), ", ")
}

// subject names what a note is about.
func (d *docs) subject(about, subject string) string {
	switch about {
	case "":
		return "The day"
	case book.AboutPlanting:
		if p, ok := d.b.Planting(subject); ok {
			return subject + " " + p.Variety
		}
	case book.AboutCrop:
		if p := d.b.Crop(subject); p != nil {
			return p.Name
		}
	}
	return subject
}

// describes says what the subject of a note is, so that it is found by its crop and colour too.
func (d *docs) describes(about, subject string) string {
	if p, ok := d.b.Planting(subject); ok && about == book.AboutPlanting {
		return d.variety(p.Variety)
	}
	return ""
}

// years are the seasons of which something is on record, by the days of starts and cuts.
func (d *docs) years() []int {
	var years []int
	note := func(on day.Day) {
		if y := on.Midnight().Year(); !on.IsZero() && !slices.Contains(years, y) {
			years = append(years, y)
		}
	}
	for _, p := range d.b.Plantings {
		note(p.StartedOn)
	}
	for _, c := range d.b.Cuts {
		note(c.CutAt.Day())
	}
	slices.Sort(years)
	return years
}
