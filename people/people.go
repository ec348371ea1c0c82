// Package people is who works on the farm with the program: what each may do, how they are let in, and how guessing is slowed.
//
// Passwords and secrets are kept as hashes alone. Nothing here is part of the farm's notebook.
package people

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"crypto/subtle"
	"encoding/hex"
	"errors"
	"slices"
	"strings"
	"sync"
	"time"
	"unicode/utf8"

	"dewcount/farm/book"
	"dewcount/fault"
)

// A Role is what somebody may do.
type Role string

// The roles, from the one that may do most.
const (
	Owner  Role = "owner"  // everything, people too
	Crew   Role = "crew"   // looks at all views and records what is seen and done in the field
	Reader Role = "reader" // looks, and records nothing
)

// Roles returns all roles, from the one that may do most.
func Roles() []Role { return []Role{Owner, Crew, Reader} }

// May tells whether a role may do what needs another one.
func (r Role) May(need Role) bool {
	have, wanted := slices.Index(Roles(), r), slices.Index(Roles(), need)
	return have >= 0 && wanted >= 0 && have <= wanted
}

// A Person is somebody who signs in.
type Person struct {
	ID       string
	Name     string
	Role     Role
	Password string // as hashOf writes it
	Epoch    int    // raised when all their sessions shall end
	Calendar string // hash of the secret of their calendar's address, empty for none
	List     string // hash of the secret of the address of the list that they gave to customers
	JoinedAt string // UTC

	Imperial    bool // reads inches, feet and °F
	WeekNumbers bool // reads the number of the week beside each date
}

// A Store keeps people; the package records fulfils it.
type Store interface {
	People(ctx context.Context) ([]Person, error)
	// Admit adds a person, or takes the place of the one with its id, and uses up an invitation, of which the hash is empty where there
	// was none. It reports false, and changes nothing, where that invitation is not there.
	Admit(ctx context.Context, p Person, invitation string) (bool, error)
	Dismiss(ctx context.Context, id string) error
	Invitations(ctx context.Context) ([]Invitation, error)
	Invite(ctx context.Context, i Invitation) error
	// EndInvitation takes an invitation away, and reports whether it was there.
	EndInvitation(ctx context.Context, hash string) (bool, error)
}

// People is the farm's people and how they come in. Its methods can be called at the same time.
type People struct {
	store Store
	clock func() time.Time
	code  string // that sets up the first owner

	mutex sync.Mutex // a check of what stands and the change that rests on it are one
	guard *throttle
}

// New returns the people of a store. With the code the first owner is set up.
func New(store Store, clock func() time.Time, code string) *People {
	return &People{store: store, clock: clock, code: code, guard: newThrottle(clock)}
}

// NewCode returns a code that a person can type from a terminal: two groups of four letters and digits, 40 bits.
func NewCode() string {
	text := rand.Text()
	return text[:4] + "-" + text[4:8]
}

// The errors of coming in; each tells a person what to do.
var (
	ErrWrong     = errors.New("this name and password do not belong together: type them again, or ask the owner for a new link")
	ErrCode      = errors.New("this is not the code: read it again in the terminal in which Dew Count was started")
	ErrNoLink    = errors.New("this link has been used or has ended: ask the owner for a new one")
	ErrLastOwner = errors.New("this is the only owner: make somebody else an owner first")
	ErrNobody    = errors.New("this person is no longer here: look at the page anew")
)

// Any tells whether anybody is set up.
func (p *People) Any(ctx context.Context) (bool, error) {
	all, err := p.store.People(ctx)
	return len(all) > 0, err
}

// All returns everybody, by name.
func (p *People) All(ctx context.Context) ([]Person, error) {
	all, err := p.store.People(ctx)
	slices.SortFunc(all, func(a, b Person) int { return strings.Compare(strings.ToLower(a.Name), strings.ToLower(b.Name)) })
	return all, err
}

// Known returns the person of a session, and whether that session still holds.
func (p *People) Known(ctx context.Context, id string, epoch int) (Person, bool, error) {
	who, err := p.find(ctx, func(x Person) bool { return x.ID == id && x.Epoch == epoch })
	if errors.Is(err, ErrNobody) {
		return Person{}, false, nil
	}
	return who, err == nil, err
}

