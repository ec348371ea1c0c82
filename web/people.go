package web

import (
	"fmt"
	"net/http"
	"net/url"
	"time"

	"dewcount/farm/book"
	"dewcount/people"

	"github.com/labstack/echo/v5"
)

// A peopleView is who is let in, for the owner.
type peopleView struct {
	People  []personView
	Roles   []option
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
	Roles           []option
}

// A linkCode is a link that is shown once, with its QR code.
type linkCode struct {
	Words, Address string
	QR             qrView
}

func roleOptions(now people.Role) []option {
	return field{Typed: string(now)}.choose(option{Value: "crew", Label: "crew: looks and records"}, option{Value: "reader", Label: "reader: looks"}, option{Value: "owner", Label: "owner: everything"}).Options
}

func (s *server) peoplePage(c *echo.Context, link *linkCode) error {
	snap, err := s.farm.Snapshot(c.Request().Context())
	if err != nil {
		return err
	}
	v := peopleView{Roles: roleOptions(people.Crew), Address: s.base(snap), Link: link, HasOwn: s.certificate != nil}
	if s.doors != nil {
		all, err := s.doors.All(c.Request().Context())
		if err != nil {
			return err
		}
		for _, p := range all {
			since := ""
			if at, err := time.Parse(time.RFC3339, p.JoinedAt); err == nil {
				since = at.Format("2 January 2006")
			}
			v.People = append(v.People, personView{p.ID, p.Name, since, p.ID == who(c).ID, roleOptions(p.Role)})
		}
		open, err := s.doors.Invitations(c.Request().Context())
		if err != nil {
			return err
		}
		for _, i := range open {
			v.Open = append(v.Open, newInvitation(i, all))
		}
	}
	v.Nobody = len(v.People) == 0
	return s.show(c, http.StatusOK, "people", "/farm", "People", snap, v)
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

func (s *server) endInvitation(c *echo.Context) error {
	return s.onPerson(c, func(hash string) error { return s.doors.EndInvitation(c.Request().Context(), hash) })
}

func (s *server) listPeople(c *echo.Context) error { return s.peoplePage(c, nil) }

func (s *server) invite(c *echo.Context) error {
	if s.doors == nil || who(c).ID == "" {
		return c.Redirect(http.StatusSeeOther, "/first")
	}
	secret, err := s.doors.Invite(c.Request().Context(), people.Role(c.FormValue("role")), c.FormValue("person"), who(c).ID)
	if err != nil {
		return peopleFault(err)
	}
	snap, err := s.farm.Snapshot(c.Request().Context())
	if err != nil {
		return err
	}
	address := s.base(snap) + "/join/" + secret
	code, err := newQR(address)
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
func (s *server) onPerson(c *echo.Context, do func(id string) error) error {
	if s.doors == nil {
		return book.ErrNoSuchRecord
	}
	if err := do(c.Param("id")); err != nil {
		return peopleFault(err)
	}
	return c.Redirect(http.StatusSeeOther, "/people")
}

func (s *server) setRole(c *echo.Context) error {
	return s.onPerson(c, func(id string) error {
		return s.doors.SetRole(c.Request().Context(), id, people.Role(c.FormValue("role")))
	})
}

func (s *server) endSessions(c *echo.Context) error {
	return s.onPerson(c, func(id string) error { return s.doors.SignOutEverywhere(c.Request().Context(), id) })
}

func (s *server) dismiss(c *echo.Context) error {
	return s.onPerson(c, func(id string) error { return s.doors.Dismiss(c.Request().Context(), id) })
}

// A meView is one's own account.
type meView struct {
	Name, Role  string
	Fields      []field
	HasCalendar bool
	Calendar    *linkCode
	HasOwn      bool
}

func (s *server) me(c *echo.Context) error { return s.mePage(c, http.StatusOK, nil, nil) }

func (s *server) mePage(c *echo.Context, code int, calendar *linkCode, faults map[string]string) error {
	p := who(c)
	if p.ID == "" {
		return c.Redirect(http.StatusSeeOther, "/people")
	}
	snap, err := s.farm.Snapshot(c.Request().Context())
	if err != nil {
		return err
	}
	nothing := func(string) string { return "" }
	fresh := newPasswordField()
	fresh.Label = "The new one"
	v := meView{Name: p.Name, Role: roleWords[p.Role], HasCalendar: p.Calendar != "" || calendar != nil, Calendar: calendar, HasOwn: s.certificate != nil,
		Fields: fill([]field{{Name: "old", Label: "Password of now", Kind: "password", Needed: true, Complete: "current-password"}, fresh}, nothing, faults)}
	return s.show(c, code, "me", "", p.Name, snap, v)
}

func (s *server) changePassword(c *echo.Context) error {
	if who(c).ID == "" {
		return c.Redirect(http.StatusSeeOther, "/people")
	}
	changed, err := s.doors.ChangePassword(c.Request().Context(), who(c).ID, c.FormValue("old"), c.FormValue("password"), placeOf(c))
	if faults, only := faultsBy(err); only {
		return s.mePage(c, http.StatusUnprocessableEntity, nil, faults)
	}
	if fault, code := doorFault(c, err); fault != "" {
		return s.mePage(c, code, nil, map[string]string{"old": fault})
	}
	if err != nil {
		return err
	}
	if err := s.letIn(c, changed); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/me")
}

func (s *server) signOutEverywhere(c *echo.Context) error {
	if who(c).ID == "" {
		return c.Redirect(http.StatusSeeOther, "/people")
	}
	if err := s.doors.SignOutEverywhere(c.Request().Context(), who(c).ID); err != nil {
		return err
	}
	return s.signOut(c)
}

// newCalendar makes a new address of one's calendar, or takes it away.
func (s *server) newCalendar(c *echo.Context) error {
	ctx, id := c.Request().Context(), who(c).ID
	if id == "" {
		return c.Redirect(http.StatusSeeOther, "/people")
	}
	if c.FormValue("drop") != "" {
		if err := s.doors.DropCalendar(ctx, id); err != nil {
			return err
		}
		return c.Redirect(http.StatusSeeOther, "/me")
	}
	secret, err := s.doors.NewCalendar(ctx, id)
	if err != nil {
		return err
	}
	snap, err := s.farm.Snapshot(ctx)
	if err != nil {
		return err
	}
	address := s.base(snap) + "/calendar/" + url.PathEscape(secret) + ".ics"
	code, err := newQR(address)
	if err != nil {
		return err
	}
	return s.mePage(c, http.StatusOK, &linkCode{Words: "Whoever has this address reads the farm's calendar. It is not shown again; a new one ends it.", Address: address, QR: code}, nil)
}

// authority hands out the certificate that a phone must trust.
func (s *server) authority(c *echo.Context) error {
	if s.certificate == nil {
		return echo.ErrNotFound
	}
	c.Response().Header().Set("Content-Disposition", `attachment; filename="dew-count-authority.crt"`)
	return c.Blob(http.StatusOK, "application/x-x509-ca-cert", s.certificate)
}
