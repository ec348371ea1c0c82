package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"
)

// ZL1 has 23 by 4 squares of 30 cm, and at 25 cm a square takes one plant.
func TestCrowdedRowsAndLengthsAreToldOnTheirPages(t *testing.T) {
	s := newSite(t, true)
	row := url.Values{"variety": {"Zinnia lime"}, "method": {"tray"}, "started_on": {"2026-04-20"}, "planted_out_on": {"2026-05-18"}, "plants": {"900"}, "bed": {"Brook 2"}, "squares": {"36-58x1-4"}}
	line := url.Values{"what": {"Zinnia coral"}, "stems": {"20"}, "min_length_cm": {"60"}}
	for _, c := range []struct {
		from, path string
		form       url.Values
		page, want string
	}{
		{"/plantings/ZL1/edit", "/plantings/ZL1", row, "/beds", "ZL1 has 900 plants on squares for 92 at 25 cm: they will draw up and fall over."},
		{"/orders/Gate%20stall", "/orders/Gate%20stall/lines", line, "/orders/Gate%20stall", ", 60 cm or longer"},
	} {
		if _, body := s.get(c.page); strings.Contains(body, c.want) {
			t.Fatalf("%s says %q before there is cause", c.page, c.want)
		}
		if status, _, body := s.post(c.from, c.path, c.form); status != http.StatusSeeOther {
			t.Fatalf("%s: %d, %s", c.path, status, body)
		}
		if _, body := s.get(c.page); !strings.Contains(body, c.want) {
			t.Errorf("%s does not say %q", c.page, c.want)
		}
	}
}
