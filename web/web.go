// Package web is the pages: it asks the farm, chooses words and draws. It is the only place that knows Echo and HTML.
package web

import (
	"context"
	"errors"
	"log/slog"
	"net"
	"net/http"
	"slices"
	"strconv"

	"dewcount/farm"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"
)

// Options are what a server needs beside its farm.
type Options struct {
	Hosts []string                        // the hosts that it answers to, with their port; any other is refused
	Step  func(ctx context.Context) error // lets a day of the demo pass; nil on a farm of its own
	Log   *slog.Logger
}

// A server answers requests for one farm.
type server struct {
	farm  *farm.Farm
	step  func(ctx context.Context) error
	log   *slog.Logger
	pages pages
	jobs  jobs
}

// New returns the handler of a farm's pages.
func New(f *farm.Farm, o Options) (http.Handler, error) {
	pages, err := parsePages()
	if err != nil {
		return nil, err
	}
	s := &server{farm: f, step: o.Step, log: o.Log, pages: pages}
	e := echo.New()
	e.Logger = o.Log
	e.HTTPErrorHandler = s.fail
	e.Use(middleware.Recover(), onlyHosts(o.Hosts), headers, middleware.BodyLimit(mostBody), middleware.CSRFWithConfig(middleware.CSRFConfig{
		TokenLookup: "form:csrf,header:X-CSRF-Token", CookieName: "dewcount_csrf", CookiePath: "/", CookieHTTPOnly: true,
		CookieSameSite: http.SameSiteStrictMode,
	}))
	s.routes(e)
	return e, nil
}

// mostBody is how large a form can be, in bytes.
const mostBody = 1 << 20

func (s *server) routes(e *echo.Echo) {
	e.GET("/assets/*", assets)
	e.GET("/", s.on(s.morning))
	e.GET("/go", s.on(s.jump))
	e.GET("/why/:crop", s.on(s.why))
	e.GET("/plantings", s.on(s.plantings))
	e.GET("/plantings/new", s.on(s.newPlanting))
	e.POST("/plantings", s.on(s.addPlanting))
	e.GET("/plantings/:planting", s.on(s.planting))
	e.GET("/plantings/:planting/edit", s.onPlanting(s.editPlanting))
	e.POST("/plantings/:planting", s.onPlanting(s.correctPlanting))
	e.GET("/plantings/:planting/count", s.onPlanting(s.newCount))
	e.POST("/plantings/:planting/count", s.onPlanting(s.addCount))
	e.GET("/counts/:id", s.on(s.editCount))
	e.POST("/counts/:id", s.on(s.correctCount))
	e.GET("/plantings/:planting/cut", s.onPlanting(s.newCut))
	e.POST("/plantings/:planting/cut", s.onPlanting(s.addCut))
	e.GET("/cuts/:id", s.on(s.editCut))
	e.POST("/cuts/:id", s.on(s.correctCut))
	e.GET("/orders", s.on(s.orders))
	e.GET("/orders/new", s.on(s.newOrder))
	e.POST("/orders", s.on(s.addOrder))
	e.GET("/orders/:order", s.onOrder(s.order))
	e.GET("/orders/:order/edit", s.onOrder(s.editOrder))
	e.POST("/orders/:order", s.onOrder(s.correctOrder))
	e.POST("/orders/:order/lines", s.onOrder(s.setLine))
	e.GET("/season", s.on(s.season))
	e.POST("/season/move", s.on(s.keepMove))
	e.GET("/season/successions", s.on(s.successions))
	e.GET("/season/date", s.on(s.forDate))
	e.POST("/season/successions", s.on(s.takeOver))
	e.POST("/season/successions/back", s.on(s.takeBack))
	e.GET("/beds", s.on(s.beds))
	e.POST("/beds", s.on(s.keepBed))
	e.GET("/beds/new", s.on(s.newBed))
	e.POST("/beds/place", s.on(s.placeInBeds))
	e.GET("/beds/:bed/edit", s.on(s.editBed))
	e.POST("/beds/:bed", s.on(s.keepBed))
	e.GET("/seeds", s.on(s.seeds))
	e.POST("/trays", s.on(s.addTray))
	e.GET("/labels", s.on(s.labels))
	e.GET("/varieties/new", s.on(s.newVariety))
	e.POST("/varieties", s.on(s.keepVariety))
	e.GET("/varieties/:variety/edit", s.on(s.editVariety))
	e.POST("/varieties/:variety", s.on(s.keepVariety))
	e.GET("/crops", s.on(s.crops))
	e.GET("/ladders", s.on(s.ladders))
	e.GET("/crops/new", s.on(s.newCrop))
	e.POST("/crops", s.on(s.keepCrop))
	e.GET("/crops/:crop", s.on(s.cropCard))
	e.POST("/crops/:crop", s.on(s.keepCrop))
	e.GET("/crops/:crop/edit", s.on(s.editCrop))
	e.POST("/crops/:crop/school", s.on(s.chooseSchool))
	e.POST("/crops/:crop/drop", s.on(s.dropCrop))
	s.exports(e)
	e.GET("/start", s.on(s.start))
	e.POST("/start/beds", s.on(s.startBeds))
	e.POST("/start/crops", s.on(s.startCrops))
	e.POST("/start/market", s.on(s.startMarket))
	e.GET("/farm", s.settings)
	e.POST("/farm", s.setSettings)
	e.POST("/withdraw", s.withdraw)
	e.POST("/undo", s.undo)
	if s.step != nil {
		e.POST("/demo/step", s.stepDemo)
	}
}

