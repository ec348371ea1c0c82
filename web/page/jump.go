package page

import (
	"net/http"
	"net/url"
	"strings"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/say"

	"github.com/labstack/echo/v5"
)

// Jump leads from a name to its page.
func (s *Site) Jump(c *echo.Context, snap *say.Snapshot) error {
	to := strings.TrimSpace(c.QueryParam("to"))
	name, _, _ := strings.Cut(to, " ")
	for _, names := range []func(book.Planting) string{ // its name, its name as the list has it, its variety, a name with anything behind
		func(p book.Planting) string { return p.ID }, func(p book.Planting) string { return p.ID + " " + p.Variety }, func(p book.Planting) string { return p.Variety },
	} {
		for _, p := range snap.Book.Plantings {
			if strings.EqualFold(names(p), to) {
				return c.Redirect(http.StatusSeeOther, "/plantings/"+url.PathEscape(p.ID))
			}
		}
	}
	for _, p := range snap.Book.Plantings {
		if strings.EqualFold(p.ID, name) {
			return c.Redirect(http.StatusSeeOther, "/plantings/"+url.PathEscape(p.ID))
		}
	}
	for _, o := range snap.Book.Orders {
		if strings.EqualFold(o.ID, to) {
			return c.Redirect(http.StatusSeeOther, "/orders/"+url.PathEscape(o.ID))
		}
	}
	for _, b := range snap.Book.Beds {
		if strings.EqualFold(b.ID, to) {
			return c.Redirect(http.StatusSeeOther, "/beds#bed-"+anchor(b.ID))
		}
	}
	for _, p := range snap.Book.Crops() {
		if strings.EqualFold(p.Name, to) || strings.EqualFold(p.ID, to) {
			return c.Redirect(http.StatusSeeOther, "/crops/"+url.PathEscape(p.ID))
		}
	}
	for word, address := range map[string]string{"morning": "/", "plantings": "/plantings", "count": "/count", "cut": "/cut", "store": "/store", "rounds": "/rounds", "devices": "/box", "weather": "/box", "stakes": "/stakes", "jobs": "/rounds", "people": "/people", "ladders": "/ladders", "orders": "/orders", "farm": "/farm", "season": "/season", "beds": "/beds", "seeds": "/seeds", "crops": "/crops", "successions": "/season/successions", "sow for a date": "/season/date", "labels": "/labels", "start": "/start", "find": "/find", "backtest": "/backtest", "school": "/school", "notes": "/find", "years": "/years", "review": "/review", "looking back": "/review", "add": "/plantings/new"} {
		if strings.EqualFold(word, to) {
			return c.Redirect(http.StatusSeeOther, address)
		}
	}
	if d, err := day.Parse(to); err == nil {
		return c.Redirect(http.StatusSeeOther, "/?pick="+d.String())
	}
	return c.Redirect(http.StatusSeeOther, "/find?q="+url.QueryEscape(to))
}
