package web

import (
	"errors"
	"net/http"

	"dewcount/farm/book"

	"github.com/labstack/echo/v5"
)

// A form carries what its writer was shown, so that the second of two who change the same thing is told what the first has written.

// shownKey is where a request keeps the mark of the record that its page shows.
const shownKey = "shown"

// shows notes which record a page shows.
func shows(c *echo.Context, r book.Record) { c.Set(shownKey, r.Mark()) }

// shown returns the mark that a page's form carries: of a form that was sent and comes back, what its writer saw.
func shown(c *echo.Context) string {
	mark, _ := c.Get(shownKey).(string)
	if c.Request().Method == http.MethodPost && c.Get(theirsKey) == nil {
		return c.FormValue(shownKey)
	}
	return mark
}

// theirsKey says that a form comes back with what somebody else has written, which its writer has then seen.
const theirsKey = "theirs"

// theirs puts what somebody else has written beside the fields of a form, and notes that its writer sees it now. standing has what stands as
// the form has it; names are the form's fields.
func theirs(c *echo.Context, changed *book.Changed, mark string, names []string, from, standing typed) map[string]string {
	c.Set(shownKey, mark)
	c.Set(theirsKey, true)
	faults := map[string]string{"": sentence(changed.Error())}
	for _, name := range names {
		if now := standing(name); now != from(name) {
			faults[name] = "On record now: " + readable(now) + "."
		}
	}
	return faults
}

// faultsOf is faultsBy for a form of one record: where something else stands than its writer was shown, that stands beside the fields. as has
// a record as the form has it.
func faultsOf(c *echo.Context, err error, from typed, as func(book.Record) typed, names ...string) (map[string]string, bool) {
	if changed, ok := errors.AsType[*book.Changed](err); ok && changed.Now.Kind != nil {
		if names == nil {
			names = changed.Now.Kind.Columns
		}
		return theirs(c, changed, changed.Now.Mark(), names, from, as(changed.Now)), true
	}
	return faultsBy(err)
}
