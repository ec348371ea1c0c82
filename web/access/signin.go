package access

import (
	"errors"
	"fmt"
	"net/http"
	"net/url"

	"dewcount/farm/book"
	"dewcount/fault"
	"dewcount/people"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A signInView is a page for who is not signed in: signing in, setting up the first owner, joining.
type signInView struct {
	Heading, Lead, Action, Save, Fault, To string
	Fields                                 []page.Field
	Visitors                               []page.Option // as whom the demo can be looked at
}

func (s view) before(c *echo.Context, code int, v signInView) error {
	p := page.Frame{Title: v.Heading, SignedOut: true}
	return s.Render(c, code, "signin", p, v)
}

func nameField() page.Field {
	return page.Field{Name: "name", Label: "Your name", Needed: true, Complete: "username"}
}

func newPasswordField() page.Field {
	return page.Field{Name: "password", Label: "A password", Kind: "password", Needed: true, Complete: "new-password", Hint: "Ten letters or more: three words that do not belong together will do."}
}

func (s view) signInPage(c *echo.Context) error {
	return s.signInForm(c, http.StatusOK, "", func(name string) string { return c.QueryParam(name) })
}

func (s view) signInForm(c *echo.Context, code int, fault string, from page.Typed) error {
	fields := []page.Field{nameField(), {Name: "password", Label: "Password", Kind: "password", Needed: true, Complete: "current-password"}}
	for i := range fields {
		if fields[i].Name != "password" {
			fields[i].Typed = from(fields[i].Name)
		}
	}
	v := signInView{Heading: "Sign in", Action: "/signin", Save: "Sign in", Fault: fault, Fields: fields, To: page.Inside(from("to"))}
	if s.Visitor != "" {
		all, err := s.People.All(c.Request().Context())
		if err != nil {
			return err
		}
		v.Fields, v.Lead = nil, "This is the demo: come in as one of Larkenfold's people and see what each may do."
		for _, p := range all {
			v.Visitors = append(v.Visitors, page.Option{Value: p.Name, Label: fmt.Sprintf("%s, %s", p.Name, p.Role)})
		}
	}
	return s.before(c, code, v)
}

func (s view) signIn(c *echo.Context) error {
	if s.People == nil {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	from := page.Posted(c)
	if s.Visitor != "" {
		return s.visit(c, from("as"))
	}
	who, err := s.People.SignIn(c.Request().Context(), from("name"), from("password"), page.PlaceOf(c))
	if fault, code := page.GuessFault(c, err); fault != "" {
		return s.signInForm(c, code, fault, from)
	}
	if err != nil {
		return err
	}
	if err := s.LetIn(c, who); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, page.Inside(from("to")))
}

// visit lets the demo's visitor in as one of its people.
func (s view) visit(c *echo.Context, as string) error {
	all, err := s.People.All(c.Request().Context())
	if err != nil {
		return err
	}
	for _, p := range all {
		if p.Name == as {
			if err := s.LetIn(c, p); err != nil {
				return err
			}
			s.Leave(c, false)
			return c.Redirect(http.StatusSeeOther, "/")
		}
	}
	return book.ErrNoSuchRecord
}

func (s view) firstPage(c *echo.Context) error {
	return s.firstForm(c, http.StatusOK, "", page.Posted(c), nil)
}

// firstForm asks for the code, a name and a password as long as nobody is set up.
func (s view) firstForm(c *echo.Context, code int, fault string, from page.Typed, faults map[string]string) error {
	if s.People == nil {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	if any, err := s.People.Any(c.Request().Context()); err != nil || any {
		if err != nil {
			return err
		}
		return c.Redirect(http.StatusSeeOther, "/signin")
	}
	fields := page.Fill(c, []page.Field{{Name: "code", Label: "The code from the terminal", Needed: true, Hint: "It was printed when Dew Count was started."}, nameField(), newPasswordField()}, from, faults)
	for i := range fields {
		if fields[i].Kind == "password" {
			fields[i].Typed = ""
		}
	}
	return s.before(c, code, signInView{Heading: "Set up the owner", Lead: "From then on everybody signs in, and helpers are let in by a link.", Action: "/first", Save: "Set up", Fault: fault, Fields: fields})
}

func (s view) first(c *echo.Context) error {
	if s.People == nil {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	from := page.Posted(c)
	who, err := s.People.SetUp(c.Request().Context(), from("code"), from("name"), from("password"), page.PlaceOf(c))
	return s.entered(c, who, err, func(code int, fault string, faults map[string]string) error {
		return s.firstForm(c, code, fault, from, faults)
	})
}

// entered lets somebody in who has just been set up, or shows the form again.
func (s view) entered(c *echo.Context, who people.Person, err error, again func(int, string, map[string]string) error) error {
	if faults, only := page.FaultsBy(err); only {
		return again(http.StatusUnprocessableEntity, "", faults)
	}
	if fault, code := page.GuessFault(c, err); fault != "" {
		return again(code, fault, nil)
	}
	if err != nil {
		return err
	}
	if err := s.LetIn(c, who); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/")
}

func (s view) joinPage(c *echo.Context) error {
	return s.joinForm(c, http.StatusOK, "", page.Posted(c), nil)
}

func (s view) joinForm(c *echo.Context, code int, fault string, from page.Typed, faults map[string]string) error {
	if s.People == nil {
		return echo.ErrNotFound
	}
	c.Response().Header().Set("Referrer-Policy", "no-referrer") // the address is a secret
	invitation, renews, err := s.People.Invited(c.Request().Context(), c.Param("secret"), page.PlaceOf(c))
	if fault, code := page.GuessFault(c, err); fault != "" {
		return s.before(c, code, signInView{Heading: "This link does not let you in", Fault: fault})
	}
	if err != nil {
		return err
	}
	v := signInView{Heading: "Join", Lead: roleWords[invitation.Role], Action: "/join/" + url.PathEscape(c.Param("secret")), Save: "Join", Fault: fault}
	v.Fields = []page.Field{nameField(), newPasswordField()}
	if renews.ID != "" {
		v.Heading, v.Lead, v.Save, v.Fields = "A new password", "For "+renews.Name+".", "Keep", v.Fields[1:]
	}
	v.Fields = page.Fill(c, v.Fields, from, faults)
	v.Fields[len(v.Fields)-1].Typed = ""
	return s.before(c, code, v)
}

var roleWords = map[people.Role]string{
	people.Owner:  "As owner: you see and change everything, and let people in.",
	people.Crew:   "As crew: you see all views, and record what is seen and done in the field.",
	people.Reader: "As reader: you see all views and change nothing.",
}

func (s view) join(c *echo.Context) error {
	if s.People == nil {
		return echo.ErrNotFound
	}
	from := page.Posted(c)
	who, err := s.People.Join(c.Request().Context(), c.Param("secret"), from("name"), from("password"), page.PlaceOf(c))
	return s.entered(c, who, err, func(code int, fault string, faults map[string]string) error {
		return s.joinForm(c, code, fault, from, faults)
	})
}

func (s view) signOut(c *echo.Context) error {
	if s.People == nil {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	if err := s.Sessions.Destroy(c.Request().Context()); err != nil {
		return fmt.Errorf("end the session: %w", err)
	}
	if s.Visitor != "" {
		s.Leave(c, true)
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
