package web

import (
	"context"
	"errors"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"sync"
	"testing"
	"time"

	"dewcount/demo"
	"dewcount/farm"
	"dewcount/records"
	"dewcount/web/page"
)

var ctx = context.Background()

// A site is a server under test, as a browser that knows no Sec-Fetch-Site sees it.
type site struct {
	t      testing.TB
	server *httptest.Server
	client *http.Client
	store  farm.Store
}

// filled is the database of the demo farm, grown once for all tests.
var filled = sync.OnceValues(func() ([]byte, error) {
	folder, err := os.MkdirTemp("", "dewcount-test-")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(folder)
	path := filepath.Join(folder, "demo.db")
	store, err := records.Open(ctx, path)
	if err != nil {
		return nil, err
	}
	if err := errors.Join(demo.Fill(ctx, store), store.Close()); err != nil {
		return nil, err
	}
	return os.ReadFile(path)
})

// openStore opens a database of its own: the demo's, or an empty one.
func openStore(t testing.TB, withDemo bool) *records.Records {
	t.Helper()
	path := filepath.Join(t.TempDir(), "farm.db")
	if withDemo {
		text, err := filled()
		if err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(path, text, 0o600); err != nil {
			t.Fatal(err)
		}
	}
	store, err := records.Open(ctx, path)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { store.Close() })
	return store
}

func newSite(t testing.TB, withDemo bool) *site {
	t.Helper()
	store := openStore(t, withDemo)
	o := page.Options{Log: slog.New(slog.DiscardHandler)}
	if withDemo {
		o.Step = func(ctx context.Context) error { return demo.Step(ctx, store) }
	}
	return serve(t, store, o)
}

// serve starts a site on a store, with views that only some programs have.
func serve(t testing.TB, store *records.Records, o page.Options, more ...func(*page.Site) page.View) *site {
	t.Helper()
	s := serveFarm(t, farm.New(store, func() time.Time { return time.Date(2026, 7, 9, 4, 20, 0, 0, time.UTC) }), o, more...)
	s.store = store
	return s
}

// serveFarm starts a site of a farm.
func serveFarm(t testing.TB, f *farm.Farm, o page.Options, more ...func(*page.Site) page.View) *site {
	t.Helper()
	server := httptest.NewUnstartedServer(nil)
	o.Hosts = []string{server.Listener.Addr().String()}
	handler, err := New(f, o, more...)
	if err != nil {
		t.Fatal(err)
	}
	server.Config.Handler = handler
	server.Start()
	t.Cleanup(server.Close)
	client := server.Client()
	client.CheckRedirect = func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }
	return &site{t: t, server: server, client: client}
}

func (s *site) get(path string) (int, string) {
	s.t.Helper()
	for {
		answer, err := s.client.Get(s.server.URL + path)
		if err != nil {
			s.t.Fatal(err)
		}
		defer answer.Body.Close()
		body, err := io.ReadAll(answer.Body)
		if err != nil {
			s.t.Fatal(err)
		}
		if answer.Header.Get("Refresh") == "" && !strings.Contains(string(body), `class="stale"`) {
			return answer.StatusCode, string(body)
		}
		time.Sleep(100 * time.Millisecond) // it is being worked out, or newer records are: the page goes on by itself
	}
}

var token = regexp.MustCompile(`name="csrf" value="([^"]+)"`)

// post sends a form with the token and the cookie that the page from gave out, and returns the status, where it leads, and the
// page.
func (s *site) post(from, path string, form url.Values) (int, string, string) {
	s.t.Helper()
	answer, err := s.client.Get(s.server.URL + from)
	if err != nil {
		s.t.Fatal(err)
	}
	page, _ := io.ReadAll(answer.Body)
	answer.Body.Close()
	if m := token.FindSubmatch(page); m != nil {
		form.Set("csrf", string(m[1]))
	}
	request, err := http.NewRequest(http.MethodPost, s.server.URL+path, strings.NewReader(form.Encode()))
	if err != nil {
		s.t.Fatal(err)
	}
	request.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	for _, c := range answer.Cookies() {
		request.AddCookie(c)
	}
	if answer, err = s.client.Do(request); err != nil {
		s.t.Fatal(err)
	}
	defer answer.Body.Close()
	body, _ := io.ReadAll(answer.Body)
	return answer.StatusCode, answer.Header.Get("Location"), string(body)
}

func (s *site) revision() int64 {
	s.t.Helper()
	n, err := s.store.Revision(ctx)
	if err != nil {
		s.t.Fatal(err)
	}
	return n
}
