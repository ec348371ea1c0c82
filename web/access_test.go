package web

import (
	"context"
	"io"
	"log/slog"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/url"
	"slices"
	"strings"
	"testing"
	"time"

	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/people"
	"dewcount/records"
	"dewcount/web/page"
)

const goodPassword = "hedge bucket lantern"

// A house is a farm with people, as browsers with their own cookies see it over https.
type house struct {
	t      *testing.T
	server *httptest.Server
	people *people.People
	store  *records.Records
	routes []page.Route
	owner  people.Person
}

func newHouse(t *testing.T) *house {
	t.Helper()
	h := newOpenHouse(t, "")
	var err error
	if h.owner, err = h.people.SetUp(ctx, "abcd 2345", "Wren", goodPassword, "test"); err != nil {
		t.Fatal(err)
	}
	return h
}

// newOpenHouse is a house in which nobody is set up yet; where a visitor is named it lets them in unasked, as the demo does.
func newOpenHouse(t *testing.T, visitor string) *house {
	t.Helper()
	store := openStore(t, true)
	sessions, err := store.OpenSessions(ctx)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { sessions.Close() })
	clock := func() time.Time { return time.Date(2026, 7, 9, 4, 20, 0, 0, time.UTC) }
	h := &house{t: t, people: people.New(store, clock, "ABCD-2345"), store: store, server: httptest.NewUnstartedServer(nil)}
	o := page.Options{Log: slog.New(slog.DiscardHandler), Hosts: []string{h.server.Listener.Addr().String()}, People: h.people, Sessions: sessions, Secure: true, Visitor: visitor,
		Address: "https://dew.lan:8443", Certificate: []byte("certificate")}
	handler, err := New(farm.New(store, clock), o)
	if err != nil {
		t.Fatal(err)
	}
	h.routes = routes(&page.Site{})
	h.server.Config.Handler = handler
	h.server.StartTLS()
	t.Cleanup(h.server.Close)
	return h
}

func TestTheFirstOwnerIsSetUpWithTheCode(t *testing.T) {
	h := newOpenHouse(t, "")
	c := h.browser()
	if answer, body := h.send(c, http.MethodGet, "/orders", nil); answer.StatusCode != http.StatusOK || !strings.Contains(body, "Fallow Steps") {
		t.Fatalf("before anybody is set up whoever sits here owns the farm: %d", answer.StatusCode)
	}
	form := url.Values{"code": {"WRONG-CODE"}, "name": {"Wren"}, "password": {goodPassword}}
	answer, body := h.send(c, http.MethodPost, "/first", form)
	if answer.StatusCode != http.StatusUnprocessableEntity || !strings.Contains(body, "not the code") || !strings.Contains(body, `value="Wren"`) || strings.Contains(body, goodPassword) {
		t.Errorf("a wrong code: %d; the name must stay, the password must not", answer.StatusCode)
	}
	form.Set("code", "abcd2345")
	if answer, _ = h.send(c, http.MethodPost, "/first", form); answer.StatusCode != http.StatusSeeOther {
		t.Fatalf("the right one: %d", answer.StatusCode)
	}
	if answer, body = h.send(c, http.MethodGet, "/people", nil); answer.StatusCode != http.StatusOK || !strings.Contains(body, "Wren") {
		t.Errorf("the owner sees %d", answer.StatusCode)
	}
	stranger := h.browser()
	for _, path := range []string{"/orders", "/first"} {
		if answer, _ = h.send(stranger, http.MethodGet, path, nil); !strings.HasPrefix(answer.Header.Get("Location"), "/signin") {
			t.Errorf("from then on a stranger at %s gets %d to %q, want to be led to sign in", path, answer.StatusCode, answer.Header.Get("Location"))
		}
	}
	if answer, _ = h.send(stranger, http.MethodPost, "/first", form); answer.StatusCode == http.StatusSeeOther && answer.Header.Get("Location") == "/" {
		t.Error("the code works twice")
	}
}

