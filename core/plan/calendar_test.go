package plan

import (
	"fmt"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// On the calendar of 2027: a packet says 60 to 80 days, the market opens on 1 July and closes on 31 August. 1 July less 70 days is 22 April, before the last
// frost on 12 May: so from 12 May every 14 days, as long as 70 days later is not after the end: 12 and 26 May, 9 June; 23 June and 70 days are 1 September.
func TestTheCalendarSchool(t *testing.T) {
	p := &crop.Profile{TypicalDays: [2]int{60, 80}, PreferredStart: crop.Direct, Starts: []crop.Method{crop.Direct}}
	d := day.Must
	said := func(sowings []Sowing) string {
		text := ""
		for _, s := range sowings {
			text += s.Started.String()[5:] + " "
		}
		return text
	}
	if got := said(Calendar(p, crop.Direct, d("2027-05-12"), day.Day{}, d("2027-07-01"), d("2027-08-31"), 14)); got != "05-12 05-26 06-09 " {
		t.Errorf("sown on %s", got)
	}
	if got := said(Calendar(p, crop.Direct, d("2027-05-12"), d("2027-05-30"), d("2027-07-01"), d("2027-08-31"), 14)); got != "05-12 05-26 " {
		t.Errorf("with a last safe day of 30 May sown on %s", got)
	}
	if got := said(Calendar(p, crop.Direct, d("2027-03-12"), day.Day{}, d("2027-07-01"), d("2027-07-31"), 10)); got != "04-22 05-02 05-12 05-22 " {
		t.Errorf("after an early frost sown on %s", got)
	}
	if EveryDays([2]int{14, 28}) != 21 || EveryDays([2]int{}) != 21 || EveryDays([2]int{7, 8}) != 7 {
		t.Error("the usual days between sowings are the middle of the table's")
	}
}

func TestShares(t *testing.T) {
	var sowings []Sowing
	for i := range 3 {
		sowings = append(sowings, Sowing{Method: crop.Direct, Started: day.Must("2027-05-12").Add(14 * i)})
	}
	text := ""
	for _, p := range Evenly(sowings, 100) {
		text += fmt.Sprint(p.Plants, " ")
	}
	if text != "33 33 34 " {
		t.Errorf("a hundred plants in three: %s", text)
	}
	try := paper(3, 3, 2, func(i, w, s int) float32 { return float32(2*(i+1)) / 3 }) // 2, 4 and 6 stems a plant in all
	for i := range sowings {
		sowings[i] = try.Trials[i].Sowing
	}
	planned := try.AsManyStems(sowings, 120)
	if got := try.Stems(planned); got < 120 || got > 126 {
		t.Errorf("%v give %.1f stems, not 120", planned, got)
	}
	first, last := try.Cuts(try.Trials[0].Sowing)
	if first != try.Picks[0] || last != try.Picks[2] {
		t.Errorf("cut from %s to %s", first, last)
	}
}

// A row that gives all its stems on one pick, of five that it may be, is cut on one pick and not on five; one that never blooms is not asked.
func TestWhenASowingIsCut(t *testing.T) {
	on := []int{1, 2, 2, 3, 4, -1}
	try := paper(1, 5, len(on), func(_, w, s int) float32 {
		if w == on[s] {
			return 3
		}
		return 0
	})
	if first, last := try.Cuts(try.Trials[0].Sowing); first != try.Picks[2] || last != try.Picks[2] {
		t.Errorf("cut from %s to %s, not on %s", first, last, try.Picks[2])
	}
}

// A week and 12 stems wanted: 10 in one weather and 16 in the other.
func TestOutcome(t *testing.T) {
	try := paper(1, 1, 2, func(_, _, s int) float32 { return []float32{1, 1.6}[s] })
	try.Rows[0] = []float32{2, 4}
	w := try.Outcome([]Planned{{try.Trials[0].Sowing, 10}}, wantOf(1, 12, 0.9), Limits{})[0]
	if w.Chance != 0.5 || w.Short != 1 || w.Over != 2 || w.Low != 10 || w.High != 16 {
		t.Errorf("%+v", w)
	}
	if w := try.Outcome([]Planned{{try.Trials[0].Sowing, 10}}, wantOf(1, 12, 0.9), Limits{Existing: true})[0]; w.Chance != 1 || w.Low != 12 || w.High != 20 {
		t.Errorf("beside the rows on record %+v", w)
	}
	c := Compared([]WeekOutcome{w}, func(int) bool { return true }, 13)
	if c.WeeksShort != 0.5 || c.StemsShort != 1 || c.StemsWasted != 2 {
		t.Errorf("compared %+v", c)
	}
}

func TestWeeksBeginOnMonday(t *testing.T) {
	for d, want := range map[string]string{"2027-07-05": "2027-07-05", "2027-07-11": "2027-07-05", "2027-07-12": "2027-07-12", "2027-01-01": "2026-12-28"} {
		if got := WeekOf(day.Must(d)).Monday.String(); got != want {
			t.Errorf("%s is in the week of %s, want %s", d, got, want)
		}
	}
}
