package web

import (
	"fmt"
	"html"
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

// Straight bunches are tied of what there is, and no more; the work sheet no longer asks for bouquets that were made up.
func TestBunchesAndBouquetsLeaveTheStore(t *testing.T) {
	s := newSite(t, true)
	_, body := s.get("/store/worksheet")
	if !strings.Contains(body, "12 bouquets are wanted and all can be made of what stands in the store: 1 hour of work for one.") {
		t.Error("the work sheet does not ask for twelve bouquets")
	}
	_, body = s.get("/store")
	variety, bunches, ok := bunchOf(body)
	if !ok {
		t.Fatal("there is no bunch to tie")
	}
	form := url.Values{"variety": {variety}, "colour": {""}, "bunches": {fmt.Sprint(bunches + 1)}}
	if _, after, found := strings.Cut(body, `name="variety" value="`+html.EscapeString(variety)+`"`); found {
		_, after, _ = strings.Cut(after, `name="colour" value="`)
		form["colour"][0], _, _ = strings.Cut(after, `"`)
	}
	if status, _, body := s.post("/store", "/store/bunches", form); status != http.StatusUnprocessableEntity || !strings.Contains(body, "write that many or fewer") {
		t.Errorf("one bunch more than there are: %d", status)
	}
	form["bunches"][0] = fmt.Sprint(bunches)
	if status, _, _ := s.post("/store", "/store/bunches", form); status != http.StatusSeeOther {
		t.Errorf("all bunches: %d", status)
	}
	if _, body := s.get("/store"); strings.Contains(body, `name="variety" value="`+html.EscapeString(variety)+`"`) {
		t.Errorf("there are still bunches of %s", variety)
	}
	if status, _, _ := s.post("/store", "/store/makeup", url.Values{"recipe": {"Steps bouquet"}, "order": {"Fallow Steps market"}, "bouquets": {"2"}}); status != http.StatusSeeOther {
		t.Errorf("two bouquets: %d", status)
	}
	if _, body := s.get("/store/worksheet"); !strings.Contains(body, "10 bouquets are wanted") && !strings.Contains(body, "Of 10 bouquets wanted") {
		t.Error("the work sheet still asks for what was made up")
	}
}

// bunchOf reads the first straight bunches that the store offers.
func bunchOf(body string) (variety string, bunches int, ok bool) {
	_, section, ok := strings.Cut(body, `id="bunches-heading"`)
	if !ok {
		return "", 0, false
	}
	_, rest, _ := strings.Cut(section, `name="variety" value="`)
	variety, _, _ = strings.Cut(rest, `"`)
	_, rest, _ = strings.Cut(rest, `name="bunches" value="`)
	_, err := fmt.Sscan(rest, &bunches)
	return html.UnescapeString(variety), bunches, err == nil || bunches > 0
}

// After a market what was taken along and not brought back is sold: more than there is, or more back than went, is refused beside its row, and nothing is lost.
func TestWhatWasSoldClosesTheDay(t *testing.T) {
	s := newSite(t, true)
	const variety = "Cornflower blue"
	there := func() int {
		_, body := s.get("/store/sold?order=Gate+stall")
		_, rest, ok := strings.Cut(body, "<strong>"+variety+"</strong>")
		if !ok {
			return 0
		}
		_, rest, _ = strings.Cut(rest, `class="quiet">`)
		n := 0
		fmt.Sscan(rest, &n)
		return n
	}
	before := there()
	if before < 10 {
		t.Fatalf("%d stand in the store", before)
	}
	for want, form := range map[string]url.Values{"cannot have come back of 5": {"taken " + variety: {"5"}, "back " + variety: {"6"}}, "cannot have been taken along": {"taken " + variety: {"9999"}}, "how many were taken along of something": {},
		"is no whole number": {"taken " + variety: {"many"}}} {
		form.Set("order", "Gate stall")
		if status, _, body := s.post("/store/sold", "/store/sold", form); status != http.StatusUnprocessableEntity || !strings.Contains(body, want) {
			t.Errorf("%v: %d, and not %q", form, status, want)
		}
	}
	if status, _, _ := s.post("/store/sold", "/store/sold", url.Values{"order": {"Gate stall"}, "taken " + variety: {"9"}, "back " + variety: {"2"}}); status != http.StatusSeeOther {
		t.Errorf("seven of nine: %d", status)
	}
	if now := there(); now != before-7 {
		t.Errorf("%d stand there, want %d", now, before-7)
	}
}