// browser returns a client with cookies of its own that follows nothing.
func (h *house) browser() *http.Client {
	jar, err := cookiejar.New(nil)
	if err != nil {
		h.t.Fatal(err)
	}
	c := *h.server.Client()
	c.Jar, c.CheckRedirect = jar, func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }
	return &c
}

// send asks for a page, or posts a form with the token of the sign-in page where one is given.
func (h *house) send(c *http.Client, method, path string, form url.Values) (*http.Response, string) {
	h.t.Helper()
	body := io.Reader(nil)
	if method == http.MethodPost {
		answer, err := c.Get(h.server.URL + "/signin")
		if err != nil {
			h.t.Fatal(err)
		}
		page, _ := io.ReadAll(answer.Body)
		answer.Body.Close()
		if form == nil {
			form = url.Values{}
		}
		form.Set("csrf", string(token.FindSubmatch(page)[1]))
		body = strings.NewReader(form.Encode())
	}
	request, err := http.NewRequest(method, h.server.URL+path, body)
	if err != nil {
		h.t.Fatal(err)
	}
	if method == http.MethodPost {
		request.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	}
	answer, err := c.Do(request)
	if err != nil {
		h.t.Fatal(err)
	}
	defer answer.Body.Close()
	text, _ := io.ReadAll(answer.Body)
	return answer, string(text)
}

// as returns a browser in which somebody of a role is signed in, let in by a link.
func (h *house) as(role people.Role) *http.Client {
	h.t.Helper()
	c := h.browser()
	secret, err := h.people.Invite(ctx, role, "", "")
	if err != nil {
		h.t.Fatal(err)
	}
	answer, page := h.send(c, http.MethodPost, "/join/"+secret, url.Values{"name": {"One " + string(role)}, "password": {goodPassword}})
	if answer.StatusCode != http.StatusSeeOther {
		h.t.Fatalf("join as %s: %d %s", role, answer.StatusCode, page)
	}
	return c
}

var samples = strings.NewReplacer(":planting", "ZC1", ":order", "Gate%20stall", ":crop", "zinnia-tall", ":variety", "Zinnia%20coral", ":bed", "Barn%201", ":secret", "none", "*", "none")

// The whole table: what each role must be refused, and that nothing is refused to it that it may do. Posts that it may do are
// left out, they would do it.
func TestEveryRouteRefusesWhoMayNot(t *testing.T) {
	h := newHouse(t)
	before, err := h.store.Revision(ctx)
	if err != nil {
		t.Fatal(err)
	}
	open := []string{"GET /assets/*", "GET /worker.js", "GET /signin", "POST /signin", "GET /first", "POST /first", "GET /join/:secret", "POST /join/:secret", "GET /calendar/:secret", "GET /list/:secret"}
	browsers := map[people.Role]*http.Client{"": h.browser(), people.Reader: h.as(people.Reader), people.Crew: h.as(people.Crew), people.Owner: h.as(people.Owner)}
	for _, r := range h.routes {
		if r.Need == page.Anybody {
			if !slices.Contains(open, r.Method+" "+r.Path) {
				t.Errorf("%s %s is open to anybody: is that meant?", r.Method, r.Path)
			}
			continue
		}
		path := samples.Replace(r.Path)
		for role, c := range browsers {
			may := role.May(r.Need)
			if may && r.Method == http.MethodPost {
				continue
			}
			answer, _ := h.send(c, r.Method, path, nil)
			led := strings.HasPrefix(answer.Header.Get("Location"), "/signin")
			switch {
			case may && (answer.StatusCode == http.StatusForbidden || answer.StatusCode == http.StatusUnauthorized || led):
				t.Errorf("%s %s as %s: %d to %q, but they may", r.Method, path, role, answer.StatusCode, answer.Header.Get("Location"))
			case !may && role == "" && r.Method == http.MethodGet && !led:
				t.Errorf("%s %s by a stranger: %d, want to be led to sign in", r.Method, path, answer.StatusCode)
			case !may && role == "" && r.Method == http.MethodPost && answer.StatusCode != http.StatusUnauthorized:
				t.Errorf("%s %s by a stranger: %d, want 401", r.Method, path, answer.StatusCode)
			case !may && role != "" && answer.StatusCode != http.StatusForbidden:
				t.Errorf("%s %s as %s: %d, want 403", r.Method, path, role, answer.StatusCode)
			}
		}
	}
	if after, _ := h.store.Revision(ctx); after != before {
		t.Errorf("refused requests changed the farm: revision %d, want %d", after, before)
	}
}

