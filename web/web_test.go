package web

import (
	"log/slog"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"
	"time"

	"dewcount/core/crop"
	"dewcount/demo"
	"dewcount/farm"
	"dewcount/say"
	"dewcount/web/assets"
	"dewcount/web/page"
)

func TestEveryPageOfTheDemo(t *testing.T) {
	s := newSite(t, true)
	for path, want := range map[string]string{
		"/": "Pick of Fri 10 July", "/?pick=2026-07-14": "Pick of Tue 14 July", "/plantings": "Add a planting", "/plantings/ZC1": "On the ladder now",
		"/plantings/ZC1/count": "Record the count", "/plantings/ZC1/cut": "Record the cut", "/plantings/ZC1/edit": "Keep the correction",
		"/plantings/new": "Once it is added", "/orders": "Fallow Steps market", "/orders/Fallow%20Steps%20market": "What it wants",
		"/orders/new": "Add a market day", "/farm": "Larkenfold Flowers", "/season": "Season 2026", "/season?year=2027&weeks=frost": "Season 2027",
		"/season?planting=SU8&started_on=2026-07-30": "Keep it so", "/season/successions": "Plan successions", "/season/date": "Sow for a date", "/beds": "Barn 1", "/beds/new": "Add the bed",
		"/beds/Barn%201/edit": "Correct Barn 1", "/seeds": "Seeds and trays", "/seeds?year=2027": "SN3", "/labels?year=2027": "SN3 1/4", "/crops": "Grown here", "/crops/zinnia-tall": "When to cut",
		"/crops/zinnia-tall/edit": "Keep the correction", "/crops/new?like=zinnia-tall": "Add the crop", "/varieties/new": "Add the variety", "/varieties/Zinnia%20coral/edit": "Correct Zinnia coral", "/start": "Five steps", "/find?q=mildew": "never stripped", "/find?q=nothingofthekind": "Nothing was written down that holds", "/years": "Plantings started",
	} {
		status, body := s.get(path)
		if status != http.StatusOK || !strings.Contains(body, want) {
			t.Errorf("%s: %d, without %q", path, status, want)
		}
		if !strings.Contains(body, "Thursday 9 July 2026") || !strings.Contains(body, "Let the day pass") {
			t.Errorf("%s does not say that it is a demo, and its day", path)
		}
	}
	for _, path := range []string{"/plantings/none", "/beds/none/edit", "/crops/none", "/crops/none/edit", "/crops/new?like=none", "/varieties/none/edit", "/counts/none", "/orders/none", "/nowhere", "/assets/none.css", "/notes/none"} {
		if status, _ := s.get(path); status != http.StatusNotFound {
			t.Errorf("%s: %d, want 404", path, status)
		}
	}
}

func TestAnEmptyFarmSaysWhatToDo(t *testing.T) {
	s := newSite(t, false)
	if status, _ := s.get("/"); status != http.StatusSeeOther {
		t.Errorf("a farm without settings: %d, want to be led to them", status)
	}
	form := url.Values{"name": {"Three Beds"}, "latitude": {"north"}, "longitude": {"7"}, "elevation_m": {"500"}, "timezone": {"Europe/Zurich"}, "pick_days": {"fri"}}
	status, _, body := s.post("/farm", "/farm", form)
	if status != http.StatusUnprocessableEntity || !strings.Contains(body, "is no number") || !strings.Contains(body, `value="Three Beds"`) {
		t.Errorf("a latitude of letters: %d", status)
	}
	form.Set("latitude", "46.9")
	if status, to, _ := s.post("/farm", "/farm", form); status != http.StatusSeeOther || to != "/start" {
		t.Fatalf("settings: %d to %s", status, to)
	}
	for path, want := range map[string]string{"/": "Nothing is planted yet", "/plantings": "Nothing is growing", "/orders": "Nothing is due"} {
		if status, body := s.get(path); status != http.StatusOK || !strings.Contains(body, want) {
			t.Errorf("%s: %d, without %q", path, status, want)
		}
	}
	first := url.Values{"variety": {"Cosmos plain"}, "crop": {"cosmos-single"}, "method": {"direct"}, "started_on": {"2026-05-10"}, "plants": {"40"}}
	if status, _, _ := s.post("/plantings/new", "/plantings", first); status != http.StatusSeeOther {
		t.Errorf("a first planting: %d", status)
	}
	if _, body := s.get("/"); !strings.Contains(body, "No weather is on record") {
		t.Error("the morning does not say that the weather is missing")
	}
	if status, _ := s.get("/demo/step"); status == http.StatusOK {
		t.Error("a real farm's clock can be stepped")
	}
}

