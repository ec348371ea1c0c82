// Package beds is the year of each bed: who stands where and when, what does not go well, and what could still go in.
package beds

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
		page.Get("/beds", page.Look, s.On(s.beds)),
		page.Post("/beds", page.Own, s.On(s.keepBed)),
		page.Get("/beds/new", page.Own, s.On(s.newBed)),
		page.Post("/beds/place", page.Own, s.On(s.placeInBeds)),
		page.Get("/beds/:bed/edit", page.Own, s.On(s.editBed)),
		page.Post("/beds/:bed", page.Own, s.On(s.keepBed)),
	}}
}
