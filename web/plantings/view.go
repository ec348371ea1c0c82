// Package plantings is the rows: their list, the page of each, its form, and the labels of their stakes.
package plantings

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
		page.Get("/plantings", page.Look, s.On(s.plantings)),
		page.Get("/plantings/:planting", page.Look, s.On(s.planting)),
		page.Get("/stakes", page.Look, s.On(s.stakes)),
		page.Get("/plantings/new", page.Own, s.On(s.newPlanting)),
		page.Post("/plantings", page.Own, s.On(s.addPlanting)),
		page.Get("/plantings/:planting/edit", page.Own, s.OnPlanting(s.editPlanting)),
		page.Post("/plantings/:planting", page.Own, s.OnPlanting(s.correctPlanting)),
	}}
}
