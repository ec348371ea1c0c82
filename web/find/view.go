// Package find looks through everything that was written down, and writes notes.
package find

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
		page.Get("/find", page.Look, s.On(s.find)),
		page.Get("/notes/write", page.Record, s.On(s.newNote)),
		page.Post("/notes", page.Record, s.On(s.keepNote)),
		page.Get("/notes/:note", page.Record, s.On(s.editNote)),
		page.Post("/notes/:note", page.Record, s.On(s.keepNote)),
	}}
}
