package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"dewcount/demo"
)

// A page fetched for no signal may be on its way while the visitor signs out: it is let in anew, and the cookie of that session arrives last.
func TestAVisitorWhoHasLeftStaysOut(t *testing.T) {
	h := newOpenHouse(t, demo.Visitor)
	if err := demo.Let(ctx, h.store); err != nil {
		t.Fatal(err)
	}
	c := h.browser()
	seen := func(wanted bool, why string) {
		t.Helper()
		answer, _ := h.send(c, http.MethodGet, "/orders", nil)
		if got := answer.StatusCode == http.StatusOK; got != wanted {
			t.Errorf("%s the orders answer %d to %q", why, answer.StatusCode, answer.Header.Get("Location"))
		}
	}
	seen(true, "unasked")
	at, err := url.Parse(h.server.URL)
	if err != nil {
		t.Fatal(err)
	}
	late := h.browser()
	late.Jar.SetCookies(at, c.Jar.Cookies(at))
	if answer, _ := h.send(c, http.MethodPost, "/signout", nil); answer.StatusCode != http.StatusSeeOther {
		t.Fatalf("sign out: %d", answer.StatusCode)
	}
	seen(false, "signed out")
	answer, _ := h.send(late, http.MethodGet, "/orders", nil)
	if answer.StatusCode != http.StatusOK || len(answer.Cookies()) == 0 {
		t.Fatalf("the late request: %d with %d cookies, want one that is let in anew", answer.StatusCode, len(answer.Cookies()))
	}
	c.Jar.SetCookies(at, answer.Cookies())
	seen(false, "after the late cookie")
	if answer, body := h.send(c, http.MethodGet, "/signin", nil); answer.StatusCode != http.StatusOK || !strings.Contains(body, "Old Brock, reader") {
		t.Errorf("the way back in: %d", answer.StatusCode)
	}
	if answer, _ := h.send(c, http.MethodPost, "/signin", url.Values{"as": {"Old Brock"}}); answer.Header.Get("Location") != "/" {
		t.Errorf("come in as a reader: %d to %q", answer.StatusCode, answer.Header.Get("Location"))
	}
	seen(true, "come in again")
}

// A page asks for a dozen files at once: nobody is looked up for them, so that no session is begun for each. What only looks like a file is a page.
func TestFilesBeginNoSession(t *testing.T) {
	h := newOpenHouse(t, demo.Visitor)
	if err := demo.Let(ctx, h.store); err != nil {
		t.Fatal(err)
	}
	for path, want := range map[string]int{"/assets/assets/app.js": http.StatusOK, "/worker.js": http.StatusOK, "/assets/none.js": http.StatusNotFound, "/assets/..%2Forders": http.StatusNotFound} {
		if answer, _ := h.send(h.browser(), http.MethodGet, path, nil); answer.StatusCode != want || len(answer.Cookies()) > 0 {
			t.Errorf("%s: %d with %d cookies, want %d with none", path, answer.StatusCode, len(answer.Cookies()), want)
		}
	}
	for _, path := range []string{"/assets%2Fassets%2Fapp.js", "/worker.js/orders", "/orders/assets/app.js"} {
		if answer, _ := h.send(h.browser(), http.MethodGet, path, nil); answer.StatusCode != http.StatusNotFound || len(answer.Cookies()) == 0 {
			t.Errorf("%s: %d with %d cookies, want a page's answer", path, answer.StatusCode, len(answer.Cookies()))
		}
	}
}
