package web

import (
	"net/http"
	"net/url"
	"strconv"
	"strings"
	"testing"
)

// The farm's form is filled in as people speak: boxes for days, a field for each day's hours, a frost date in words, both coordinates at once. It is kept as the notebook has
// it and shown as it was said; hours of some days alone are told.
func TestTheFarmIsWrittenDownInWords(t *testing.T) {
	s := newSite(t, false)
	form := url.Values{"name": {"Drei Beete"}, "latitude": {"46°54'N 7°12'E"}, "elevation_m": {"520"}, "timezone": {"Europe/Zurich"}, "pick_days": {"tue", "fri"}, "last_frost": {"12 May"}}
	for i := range 7 {
		form.Set("crew_hours-"+strconv.Itoa(i), strconv.Itoa(i))
	}
	if status, where, body := s.post("/farm", "/farm", form); status != http.StatusSeeOther || where != "/start" {
		t.Fatalf("the farm: %d %s", status, body)
	}
	_, page := s.get("/farm")
	for _, want := range []string{`value="46.9"`, `value="7.2"`, `value="12 May"`, `name="pick_days" value="tue" checked`, `name="pick_days" value="fri" checked`, `name="crew_hours-5" value="5"`} {
		if !strings.Contains(page, want) {
			t.Errorf("the farm's form does not show %s", want)
		}
	}
	if strings.Contains(page, `name="pick_days" value="mon" checked`) {
		t.Error("Monday is ticked")
	}
	form.Set("crew_hours-2", "")
	form.Set("shown", "")
	if status, _, body := s.post("/farm", "/farm", form); status != http.StatusUnprocessableEntity || !strings.Contains(body, "hours of the seven days") || !strings.Contains(body, `name="crew_hours-5" value="5"`) {
		t.Errorf("six of seven days: %d", status)
	}
	form.Set("latitude", "somewhere")
	form.Set("longitude", "")
	if status, _, body := s.post("/farm", "/farm", form); status != http.StatusUnprocessableEntity || !strings.Contains(body, "somewhere") {
		t.Errorf("somewhere: %d", status)
	}
}
