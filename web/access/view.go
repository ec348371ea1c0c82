// Package access is who may come in: signing in, the first owner, invitations, and the people of the farm.
package access

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
		page.Get("/signin", page.Anybody, s.signInPage),
		page.Post("/signin", page.Anybody, s.signIn),
		page.Get("/first", page.Anybody, s.firstPage),
		page.Post("/first", page.Anybody, s.first),
		page.Get("/join/:secret", page.Anybody, s.joinPage),
		page.Post("/join/:secret", page.Anybody, s.join),
		page.Post("/signout", page.Look, s.signOut),
		page.Get("/me", page.Look, s.me),
		page.Post("/me/password", page.Look, s.changePassword),
		page.Post("/me/everywhere", page.Look, s.signOutEverywhere),
		page.Post("/me/calendar", page.Look, s.newCalendar),
		page.Get("/reads", page.Look, s.reads),
		page.Post("/reads", page.Look, s.setReads),
		page.Get("/authority.crt", page.Look, s.authority),
		page.Get("/people", page.Own, s.listPeople),
		page.Post("/people/invite", page.Own, s.invite),
		page.Post("/people/:id/role", page.Own, s.setRole),
		page.Post("/people/:id/everywhere", page.Own, s.endSessions),
		page.Post("/people/:id/dismiss", page.Own, s.dismiss),
		page.Post("/people/:id/end", page.Own, s.endInvitation),
	}}
}