func TestForeignHostsAndFormsAreRefused(t *testing.T) {
	s := newSite(t, true)
	request, _ := http.NewRequest(http.MethodGet, s.server.URL, nil)
	request.Host = "flowers.example:8080"
	answer, err := s.client.Do(request)
	if err != nil {
		t.Fatal(err)
	}
	answer.Body.Close()
	if answer.StatusCode != http.StatusMisdirectedRequest {
		t.Errorf("a foreign host: %d", answer.StatusCode)
	}
	before := s.revision()
	answer, err = s.client.PostForm(s.server.URL+"/demo/step", nil)
	if err != nil {
		t.Fatal(err)
	}
	answer.Body.Close()
	if answer.StatusCode < 400 || s.revision() != before {
		t.Errorf("a form without a token: %d", answer.StatusCode)
	}
	request, _ = http.NewRequest(http.MethodPost, s.server.URL+"/demo/step", nil)
	request.Header.Set("Sec-Fetch-Site", "cross-site")
	if answer, err = s.client.Do(request); err != nil {
		t.Fatal(err)
	}
	answer.Body.Close()
	if answer.StatusCode != http.StatusForbidden || s.revision() != before {
		t.Errorf("a form from another site: %d", answer.StatusCode)
	}
}

func TestHeaders(t *testing.T) {
	s := newSite(t, true)
	answer, err := s.client.Get(s.server.URL)
	if err != nil {
		t.Fatal(err)
	}
	answer.Body.Close()
	csp := answer.Header.Get("Content-Security-Policy")
	if !strings.Contains(csp, "default-src 'self'") || strings.Contains(csp, "unsafe") {
		t.Errorf("policy is %q", csp)
	}
	if got := answer.Header.Get("Cache-Control"); got != "private, no-cache" {
		t.Errorf("Cache-Control is %q", got)
	}
	for _, c := range answer.Cookies() {
		if !c.HttpOnly || c.SameSite != http.SameSiteLaxMode || c.Path != "/" {
			t.Errorf("cookie %v", c)
		}
	}
	if len(answer.Cookies()) == 0 {
		t.Error("no cookie was set")
	}
}

// Files of the page are kept or asked for by their mark, and carry nothing of anybody.
func TestFilesAreKept(t *testing.T) {
	s := newSite(t, true)
	get := func(address, mark string) *http.Response {
		request, err := http.NewRequest(http.MethodGet, s.server.URL+address, nil)
		if err != nil {
			t.Fatal(err)
		}
		request.Header.Set("If-None-Match", mark)
		answer, err := http.DefaultClient.Do(request) // a browser without a cookie
		if err != nil {
			t.Fatal(err)
		}
		answer.Body.Close()
		return answer
	}
	for address, kept := range map[string]string{assets.Address("assets/app.css"): "immutable", "/assets/vendor/atkinson-400.woff2": "max-age=2592000", "/assets/assets/walk.js": "no-cache"} {
		answer := get(address, "")
		if got := answer.Header.Get("Cache-Control"); answer.StatusCode != http.StatusOK || !strings.Contains(got, kept) {
			t.Errorf("%s: %s, kept for %q, want %q", address, answer.Status, got, kept)
		}
		if len(answer.Cookies()) > 0 {
			t.Errorf("%s brings cookies", address)
		}
		if again := get(address, answer.Header.Get("ETag")); again.StatusCode != http.StatusNotModified {
			t.Errorf("%s: asked for again with its mark: %s", address, again.Status)
		}
		if other := get(address, `"other"`); other.StatusCode != http.StatusOK {
			t.Errorf("%s: asked for with another mark: %s", address, other.Status)
		}
	}
}

