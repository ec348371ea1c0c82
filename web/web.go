// Package web is the pages: it asks the farm, chooses words and draws. It is the only place that knows Echo and HTML.
package web

import (
	"net/http"
	"slices"
	"strings"

	"dewcount/farm"

	lru "github.com/hashicorp/golang-lru/v2"
	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"
)

// New returns the handler of a farm's pages.
func New(f *farm.Farm, o Options) (http.Handler, error) {
	if o.Name == "" {
		o.Name = "dewcount"
	}
	pages, err := parsePages()
	if err != nil {
		return nil, err
	}
	s := &server{farm: f, step: o.Step, log: o.Log, pages: pages, jobs: newJobs(), box: o.Box, doors: o.People, visitor: o.Visitor, address: o.Address, certificate: o.Certificate}
	s.wrote, _ = lru.New[string, int64](mostWriters)                                                               // an error is of a size below one
	e := echo.NewWithConfig(echo.Config{Router: echo.NewRouter(echo.RouterConfig{UnescapePathParamValues: true})}) // a row can be called Löwenmaul 1/2
	e.Logger = o.Log
	e.HTTPErrorHandler = s.fail
	e.Use(middleware.Recover(), onlyHosts(o.Hosts), headers, middleware.BodyLimit(mostBody), middleware.CSRFWithConfig(middleware.CSRFConfig{
		TokenLookup: "form:csrf,header:X-CSRF-Token", CookieName: cookieName(o.Name+"_csrf", o.Secure), CookiePath: "/", CookieHTTPOnly: true,
		CookieSecure: o.Secure, CookieSameSite: http.SameSiteLaxMode, Skipper: isFile,
	}))
	for _, r := range s.routes() {
		e.Add(r.method, r.path, s.needs(r.need, r.do))
	}
	if s.doors == nil {
		return e, nil
	}
	s.sessions = newSessions(o)
	return s.sessions.LoadAndSave(e), nil
}

// isFile tells whether a file of the page is asked for: it is the same for everybody, and brings no cookie that a proxy or a race could keep.
func isFile(c *echo.Context) bool {
	return c.Request().Method == http.MethodGet && (strings.HasPrefix(c.Request().URL.Path, "/assets/") || c.Request().URL.Path == "/worker.js")
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

const policy = "default-src 'self'; img-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"

func headers(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		h := c.Response().Header()
		h.Set("Content-Security-Policy", policy)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "same-origin")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		h.Set("Cache-Control", "private, no-cache")
		return next(c)
	}
}
