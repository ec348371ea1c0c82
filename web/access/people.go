package access

import (
	"fmt"
	"net/http"
	"net/url"
	"time"

	"dewcount/farm/book"
	"dewcount/people"
	"dewcount/web/page"
	"dewcount/web/parts"

	"github.com/labstack/echo/v5"
)

// A peopleView is who is let in, for the owner.
type peopleView struct {
	People  []personView
	Roles   []page.Option
	Nobody  bool // is set up yet
	Address string
	Link    *linkCode
	HasOwn  bool // an authority of the farm's own, which phones must be told to trust
	Open    []invitationView
}

// An invitationView is a link that still lets somebody in.
type invitationView struct{ Hash, For, Made, Until string }

type personView struct {
	ID, Name, Since string
	Me              bool
	Roles           []page.Option
}

// A linkCode is a link that is shown once, with its QR code.
type linkCode struct {
	Words, Address string
	QR             parts.QrView
}

func roleOptions(now people.Role) []page.Option {
	return page.Field{Typed: string(now)}.Choose(page.Option{Value: "crew", Label: "crew: looks and records"}, page.Option{Value: "reader", Label: "reader: looks"}, page.Option{Value: "owner", Label: "owner: everything"}).Options
}

func (s view) peoplePage(c *echo.Context, link *linkCode) error {
	snap, err := s.Farm.Snapshot(c.Request().Context())
	if err != nil {
		return err
	}
	v := peopleView{Roles: roleOptions(people.Crew), Address: s.Base(snap), Link: link, HasOwn: s.Certificate != nil}
	if s.People != nil {
		all, err := s.People.All(c.Request().Context())
		if err != nil {
			return err
		}
		for _, p := range all {
			since := ""
			if at, err := time.Parse(time.RFC3339, p.JoinedAt); err == nil {
				since = at.Format("2 January 2006")
			}
			v.People = append(v.People, personView{p.ID, p.Name, since, p.ID == page.Who(c).ID, roleOptions(p.Role)})
		}
		open, err := s.People.Invitations(c.Request().Context())
		if err != nil {
			return err
		}
		for _, i := range open {
			v.Open = append(v.Open, newInvitation(i, all))
		}
	}
	v.Nobody = len(v.People) == 0
	return s.Show(c, http.StatusOK, "people", "/farm", "People", page.ReadBy(c, snap), v)
}

// newInvitation says whom an invitation lets in, who made it and until when it holds.
func newInvitation(i people.Invitation, all []people.Person) invitationView {
	named := func(id, otherwise string) string {
		for _, p := range all {
			if p.ID == id {
				return p.Name
			}
		}
		return otherwise
	}
	day := func(stamp string) string {
		at, err := time.Parse(time.RFC3339, stamp)
		if err != nil {
			return "an unknown day"
		}
		return at.Format("2 January 2006")
	}
	v := invitationView{Hash: i.Hash, For: "somebody new, as " + string(i.Role), Until: day(i.Until)}
	if i.Person != "" {
		v.For = "a new password for " + named(i.Person, "somebody")
	}
	v.Made = fmt.Sprintf("made by %s on %s", named(i.MadeBy, "whoever sits at the machine"), day(i.MadeAt))
	return v
}

func (s view) endInvitation(c *echo.Context) error {
	return s.onPerson(c, func(hash string) error { return s.People.EndInvitation(c.Request().Context(), hash) })
}

func (s view) listPeople(c *echo.Context) error { return s.peoplePage(c, nil) }

func (s view) invite(c *echo.Context) error {
	if s.People == nil || page.Who(c).ID == "" {
		return c.Redirect(http.StatusSeeOther, "/first")
	}
	secret, err := s.People.Invite(c.Request().Context(), people.Role(c.FormValue("role")), c.FormValue("person"), page.Who(c).ID)
	if err != nil {
		return peopleFault(err)
	}
	snap, err := s.Farm.Snapshot(c.Request().Context())
	if err != nil {
		return err
	}
	address := s.Base(snap) + "/join/" + secret
	code, err := parts.NewQR(address, "QR code of the address")
	if err != nil {
		return err
	}
	words := "This link lets one person in as " + c.FormValue("role") + ". It holds for a week, works once, and is not shown again."
	if c.FormValue("person") != "" {
		words = "By this link the person chooses a new password. It holds for a week, works once, and is not shown again."
	}
	return s.peoplePage(c, &linkCode{Words: words, Address: address, QR: code})
}

