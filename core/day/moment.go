package day

import (
	"cmp"
	"fmt"
	"time"
)

// A Moment is when a field record was made, in the farm's local civil time: a date, or a date with a minute.
// It keeps which of the two was given, so that a notebook comes back as it was written. The zero Moment is "not recorded".
type Moment struct {
	date   Day
	minute int16 // minute of the day plus one; 0 where only the date was given
}

const minuteLayout = "2006-01-02T15:04"

// At returns the moment of an hour (0 to 23) and minute (0 to 59) on day d.
func At(d Day, hour, minute int) Moment {
	return Moment{d, int16(hour*60 + minute + 1)}
}

// ParseMoment reads "2026-07-11" or "2026-07-11T06:20". Its error tells a person what to write.
func ParseMoment(s string) (Moment, error) {
	if len(s) == len(time.DateOnly) {
		d, err := Parse(s)
		return Moment{date: d}, err
	}
	t, err := time.Parse(minuteLayout, s)
	if err != nil || t.Year() < 1 {
		return Moment{}, fmt.Errorf("%q is no date or time: write it as 2026-07-11 or 2026-07-11T06:20", s)
	}
	return At(Of(t.Date()), t.Hour(), t.Minute()), nil
}

// Day returns the date.
func (m Moment) Day() Day { return m.date }

// IsZero tells whether nothing is recorded.
func (m Moment) IsZero() bool { return m.date.IsZero() }

// Compare returns -1, 0 or 1 as m is before, the same as or after n; a date alone is before all hours of its day.
func (m Moment) Compare(n Moment) int {
	return cmp.Or(m.date.Compare(n.date), cmp.Compare(m.minute, n.minute))
}

// HasHour tells whether more than the date was given.
func (m Moment) HasHour() bool { return m.minute > 0 }

// Instant returns the moment in days, as Day.At does, taking the hour otherwise (0 to 24) where only the date was given.
func (m Moment) Instant(otherwise float64) float64 {
	if m.HasHour() {
		return m.date.At(float64(m.minute-1) / 60)
	}
	return m.date.At(otherwise)
}

// String writes the moment as ParseMoment reads it.
func (m Moment) String() string {
	if !m.HasHour() {
		return m.date.String()
	}
	return m.date.String() + "T" + m.Clock()
}

// Clock writes the hour and minute, "06:20"; empty where only the date was given.
func (m Moment) Clock() string {
	if !m.HasHour() {
		return ""
	}
	return fmt.Sprintf("%02d:%02d", (m.minute-1)/60, (m.minute-1)%60)
}

// Spoken writes the moment as growers say it: "Fri 10 July, 06:20".
func (m Moment) Spoken() string {
	if !m.HasHour() {
		return m.date.Spoken()
	}
	return m.date.Spoken() + ", " + m.Clock()
}
