package web

import (
	"dewcount/people"

	"github.com/labstack/echo/v5"
)

// A route is an address, who may use it, and what it does.
type route struct {
	method, path string
	need         people.Role // empty: anybody, signed in or not
	do           echo.HandlerFunc
}

// Who may do what: all who are signed in look, the crew records what happens in the field, the owner plans and lets people in.
const (
	anybody = people.Role("")
	see     = people.Reader
	record  = people.Crew
	own     = people.Owner
)
