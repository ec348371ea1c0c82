package web

import (
	"errors"
	"fmt"
	"net/http"
	"net/url"

	"dewcount/farm/book"
	"dewcount/fault"
	"dewcount/people"

	"github.com/labstack/echo/v5"
)

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
