package web

import (
	"errors"
	"net/http"
	"net/url"
	"strings"

	"dewcount/farm/book"
	"dewcount/fault"

	"github.com/labstack/echo/v5"
)

// A field is an input of a form: what was typed stays, and what is wrong stands beside it.
type field struct {
	Name, Label, Hint, Kind, Mode string // kind: of the input element; mode: of the keyboard
	Typed, Fault, List            string // list: the id of a list of suggestions
	Options                       []option
	Needed                        bool
	Complete                      string // what a browser may fill in, nothing unless said
}

type option struct {
	Value, Label string
	Chosen       bool
}

// choose marks the typed option.
func (f field) choose(options ...option) field {
	for _, o := range options {
		o.Chosen = o.Value == f.Typed
		f.Options = append(f.Options, o)
	}
	return f
}

// typed returns what was typed into a field of a form, or what a record says.
type typed func(name string) string

// posted reads a form that was sent.
func posted(c *echo.Context) typed {
	return func(name string) string { return c.FormValue(name) }
}

// of reads a record.
func of(r book.Record) typed {
	return func(name string) string {
		for i, column := range r.Kind.Columns {
			if column == name {
				return r.Rows[0][i]
			}
		}
		return ""
	}
}

// faultsBy returns the advice for each field, and whether err is no more than faults.
func faultsBy(err error) (map[string]string, bool) {
	var faults fault.List
	if !errors.As(err, &faults) {
		return nil, false
	}
	by := make(map[string]string)
	for _, f := range faults {
		if by[f.Field] == "" {
			by[f.Field] = sentence(f.Advice)
		}
	}
	return by, true
}

// fill puts what was typed and what is wrong into fields.
func fill(fields []field, from typed, faults map[string]string) []field {
	for i := range fields {
		f := &fields[i]
		f.Typed, f.Fault = from(f.Name), faults[f.Name]
		options := f.Options
		f.Options = nil
		*f = f.choose(options...)
	}
	return fields
}

// rest returns the advice for what no field of the form is named after.
func rest(fields []field, faults map[string]string) string {
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

// addressOf builds an address of parts, and tells on the page there what was done to a record.
func addressOf(did string, r book.Record, parts ...string) string {
	for i, p := range parts {
		parts[i] = url.PathEscape(p)
	}
	return "/" + strings.Join(parts, "/") + "?done=" + url.QueryEscape(did+":"+r.Kind.Name+":"+r.ID())
}

// keep keeps the record that a form made, a new one or in the place of the one that stands; where it has faults, or something else stands than
// the form showed, again shows the form with them, otherwise parts are the page that tells what was done.
func (s *server) keep(c *echo.Context, err error, record book.Record, stands bool, again func(map[string]string) error, parts ...string) error {
	return s.keepAs(c, err, record, stands, of, again, parts...)
}

// keepAs is keep for a form that has a record otherwise than its columns are.
func (s *server) keepAs(c *echo.Context, err error, record book.Record, stands bool, as func(book.Record) typed, again func(map[string]string) error, parts ...string) error {
	did := "recorded"
	switch {
	case err != nil:
	case stands:
		did, err = "corrected", s.farm.CorrectShown(c.Request().Context(), by(c), c.FormValue(shownKey), record)
	default:
		err = s.farm.Add(c.Request().Context(), by(c), record)
	}
	if faults, only := faultsOf(c, err, posted(c), as); only {
		return again(faults)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, addressOf(did, record, parts...))
}

// A formView is a page that is a form.
type formView struct {
	Links                         []linkView // to what belongs to it
	Heading, Action, Save, Cancel string
	Lead                          string
	Fields                        []field
	More                          []field // shown apart: rarely needed
	Fault                         string  // what belongs to no field
	Varieties                     []string
	Suggestions                   []string // for the field that names their list
	ListID                        string
	Withdraw                      *doneView // what may be withdrawn here
}

type linkView struct {
	Name, Href string
	Here       bool
}
