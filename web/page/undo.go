package page

import (
	"context"
	"net/http"
	"net/url"
	"strings"

	"dewcount/farm/book"

	"github.com/labstack/echo/v5"
)

// named returns the record that a form names.
func named(c *echo.Context) (*book.Kind, string, error) {
	k := book.KindNamed(c.FormValue("kind"))
	if k == nil || k.By == book.ByProgram {
		return nil, "", book.ErrNoSuchRecord
	}
	if k.By == book.ByOwner && !Who(c).Role.May(Own) {
		return nil, "", &denied{http.StatusForbidden, "this is for the owner: ask them to take it back"}
	}
	return k, c.FormValue("id"), nil
}

// Withdraw takes a record away; the page then offers to put it back.
func (s *Site) Withdraw(c *echo.Context) error {
	k, id, err := named(c)
	if err != nil {
		return err
	}
	to := s.home(c, k, id)
	if err := s.Farm.Withdraw(c.Request().Context(), By(c), c.FormValue(ShownKey), k, id); err != nil {
		return err
	}
	if k == book.Plantings {
		to = "/plantings"
	}
	return c.Redirect(http.StatusSeeOther, to+"?done="+url.QueryEscape("withdrawn:"+k.Name+":"+id))
}

// Undo takes back what was done last to a record.
func (s *Site) Undo(c *echo.Context) error {
	k, id, err := named(c)
	if err != nil {
		return err
	}
	if err := s.Farm.Undo(c.Request().Context(), By(c), k, strings.Split(id, "\t")...); err != nil { // jobs are ticked off together
		return err
	}
	return c.Redirect(http.StatusSeeOther, s.home(c, k, id)+"?done="+url.QueryEscape("undone:"+k.Name+":"+id))
}

// home returns the page that a record is shown on.
func (s *Site) home(c *echo.Context, k *book.Kind, id string) string {
	b, err := s.Farm.Load(c.Request().Context())
	if err != nil {
		return "/"
	}
	switch k {
	case book.Beds:
		return "/beds"
	case book.Trays, book.Stock:
		return "/seeds"
	case book.Jobs:
		return "/rounds"
	case book.Places, book.Temperatures, book.Lots, book.Moves:
		return "/store"
	case book.Varieties:
		if v, ok := b.Variety(id); ok {
			return "/crops/" + url.PathEscape(v.Crop)
		}
		return "/crops"
	case book.Schools:
		crop, _, _ := strings.Cut(id, "|")
		return "/crops/" + url.PathEscape(crop)
	case book.Inquiries:
		return "/ask"
	case book.Lessons:
		return "/school"
	case book.Notes:
		return "/find"
	case book.RecipeLines:
		return "/recipes"
	case book.Weather, book.ExtraPicks:
		return "/"
	case book.Plantings:
		if _, ok := b.Planting(id); ok {
			return "/plantings/" + url.PathEscape(id)
		}
		return "/plantings"
	case book.Orders:
		return "/orders"
	case book.OrderLines, book.OrderDays:
		order, _, _ := strings.Cut(id, "|")
		return "/orders/" + url.PathEscape(order)
	}
	if r, ok := b.Record(k, id); ok {
		return "/plantings/" + url.PathEscape(r.Field("planting"))
	}
	for _, p := range b.History {
		if r, err := p.Record(); err == nil && p.Kind == k.Name && p.ID == id {
			return "/plantings/" + url.PathEscape(r.Field("planting"))
		}
	}
	return "/"
}

// StepDemo lets a day of the demo pass.
func (s *Site) StepDemo(c *echo.Context) error {
	if err := s.Step(context.WithoutCancel(c.Request().Context())); err != nil { // a page that loads itself anew must not take it back
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/")
}
