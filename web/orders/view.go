// Package orders is what is promised: the list of orders, the page of each with what there will be for it, and its forms.
package orders

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
		page.Get("/orders", page.Look, s.On(s.orders)),
		page.Get("/orders/:order", page.Look, s.OnOrder(s.order)),
		page.Get("/orders/new", page.Own, s.On(s.newOrder)),
		page.Get("/free", page.Look, s.On(s.free)),
		page.Get("/free.csv", page.Look, s.On(s.freeFile)),
		page.Post("/free/link", page.Own, s.On(s.newList)),
		page.Get("/list/:secret", page.Anybody, s.list),
		page.Get("/recipes", page.Look, s.On(s.recipes)),
		page.Post("/recipes", page.Own, s.On(s.addIngredient)),
		page.Get("/letters/new", page.Own, s.On(s.letter)),
		page.Post("/letters/read", page.Own, s.On(s.readLetter)),
		page.Post("/letters/take", page.Own, s.On(s.takeLetter)),
		page.Get("/ask", page.Look, s.On(s.ask)),
		page.Post("/inquiries", page.Own, s.On(s.keepInquiry)),
		page.Post("/inquiries/done", page.Own, s.On(s.endInquiry)),
		page.Post("/ask", page.Own, s.On(s.takeAsk)),
		page.Get("/orders/:order/options", page.Look, s.OnOrder(s.options)),
		page.Post("/orders/:order/options", page.Own, s.OnOrder(s.doOption)),
		page.Post("/orders/:order/days", page.Own, s.OnOrder(s.setDay)),
		page.Post("/orders/:order/cancel", page.Own, s.OnOrder(s.cancel)),
		page.Post("/orders", page.Own, s.On(s.addOrder)),
		page.Get("/orders/:order/edit", page.Own, s.OnOrder(s.editOrder)),
		page.Post("/orders/:order", page.Own, s.OnOrder(s.correctOrder)),
		page.Post("/orders/:order/lines", page.Own, s.OnOrder(s.setLine)),
	}}
}
