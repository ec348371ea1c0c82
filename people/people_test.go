package people

import (
	"context"
	"encoding/base64"
	"errors"
	"fmt"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"dewcount/fault"

	"golang.org/x/crypto/argon2"
)

var ctx = context.Background()

const good = "hedge bucket lantern"

// memory is a store in memory.
type memory struct {
	mutex       sync.Mutex
	people      []Person
	invitations []Invitation
}

func (m *memory) People(context.Context) ([]Person, error) {
	m.mutex.Lock()
	defer m.mutex.Unlock()
	return append([]Person(nil), m.people...), nil
}

func (m *memory) Admit(_ context.Context, p Person, invitation string) (bool, error) {
	m.mutex.Lock()
	defer m.mutex.Unlock()
	if invitation != "" {
		at := -1
		for i, x := range m.invitations {
			if x.Hash == invitation {
				at = i
			}
		}
		if at < 0 {
			return false, nil
		}
		m.invitations = append(m.invitations[:at], m.invitations[at+1:]...)
	}
	for i := range m.people {
		if m.people[i].ID == p.ID {
			m.people[i] = p
			return true, nil
		}
	}
	m.people = append(m.people, p)
	return true, nil
}

func (m *memory) Dismiss(_ context.Context, id string) error {
	m.mutex.Lock()
	defer m.mutex.Unlock()
	m.people = slices.DeleteFunc(m.people, func(p Person) bool { return p.ID == id })
	return nil
}

func (m *memory) Invitations(context.Context) ([]Invitation, error) {
	m.mutex.Lock()
	defer m.mutex.Unlock()
	return slices.Clone(m.invitations), nil
}

func (m *memory) Invite(_ context.Context, i Invitation) error {
	m.mutex.Lock()
	defer m.mutex.Unlock()
	m.invitations = append(m.invitations, i)
	return nil
}

func (m *memory) EndInvitation(_ context.Context, hash string) (bool, error) {
	m.mutex.Lock()
	defer m.mutex.Unlock()
	before := len(m.invitations)
	m.invitations = slices.DeleteFunc(m.invitations, func(i Invitation) bool { return i.Hash == hash })
	return len(m.invitations) < before, nil
}

// A hand is a clock that tests move.
type hand struct{ now time.Time }

func newFarm(t *testing.T) (*People, *hand, *memory) {
	t.Helper()
	h, m := &hand{time.Date(2026, 3, 1, 8, 0, 0, 0, time.UTC)}, &memory{}
	return New(m, func() time.Time { return h.now }, "ABCD-2345"), h, m
}

func owner(t *testing.T, p *People) Person {
	t.Helper()
	who, err := p.SetUp(ctx, "ABCD-2345", "Wren", good, "here")
	if err != nil {
		t.Fatal(err)
	}
	return who
}

func TestRolesHoldWhatLowerOnesMay(t *testing.T) {
	for _, x := range []struct {
		have, need Role
		want       bool
	}{{Owner, Reader, true}, {Owner, Owner, true}, {Crew, Owner, false}, {Crew, Crew, true}, {Reader, Crew, false}, {"", Reader, false}, {"king", Reader, false}, {Owner, "king", false}} {
		if got := x.have.May(x.need); got != x.want {
			t.Errorf("%q.May(%q) = %v, want %v", x.have, x.need, got, x.want)
		}
	}
}

func TestTheFirstOwnerNeedsTheCodeAndComesOnce(t *testing.T) {
	p, _, _ := newFarm(t)
	var faults fault.List
	if _, err := p.SetUp(ctx, "ABCD-2346", "Wren", good, "here"); !errors.As(err, &faults) || faults[0].Field != "code" {
		t.Errorf("a wrong code: %v, want a fault of the field code", err)
	}
	if _, err := p.SetUp(ctx, "abcd2345", "Wren", "short", "here"); !errors.As(err, &faults) || faults[0].Field != "password" {
		t.Errorf("a short password: %v, want a fault of the field password", err)
	}
	owner(t, p)
	if _, err := p.SetUp(ctx, "ABCD-2345", "Other", good, "here"); !errors.Is(err, ErrNoLink) {
		t.Errorf("a second first owner: %v, want ErrNoLink", err)
	}
	none := New(&memory{}, time.Now, "")
	if _, err := none.SetUp(ctx, "", "Wren", good, "here"); err == nil {
		t.Error("where there is no code an empty one sets up an owner")
	}
}

func TestPasswordsAreKeptAsArgon2id(t *testing.T) {
	p, _, m := newFarm(t)
	owner(t, p)
	hash := m.people[0].Password
	if !strings.HasPrefix(hash, "$argon2id$v=19$m=19456,t=2,p=1$") || strings.Contains(hash, good) {
		t.Errorf("kept as %q", hash)
	}
	if hashOf(good) == hash {
		t.Error("the same password twice has the same hash: no salt")
	}
	if !matches(good, hash) || matches(good+" ", hash) || matches("", "") || matches(good, "$argon2id$v=19$m=1,t=1,p=1$!$!") {
		t.Error("matches says yes to what it must refuse, or no to the password")
	}
}