// on hands a page the farm as it stands; who comes to a farm without settings is sent to write them down.
func (s *server) on(show func(*echo.Context, *farm.Snapshot) error) echo.HandlerFunc {
	return func(c *echo.Context) error {
		snap, err := s.farm.Snapshot(c.Request().Context())
		if errors.Is(err, farm.ErrNoFarm) {
			return c.Redirect(http.StatusSeeOther, "/farm")
		}
		if err != nil {
			return err
		}
		return show(c, snap)
	}
}

// onPlanting is on for a page of the planting that the address names.
func (s *server) onPlanting(show func(*echo.Context, *farm.Snapshot, farm.Planting) error) echo.HandlerFunc {
	return s.on(func(c *echo.Context, snap *farm.Snapshot) error {
		p, ok := snap.Book.Planting(c.Param("planting"))
		if !ok {
			return farm.ErrNoSuchRecord
		}
		return show(c, snap, p)
	})
}

// onOrder is on for a page of the order that the address names.
func (s *server) onOrder(show func(*echo.Context, *farm.Snapshot, farm.Order) error) echo.HandlerFunc {
	return s.on(func(c *echo.Context, snap *farm.Snapshot) error {
		o, ok := snap.Book.Order(c.Param("order"))
		if !ok {
			return farm.ErrNoSuchRecord
		}
		return show(c, snap, o)
	})
}

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

// LoopbackHosts returns the hosts by which a server on a loopback port is reached.
func LoopbackHosts(port int) []string {
	p := strconv.Itoa(port)
	return []string{net.JoinHostPort("127.0.0.1", p), net.JoinHostPort("localhost", p), net.JoinHostPort("::1", p)}
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

// fail makes a page of an error: the advice for the person, the whole chain for the log.
func (s *server) fail(c *echo.Context, err error) {
	code, advice := http.StatusInternalServerError, "Something went wrong here. Nothing was changed: go back and try again."
	var conflict *farm.Conflict
	var faults farm.Faults
	var known *echo.HTTPError
	var words *farm.Advice
	switch {
	case errors.As(err, &words):
		advice = sentence(words.Words)
	case errors.As(err, &conflict):
		code, advice = http.StatusConflict, sentence(conflict.Error())
	case errors.As(err, &faults):
		code, advice = http.StatusUnprocessableEntity, sentence(faults.Error())
	case errors.Is(err, farm.ErrNoSuchRecord):
		code, advice = http.StatusNotFound, sentence(err.Error())
	case echo.StatusCode(err) == http.StatusForbidden:
		code, advice = http.StatusForbidden, "This form has lain too long. Nothing was changed: go back, reload the page and send it again."
	case echo.StatusCode(err) == http.StatusNotFound:
		code, advice = http.StatusNotFound, "There is no such page here."
	case errors.As(err, &known):
		code, advice = known.Code, sentence(known.Message)
	case echo.StatusCode(err) != 0:
		code = echo.StatusCode(err)
	}
	if code >= http.StatusInternalServerError {
		s.log.Error("request failed", "method", c.Request().Method, "path", c.Request().URL.Path, "error", err)
	}
	if err := s.render(c, code, "error", page{Title: "Not done"}, errorView{Advice: advice}); err != nil {
		s.log.Error("error page failed", "error", err)
	}
}

type errorView struct{ Advice string }
