// Package web puts the views together into a site: their routes in one table, what every answer goes through, and the limits of both.
package web

import (
	"net/http"
	"slices"

	"dewcount/farm"
	"dewcount/web/access"
	"dewcount/web/assets"
	"dewcount/web/backtest"
	"dewcount/web/beds"
	"dewcount/web/crops"
	"dewcount/web/cut"
	"dewcount/web/exports"
	"dewcount/web/field"
	"dewcount/web/find"
	"dewcount/web/fordate"
	"dewcount/web/morning"
	"dewcount/web/orders"
	"dewcount/web/page"
	"dewcount/web/plantings"
	"dewcount/web/review"
	"dewcount/web/rounds"
	"dewcount/web/school"
	"dewcount/web/season"
	"dewcount/web/seeds"
	"dewcount/web/settings"
	"dewcount/web/store"
	"dewcount/web/successions"
	"dewcount/web/why"
	"dewcount/web/years"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"
)

// New returns the handler of a farm's pages, with views that only some programs have.
func New(f *farm.Farm, o page.Options, of ...func(*page.Site) page.View) (http.Handler, error) {
	if o.Name == "" {
		o.Name = "dewcount"
	}
	s, err := page.NewSite(f, o)
	if err != nil {
		return nil, err
	}
	var more []page.View
	for _, view := range of {
		more = append(more, view(s))
	}
	for _, v := range append(views(s), more...) {
		if err := s.Parse(v.Templates); err != nil {
			return nil, err
		}
	}
	e := echo.NewWithConfig(echo.Config{Router: echo.NewRouter(echo.RouterConfig{UnescapePathParamValues: true})}) // a row can be called Löwenmaul 1/2
	e.Logger = o.Log
	e.HTTPErrorHandler = s.Fail
	e.Use(middleware.Recover(), onlyHosts(o.Hosts), middleware.SecureWithConfig(secure), headers, middleware.BodyLimit(mostBody), middleware.CSRFWithConfig(middleware.CSRFConfig{
		TokenLookup: "form:csrf,header:X-CSRF-Token", CookieName: page.CookieName(o.Name+"_csrf", o.Secure), CookiePath: "/", CookieHTTPOnly: true,
		CookieSecure: o.Secure, CookieSameSite: http.SameSiteLaxMode, Skipper: func(c *echo.Context) bool { return page.IsFile(c.Request()) },
	}))
	for _, r := range routes(s, more...) {
		e.Add(r.Method, r.Path, s.Needs(r.Need, r.Do))
	}
	return s.WithSessions(e), nil
}

// views are all folders of pages. None knows another.
func views(s *page.Site) []page.View {
	return []page.View{morning.View(s), rounds.View(s), field.View(s), cut.View(s), store.View(s), plantings.View(s), why.View(s), orders.View(s), season.View(s), successions.View(s),
		fordate.View(s), find.View(s), years.View(s), review.View(s), backtest.View(s), school.View(s), beds.View(s), seeds.View(s), crops.View(s), settings.View(s), access.View(s), exports.View(s)}
}

// routes returns all addresses, with those of views that only some programs have; a test walks them in every role.
func routes(s *page.Site, more ...page.View) []page.Route {
	all := []page.Route{
		page.Get("/assets/*", page.Anybody, assets.Serve),
		page.Get("/worker.js", page.Anybody, assets.Worker),
		page.Get("/go", page.Look, s.On(s.Jump)),
		page.Post("/withdraw", page.Record, s.Withdraw),
		page.Post("/undo", page.Record, s.Undo),
	}
	if s.Step != nil {
		all = append(all, page.Post("/demo/step", page.Record, s.StepDemo))
	}
	for _, v := range append(views(s), more...) {
		all = append(all, v.Routes...)
	}
	return append(all, page.Get("/*", page.Look, func(*echo.Context) error { return echo.ErrNotFound }))
}

// mostBody is how large a form can be, in bytes: a year of a weather station that writes every ten minutes.
const mostBody = 4 << 20

// onlyHosts refuses requests that name a host which is not ours: a page elsewhere may have bent its own name to our address.
func onlyHosts(hosts []string) echo.MiddlewareFunc {
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			if !slices.Contains(hosts, c.Request().Host) {
				return echo.NewHTTPError(http.StatusMisdirectedRequest, "this address is not Dew Count's: open the one it printed when it started")
			}
			return next(c)
		}
	}
}

// secure has a browser load nothing from elsewhere, run nothing that stands in a page, and show our pages in nobody else's.
var secure = middleware.SecureConfig{ContentTypeNosniff: "nosniff", XFrameOptions: "DENY", ReferrerPolicy: "same-origin", ContentSecurityPolicy: policy}

const policy = "default-src 'self'; img-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"

// headers are those that Echo's Secure does not set: what other pages may do with ours, and that nothing in between keeps them.
func headers(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		h := c.Response().Header()
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		h.Set("Cache-Control", "private, no-cache")
		return next(c)
	}
}
