package page

import (
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"dewcount/farm/book"
	"dewcount/fault"
	"dewcount/say"

	"github.com/labstack/echo/v5"
)

// A Field is an input of a form: what was typed stays, and what is wrong stands beside it.
type Field struct {
	Name, Label, Hint, Kind, Mode string // kind: of the input element; mode: of the keyboard
	Typed, Fault, List            string // list: the id of a list of suggestions
	Options                       []Option
	Inputs                        []Input // of a field that has several inputs, kept as one value parted by blanks
	Needed                        bool
	Group                         string // heads those that begin with this field; empty for none
	Complete                      string // what a browser may fill in, nothing unless said
}

// An Input is one of those of a field that has several.
type Input struct {
	Name, Label, Typed string
	Chosen             bool // of a box
}

// Boxes lets a field be chosen of words by boxes.
func (f Field) Boxes(words, labels []string) Field {
	f.Kind = "boxes"
	for i, w := range words {
		f.Inputs = append(f.Inputs, Input{Name: w, Label: labels[i]})
	}
	return f
}

// Each gives a field an input for each of some labels.
func (f Field) Each(labels []string) Field {
	f.Kind = "inputs"
	for i, l := range labels {
		f.Inputs = append(f.Inputs, Input{Name: f.Name + "-" + strconv.Itoa(i), Label: l})
	}
	return f
}

// spread fills the inputs of a field that has several.
func (f *Field) spread() {
	words := strings.Fields(f.Typed)
	for i := range f.Inputs {
		switch {
		case f.Kind == "boxes":
			f.Inputs[i].Chosen = slices.Contains(words, f.Inputs[i].Name)
		case i < len(words):
			f.Inputs[i].Typed = words[i]
		}
	}
}

// Joined returns what was typed into the inputs of a field that has several, parted by blanks; a gap between them is a dash, so that it is told. Empty where none has
// anything.
func Joined(c *echo.Context, name string) string {
	const most = 12
	locale := LocaleOf(c)
	var words []string
	some := false
	for i := range most {
		form, err := c.FormValues()
		if err != nil || !form.Has(name+"-"+strconv.Itoa(i)) {
			break
		}
		word := strings.Join(strings.Fields(form.Get(name+"-"+strconv.Itoa(i))), "")
		if some = some || word != ""; word == "" {
			word = "–"
		}
		words = append(words, word)
	}
	if !some {
		return ""
	}
	return locale.In(name, strings.Join(words, " "))
}

type Option struct {
	Value, Label string
	Chosen       bool
}

// Choose marks the typed option.
func (f Field) Choose(options ...Option) Field {
	for _, o := range options {
		o.Chosen = o.Value == f.Typed
		f.Options = append(f.Options, o)
	}
	return f
}

// typed returns what was typed into a field of a form, or what a record says.
type Typed func(name string) string

// Posted reads a form that was sent, with its measures as they are kept.
func Posted(c *echo.Context) Typed {
	locale := LocaleOf(c)
	return func(name string) string { return locale.In(name, c.FormValue(name)) }
}

// Of reads a record.
func Of(r book.Record) Typed {
	return func(name string) string {
		for i, column := range r.Kind.Columns {
			if column == name {
				return r.Lines[0][i]
			}
		}
		return ""
	}
}

// FaultsBy returns the advice for each field, and whether err is no more than faults.
func FaultsBy(err error) (map[string]string, bool) {
	var faults fault.List
	if !errors.As(err, &faults) {
		return nil, false
	}
	by := make(map[string]string)
	for _, f := range faults {
		if by[f.Field] == "" {
			by[f.Field] = say.Sentence(f.Advice)
		}
	}
	return by, true
}

// Fill puts what was typed and what is wrong into fields, with measures as whoever fills the form in reads them.
func Fill(c *echo.Context, fields []Field, from Typed, faults map[string]string) []Field {
	locale := LocaleOf(c)
	for i := range fields {
		f := &fields[i]
		f.Label, f.Typed, f.Fault = locale.Label(f.Name, f.Label), locale.Out(f.Name, from(f.Name)), faults[f.Name]
		f.spread()
		options := f.Options
		f.Options = nil
		*f = f.Choose(options...)
	}
	return fields
}

// Rest returns the advice for what no field of the form is named after.
func Rest(fields []Field, faults map[string]string) string {
	if faults[""] != "" {
		return faults[""]
	}
	for name, advice := range faults {
		there := false
		for _, f := range fields {
			there = there || f.Name == name
		}
		if !there {
			return advice
		}
	}
	return ""
}

// AddressOf builds an address of parts, and tells on the page there what was done to a record.
func AddressOf(did string, r book.Record, parts ...string) string {
	for i, p := range parts {
		parts[i] = url.PathEscape(p)
	}
	return "/" + strings.Join(parts, "/") + "?done=" + url.QueryEscape(did+":"+r.Kind.Name+":"+r.ID())
}

// Keep keeps the record that a form made, a new one or in the place of the one that stands; where it has faults, or something else stands than
// the form showed, again shows the form with them, otherwise parts are the page that tells what was done.
func (s *Site) Keep(c *echo.Context, err error, record book.Record, stands bool, again func(map[string]string) error, parts ...string) error {
	return s.KeepAs(c, err, record, stands, Of, again, parts...)
}

// KeepAs is keep for a form that has a record otherwise than its columns are.
func (s *Site) KeepAs(c *echo.Context, err error, record book.Record, stands bool, as func(book.Record) Typed, again func(map[string]string) error, parts ...string) error {
	did := "recorded"
	switch {
	case err != nil:
	case stands:
		did, err = "corrected", s.Farm.CorrectShown(c.Request().Context(), By(c), c.FormValue(ShownKey), record)
	default:
		err = s.Farm.Add(c.Request().Context(), By(c), record)
	}
	if faults, only := FaultsOf(c, err, Posted(c), as); only {
		return again(faults)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, AddressOf(did, record, parts...))
}

// A FormView is a page that is a form.
type FormView struct {
	Links                         []LinkView // to what belongs to it
	Heading, Action, Save, Cancel string
	Lead                          string
	Fields                        []Field
	More                          []Field // shown apart: rarely needed
	Fault                         string  // what belongs to no field
	Varieties                     []string
	Suggestions                   []string // for the field that names their list
	ListID                        string
	Withdraw                      *DoneView // what may be withdrawn here
}

type LinkView struct {
	Name, Href string
	Here       bool
}