func TestAStrangerSeesADoorAndNothingElse(t *testing.T) {
	h := newHouse(t)
	answer, body := h.send(h.browser(), http.MethodGet, "/signin?to=//evil.example", nil)
	if answer.StatusCode != http.StatusOK || !strings.Contains(body, "Your name") {
		t.Fatalf("where to sign in: %d", answer.StatusCode)
	}
	for header, want := range map[string]string{"Content-Security-Policy": "default-src 'self'", "X-Content-Type-Options": "nosniff", "Cache-Control": "private, no-cache", "Referrer-Policy": "same-origin"} {
		if got := answer.Header.Get(header); !strings.HasPrefix(got, want) || strings.Contains(got, "unsafe") {
			t.Errorf("%s of the page to sign in is %q, want %q", header, got, want)
		}
	}
	for _, secret := range []string{"Larkenfold", "ZC1", "Wren", "evil.example", "9 July"} {
		if strings.Contains(body, secret) {
			t.Errorf("the page to sign in tells a stranger %q", secret)
		}
	}
}

func TestSigningInAndOut(t *testing.T) {
	h := newHouse(t)
	c := h.browser()
	answer, body := h.send(c, http.MethodPost, "/signin", url.Values{"name": {"Wren"}, "password": {"wrong words here"}})
	if answer.StatusCode != http.StatusUnauthorized || !strings.Contains(body, `value="Wren"`) || strings.Contains(body, "wrong words here") {
		t.Errorf("a wrong password: %d; the name must stay, the password must not", answer.StatusCode)
	}
	answer, _ = h.send(c, http.MethodPost, "/signin", url.Values{"name": {" wren "}, "password": {goodPassword}, "to": {"/orders"}})
	if answer.StatusCode != http.StatusSeeOther || answer.Header.Get("Location") != "/orders" {
		t.Fatalf("sign in: %d to %s", answer.StatusCode, answer.Header.Get("Location"))
	}
	for _, cookie := range answer.Cookies() {
		if !cookie.HttpOnly || !cookie.Secure || cookie.Path != "/" || cookie.SameSite != http.SameSiteLaxMode || !strings.HasPrefix(cookie.Name, "__Host-") {
			t.Errorf("cookie %v is not bound to this host, https and the server", cookie)
		}
	}
	other := h.browser()
	h.send(other, http.MethodPost, "/signin", url.Values{"name": {"Wren"}, "password": {goodPassword}})
	if answer, body = h.send(other, http.MethodGet, "/people", nil); answer.StatusCode != http.StatusOK || !strings.Contains(body, "Wren") {
		t.Errorf("a second phone: %d", answer.StatusCode)
	}
	h.send(c, http.MethodPost, "/me/everywhere", nil)
	for name, browser := range map[string]*http.Client{"the phone that asked": c, "the other": other} {
		if answer, _ = h.send(browser, http.MethodGet, "/", nil); answer.StatusCode != http.StatusSeeOther {
			t.Errorf("after signing out everywhere %s sees %d, want to be led to sign in", name, answer.StatusCode)
		}
	}
}