// onPerson does something about the person that the address names, and goes back to the list.
func (s view) onPerson(c *echo.Context, do func(id string) error) error {
	if s.People == nil {
		return book.ErrNoSuchRecord
	}
	if err := do(c.Param("id")); err != nil {
		return peopleFault(err)
	}
	return c.Redirect(http.StatusSeeOther, "/people")
}

func (s view) setRole(c *echo.Context) error {
	return s.onPerson(c, func(id string) error {
		return s.People.SetRole(c.Request().Context(), id, people.Role(c.FormValue("role")))
	})
}

func (s view) endSessions(c *echo.Context) error {
	return s.onPerson(c, func(id string) error { return s.People.SignOutEverywhere(c.Request().Context(), id) })
}

func (s view) dismiss(c *echo.Context) error {
	return s.onPerson(c, func(id string) error { return s.People.Dismiss(c.Request().Context(), id) })
}

// A meView is one's own account.
type meView struct {
	Name, Role  string
	Fields      []page.Field
	HasCalendar bool
	Calendar    *linkCode
	HasOwn      bool
}

func (s view) me(c *echo.Context) error { return s.mePage(c, http.StatusOK, nil, nil) }

func (s view) mePage(c *echo.Context, code int, calendar *linkCode, faults map[string]string) error {
	p := page.Who(c)
	if p.ID == "" {
		return c.Redirect(http.StatusSeeOther, "/people")
	}
	snap, err := s.Farm.Snapshot(c.Request().Context())
	if err != nil {
		return err
	}
	nothing := func(string) string { return "" }
	fresh := newPasswordField()
	fresh.Label = "The new one"
	v := meView{Name: p.Name, Role: roleWords[p.Role], HasCalendar: p.Calendar != "" || calendar != nil, Calendar: calendar, HasOwn: s.Certificate != nil,
		Fields: page.Fill(c, []page.Field{{Name: "old", Label: "Password of now", Kind: "password", Needed: true, Complete: "current-password"}, fresh}, nothing, faults)}
	return s.Show(c, code, "me", "", p.Name, page.ReadBy(c, snap), v)
}

func (s view) changePassword(c *echo.Context) error {
	if page.Who(c).ID == "" {
		return c.Redirect(http.StatusSeeOther, "/people")
	}
	changed, err := s.People.ChangePassword(c.Request().Context(), page.Who(c).ID, c.FormValue("old"), c.FormValue("password"), page.PlaceOf(c))
	if faults, only := page.FaultsBy(err); only {
		return s.mePage(c, http.StatusUnprocessableEntity, nil, faults)
	}
	if fault, code := page.GuessFault(c, err); fault != "" {
		return s.mePage(c, code, nil, map[string]string{"old": fault})
	}
	if err != nil {
		return err
	}
	if err := s.LetIn(c, changed); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/me")
}

func (s view) signOutEverywhere(c *echo.Context) error {
	if page.Who(c).ID == "" {
		return c.Redirect(http.StatusSeeOther, "/people")
	}
	if err := s.People.SignOutEverywhere(c.Request().Context(), page.Who(c).ID); err != nil {
		return err
	}
	return s.signOut(c)
}

// newCalendar makes a new address of one's calendar, or takes it away.
func (s view) newCalendar(c *echo.Context) error {
	ctx, id := c.Request().Context(), page.Who(c).ID
	if id == "" {
		return c.Redirect(http.StatusSeeOther, "/people")
	}
	if c.FormValue("drop") != "" {
		if err := s.People.DropCalendar(ctx, id); err != nil {
			return err
		}
		return c.Redirect(http.StatusSeeOther, "/me")
	}
	secret, err := s.People.NewCalendar(ctx, id)
	if err != nil {
		return err
	}
	snap, err := s.Farm.Snapshot(ctx)
	if err != nil {
		return err
	}
	address := s.Base(snap) + "/calendar/" + url.PathEscape(secret) + ".ics"
	code, err := parts.NewQR(address, "QR code of the address")
	if err != nil {
		return err
	}
	return s.mePage(c, http.StatusOK, &linkCode{Words: "Whoever has this address reads the farm's calendar. It is not shown again; a new one ends it.", Address: address, QR: code}, nil)
}

// authority hands out the certificate that a phone must trust.
func (s view) authority(c *echo.Context) error {
	if s.Certificate == nil {
		return echo.ErrNotFound
	}
	c.Response().Header().Set("Content-Disposition", `attachment; filename="dew-count-authority.crt"`)
	return c.Blob(http.StatusOK, "application/x-x509-ca-cert", s.Certificate)
}
