// Package successions plans sowings that follow each other, shows them beside fixed intervals, and takes them over.
package successions

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
		page.Get("/season/successions", page.Look, s.On(s.successions)),
		page.Post("/season/successions", page.Own, s.On(s.takeOver)),
		page.Post("/season/successions/back", page.Own, s.On(s.takeBack)),
	}}
}
