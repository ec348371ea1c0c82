package access

import (
	"net/http"

	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// reads shows how whoever asks reads dates and measures.
func (s view) reads(c *echo.Context) error {
	snap, err := s.Farm.Snapshot(c.Request().Context())
	if err != nil {
		return err
	}
	locale := page.LocaleOf(c)
	chosen := map[string]string{"units": "metric", "weeks": "no"}
	if locale.Imperial {
		chosen["units"] = "imperial"
	}
	if locale.WeekNumbers {
		chosen["weeks"] = "yes"
	}
	v := page.FormView{Heading: "How you read", Lead: "On all your pages, forms and prints. Others read as they have chosen; files keep metric units.",
		Action: "/reads", Save: "Keep", Cancel: "/"}
	v.Fields = page.Fill(c, []page.Field{
		page.Field{Name: "units", Label: "Units", Kind: "select"}.Choose(page.Option{Value: "metric", Label: "metres, centimetres and °C"}, page.Option{Value: "imperial", Label: "feet, inches and °F"}),
		page.Field{Name: "weeks", Label: "Week numbers", Kind: "select"}.Choose(page.Option{Value: "no", Label: "dates alone"}, page.Option{Value: "yes", Label: "the week beside each date"}),
	}, func(name string) string { return chosen[name] }, nil)
	return s.Show(c, http.StatusOK, "form", "", v.Heading, page.ReadBy(c, snap), v)
}

// setReads keeps it, with the person or where nobody is set up in the browser.
func (s view) setReads(c *echo.Context) error {
	locale := say.Locale{Imperial: c.FormValue("units") == "imperial", WeekNumbers: c.FormValue("weeks") == "yes"}
	if who := page.Who(c); who.ID != "" {
		if err := s.People.SetReads(c.Request().Context(), who.ID, locale.Imperial, locale.WeekNumbers); err != nil {
			return err
		}
	} else {
		s.KeepReads(c, locale)
	}
	return c.Redirect(http.StatusSeeOther, "/reads")
}
