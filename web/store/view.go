// Package store is the stems in water: what stands where, what goes first, and what became of the rest.
package store

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
		page.Get("/store", page.Look, s.On(s.store)),
		page.Get("/store/move", page.Record, s.On(s.newMove)),
		page.Post("/store/moves", page.Record, s.On(s.keepMove)),
		page.Get("/store/temperature", page.Record, s.On(s.newReading)),
		page.Post("/store/temperatures", page.Record, s.On(s.keepReading)),
		page.Get("/store/lot", page.Record, s.On(s.newLot)),
		page.Post("/store/lots", page.Record, s.On(s.keepLot)),
		page.Post("/store/makeup", page.Record, s.On(s.makeUp)),
		page.Post("/store/keep", page.Record, s.On(s.keepFor)),
		page.Post("/store/bunches", page.Record, s.On(s.bunch)),
		page.Get("/store/sold", page.Record, s.On(s.sold)),
		page.Post("/store/sold", page.Record, s.On(s.keepSold)),
		page.Get("/store/worksheet", page.Look, s.On(s.worksheet)),
		page.Get("/store/card", page.Look, s.On(s.card)),
		page.Get("/store/places/new", page.Own, s.On(s.newPlace)),
		page.Post("/store/places", page.Own, s.On(s.keepPlace)),
		page.Get("/store/places/:place/edit", page.Own, s.On(s.editPlace)),
		page.Post("/store/places/:place", page.Own, s.On(s.keepPlace)),
	}}
}