func TestInvitationsWorkOnceAndForAWeek(t *testing.T) {
	p, h, m := newFarm(t)
	owner(t, p)
	secret, err := p.Invite(ctx, Crew, "", "")
	if err != nil {
		t.Fatal(err)
	}
	if strings.Contains(m.invitations[0].Hash, secret) {
		t.Error("the secret itself is kept")
	}
	var faults fault.List
	if _, err := p.Join(ctx, secret, "WREN", good, "here"); !errors.As(err, &faults) {
		t.Errorf("a name that is taken: %v, want a fault", err)
	}
	var wait sync.WaitGroup
	var mutex sync.Mutex
	joined := 0
	for _, name := range []string{"Tam", "Ilka", "Brock"} { // three at once with one link
		wait.Go(func() {
			if _, err := p.Join(ctx, secret, name, good, "here"); err == nil {
				mutex.Lock()
				joined++
				mutex.Unlock()
			}
		})
	}
	wait.Wait()
	if joined != 1 {
		t.Errorf("%d joined with one link, want 1", joined)
	}
	late, err := p.Invite(ctx, Reader, "", "")
	if err != nil {
		t.Fatal(err)
	}
	h.now = h.now.Add(invitationTime + time.Minute)
	if _, err := p.Join(ctx, late, "Late", good, "there"); !errors.Is(err, ErrNoLink) {
		t.Errorf("after a week: %v, want ErrNoLink", err)
	}
}

func TestALinkRenewsAPasswordAndEndsSessions(t *testing.T) {
	p, _, _ := newFarm(t)
	who := owner(t, p)
	secret, err := p.Invite(ctx, Reader, who.ID, who.ID)
	if err != nil {
		t.Fatal(err)
	}
	renewed, err := p.Join(ctx, secret, "ignored", "quite another phrase", "here")
	if err != nil || renewed.Role != Owner || renewed.Name != "Wren" {
		t.Fatalf("renewed: %v, %+v", err, renewed)
	}
	if _, known, _ := p.Known(ctx, who.ID, who.Epoch); known {
		t.Error("the session of before still holds")
	}
	if _, err := p.SignIn(ctx, "Wren", good, "here"); !errors.Is(err, ErrWrong) {
		t.Errorf("the old password: %v, want ErrWrong", err)
	}
}

func TestTheLastOwnerStays(t *testing.T) {
	p, _, _ := newFarm(t)
	who := owner(t, p)
	if err := p.SetRole(ctx, who.ID, Crew); !errors.Is(err, ErrLastOwner) {
		t.Errorf("SetRole: %v, want ErrLastOwner", err)
	}
	if err := p.Dismiss(ctx, who.ID); !errors.Is(err, ErrLastOwner) {
		t.Errorf("Dismiss: %v, want ErrLastOwner", err)
	}
}

// Wrong tries in a row must take longer than an hour together, from one place or for one name from many.
func TestGuessingIsSlowed(t *testing.T) {
	for name, x := range map[string]struct {
		from  func(int) string
		tries int
	}{"one place": {func(int) string { return "192.0.2.1" }, 20},
		"many places":              {func(i int) string { return fmt.Sprintf("192.0.2.%d", i) }, 60},
		"many addresses of IPv6":   {func(i int) string { return fmt.Sprintf("2001:db8::%x", i) }, 20},
		"one place, capitals, air": {func(int) string { return "192.0.2.1" }, 20}} {
		p, h, _ := newFarm(t)
		owner(t, p)
		began := h.now
		for tries := 0; tries < x.tries; {
			typed := []string{"Wren", " wREN "}[tries%2]
			_, err := p.SignIn(ctx, typed, "guess number one", x.from(tries))
			var slowed *Slowed
			switch {
			case errors.As(err, &slowed):
				h.now = h.now.Add(slowed.After)
			case errors.Is(err, ErrWrong):
				tries++
			default:
				t.Fatal(err)
			}
		}
		if took := h.now.Sub(began); took < time.Hour {
			t.Errorf("from %s %d tries take %v, want over an hour", name, x.tries, took)
		}
		h.now = h.now.Add(longestWait)
		if _, err := p.SignIn(ctx, "Wren", good, "elsewhere"); err != nil {
			t.Errorf("the owner, after the wait: %v", err)
		}
	}
}

// Guesses that come all at once are as many as those that come one by one.
func TestGuessesAtOnceAreCounted(t *testing.T) {
	p, _, _ := newFarm(t)
	owner(t, p)
	var crowd sync.WaitGroup
	var tried atomic.Int32
	for range 120 {
		crowd.Go(func() {
			if _, err := p.SignIn(ctx, "Wren", "guess number one", "192.0.2.1"); errors.Is(err, ErrWrong) {
				tried.Add(1)
			}
		})
	}
	crowd.Wait()
	if n := tried.Load(); n > fewTries {
		t.Errorf("of 120 guesses at once %d were tried, want at most %d", n, fewTries)
	}
}

