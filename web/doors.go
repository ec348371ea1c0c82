package web

import (
	"errors"
	"fmt"
	"net"
	"net/http"
	"net/url"
	"strings"
	"time"

	"dewcount/farm/book"
	"dewcount/fault"
	"dewcount/people"

	"github.com/alexedwards/scs/v2"
	"github.com/labstack/echo/v5"
)

// sessionTime is how long somebody stays signed in: a phone in the field shall not ask for a password in mid-harvest.
const sessionTime = 60 * 24 * time.Hour

// The keys of a session.
const (
	sessionPerson = "person"
	sessionEpoch  = "epoch"
)

func newSessions(o Options) *scs.SessionManager {
	m := scs.New()
	m.Store = o.Sessions
	m.HashTokenInStore = true
	m.Lifetime = sessionTime
	m.Cookie = scs.SessionCookie{Name: cookieName(o.Name, o.Secure), Path: "/", HttpOnly: true, Secure: o.Secure, SameSite: http.SameSiteLaxMode, Persist: true}
	m.ErrorFunc = func(w http.ResponseWriter, r *http.Request, err error) {
		o.Log.Error("session failed", "path", r.URL.Path, "error", err)
		http.Error(w, "Something went wrong here. Nothing was changed: go back and try again.", http.StatusInternalServerError)
	}
	return m
}

// cookieName binds a cookie to this host alone where the way is secure.
func cookieName(name string, secure bool) string {
	if secure {
		return "__Host-" + name
	}
	return name
}

