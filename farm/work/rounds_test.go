package work

import (
	"strings"
	"testing"

	"dewcount/core/day"
	"dewcount/core/rounds"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// springOf is a small farm that is looked at in mid May, after a spring that was so many °C warmer or colder than usual.
func springOf(t *testing.T, warmer float64) *look.Season {
	t.Helper()
	b := book.NewBook(nil)
	read := func(k *book.Kind, rows ...[]string) {
		for _, row := range rows {
			for len(row) < len(k.Columns) {
				row = append(row, "")
			}
			if _, err := b.Read(k, [][]string{row}); err != nil {
				t.Fatal(err)
			}
		}
	}
	read(book.Settings, []string{"name", "Three Beds"}, []string{"latitude", "46.9"}, []string{"longitude", "7.2"}, []string{"elevation_m", "520"}, []string{"timezone", "Europe/Zurich"}, []string{"pick_days", "tue fri"})
	today := day.Must("2026-05-15")
	for d := day.Must("2026-03-01"); d.Before(today); d = d.Add(1) {
		middle := 6 + float64(d.Sub(day.Must("2026-03-01")))*0.1 + warmer
		read(book.Weather, []string{d.String(), book.Decimal(middle - 5), book.Decimal(middle + 5), "0"})
	}
	read(book.Varieties, []string{"Cornflower blue", "cornflower"}, []string{"Zinnia coral", "zinnia-tall"})
	read(book.Plantings, []string{"CW1", "Cornflower blue", "", "direct", "2026-03-20", "", "", "", "80"}, []string{"ZC1", "Zinnia coral", "", "direct", "2026-05-28", "", "", "", "100"})
	s, err := look.NewSeason(b, today, 2026, nil)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

func TestAWarmSpringBringsJobsForward(t *testing.T) {
	best := func(warmer float64) map[string]day.Day {
		all := make(map[string]day.Day)
		for _, r := range Rounds(springOf(t, warmer), day.Must("2026-10-30")) {
			all[r.Planting+" "+string(r.Task)] = r.Best
		}
		return all
	}
	cold, warm := best(-3), best(3)
	for job, days := range map[string]int{"CW1 net": 14, "CW1 strip": 14, "CW1 count": 14, "CW1 pull-out": 14, "ZC1 sow": 14, "ZC1 thin": 14, "ZC1 thin-more": 7, "ZC1 net": 7, "ZC1 strip": 7, "ZC1 count": 7} {
		a, b := warm[job], cold[job]
		if a.IsZero() || b.IsZero() || b.Sub(a) < days {
			t.Errorf("%s: %s after a warm spring, %s after a cold one, want %d days between them", job, a, b, days)
		}
	}
	if on, there := warm["CW1 thin-more"]; there {
		t.Errorf("after a warm spring the row is still to be thinned on %s, and it is cut from already", on)
	}
	if on := cold["CW1 thin-more"]; on.Before(day.Must("2026-05-01")) {
		t.Errorf("after a cold spring the row is thinned on %s, want May", on)
	}
	for job, on := range cold { // the soil keeps the sowing waiting, and all that follows
		if strings.HasPrefix(job, "ZC1 ") && job != "ZC1 sow" && !on.After(cold["ZC1 sow"]) {
			t.Errorf("%s on %s, before it is sown on %s", job, on, cold["ZC1 sow"])
		}
	}
}

func TestWhatIsDoneMovedOrDroppedStaysSo(t *testing.T) {
	s := springOf(t, 0)
	find := func(id string) (Round, bool) {
		return book.Find(Rounds(s, s.View.Today.Add(60)), func(r Round) bool { return r.ID() == id })
	}
	r, ok := find("ZC1 sow")
	if !ok {
		t.Fatal("the planned sowing is no job")
	}
	b := *s.Book
	s.Book = &b
	set := func(state book.JobState, on day.Day) {
		b.Jobs = []book.JobRecord{{Job: r.ID(), Planting: "ZC1", Task: rounds.Sow, State: state, On: on, Person: "Tam"}}
	}
	set(book.JobMoved, s.View.Today.Add(20))
	if moved, ok := find("ZC1 sow"); !ok || moved.Best != s.View.Today.Add(20) || moved.Person != "Tam" {
		t.Errorf("moved: %+v, want %s by Tam", moved, s.View.Today.Add(20))
	}
	set(book.JobMoved, s.View.Today.Add(-2))
	if moved, ok := find("ZC1 sow"); !ok || moved.Best != r.Best {
		t.Errorf("moved to a day that is past: %s, want %s again", moved.Best, r.Best)
	}
	set(book.JobDropped, s.View.Today)
	if _, ok := find("ZC1 sow"); ok {
		t.Error("dropped, and still a job")
	}
	set(book.JobDone, s.View.Today)
	if _, ok := find("ZC1 sow"); ok {
		t.Error("done, and still a job")
	}
}

func TestSpoiledStemsOfTheLastDaysCountInTheForecast(t *testing.T) {
	b := book.NewBook(nil)
	today := day.Must("2026-07-09")
	spoiled := 12
	b.Scoutings = []book.Scouting{{Planting: "ZC1", On: day.Must("2026-07-05"), Cause: "earwigs", Stems: 40, Spoiled: &spoiled}}
	// the crop's twenty stems' worth of 95 % and 28 sound of 40: (19 + 28) of 60
	if got, want := b.SoundOf("ZC1", 0.95, today), 47.0/60; got < want-1e-9 || got > want+1e-9 {
		t.Errorf("soundOf = %.4f, want %.4f", got, want)
	}
	for what, on := range map[string]day.Day{"eleven days later": day.Must("2026-07-16"), "the day before": day.Must("2026-07-04")} {
		if got := b.SoundOf("ZC1", 0.95, on); got != 0.95 {
			t.Errorf("%s: soundOf = %.4f, want the crop's 0.95", what, got)
		}
	}
	if got := b.SoundOf("ZC2", 0.95, today); got != 0.95 {
		t.Errorf("another row: soundOf = %.4f, want 0.95", got)
	}
}

func TestWaitingTimes(t *testing.T) {
	b := book.NewBook(nil)
	b.Sprays = []book.Spray{{Planting: "ZC1", SprayedAt: day.At(day.Must("2026-07-08"), 21, 0), Product: "soap", WaitDays: 3}, {Planting: "ZC1", SprayedAt: day.At(day.Must("2026-07-01"), 21, 0), Product: "other", WaitDays: 14}}
	for on, want := range map[string]string{"2026-06-30": "", "2026-07-02": "2026-07-15", "2026-07-09": "2026-07-15", "2026-07-14": "2026-07-15", "2026-07-15": ""} {
		_, until, waits := b.Waiting("ZC1", day.Must(on))
		if until.String() != want && (waits || want != "") {
			t.Errorf("on %s it waits until %s (%v), want %q", on, until, waits, want)
		}
	}
	if _, _, waits := b.Waiting("ZC2", day.Must("2026-07-09")); waits {
		t.Error("another row waits too")
	}
}

// With an hour on Wednesdays alone, the calendar has the week's jobs on a Wednesday, or put off beyond the week: as the page has them.
func TestTheCalendarHasTheRoundsOnDaysWithHours(t *testing.T) {
	s := springOf(t, 3) // on Friday 15 May
	b := *s.Book
	s.Book = &b
	if _, err := s.Book.Read(book.Settings, [][]string{{"crew_hours", "0 0 1 0 0 0 0"}}); err != nil {
		t.Fatal(err)
	}
	days := make(map[day.Day]bool)
	for _, a := range Appointments(s) {
		if strings.HasPrefix(a.ID, "round ") && a.On.Sub(s.View.Today) <= RoundDays {
			days[a.On] = true
		}
	}
	wednesday, after := day.Must("2026-05-20"), s.View.Today.Add(RoundDays)
	for on := range days {
		if on != wednesday && on != after {
			t.Errorf("there are rounds on %s, when nobody has time", on)
		}
	}
	if !days[wednesday] || !days[after] {
		t.Errorf("rounds on %v, want some on %s and the others put off to %s", days, wednesday, after)
	}
}

// A sowing that was planned or put off is asked for until a week later, one that was only written down until the crew works next.
func TestUntilWhenASowingIsAskedFor(t *testing.T) {
	b := springOf(t, 0).Book
	sunday := day.Must("2026-05-17") // no hours, where nobody says
	p := book.Planting{ID: "ZC9", StartedOn: sunday}
	if by := startBy(b, p, sunday); by != sunday.Add(1) {
		t.Errorf("written down for a Sunday: until %s", by)
	}
	p.StartedOn = sunday.Add(2)
	if by := startBy(b, p, sunday); by != p.StartedOn {
		t.Errorf("written down for a Tuesday: until %s", by)
	}
	p.Succession = "Zinnia 2026"
	if by := startBy(b, p, sunday); by != p.StartedOn.Add(7) {
		t.Errorf("planned for a Tuesday: until %s", by)
	}
	b.Jobs = []book.JobRecord{{Job: "ZC9 sow", Planting: "ZC9", Task: rounds.Sow, State: book.JobMoved, On: sunday.Add(6)}}
	if by := startBy(b, p, sunday); by != sunday.Add(13) {
		t.Errorf("put off to a Saturday: until %s", by)
	}
}