// A stranger cannot shut the owner out: not by their name, and not by an old calendar at their own place.
func TestStrangersShutNobodyOut(t *testing.T) {
	p, h, _ := newFarm(t)
	owner(t, p)
	if _, err := p.SignIn(ctx, "Wren", good, "192.0.2.7"); err != nil {
		t.Fatal(err)
	}
	for i := range 200 {
		p.SignIn(ctx, "Wren", "guess number one", fmt.Sprintf("198.51.100.%d", i))
		p.OfCalendar(ctx, "an old address", "192.0.2.7")
		p.Invited(ctx, "an old link", "192.0.2.7")
	}
	if _, err := p.SignIn(ctx, "Wren", good, "192.0.2.7"); err != nil {
		t.Errorf("the owner, from where they came in before: %v", err)
	}
	var slowed *Slowed
	if _, err := p.SignIn(ctx, "Wren", good, "203.0.113.1"); !errors.As(err, &slowed) || slowed.After > longestWait {
		t.Errorf("from a new place: %v, want to be slowed", err)
	}
	h.now = h.now.Add(longestWait)
	if _, err := p.SignIn(ctx, "Wren", good, "203.0.113.1"); err != nil {
		t.Errorf("from a new place, after the wait: %v", err)
	}
}

// What is typed is kept as a few bytes, however long it is, and limits are forgotten before memory fills.
func TestWhatIsTypedFillsNoMemory(t *testing.T) {
	p, _, _ := newFarm(t)
	owner(t, p)
	for i := range 20 {
		long := strings.Repeat("x", 1<<20)
		if _, err := p.SignIn(ctx, long, long, fmt.Sprintf("192.0.2.%d", i)); !errors.Is(err, ErrWrong) {
			t.Fatalf("a name and a password of a megabyte: %v", err)
		}
	}
	for _, name := range p.guard.tried.Keys() {
		if len(name) > 32 {
			t.Fatalf("a limit is remembered by %d letters", len(name))
		}
	}
	for i := range 3 * mostLimits {
		p.guard.enter(limitOf(fewTries, "test", fmt.Sprint(i)))
	}
	if n := p.guard.tried.Len(); n > mostLimits {
		t.Errorf("%d limits are remembered, want at most %d", n, mostLimits)
	}
}

func TestInvitationsEndWithTheirMaker(t *testing.T) {
	p, _, _ := newFarm(t)
	wren := owner(t, p)
	second, err := p.Invite(ctx, Owner, "", wren.ID)
	if err != nil {
		t.Fatal(err)
	}
	if open, _ := p.Invitations(ctx); len(open) != 1 || open[0].MadeBy != wren.ID || open[0].Role != Owner {
		t.Errorf("open are %+v, want one for an owner, made by Wren", open)
	}
	tam, err := p.Join(ctx, second, "Tam", good, "here")
	if err != nil {
		t.Fatal(err)
	}
	var left []string
	for range 2 {
		secret, err := p.Invite(ctx, Crew, "", tam.ID)
		if err != nil {
			t.Fatal(err)
		}
		left = append(left, secret)
	}
	open, _ := p.Invitations(ctx)
	if len(open) != 2 {
		t.Fatalf("%d are open, want 2", len(open))
	}
	if err := p.EndInvitation(ctx, secretHash(left[0])); err != nil {
		t.Fatal(err)
	}
	if _, _, err := p.Invited(ctx, left[0], "there"); !errors.Is(err, ErrNoLink) {
		t.Errorf("an invitation that was ended: %v", err)
	}
	if err := p.EndInvitation(ctx, secretHash(left[0])); !errors.Is(err, ErrNoLink) {
		t.Errorf("ended twice: %v", err)
	}
	if err := p.SetRole(ctx, tam.ID, Crew); err != nil {
		t.Fatal(err)
	}
	if _, err := p.Join(ctx, left[1], "Brock", good, "there"); !errors.Is(err, ErrNoLink) {
		t.Errorf("by the invitation of who is no owner any more: %v", err)
	}
}

// What was kept of passwords by an earlier program is known: the key that argon2 makes of a salt, in the form that its authors write it (RFC 9106).
func TestHashesOfEarlierProgramsAreKnown(t *testing.T) {
	salt := []byte("0123456789abcdef")
	kept := fmt.Sprintf("$argon2id$v=19$m=19456,t=2,p=1$%s$%s", base64.RawStdEncoding.EncodeToString(salt),
		base64.RawStdEncoding.EncodeToString(argon2.IDKey([]byte("hedge bucket lantern"), salt, 2, 19456, 1, 32)))
	if !matches("hedge bucket lantern", kept) || matches("hedge bucket Lantern", kept) || matches("", "") || matches("hedge bucket lantern", "not a hash") {
		t.Errorf("%s is not known for what it is", kept)
	}
}
