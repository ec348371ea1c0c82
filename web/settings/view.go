// Package settings is where the farm says where it lies and how it works: its settings, the first run, and the devices it hears.
package settings

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
		page.Get("/start", page.Own, s.On(s.start)),
		page.Post("/start/beds", page.Own, s.On(s.startBeds)),
		page.Post("/start/crops", page.Own, s.On(s.startCrops)),
		page.Post("/start/market", page.Own, s.On(s.startMarket)),
		page.Get("/box", page.Own, s.On(s.boxPage)),
		page.Post("/box/weather", page.Own, s.On(s.loadWeather)),
		page.Get("/farm", page.Own, s.settings),
		page.Post("/farm", page.Own, s.setSettings),
	}}
}
