package page

import (
	"errors"
	"fmt"
	"net"
	"net/http"
	"net/url"
	"strings"
	"time"

	"dewcount/farm/look"
	"dewcount/people"
	"dewcount/say"

	"github.com/alexedwards/scs/v2"
	"github.com/labstack/echo/v5"
)

func newSessions(o Options) *scs.SessionManager {
	m := scs.New()
	m.Store = o.Sessions
	m.HashTokenInStore = true
	m.Lifetime = sessionTime
	m.Cookie = scs.SessionCookie{Name: CookieName(o.Name, o.Secure), Path: "/", HttpOnly: true, Secure: o.Secure, SameSite: http.SameSiteLaxMode, Persist: true}
	m.ErrorFunc = func(w http.ResponseWriter, r *http.Request, err error) {
		o.Log.Error("session failed", "path", r.URL.Path, "error", err)
		http.Error(w, "Something went wrong here. Nothing was changed: go back and try again.", http.StatusInternalServerError)
	}
	return m
}

// CookieName binds a cookie to this host alone where the way is secure.
func CookieName(name string, secure bool) string {
	if secure {
		return "__Host-" + name
	}
	return name
}

// Needs lets through to a handler who is signed in with a role that may, and leads all others to sign in.
func (s *Site) Needs(need people.Role, do echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		if IsFile(c.Request()) {
			return do(c)
		}
		who, err := s.person(c)
		if err != nil {
			return err
		}
		c.Set("person", who)
		switch {
		case need == Anybody || who.Role.May(need):
			if err := do(c); err != nil {
				return err
			}
			return s.noteWriting(c)
		case who.Role == "" && wantsPage(c):
			return c.Redirect(http.StatusSeeOther, "/signin?to="+url.QueryEscape(c.Request().URL.RequestURI()))
		case who.Role == "":
			return &denied{http.StatusUnauthorized, "sign in first: nothing was recorded"}
		default:
			return &denied{http.StatusForbidden, fmt.Sprintf("this is for the %s: you are signed in as %s. Ask the owner", forWhom[need], who.Role)}
		}
	}
}

// A denied is a request of somebody who may not make it.
type denied struct {
	code  int
	words string
}

// Error says what to do.
func (d *denied) Error() string { return d.words }

// wantsPage tells whether a person waits for a page, not a script for an answer.
func wantsPage(c *echo.Context) bool {
	return c.Request().Method == http.MethodGet && !wantsJSON(c)
}

func wantsJSON(c *echo.Context) bool {
	return strings.HasPrefix(c.Request().Header.Get("Accept"), "application/json")
}

// person returns who is signed in; where nobody is set up, whoever sits at this machine owns the farm.
func (s *Site) person(c *echo.Context) (people.Person, error) {
	if s.People == nil {
		return people.Person{Role: people.Owner}, nil
	}
	if s.left(c) {
		return people.Person{}, nil
	}
	ctx := c.Request().Context()
	if id := s.Sessions.GetString(ctx, sessionPerson); id != "" {
		who, known, err := s.People.Known(ctx, id, s.Sessions.GetInt(ctx, sessionEpoch))
		if err != nil || known {
			return who, err
		}
	}
	any, err := s.People.Any(ctx)
	if err != nil || !any {
		return people.Person{Role: people.Owner}, err
	}
	if s.Visitor == "" || c.Request().URL.Path == "/signin" {
		return people.Person{}, nil
	}
	all, err := s.People.All(ctx)
	for _, who := range all {
		if who.Name == s.Visitor {
			return who, s.LetIn(c, who)
		}
	}
	return people.Person{}, err
}

// LetIn begins a session under a token of its own.
func (s *Site) LetIn(c *echo.Context, who people.Person) error {
	ctx := c.Request().Context()
	if err := s.Sessions.RenewToken(ctx); err != nil {
		return fmt.Errorf("begin a session: %w", err)
	}
	s.Sessions.Put(ctx, sessionPerson, who.ID)
	s.Sessions.Put(ctx, sessionEpoch, who.Epoch)
	return nil
}

// Leave notes with the browser whether the demo's visitor has signed out and is not to be let in unasked. The cookie is one of its own: a request that is on
// its way meanwhile is let in anew, and the cookie of that session may be the last to arrive.
func (s *Site) Leave(c *echo.Context, left bool) {
	mark := http.Cookie{Name: s.leftCookie(), Value: "1", Path: "/", HttpOnly: true, Secure: s.Secure, SameSite: http.SameSiteLaxMode}
	if !left {
		mark.MaxAge = -1
	}
	c.SetCookie(&mark)
}

func (s *Site) left(c *echo.Context) bool {
	_, err := c.Cookie(s.leftCookie())
	return s.Visitor != "" && err == nil
}

func (s *Site) leftCookie() string { return s.Sessions.Cookie.Name + "_left" }

// Who returns the person of a request, once needs has found them.
func Who(c *echo.Context) people.Person {
	p, _ := c.Get("person").(people.Person)
	return p
}

// By returns the name that a record is signed with: empty where nobody is set up.
func By(c *echo.Context) string { return Who(c).Name }

// PlaceOf returns where a request comes from: what slows guessing.
func PlaceOf(c *echo.Context) string {
	host, _, err := net.SplitHostPort(c.Request().RemoteAddr)
	if err != nil {
		return c.Request().RemoteAddr
	}
	return host
}

// A Refusal tells a phone why a record was not taken.
type Refusal struct {
	Advice string `json:"advice"`
	Field  string `json:"field,omitempty"`
}

// sessionTime is how long somebody stays signed in: a phone in the field shall not ask for a password in mid-harvest.
const sessionTime = 60 * 24 * time.Hour

// The keys of a session.
const (
	sessionPerson = "person"
	sessionEpoch  = "epoch"
)

var forWhom = map[people.Role]string{people.Owner: "owner", people.Crew: "owner and the crew"}

// Inside returns an address of this program; anything else leads to its first page.
func Inside(to string) string {
	at, err := url.Parse(to)
	strange := func(r rune) bool { return r < 0x21 || r == '\\' || r == 0x7f } // which browsers leave out or read as a slash
	if err != nil || at.IsAbs() || at.Host != "" || at.User != nil || !strings.HasPrefix(to, "/") || strings.HasPrefix(at.Path, "//") || strings.ContainsFunc(to, strange) {
		return "/"
	}
	return to
}

// DoorFault returns what to tell somebody who was not let in, empty where that is not the matter.
func GuessFault(c *echo.Context, err error) (string, int) {
	var slowed *people.Slowed
	switch {
	case errors.As(err, &slowed):
		c.Response().Header().Set("Retry-After", fmt.Sprint(int(slowed.After.Seconds())+1))
		return say.Sentence(slowed.Error()), http.StatusTooManyRequests
	case errors.Is(err, people.ErrWrong), errors.Is(err, people.ErrNoLink), errors.Is(err, people.ErrNobody):
		return say.Sentence(err.Error()), http.StatusUnauthorized
	default:
		return "", 0
	}
}

// Base returns the address by which phones reach the program: the farm's setting, or where it listens. The request's own host is not
// asked, somebody else may have chosen it.
func (s *Site) Base(snap *look.Snapshot) string {
	if place, err := snap.Book.Place(); err == nil && place.Address != "" {
		return place.Address
	}
	return s.Address
}
