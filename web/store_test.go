package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"
)

// What cannot be is refused beside its field, and what was typed stays.
func TestTheStoreRefusesWhatCannotBe(t *testing.T) {
	s := newSite(t, true)
	usual := url.Values{"variety": {"Zinnia coral"}, "stems": {"20"}, "rung": {"open"}, "bought_at": {"2026-07-09T06:00"}}
	for field, c := range map[string]struct{ typed, advice string }{
		"bought_at": {"2027-07-09T06:00", "has not come yet"}, "stems": {"-3", "-3"}, "rung": {"wide", "is no rung"}, "variety": {"Nothing", "is no variety on record"},
	} {
		v := url.Values{}
		for name := range usual {
			v[name] = usual[name]
		}
		v[field] = []string{c.typed}
		if status, _, body := s.post("/store/lot", "/store/lots", v); status != http.StatusUnprocessableEntity || !strings.Contains(body, c.advice) {
			t.Errorf("%s %q: %d", field, c.typed, status)
		}
	}
	if status, _, _ := s.post("/store/lot", "/store/lots", usual); status != http.StatusSeeOther {
		t.Errorf("what can be: %d", status)
	}
}
