package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/say"
)

func TestTroublesOfABedAreSaid(t *testing.T) {
	now, from, until := day.Must("2026-07-09"), day.Must("2026-06-01"), day.Must("2026-09-02")
	tall := plan.Guest{Stay: plan.Stay{Planting: "SU1"}, HighCM: 150}
	low := plan.Guest{Stay: plan.Stay{Planting: "ZL1"}, HighCM: 70}
	netted := tall
	netted.Netted = true
	note := func(trouble plan.Trouble, a, b plan.Guest) plan.Note {
		return plan.Note{Trouble: trouble, A: a, B: b, From: from, Until: until}
	}
	water := []plan.Note{note(plan.WaterClash, low, tall), {Trouble: plan.WaterClash, A: low, B: plan.Guest{Stay: plan.Stay{Planting: "DA1"}}, From: from.Add(-3), Until: until.Add(1)}}
	for want, got := range map[string]string{
		"SU1 (150 cm) shades ZL1 (70 cm) at noon from Mon 1 June to Tue 1 September: change their places.":                                                                          say.NoteWords(note(plan.Shading, tall, low), now),
		"SU1 (150 cm) and ZL1 (70 cm) are of one crop, tall and short: plant them apart.":                                                                                           say.NoteWords(note(plan.TallAndShort, tall, low), now),
		"SU1 grows 150 cm high in the wind with nothing to hold it: give it support or a sheltered bed.":                                                                            say.NoteWords(note(plan.WindAndHigh, tall, plan.Guest{}), now),
		"SU1 stands in the wind: lay its net or set its stakes while it is low, from Mon 1 June on.":                                                                                say.NoteWords(note(plan.WindAndHigh, netted, plan.Guest{}), now),
		"On one water line, the seed of ZL1 wants it moist every day and the tubers of SU1 and DA1 dry, from Fri 29 May to Wed 2 September: water the seed by hand until it is up.": say.WaterWords(water, water[0], now),
		"SU1 and ZL1 want the same squares from Mon 1 June until Tue 1 September: move one of them, or give it other squares.":                                                      say.ClashWords(plan.Clash{A: tall.Stay, B: low.Stay, From: from, Until: until}, now),
		"SU1 and ZL1 want the same squares from Mon 1 June for good: move one of them, or give it other squares.":                                                                   say.ClashWords(plan.Clash{A: tall.Stay, B: low.Stay, From: from}, now),
	} {
		if got != want {
			t.Errorf("said %q, want %q", got, want)
		}
	}
}

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