func TestOnesOwnPageSaysWhatOneMayDo(t *testing.T) {
	h := newHouse(t)
	for role, want := range map[people.Role]string{people.Owner: "and let people in", people.Crew: "record what is seen and done in the field", people.Reader: "change nothing"} {
		if _, page := h.send(h.as(role), http.MethodGet, "/me", nil); !strings.Contains(page, "As "+string(role)+": you see") || !strings.Contains(page, want) {
			t.Errorf("the page of one %s does not say %q", role, want)
		}
	}
}

func TestAChangedPasswordEndsOtherSessions(t *testing.T) {
	h := newHouse(t)
	mine, lost := h.browser(), h.browser()
	for _, c := range []*http.Client{mine, lost} {
		h.send(c, http.MethodPost, "/signin", url.Values{"name": {"Wren"}, "password": {goodPassword}})
	}
	answer, body := h.send(mine, http.MethodPost, "/me/password", url.Values{"old": {"not it at all"}, "password": {"another good password"}})
	if answer.StatusCode != http.StatusUnprocessableEntity || !strings.Contains(body, "not your password of now") {
		t.Errorf("a wrong old password: %d", answer.StatusCode)
	}
	if answer, _ = h.send(mine, http.MethodPost, "/me/password", url.Values{"old": {goodPassword}, "password": {"another good password"}}); answer.StatusCode != http.StatusSeeOther {
		t.Fatalf("change: %d", answer.StatusCode)
	}
	if answer, _ = h.send(mine, http.MethodGet, "/", nil); answer.StatusCode != http.StatusOK {
		t.Errorf("who changed it is signed out: %d", answer.StatusCode)
	}
	if answer, _ = h.send(lost, http.MethodGet, "/", nil); answer.StatusCode != http.StatusSeeOther {
		t.Errorf("a lost phone still sees the farm: %d", answer.StatusCode)
	}
}

func TestTheCrewTakesBackFieldRecordsAlone(t *testing.T) {
	h := newHouse(t)
	crew := h.as(people.Crew)
	answer, _ := h.send(crew, http.MethodPost, "/plantings/ZC1/cut", url.Values{"stems": {"3"}, "cut_at": {"2026-07-09T08:00"}, "id": {"cut-of-a-test"}})
	if answer.StatusCode != http.StatusSeeOther {
		t.Fatalf("a cut by the crew: %d", answer.StatusCode)
	}
	b, _, err := h.store.Load(ctx)
	if err != nil {
		t.Fatal(err)
	}
	if m, ok := b.AuthorOf(book.Cuts, "cut-of-a-test"); !ok || m.By != "One crew" {
		t.Errorf("the cut was made by %q, want One crew", m.By)
	}
	if answer, _ = h.send(crew, http.MethodPost, "/withdraw", url.Values{"kind": {"orders"}, "id": {"Gate stall"}}); answer.StatusCode != http.StatusForbidden {
		t.Errorf("the crew withdraws an order: %d, want 403", answer.StatusCode)
	}
	if answer, _ = h.send(crew, http.MethodPost, "/undo", url.Values{"kind": {"cuts"}, "id": {"cut-of-a-test"}}); answer.StatusCode != http.StatusSeeOther {
		t.Errorf("the crew takes back its cut: %d", answer.StatusCode)
	}
}

func TestTheCalendarsAddressIsSecretAndCanBeEnded(t *testing.T) {
	h := newHouse(t)
	stranger := h.browser()
	secret, err := h.people.NewCalendar(ctx, h.owner.ID)
	if err != nil {
		t.Fatal(err)
	}
	path := "/calendar/" + secret + ".ics"
	if answer, body := h.send(stranger, http.MethodGet, path, nil); answer.StatusCode != http.StatusOK || !strings.HasPrefix(body, "BEGIN:VCALENDAR") {
		t.Errorf("with the secret: %d", answer.StatusCode)
	}
	if answer, _ := h.send(stranger, http.MethodGet, "/calendar/guess.ics", nil); answer.StatusCode != http.StatusNotFound {
		t.Errorf("a guess: %d, want 404", answer.StatusCode)
	}
	if err := h.people.DropCalendar(ctx, h.owner.ID); err != nil {
		t.Fatal(err)
	}
	if answer, _ := h.send(stranger, http.MethodGet, path, nil); answer.StatusCode != http.StatusNotFound {
		t.Errorf("an ended address: %d, want 404", answer.StatusCode)
	}
}

