// Package field is what is recorded in the row: the walk with its counts, which works without signal, and the forms of counts, cuts, pests and
// sprays.
package field

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
	routes := []page.Route{
		page.Get("/count", page.Record, s.On(s.walk)),
		page.Get("/token", page.Look, s.token),
		page.Post(page.FieldPath, page.Record, s.addField),
	}
	for _, f := range s.rowForms() {
		routes = append(routes, s.rowRoutes(f)...)
	}
	return page.View{Templates: templates, Routes: routes}
}