func (p *People) find(ctx context.Context, is func(Person) bool) (Person, error) {
	all, err := p.store.People(ctx)
	if err != nil {
		return Person{}, err
	}
	if i := slices.IndexFunc(all, is); i >= 0 {
		return all[i], nil
	}
	return Person{}, ErrNobody
}

func named(name string) func(Person) bool {
	return func(x Person) bool { return strings.EqualFold(x.Name, strings.TrimSpace(name)) }
}

// SetUp makes the first owner. It needs the code, and that nobody is there yet.
func (p *People) SetUp(ctx context.Context, code, name, password, from string) (Person, error) {
	limits := p.guard.secretLimits("code", from)
	if err := p.guard.enter(limits...); err != nil {
		return Person{}, err
	}
	typed := strings.ToUpper(strings.NewReplacer("-", "", " ", "").Replace(code))
	if p.code == "" || subtle.ConstantTimeCompare([]byte(typed), []byte(strings.ReplaceAll(p.code, "-", ""))) != 1 {
		return Person{}, fault.List{{Field: "code", Advice: ErrCode.Error()}}
	}
	p.guard.passed(limits...)
	p.mutex.Lock()
	defer p.mutex.Unlock()
	all, err := p.store.People(ctx)
	if err != nil {
		return Person{}, err
	}
	if len(all) > 0 {
		return Person{}, ErrNoLink
	}
	who, err := p.newPerson(all, name, password, Owner)
	if err != nil {
		return Person{}, err
	}
	_, err = p.store.Admit(ctx, who, "")
	return who, err
}

// newPerson checks a name and a password that somebody has chosen.
func (p *People) newPerson(all []Person, name, password string, role Role) (Person, error) {
	f := book.NewFields(func(string) string { return name })
	who := Person{ID: rand.Text(), Name: f.Name("name", "a name"), Role: role, JoinedAt: p.clock().UTC().Format(time.RFC3339)}
	if slices.ContainsFunc(all, named(who.Name)) {
		f.Fault("name", "somebody here is called %s already: add a letter", who.Name)
	}
	if advice := weak(password); advice != "" {
		f.Fault("password", "%s", advice)
	}
	if err := f.Faults(); err != nil {
		return Person{}, err
	}
	who.Password = hashOf(password)
	return who, nil
}

// SignIn returns the person of a name and password. What comes from one place, or for one name, is slowed after some tries.
func (p *People) SignIn(ctx context.Context, name, password, from string) (Person, error) {
	limits := p.guard.signInLimits(name, from)
	if err := p.guard.enter(limits...); err != nil {
		return Person{}, err
	}
	if utf8.RuneCountInString(password) > longest {
		return Person{}, ErrWrong // no password is so long: it is not worth the work
	}
	who, err := p.find(ctx, named(name))
	if err != nil && !errors.Is(err, ErrNobody) {
		return Person{}, err
	}
	if !matches(password, who.Password) { // also tried for nobody, so that both take as long
		return Person{}, ErrWrong
	}
	p.guard.passed(limits...)
	p.guard.atHome(limits[0])
	return who, nil
}

// ChangePassword gives a person who knows the old password a new one. All their other sessions end.
func (p *People) ChangePassword(ctx context.Context, id, old, password, from string) (Person, error) {
	limits := []limit{limitOf(fewTries, "password", id, placeOf(from))}
	if err := p.guard.enter(limits...); err != nil {
		return Person{}, err
	}
	return p.change(ctx, id, func(_ []Person, who Person) (Person, error) {
		if !matches(old, who.Password) {
			return who, fault.List{{Field: "old", Advice: "this is not your password of now: type it again"}}
		}
		p.guard.passed(limits...)
		return renewed(who, password)
	})
}

// SignOutEverywhere ends all sessions of a person.
func (p *People) SignOutEverywhere(ctx context.Context, id string) error {
	_, err := p.change(ctx, id, func(_ []Person, who Person) (Person, error) {
		who.Epoch++
		return who, nil
	})
	return err
}

