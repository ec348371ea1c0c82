// Package crops is the crop table as the farm has it: cards, schools, values of its own, varieties, and the ladders of flower forms.
package crops

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
		page.Get("/crops", page.Look, s.On(s.crops)),
		page.Get("/crops/:crop", page.Look, s.On(s.cropCard)),
		page.Get("/ladders", page.Look, s.On(s.ladders)),
		page.Get("/varieties/new", page.Own, s.On(s.newVariety)),
		page.Post("/varieties", page.Own, s.On(s.keepVariety)),
		page.Get("/varieties/:variety/edit", page.Own, s.On(s.editVariety)),
		page.Post("/varieties/:variety", page.Own, s.On(s.keepVariety)),
		page.Get("/crops/new", page.Own, s.On(s.newCrop)),
		page.Post("/crops", page.Own, s.On(s.keepCrop)),
		page.Post("/crops/:crop", page.Own, s.On(s.keepCrop)),
		page.Get("/crops/:crop/edit", page.Own, s.On(s.editCrop)),
		page.Post("/crops/:crop/school", page.Own, s.On(s.chooseSchool)),
		page.Post("/crops/:crop/drop", page.Own, s.On(s.dropCrop)),
	}}
}