// A florist who has the list's address sees what is to be had and nothing else of the farm, until it is ended.
func TestTheListOfWhatIsToBeHadIsSecretAndCanBeEnded(t *testing.T) {
	h := newHouse(t)
	stranger := h.browser()
	secret, err := h.people.NewList(ctx, h.owner.ID)
	if err != nil {
		t.Fatal(err)
	}
	answer, body := h.send(stranger, http.MethodGet, "/list/"+secret, nil)
	for answer.Header.Get("Refresh") != "" {
		answer, body = h.send(stranger, http.MethodGet, "/list/"+secret, nil)
	}
	if answer.StatusCode != http.StatusOK || !strings.Contains(body, "what is to be had") {
		t.Errorf("with the secret: %d", answer.StatusCode)
	}
	for _, word := range []string{"/plantings", "/orders", "Jump to", "csrf"} {
		if strings.Contains(body, word) {
			t.Errorf("a stranger's list holds %q", word)
		}
	}
	if answer, _ := h.send(stranger, http.MethodGet, "/list/guess", nil); answer.StatusCode != http.StatusNotFound {
		t.Errorf("a guess: %d, want 404", answer.StatusCode)
	}
	if answer, _ := h.send(stranger, http.MethodGet, "/free", nil); answer.StatusCode == http.StatusOK {
		t.Error("the farm's own page is open to a stranger")
	}
	if err := h.people.DropList(ctx, h.owner.ID); err != nil {
		t.Fatal(err)
	}
	if answer, _ := h.send(stranger, http.MethodGet, "/list/"+secret, nil); answer.StatusCode != http.StatusNotFound {
		t.Errorf("an ended address: %d, want 404", answer.StatusCode)
	}
}

// What each role may change, written down once more, so that no route gets another role by a slip of the pen.
func TestWhoMayChangeWhat(t *testing.T) {
	signedIn := []string{"/signout", "/me/password", "/me/everywhere", "/me/calendar", "/reads"}
	field := []string{"/field", "/rounds", "/plantings/:planting/count", "/counts/:id", "/plantings/:planting/cut", "/cuts/:id", "/plantings/:planting/scout", "/scouting/:id",
		"/plantings/:planting/spray", "/sprays/:id", "/store/moves", "/store/makeup", "/store/keep", "/store/bunches", "/store/sold", "/store/temperatures", "/store/lots", "/notes", "/notes/:note", "/school", "/withdraw", "/undo", "/demo/step"}
	unlocked := []string{"/signin", "/first", "/join/:secret"}
	s := &page.Site{Step: func(context.Context) error { return nil }}
	for _, r := range routes(s) {
		want := people.Owner
		switch {
		case slices.Contains(unlocked, r.Path):
			want = page.Anybody
		case slices.Contains(signedIn, r.Path):
			want = people.Reader
		case slices.Contains(field, r.Path):
			want = people.Crew
		}
		if r.Method == http.MethodPost && r.Need != want {
			t.Errorf("POST %s is for %q, want %q", r.Path, r.Need, want)
		}
		inside := strings.HasSuffix(r.Path, "/new") || strings.HasSuffix(r.Path, "/edit") || slices.Contains([]string{"/people", "/farm", "/box", "/start"}, r.Path)
		if r.Method == http.MethodGet && (r.Need == people.Owner) != inside {
			t.Errorf("GET %s is for %q: only pages that change the plan, the farm and its people are the owner's", r.Path, r.Need)
		}
	}
}
