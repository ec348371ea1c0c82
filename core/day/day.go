// Package day holds the civil calendar of a farm: dates, the minute of a record, weekdays and pick days.
//
// Nothing here knows a clock or a time zone: "today" is always handed in by the caller.
package day

import (
	"fmt"
	"time"
)

// A Day is a civil date: no hour, no zone. The zero Day is no date and stands for "not recorded".
type Day struct{ n int32 } // days since 31 December of the year 0, so that 1 is 1 January of the year 1

const secondsPerDay = 24 * 60 * 60

var origin = time.Date(0, time.December, 31, 0, 0, 0, 0, time.UTC).Unix() / secondsPerDay

// Of returns the day of a year (1 to 9999), month and day of month, which are normalised as time.Date does.
func Of(year int, month time.Month, dayOfMonth int) Day {
	seconds := time.Date(year, month, dayOfMonth, 0, 0, 0, 0, time.UTC).Unix()
	return Day{int32(seconds/secondsPerDay - origin)}
}

// Parse reads an ISO 8601 date such as "2026-07-11". Its error tells a person what to write.
func Parse(s string) (Day, error) {
	t, err := time.Parse(time.DateOnly, s)
	if err != nil || t.Year() < 1 {
		return Day{}, fmt.Errorf("%q is no date: write it as 2026-07-11", s)
	}
	return Of(t.Date()), nil
}

// Must is Parse for tables and tests; it panics on what is no date.
func Must(s string) Day {
	d, err := Parse(s)
	if err != nil {
		panic("day: " + err.Error())
	}
	return d
}

// IsZero tells whether no date is recorded.
func (d Day) IsZero() bool { return d.n == 0 }

// Add returns the day that lies so many days later, or earlier if days is negative.
func (d Day) Add(days int) Day { return Day{d.n + int32(days)} }

// Sub returns the days from e to d, negative if d is the earlier.
func (d Day) Sub(e Day) int { return int(d.n - e.n) }

// Before tells whether d lies before e.
func (d Day) Before(e Day) bool { return d.n < e.n }

// After tells whether d lies after e.
func (d Day) After(e Day) bool { return d.n > e.n }

// Compare orders days for slices.SortFunc.
func (d Day) Compare(e Day) int { return int(d.n - e.n) }

// At returns the instant of an hour (0 to 24) of the day, counted in days, as the model measures time.
func (d Day) At(hour float64) float64 { return float64(d.n) + hour/24 }

// On returns the day that an instant of the model falls on.
func On(instant float64) Day { return Day{int32(instant)} }

// Midnight returns the first instant of the day in UTC, for formatting and calendars of the standard library.
func (d Day) Midnight() time.Time {
	return time.Unix((int64(d.n)+origin)*secondsPerDay, 0).UTC()
}

// Weekday returns the day of the week.
func (d Day) Weekday() time.Weekday { return d.Midnight().Weekday() }

// YearDay returns the day of the year, 1 to 366.
// It is asked for in the innermost loop of a forecast, so that it is reckoned without the time package.
func (d Day) YearDay() int {
	years := (int(d.n) + 1) * 400 / 146_097 // of 146,097 days in 400 years; those that are over, or one more
	for daysOf(years) >= int(d.n) {
		years--
	}
	return int(d.n) - daysOf(years)
}

// daysOf returns the days of the years 1 to so many.
func daysOf(years int) int { return 365*years + years/4 - years/100 + years/400 }

// Date returns year, month and day of month.
func (d Day) Date() (int, time.Month, int) { return d.Midnight().Date() }

// String writes the date as Parse reads it; the zero Day is empty.
func (d Day) String() string {
	if d.IsZero() {
		return ""
	}
	return d.Midnight().Format(time.DateOnly)
}

// Spoken writes the date as growers say it: "Fri 10 July".
func (d Day) Spoken() string {
	if d.IsZero() {
		return ""
	}
	return d.Midnight().Format("Mon 2 January")
}

// MarshalText writes String.
func (d Day) MarshalText() ([]byte, error) { return []byte(d.String()), nil }

// UnmarshalText reads what Parse reads, and empty text as the zero Day.
func (d *Day) UnmarshalText(text []byte) error {
	if len(text) == 0 {
		*d = Day{}
		return nil
	}
	read, err := Parse(string(text))
	if err != nil {
		return err
	}
	*d = read
	return nil
}
