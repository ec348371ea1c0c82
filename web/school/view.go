// Package school is the stem school: drawn stems to judge, and what it tells of somebody's eye.
package school

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
		page.Get("/school", page.Look, s.On(s.lesson)),
		page.Post("/school", page.Record, s.On(s.keep)),
		page.Post("/school/season", page.Own, s.On(s.season)),
	}}
}
