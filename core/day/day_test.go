package day

import (
	"testing"
	"time"
)

func TestDayAgainstPlainCounting(t *testing.T) {
	d := Of(1899, time.December, 31)
	year, month, date := 1899, time.December, 31
	for range 80_000 { // to the year 2118, over leap years and the year 1900 that is none
		if y, m, dd := d.Date(); y != year || m != month || dd != date {
			t.Fatalf("Date() = %d-%d-%d, want %d-%d-%d", y, m, dd, year, month, date)
		}
		back, err := Parse(d.String())
		if err != nil || back != d {
			t.Fatalf("Parse(%q) = %v, %v, want %v", d.String(), back, err, d)
		}
		d = d.Add(1)
		date++
		if date > daysIn(year, month) {
			date, month = 1, month+1
		}
		if month > time.December {
			month, year = time.January, year+1
		}
	}
}

func TestDayOfTheYear(t *testing.T) {
	for d := Of(1, time.January, 1); d != Of(9999, time.December, 31); d = d.Add(1) {
		if got, want := d.YearDay(), d.Midnight().YearDay(); got != want {
			t.Fatalf("%v is day %d of its year, want %d", d, got, want)
		}
	}
}

func daysIn(year int, month time.Month) int {
	switch month {
	case time.February:
		if year%4 == 0 && (year%100 != 0 || year%400 == 0) {
			return 29
		}
		return 28
	case time.April, time.June, time.September, time.November:
		return 30
	}
	return 31
}

func TestParseRefuses(t *testing.T) {
	for _, s := range []string{"", "11.7.2026", "2026-02-30", "2026-7-1", "2026-07-11T06", "0000-01-01"} {
		if d, err := Parse(s); err == nil {
			t.Errorf("Parse(%q) = %v, want an error", s, d)
		}
	}
}

func TestMomentKeepsWhatWasGiven(t *testing.T) {
	for _, s := range []string{"2026-07-11", "2026-07-11T06:20", "2026-07-11T00:00", "2026-07-11T23:59"} {
		m, err := ParseMoment(s)
		if err != nil || m.String() != s {
			t.Errorf("ParseMoment(%q) = %v, %v", s, m, err)
		}
	}
	given := At(Must("2026-07-11"), 6, 0)
	if got, want := given.Instant(8), Must("2026-07-11").At(6); got != want {
		t.Errorf("Instant = %v, want %v", got, want)
	}
	if got, want := (Moment{date: Must("2026-07-11")}).Instant(8), Must("2026-07-11").At(8); got != want {
		t.Errorf("Instant without an hour = %v, want %v", got, want)
	}
}

func TestPickDays(t *testing.T) {
	weekly, err := ParseWeekdays("fri tue")
	if err != nil || weekly.String() != "tue fri" {
		t.Fatalf("ParseWeekdays = %v, %v", weekly, err)
	}
	if _, err := ParseWeekdays("freitag"); err == nil {
		t.Error("ParseWeekdays(freitag) was taken")
	}
	picks := PickDays{Weekly: weekly, Extra: []Day{Must("2026-07-12")}}
	var got string
	for _, d := range picks.Between(Must("2026-07-09"), Must("2026-07-14")) {
		got += d.Spoken() + "; "
	}
	if want := "Fri 10 July; Sun 12 July; Tue 14 July; "; got != want {
		t.Errorf("Between = %q, want %q", got, want)
	}
	if got := picks.Before(Must("2026-07-14"), Must("2026-07-01")); got != Must("2026-07-12") {
		t.Errorf("Before(Tuesday) = %v", got)
	}
	if got := picks.Before(Must("2026-07-10"), Must("2026-07-08")); !got.IsZero() {
		t.Errorf("Before beyond the earliest = %v, want none", got)
	}
}

func TestWeekdaysAreSpoken(t *testing.T) {
	for text, want := range map[string]string{"fri": "Friday", "fri tue": "Tuesday and Friday", "sun mon wed": "Monday, Wednesday and Sunday", "": ""} {
		w, err := ParseWeekdays(text)
		if got := w.Spoken(); got != want || err != nil {
			t.Errorf("%q is spoken %q, %v; want %q", text, got, err, want)
		}
	}
}
