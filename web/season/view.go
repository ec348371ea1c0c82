// Package season is the growing year in a drawing, in which plantings can be moved.
package season

import (
	"embed"

	"dewcount/web/page"
)

//go:embed *.html
var templates embed.FS

// A view is the site as this folder's handlers have it.
type view struct{ *page.Site }

// View returns the addresses of this folder, who may use them, and the templates that they show.
func View(site *page.Site) page.View {
	s := view{site}
	return page.View{Templates: templates, Routes: []page.Route{
		page.Get("/season", page.Look, s.On(s.season)),
		page.Get("/season/possible", page.Look, s.On(s.possible)),
		page.Get("/season/carry", page.Look, s.On(s.carry)),
		page.Post("/season/carry", page.Own, s.On(s.carryOver)),
		page.Post("/season/move", page.Own, s.On(s.keepMove)),
	}}
}
