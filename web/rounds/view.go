// Package rounds is the jobs of the week, day by day, and what becomes of them.
package rounds

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
		page.Get("/rounds", page.Look, s.On(s.rounds)),
		page.Post("/rounds", page.Record, s.setJobs),
	}}
}
