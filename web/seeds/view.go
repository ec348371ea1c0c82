// Package seeds is what the plan takes of seed, trays and bench, and the labels of the trays.
package seeds

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
		page.Get("/seeds", page.Look, s.On(s.seeds)),
		page.Get("/labels", page.Look, s.On(s.labels)),
		page.Post("/trays", page.Own, s.On(s.addTray)),
		page.Post("/stock", page.Own, s.On(s.countStock)),
	}}
}