// SetRole gives a person another role. The last owner stays one.
func (p *People) SetRole(ctx context.Context, id string, role Role) error {
	_, err := p.change(ctx, id, func(all []Person, who Person) (Person, error) {
		switch {
		case !slices.Contains(Roles(), role):
			return who, fault.List{{Field: "role", Advice: "choose owner, crew or reader"}}
		case role != Owner && lastOwner(all, who):
			return who, ErrLastOwner
		}
		who.Role = role
		return who, nil
	})
	return err
}

func lastOwner(all []Person, who Person) bool {
	return who.Role == Owner && !slices.ContainsFunc(all, func(x Person) bool { return x.Role == Owner && x.ID != who.ID })
}

// Dismiss takes a person away; what they recorded stays, with their name. The last owner stays.
func (p *People) Dismiss(ctx context.Context, id string) error {
	p.mutex.Lock()
	defer p.mutex.Unlock()
	all, err := p.store.People(ctx)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(all, func(x Person) bool { return x.ID == id })
	switch {
	case i < 0:
		return ErrNobody
	case lastOwner(all, all[i]):
		return ErrLastOwner
	}
	return p.store.Dismiss(ctx, id)
}

// SetReads writes down how a person reads dates and measures.
func (p *People) SetReads(ctx context.Context, id string, imperial, weekNumbers bool) error {
	_, err := p.change(ctx, id, func(_ []Person, who Person) (Person, error) {
		who.Imperial, who.WeekNumbers = imperial, weekNumbers
		return who, nil
	})
	return err
}

// NewCalendar returns the secret of a new address of a person's calendar; the one before no longer holds.
func (p *People) NewCalendar(ctx context.Context, id string) (string, error) {
	secret := rand.Text()
	return secret, p.setSecret(ctx, id, func(who *Person) { who.Calendar = secretHash(secret) })
}

// DropCalendar ends the address of a person's calendar.
func (p *People) DropCalendar(ctx context.Context, id string) error {
	return p.setSecret(ctx, id, func(who *Person) { who.Calendar = "" })
}

// NewList returns the secret of a new address of the list of what is to be had; the one before no longer holds.
func (p *People) NewList(ctx context.Context, id string) (string, error) {
	secret := rand.Text()
	return secret, p.setSecret(ctx, id, func(who *Person) { who.List = secretHash(secret) })
}

// DropList ends the address of a person's list.
func (p *People) DropList(ctx context.Context, id string) error {
	return p.setSecret(ctx, id, func(who *Person) { who.List = "" })
}

func (p *People) setSecret(ctx context.Context, id string, set func(*Person)) error {
	_, err := p.change(ctx, id, func(_ []Person, who Person) (Person, error) {
		set(&who)
		return who, nil
	})
	return err
}

// OfCalendar returns the person of a calendar's secret.
func (p *People) OfCalendar(ctx context.Context, secret, from string) (Person, error) {
	return p.ofSecret(ctx, "calendar", secret, from, func(x Person) string { return x.Calendar })
}

// OfList returns the person of a list's secret.
func (p *People) OfList(ctx context.Context, secret, from string) (Person, error) {
	return p.ofSecret(ctx, "list", secret, from, func(x Person) string { return x.List })
}

func (p *People) ofSecret(ctx context.Context, kind, secret, from string, hash func(Person) string) (Person, error) {
	limits := p.guard.secretLimits(kind, from)
	if err := p.guard.enter(limits...); err != nil {
		return Person{}, err
	}
	who, err := p.find(ctx, func(x Person) bool { return hash(x) != "" && hash(x) == secretHash(secret) })
	if err == nil {
		p.guard.passed(limits...)
	}
	return who, err
}

func (p *People) change(ctx context.Context, id string, f func([]Person, Person) (Person, error)) (Person, error) {
	p.mutex.Lock()
	defer p.mutex.Unlock()
	all, err := p.store.People(ctx)
	if err != nil {
		return Person{}, err
	}
	i := slices.IndexFunc(all, func(x Person) bool { return x.ID == id })
	if i < 0 {
		return Person{}, ErrNobody
	}
	who, err := f(all, all[i])
	if err != nil {
		return Person{}, err
	}
	_, err = p.store.Admit(ctx, who, "")
	return who, err
}

// secretHash is what is kept of a secret of 128 random bits: it needs no salt, nobody guesses it.
func secretHash(secret string) string {
	sum := sha256.Sum256([]byte(secret))
	return hex.EncodeToString(sum[:])
}
