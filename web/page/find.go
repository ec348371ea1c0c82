package page

import (
	"strings"

	"dewcount/farm/book"
	"dewcount/say"

	"github.com/labstack/echo/v5"
)

// A FindView is the form above a long list: what is looked for, a bed, and how many of all are shown.
type FindView struct {
	Action string
	Typed  string
	Hint   string // what it is looked for in
	Beds   []Option
	Kept   []LinkView // further fields of the address that stay, Name and value in Href
	Shown  int
	All    int
}

// NewFind reads what is looked for in a list; beds are offered where its lines have some.
func NewFind(c *echo.Context, action, hint string, beds []book.Bed) FindView {
	v := FindView{Action: action, Typed: strings.TrimSpace(c.QueryParam("find")), Hint: hint}
	if len(beds) > 1 {
		v.Beds = append(v.Beds, Option{Value: "", Label: "all beds"})
		for _, b := range beds {
			v.Beds = append(v.Beds, Option{Value: b.ID, Label: b.ID, Chosen: b.ID == c.QueryParam("bed")})
		}
	}
	return v
}

// Takes counts a line of the list and tells whether it is shown: all words looked for stand in what it says, and it is in the bed that is chosen.
func (v *FindView) Takes(bed string, said ...string) bool {
	v.All++
	for _, b := range v.Beds {
		if b.Chosen && b.Value != "" && b.Value != bed {
			return false
		}
	}
	text := say.Plain(strings.Join(append(said, bed), " "))
	for word := range strings.FieldsSeq(say.Plain(v.Typed)) {
		if !strings.Contains(text, word) {
			return false
		}
	}
	v.Shown++
	return true
}

// Narrowed tells whether less than all is shown.
func (v FindView) Narrowed() bool { return v.Shown < v.All }

// Wanted tells whether there is anything to look through.
func (v FindView) Wanted() bool { return v.All > 0 }