func TestBadInputKeepsWhatWasTyped(t *testing.T) {
	s := newSite(t, true)
	before := s.revision()
	good := map[string]url.Values{
		"/plantings":               {"variety": {"Zinnia coral"}, "method": {"direct"}, "started_on": {"2026-07-09"}, "plants": {"50"}},
		"/plantings/ZC1/count":     {"plants_counted": {"12"}, "counted_at": {"2026-07-09T06:00"}, "stems_tight": {"31"}},
		"/plantings/ZC1/cut":       {"stems": {"7"}, "cut_at": {"2026-07-09T08:00"}},
		"/orders":                  {"order": {"Fair"}, "kind": {"market"}, "due_on": {"2026-07-18"}},
		"/orders/Gate stall/lines": {"what": {"Zinnia coral"}, "stems": {"20"}},
	}
	pages := map[string]string{"/plantings": "/plantings/new", "/orders": "/orders/new", "/orders/Gate stall/lines": "/orders/Gate%20stall"}
	for _, c := range []struct{ path, field, typed, advice string }{
		{"/plantings", "started_on", "2036-07-09", "two years ahead"},
		{"/plantings", "started_on", "9.7.2026", "no date"},
		{"/plantings", "plants", "many", "whole number"},
		{"/plantings", "plants", "-4", "out of reason"},
		{"/plantings", "variety", "Zinnia mauve", "no variety on record"},
		{"/plantings", "planting", "ZC2", "on record already"},
		{"/plantings", "pinched_share", "3", "out of reason"},
		{"/plantings/ZC1/count", "stems_tight", "-3", "out of reason"},
		{"/plantings/ZC1/count", "stems_open", "9999", "cannot stand"},
		{"/plantings/ZC1/count", "plants_counted", "500", "ZC1 has 120"},
		{"/plantings/ZC1/count", "counted_at", "2026-07-10T06:00", "not come yet"},
		{"/plantings/ZC1/cut", "stems", "90000", "cannot have stood"},
		{"/plantings/ZC1/cut", "stems", "seven", "whole number"},
		{"/plantings/ZC1/cut", "seconds", "9", "cannot be"},
		{"/orders", "due_on", "", "date is missing"},
		{"/orders/Gate stall/lines", "what", "Orchid", "no variety"},
		{"/orders/Gate stall/lines", "stems", "0", "out of reason"},
	} {
		form := url.Values{}
		for name, values := range good[c.path] {
			form[name] = values
		}
		form.Set(c.field, c.typed)
		from := pages[c.path]
		if from == "" {
			from = c.path
		}
		status, _, body := s.post(from, strings.ReplaceAll(c.path, " ", "%20"), form)
		if status != http.StatusUnprocessableEntity || !strings.Contains(body, c.advice) {
			t.Errorf("%s with %s %q: %d, without %q", c.path, c.field, c.typed, status, c.advice)
		}
		if c.typed != "" && !strings.Contains(body, `value="`+c.typed+`"`) {
			t.Errorf("%s: %q is lost", c.path, c.typed)
		}
	}
	if after := s.revision(); after != before {
		t.Errorf("refused forms raised the revision from %d to %d", before, after)
	}
}

