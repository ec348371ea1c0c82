// Package cut is the cutting sheet: what to cut on a pick day, for whom and where on the stem, and the record of it from the row.
package cut

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
		page.Get("/cut", page.Record, s.On(s.sheet)),
		page.Get("/cut/labels", page.Look, s.On(s.labels)),
		page.Get("/cut/bucket", page.Record, s.On(s.bucket)),
		page.Get("/cut/frost", page.Look, s.On(s.frost)),
		page.Post("/cut/picks", page.Own, s.On(s.addPick)),
	}}
}
