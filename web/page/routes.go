package page

import (
	"io/fs"
	"net/http"

	"dewcount/people"

	"github.com/labstack/echo/v5"
)

// A Route is an address, who may use it, and what it does.
type Route struct {
	Method, Path string
	Need         people.Role // empty: anybody, signed in or not
	Do           echo.HandlerFunc
}

// Who may do what: all who are signed in look, the crew records what happens in the field, the owner plans and lets people in.
const (
	Anybody = people.Role("")
	Look    = people.Reader
	Record  = people.Crew
	Own     = people.Owner
)

// Get is the route of a page that is looked at.
func Get(path string, need people.Role, do echo.HandlerFunc) Route {
	return Route{http.MethodGet, path, need, do}
}

// Post is the route of a form that is sent.
func Post(path string, need people.Role, do echo.HandlerFunc) Route {
	return Route{http.MethodPost, path, need, do}
}

// A View is a folder of pages: its addresses and its templates.
type View struct {
	Templates fs.FS
	Routes    []Route
}
