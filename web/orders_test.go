package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"
)

// What cannot be asked for is told so: a count below nothing, no count, letters for one.
func TestAskingForWhatCannotBe(t *testing.T) {
	s := newSite(t, true)
	for _, q := range []string{"-5 ammi 18 July", "0 ammi 18 July", "many ammi 18 July", "ammi 18 July"} {
		if status, body := s.get("/ask?q=" + url.QueryEscape(q)); status != http.StatusOK || !strings.Contains(body, "q-fault") || strings.Contains(body, "nobody else loses any") {
			t.Errorf("%q is answered", q)
		}
	}
}

// This Saturday is different: the market wants no zinnias and ten ammi on that day alone; said as usual again it is forgotten.
func TestOneDayOfAMarketIsDifferent(t *testing.T) {
	s := newSite(t, true)
	const market = "/orders/Fallow%20Steps%20market"
	due := func(on string) string {
		_, body := s.get(market)
		_, rest, _ := strings.Cut(body, `<span class="due-on">`+on)
		rest, _, _ = strings.Cut(rest, "</article>")
		return rest
	}
	if before := due("Sat 11 July"); !strings.Contains(before, "40 wanted: likely") {
		t.Fatalf("on the eleventh: %s", before)
	}
	form := url.Values{"on": {"2026-07-11"}, "number-2": {"0"}, "number-6": {"10"}}
	if status, _, _ := s.post(market, market+"/days", form); status != http.StatusSeeOther {
		t.Fatalf("another day: %d", status)
	}
	eleventh, next := due("Sat 11 July"), due("Sat 18 July")
	if !strings.Contains(eleventh, "nothing wanted") || !strings.Contains(eleventh, "10 wanted: covered") || strings.Contains(next, "nothing wanted") {
		t.Errorf("on the eleventh %s, on the eighteenth %s", eleventh, next)
	}
	for want, form := range map[string]url.Values{"is not due on": {"on": {"2026-07-12"}, "number-2": {"3"}}, "is no whole number": {"on": {"2026-07-11"}, "number-2": {"some"}}} {
		if status, _, body := s.post(market, market+"/days", form); status != http.StatusUnprocessableEntity || !strings.Contains(body, want) {
			t.Errorf("%v: %d", form, status)
		}
	}
	if status, _, _ := s.post(market, market+"/days", url.Values{"on": {"2026-07-11"}, "number-2": {"40"}, "number-6": {"40"}}); status != http.StatusSeeOther {
		t.Error("as usual again is refused")
	}
	if again := due("Sat 11 July"); strings.Contains(again, "nothing wanted") {
		t.Error("as usual again, and it is not")
	}
}
