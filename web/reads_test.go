package web

import (
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"golang.org/x/net/html"
)

// metricWords finds measures that somebody who reads imperial ones must not meet: a number before a metric unit, or a label that ends with one.
// Degree-days stay in °C: they are the crop table's.
var metricWords = regexp.MustCompile(`[0-9] ?(cm|mm|m|°C|kg)\b[^²d]|\bin (cm|mm|m|°C)\b[^d]`)

// dates are those that a page says: each has its week beside it.
var dates = regexp.MustCompile(`(Mon|Tue|Wed|Thu|Fri|Sat|Sun) [0-9]{1,2} [A-Z][a-z]+( 20[0-9]{2})?(, week)?`)

func TestWhoReadsFeetAndWeeksMeetsNothingElse(t *testing.T) {
	s := reads(t, "yes")
	pages := []string{"/", "/rounds", "/plantings", "/plantings/ZC1", "/plantings/ZC1/edit", "/plantings/ZC1/cut", "/plantings/ZC1/scout", "/plantings/ZC1/spray", "/plantings/new",
		"/orders", "/orders/new", "/season", "/season?weeks=frost", "/beds", "/beds/new", "/beds/Brook%201/edit", "/seeds", "/labels", "/crops", "/crops/zinnia-tall", "/crops/gladiolus",
		"/crops/zinnia-tall/edit", "/varieties/new?crop=zinnia-tall", "/farm", "/start", "/box", "/stakes", "/why/zinnia-tall", "/ladders", "/count",
		"/season/date?asked=1&crop=cosmos-single&on=2026-10-01&stems=20", "/season/successions"}
	seen := 0
	for _, path := range pages {
		code, page := s.get(path)
		if code != http.StatusOK {
			t.Errorf("%s answers %d", path, code)
			continue
		}
		text := strings.ReplaceAll(spoken(t, page), "Net at 30 cm; heavy heads", "") // a sentence of the table that is there to be rewritten
		for _, found := range metricWords.FindAllStringIndex(text, -1) {
			t.Errorf("%s speaks metric: …%s…", path, text[max(0, found[0]-50):min(len(text), found[1]+20)])
		}
		for _, found := range dates.FindAllString(text, -1) {
			if seen++; !strings.HasSuffix(found, "week") {
				t.Errorf("%s has a date without its week: %s", path, found)
			}
		}
	}
	if seen < 100 {
		t.Errorf("only %d dates were seen: nothing is tested", seen)
	}
}

// A form that is sent as it was shown changes nothing, and what is typed in feet and inches is kept in metres and centimetres.
func TestFormsAreFilledInInFeetAndInches(t *testing.T) {
	s := reads(t, "no")
	before := strings.Replace(bedOf(t, s, "Brook 1"), "|open|", "||", 1) // which the form writes as nothing
	_, page := s.get("/beds/Brook%201/edit")
	length := regexp.MustCompile(`name="length_m" value="([^"]*)"`).FindStringSubmatch(page)
	if length == nil || !strings.Contains(page, "Length in ft") {
		t.Fatalf("the form of a bed has no length in feet: %s", page)
	}
	form := formOf(t, page)
	if code, _, body := s.post("/beds/Brook%201/edit", "/beds/Brook%201", form); code >= 400 {
		t.Fatalf("the form as it was shown is answered with %d: %s", code, spoken(t, body))
	}
	if now := bedOf(t, s, "Brook 1"); now != before {
		t.Errorf("sent as it was shown, the bed is %s, was %s", now, before)
	}
	_, page = s.get("/beds/Brook%201/edit")
	form = formOf(t, page)
	form.Set("length_m", "33")
	s.post("/beds/Brook%201/edit", "/beds/Brook%201", form)
	if now := bedOf(t, s, "Brook 1"); !strings.Contains(now, "|10.06|") {
		t.Errorf("33 ft are kept as %s, want 10.06 m", now)
	}
	form.Set("length_m", "99999")
	if code, _, body := s.post("/beds/Brook%201/edit", "/beds/Brook%201", form); code != http.StatusUnprocessableEntity || !strings.Contains(body, "99999 is out of reason: write a number from") || !strings.Contains(body, `value="99999"`) {
		t.Errorf("99999 ft are answered with %d: %s", code, spoken(t, body))
	}
}

// reads is a site before which somebody reads imperial measures, and perhaps weeks.
func reads(t *testing.T, weeks string) *site {
	t.Helper()
	s := newSite(t, true)
	jar, err := cookiejar.New(nil)
	if err != nil {
		t.Fatal(err)
	}
	s.client.Jar = jar
	if code, _, body := s.post("/reads", "/reads", url.Values{"units": {"imperial"}, "weeks": {weeks}}); code != http.StatusSeeOther {
		t.Fatalf("the choice is answered with %d: %s", code, body)
	}
	return s
}

// formOf returns what a page's last form would send as it is shown.
func formOf(t *testing.T, page string) url.Values {
	t.Helper()
	root, err := html.Parse(strings.NewReader(page))
	if err != nil {
		t.Fatal(err)
	}
	form := make(url.Values)
	for n := range root.Descendants() {
		switch {
		case n.Type != html.ElementNode || attribute(n, "name") == "":
		case n.Data == "input":
			form.Set(attribute(n, "name"), attribute(n, "value"))
		case n.Data == "select":
			for o := range n.Descendants() {
				if o.Data == "option" && has(o, "selected") {
					form.Set(attribute(n, "name"), attribute(o, "value"))
				}
			}
		}
	}
	return form
}

func bedOf(t *testing.T, s *site, id string) string {
	t.Helper()
	b, _, err := s.store.Load(ctx)
	if err != nil {
		t.Fatal(err)
	}
	bed, ok := b.Bed(id)
	if !ok {
		t.Fatalf("there is no bed %s", id)
	}
	return strings.Join(bed.Record().Lines[0], "|")
}
