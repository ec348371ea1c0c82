// Package play answers, on a farm that is played: what day is it, what is asked, what has it come to; and at the end: what did which decision cost?
package play

import (
	"embed"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/play"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

//go:embed *.html
var templates embed.FS

// A view is the site as this folder's handlers have it, with the store in which the season is kept.
type view struct {
	*page.Site
	store farm.Store
}

// View returns the addresses of this folder, who may use them, and the templates that they show.
func View(site *page.Site, store farm.Store) page.View {
	s := view{site, store}
	return page.View{Templates: templates, Routes: []page.Route{
		page.Get("/play", page.Look, s.On(s.play)),
		page.Get("/play/reckoning", page.Look, s.On(s.reckoning)),
		page.Post("/play/run", page.Record, s.run),
		page.Post("/play/offers", page.Own, s.On(s.take)),
		page.Post("/play/crew", page.Own, s.On(s.crew)),
		page.Post("/play/again", page.Own, s.again),
	}}
}

// run lets days pass until something is to be decided.
func (s view) run(c *echo.Context) error {
	why, err := play.Run(c.Request().Context(), s.store)
	if err != nil {
		return err
	}
	q := url.Values{"why": {why.What}, "of": {why.Of}}
	return c.Redirect(http.StatusSeeOther, "/play?"+q.Encode())
}

// take makes an order of an offer.
func (s view) take(c *echo.Context, snap *say.Snapshot) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	for _, o := range play.Open(snap.Book, place) {
		if o.ID == c.FormValue("offer") {
			if err := s.Farm.Add(c.Request().Context(), page.By(c), o.Records()...); err != nil {
				return err
			}
			return c.Redirect(http.StatusSeeOther, "/play?done="+url.QueryEscape("recorded:"+book.Orders.Name+":"+o.ID))
		}
	}
	return c.Redirect(http.StatusSeeOther, "/play?why=gone") // they have asked elsewhere
}

// crew writes down what the crew does by itself.
func (s view) crew(c *echo.Context, _ *say.Snapshot) error {
	value := "nothing"
	if form, err := c.FormValues(); err == nil && len(form["does"]) > 0 {
		value = strings.Join(form["does"], " ")
	}
	if err := s.Farm.Set(c.Request().Context(), page.By(c), "", []book.Setting{{Key: "game", Value: value}}); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/play")
}

// again begins the season anew.
func (s view) again(c *echo.Context) error {
	seed, err := strconv.ParseUint(strings.TrimSpace(c.FormValue("seed")), 10, 64)
	if err != nil {
		return c.Redirect(http.StatusSeeOther, "/play?why=seed")
	}
	if err := play.Again(c.Request().Context(), s.store, seed); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/play")
}