// needs lets through to a handler who is signed in with a role that may, and leads all others to the door.
func (s *server) needs(need people.Role, do echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		who, err := s.person(c)
		if err != nil {
			return err
		}
		c.Set("person", who)
		switch {
		case need == anybody || who.Role.May(need):
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

var forWhom = map[people.Role]string{people.Owner: "owner", people.Crew: "owner and the crew"}

// wantsPage tells whether a person waits for a page, not a script for an answer.
func wantsPage(c *echo.Context) bool {
	return c.Request().Method == http.MethodGet && !wantsJSON(c)
}

func wantsJSON(c *echo.Context) bool {
	return strings.HasPrefix(c.Request().Header.Get("Accept"), "application/json")
}

// person returns who is signed in; where nobody is set up, whoever sits at this machine owns the farm.
func (s *server) person(c *echo.Context) (people.Person, error) {
	if s.doors == nil {
		return people.Person{Role: people.Owner}, nil
	}
	ctx := c.Request().Context()
	if id := s.sessions.GetString(ctx, sessionPerson); id != "" {
		who, known, err := s.doors.Known(ctx, id, s.sessions.GetInt(ctx, sessionEpoch))
		if err != nil || known {
			return who, err
		}
	}
	any, err := s.doors.Any(ctx)
	if err != nil || !any {
		return people.Person{Role: people.Owner}, err
	}
	if s.visitor == "" || c.Request().URL.Path == "/signin" || s.sessions.GetBool(ctx, sessionLeft) {
		return people.Person{}, nil
	}
	all, err := s.doors.All(ctx)
	for _, who := range all {
		if who.Name == s.visitor {
			return who, s.letIn(c, who)
		}
	}
	return people.Person{}, err
}

// sessionLeft says that the demo's visitor has signed out and is not to be signed in unasked.
const sessionLeft = "left"

// letIn begins a session under a token of its own.
func (s *server) letIn(c *echo.Context, who people.Person) error {
	ctx := c.Request().Context()
	if err := s.sessions.RenewToken(ctx); err != nil {
		return fmt.Errorf("begin a session: %w", err)
	}
	s.sessions.Put(ctx, sessionPerson, who.ID)
	s.sessions.Put(ctx, sessionEpoch, who.Epoch)
	s.sessions.Remove(ctx, sessionLeft)
	return nil
}

// who returns the person of a request, once needs has found them.
func who(c *echo.Context) people.Person {
	p, _ := c.Get("person").(people.Person)
	return p
}

// by returns the name that a record is signed with: empty where nobody is set up.
func by(c *echo.Context) string { return who(c).Name }

// placeOf returns where a request comes from: what slows guessing.
func placeOf(c *echo.Context) string {
	host, _, err := net.SplitHostPort(c.Request().RemoteAddr)
	if err != nil {
		return c.Request().RemoteAddr
	}
	return host
}

// A doorView is a page at the door: signing in, setting up the first owner, joining.
type doorView struct {
	Heading, Lead, Action, Save, Fault, To string
	Fields                                 []field
	Visitors                               []option // as whom the demo can be looked at
}

func (s *server) door(c *echo.Context, code int, v doorView) error {
	p := page{Title: v.Heading, AtTheDoor: true}
	return s.render(c, code, "door", p, v)
}

func nameField() field {
	return field{Name: "name", Label: "Your name", Needed: true, Complete: "username"}
}

func newPasswordField() field {
	return field{Name: "password", Label: "A password", Kind: "password", Needed: true, Complete: "new-password", Hint: "Ten letters or more: three words that do not belong together will do."}
}

func (s *server) signInPage(c *echo.Context) error {
	return s.signInForm(c, http.StatusOK, "", func(name string) string { return c.QueryParam(name) })
}

func (s *server) signInForm(c *echo.Context, code int, fault string, from typed) error {
	fields := []field{nameField(), {Name: "password", Label: "Password", Kind: "password", Needed: true, Complete: "current-password"}}
	for i := range fields {
		if fields[i].Name != "password" {
			fields[i].Typed = from(fields[i].Name)
		}
	}
	v := doorView{Heading: "Sign in", Action: "/signin", Save: "Sign in", Fault: fault, Fields: fields, To: inside(from("to"))}
	if s.visitor != "" {
		all, err := s.doors.All(c.Request().Context())
		if err != nil {
			return err
		}
		v.Fields, v.Lead = nil, "This is the demo: come in as one of Larkenfold's people and see what each may do."
		for _, p := range all {
			v.Visitors = append(v.Visitors, option{Value: p.Name, Label: fmt.Sprintf("%s, %s", p.Name, p.Role)})
		}
	}
	return s.door(c, code, v)
}

// inside returns an address of this program; anything else leads to its first page.
func inside(to string) string {
	at, err := url.Parse(to)
	strange := func(r rune) bool { return r < 0x21 || r == '\\' || r == 0x7f } // which browsers leave out or read as a slash
	if err != nil || at.IsAbs() || at.Host != "" || at.User != nil || !strings.HasPrefix(to, "/") || strings.HasPrefix(at.Path, "//") || strings.ContainsFunc(to, strange) {
		return "/"
	}
	return to
}

func (s *server) signIn(c *echo.Context) error {
	if s.doors == nil {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	from := posted(c)
	if s.visitor != "" {
		return s.visit(c, from("as"))
	}
	who, err := s.doors.SignIn(c.Request().Context(), from("name"), from("password"), placeOf(c))
	if fault, code := doorFault(c, err); fault != "" {
		return s.signInForm(c, code, fault, from)
	}
	if err != nil {
		return err
	}
	if err := s.letIn(c, who); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, inside(from("to")))
}

// visit lets the demo's visitor in as one of its people.
func (s *server) visit(c *echo.Context, as string) error {
	all, err := s.doors.All(c.Request().Context())
	if err != nil {
		return err
	}
	for _, p := range all {
		if p.Name == as {
			if err := s.letIn(c, p); err != nil {
				return err
			}
			return c.Redirect(http.StatusSeeOther, "/")
		}
	}
	return book.ErrNoSuchRecord
}

// doorFault returns what to tell somebody who was not let in, empty where that is not the matter.
func doorFault(c *echo.Context, err error) (string, int) {
	var slowed *people.Slowed
	switch {
	case errors.As(err, &slowed):
		c.Response().Header().Set("Retry-After", fmt.Sprint(int(slowed.After.Seconds())+1))
		return sentence(slowed.Error()), http.StatusTooManyRequests
	case errors.Is(err, people.ErrWrong), errors.Is(err, people.ErrNoLink), errors.Is(err, people.ErrNobody):
		return sentence(err.Error()), http.StatusUnauthorized
	default:
		return "", 0
	}
}

func (s *server) firstPage(c *echo.Context) error {
	return s.firstForm(c, http.StatusOK, "", posted(c), nil)
}

// firstForm asks for the code, a name and a password as long as nobody is set up.
func (s *server) firstForm(c *echo.Context, code int, fault string, from typed, faults map[string]string) error {
	if s.doors == nil {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	if any, err := s.doors.Any(c.Request().Context()); err != nil || any {
		if err != nil {
			return err
		}
		return c.Redirect(http.StatusSeeOther, "/signin")
	}
	fields := fill([]field{{Name: "code", Label: "The code from the terminal", Needed: true, Hint: "It was printed when Dew Count was started."}, nameField(), newPasswordField()}, from, faults)
	for i := range fields {
		if fields[i].Kind == "password" {
			fields[i].Typed = ""
		}
	}
	return s.door(c, code, doorView{Heading: "Set up the owner", Lead: "From then on everybody signs in, and helpers are let in by a link.", Action: "/first", Save: "Set up", Fault: fault, Fields: fields})
}

func (s *server) first(c *echo.Context) error {
	if s.doors == nil {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	from := posted(c)
	who, err := s.doors.SetUp(c.Request().Context(), from("code"), from("name"), from("password"), placeOf(c))
	return s.entered(c, who, err, func(code int, fault string, faults map[string]string) error {
		return s.firstForm(c, code, fault, from, faults)
	})
}

// entered lets somebody in who has just been set up, or shows the form again.
func (s *server) entered(c *echo.Context, who people.Person, err error, again func(int, string, map[string]string) error) error {
	if faults, only := faultsBy(err); only {
		return again(http.StatusUnprocessableEntity, "", faults)
	}
	if fault, code := doorFault(c, err); fault != "" {
		return again(code, fault, nil)
	}
	if err != nil {
		return err
	}
	if err := s.letIn(c, who); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/")
}

func (s *server) joinPage(c *echo.Context) error {
	return s.joinForm(c, http.StatusOK, "", posted(c), nil)
}

func (s *server) joinForm(c *echo.Context, code int, fault string, from typed, faults map[string]string) error {
	if s.doors == nil {
		return echo.ErrNotFound
	}
	c.Response().Header().Set("Referrer-Policy", "no-referrer") // the address is a secret
	invitation, renews, err := s.doors.Invited(c.Request().Context(), c.Param("secret"), placeOf(c))
	if fault, code := doorFault(c, err); fault != "" {
		return s.door(c, code, doorView{Heading: "This link does not let you in", Fault: fault})
	}
	if err != nil {
		return err
	}
	v := doorView{Heading: "Join", Lead: roleWords[invitation.Role], Action: "/join/" + url.PathEscape(c.Param("secret")), Save: "Join", Fault: fault}
	v.Fields = []field{nameField(), newPasswordField()}
	if renews.ID != "" {
		v.Heading, v.Lead, v.Save, v.Fields = "A new password", "For "+renews.Name+".", "Keep", v.Fields[1:]
	}
	v.Fields = fill(v.Fields, from, faults)
	v.Fields[len(v.Fields)-1].Typed = ""
	return s.door(c, code, v)
}

var roleWords = map[people.Role]string{
	people.Owner:  "As owner: you see and change everything, and let people in.",
	people.Crew:   "As crew: you see all views, and record what is seen and done in the field.",
	people.Reader: "As reader: you see all views and change nothing.",
}

func (s *server) join(c *echo.Context) error {
	if s.doors == nil {
		return echo.ErrNotFound
	}
	from := posted(c)
	who, err := s.doors.Join(c.Request().Context(), c.Param("secret"), from("name"), from("password"), placeOf(c))
	return s.entered(c, who, err, func(code int, fault string, faults map[string]string) error {
		return s.joinForm(c, code, fault, from, faults)
	})
}

func (s *server) signOut(c *echo.Context) error {
	if s.doors == nil {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	ctx := c.Request().Context()
	if err := s.sessions.Destroy(ctx); err != nil {
		return fmt.Errorf("end the session: %w", err)
	}
	if s.visitor != "" {
		s.sessions.Put(ctx, sessionLeft, true)
	}
	return c.Redirect(http.StatusSeeOther, "/signin")
}

// peopleFault is what a person is told whose wish about people cannot be met.
func peopleFault(err error) error {
	for _, known := range []error{people.ErrLastOwner, people.ErrNobody, people.ErrNoLink} {
		if errors.Is(err, known) {
			return &fault.Advice{Words: known.Error(), Err: err}
		}
	}
	return err
}