// The whole path: a planting, a count, its correction and undoing, a cut, a want, a day.
func TestThePathOfARecord(t *testing.T) {
	s := newSite(t, true)
	status, to, _ := s.post("/plantings/new", "/plantings", url.Values{"variety": {"Zinnia shy"}, "crop": {"zinnia-tall"}, "method": {"direct"},
		"started_on": {"2026-05-01"}, "plants": {"50"}})
	if status != http.StatusSeeOther || !strings.HasPrefix(to, "/plantings/ZS1?done=recorded") {
		t.Fatalf("a planting: %d to %s", status, to)
	}
	if _, body := s.get(to); !strings.Contains(body, "Planting recorded") || !strings.Contains(body, "first cut") {
		t.Error("the new planting's page lacks its dates")
	}
	count := url.Values{"id": {"phone-1"}, "plants_counted": {"50"}, "counted_at": {"2026-07-09T06:00"}, "stems_tight": {"80"}, "stems_open": {"12"}, "firm_open": {"11"}}
	for range 2 { // pressed twice
		if status, to, _ = s.post("/plantings/ZS1/count", "/plantings/ZS1/count", count); status != http.StatusSeeOther {
			t.Fatalf("a count: %d", status)
		}
	}
	if _, body := s.get(to); !strings.Contains(body, "What the count changed") {
		t.Error("the page after a count does not show what it changed")
	}
	if _, body := s.get("/counts/phone-1"); !strings.Contains(body, `name="firm_open" value="11"`) {
		t.Error("the form of a correction does not have the necks that held")
	}
	count.Set("stems_open", "20")
	count.Set("firm_open", "21")
	if status, _, body := s.post("/counts/phone-1", "/counts/phone-1", count); status != http.StatusUnprocessableEntity || !strings.Contains(body, `name="firm_open" value="21"`) {
		t.Errorf("more necks that held than stems: %d", status)
	}
	count.Set("firm_open", "")
	if status, to, _ = s.post("/counts/phone-1", "/counts/phone-1", count); status != http.StatusSeeOther {
		t.Fatalf("a correction: %d", status)
	}
	if _, body := s.get(to); !strings.Contains(body, "corrected since") || !strings.Contains(body, "20 open") {
		t.Error("the corrected count and what it was are not both on the page")
	}
	if status, _, _ = s.post(to, "/undo", url.Values{"kind": {"counts"}, "id": {"phone-1"}}); status != http.StatusSeeOther {
		t.Fatalf("undo: %d", status)
	}
	book, _, err := s.store.Load(ctx)
	if err != nil {
		t.Fatal(err)
	}
	if c, ok := book.Count("phone-1"); !ok || c.Stems[crop.Open] != 12 {
		t.Errorf("after undoing the correction the count is %+v", c)
	}
	if status, _, _ = s.post("/plantings/ZS1/cut", "/plantings/ZS1/cut", url.Values{"id": {"cut-1"}, "stems": {"11"}, "culled": {"1"},
		"cull_reason": {"bent"}, "cut_at": {"2026-07-09T08:00"}}); status != http.StatusSeeOther {
		t.Errorf("a cut: %d", status)
	}
	if status, to, _ = s.post("/orders/Gate%20stall", "/orders/Gate%20stall/lines", url.Values{"what": {"Zinnia shy"}, "stems": {"20"}}); status != http.StatusSeeOther {
		t.Errorf("a want: %d", status)
	}
	if _, body := s.get(to); !strings.Contains(body, "Zinnia shy") || !strings.Contains(body, "20 wanted") {
		t.Error("the want is not on its order's page")
	}
	if status, _, _ = s.post("/", "/demo/step", url.Values{}); status != http.StatusSeeOther {
		t.Errorf("a step: %d", status)
	}
	if _, body := s.get("/"); !strings.Contains(body, (say.Locale{}).FullDate(demo.FirstDay.Add(1))) {
		t.Error("the clock did not move")
	}
}

func BenchmarkPages(b *testing.B) {
	store := openStore(b, true)
	handler, err := New(farm.New(store, time.Now), page.Options{Hosts: []string{"example.com"}, Log: slog.New(slog.DiscardHandler)})
	if err != nil {
		b.Fatal(err)
	}
	for _, path := range []string{"/", "/plantings", "/plantings/ZC1", "/orders"} {
		get := func() {
			w := httptest.NewRecorder()
			handler.ServeHTTP(w, httptest.NewRequest(http.MethodGet, path, nil))
			if w.Code != http.StatusOK {
				b.Fatal(w.Code)
			}
		}
		get() // what is computed once is not part of it
		b.Run(path, func(b *testing.B) {
			for b.Loop() {
				get()
			}
		})
	}
}
