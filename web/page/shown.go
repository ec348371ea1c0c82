package page

import (
	"errors"
	"net/http"

	"dewcount/farm/book"
	"dewcount/say"

	"github.com/labstack/echo/v5"
)

// A form carries what its writer was shown, so that the second of two who change the same thing is told what the first has written.

// shownKey is where a request keeps the mark of the record that its page shows.
const ShownKey = "shown"

// Shows notes which record a page shows.
func Shows(c *echo.Context, r book.Record) { c.Set(ShownKey, r.Mark()) }

// shown returns the mark that a page's form carries: of a form that was sent and comes back, what its writer saw.
func shown(c *echo.Context) string {
	mark, _ := c.Get(ShownKey).(string)
	if c.Request().Method == http.MethodPost && c.Get(theirsKey) == nil {
		return c.FormValue(ShownKey)
	}
	return mark
}

// theirsKey says that a form comes back with what somebody else has written, which its writer has then seen.
const theirsKey = "theirs"

// Theirs puts what somebody else has written beside the fields of a form, and notes that its writer sees it now. standing has what stands as
// the form has it; names are the form's fields.
func Theirs(c *echo.Context, changed *book.Changed, mark string, names []string, from, standing Typed) map[string]string {
	c.Set(ShownKey, mark)
	c.Set(theirsKey, true)
	faults := map[string]string{"": say.Sentence(changed.Error())}
	for _, name := range names {
		if now := standing(name); now != from(name) {
			faults[name] = "On record now: " + LocaleOf(c).Readable(name, now) + "."
		}
	}
	return faults
}

// FaultsOf is faultsBy for a form of one record: where something else stands than its writer was shown, that stands beside the fields. as has
// a record as the form has it.
func FaultsOf(c *echo.Context, err error, from Typed, as func(book.Record) Typed, names ...string) (map[string]string, bool) {
	if changed, ok := errors.AsType[*book.Changed](err); ok && changed.Now.Kind != nil {
		if names == nil {
			names = changed.Now.Kind.Columns
		}
		return Theirs(c, changed, changed.Now.Mark(), names, from, as(changed.Now)), true
	}
	return FaultsBy(err)
}
