package day

import (
	"fmt"
	"slices"
	"strings"
	"time"
)

// Weekdays is a set of days of the week.
type Weekdays uint8

var weekdayNames = [...]string{"mon", "tue", "wed", "thu", "fri", "sat", "sun"}

// ParseWeekdays reads weekdays parted by blanks, such as "tue fri". Its error tells a person what to write.
func ParseWeekdays(s string) (Weekdays, error) {
	var w Weekdays
	for _, word := range strings.Fields(strings.ToLower(s)) {
		i := slices.Index(weekdayNames[:], word)
		if i < 0 {
			return 0, fmt.Errorf("%q is no weekday: write some of %s", word, strings.Join(weekdayNames[:], " "))
		}
		w |= 1 << i
	}
	return w, nil
}

// Has tells whether the set holds a day of the week.
func (w Weekdays) Has(weekday time.Weekday) bool {
	return w&(1<<((weekday+6)%7)) != 0
}

// String writes the set as ParseWeekdays reads it, from Monday on.
func (w Weekdays) String() string {
	var words []string
	for i, name := range weekdayNames {
		if w&(1<<i) != 0 {
			words = append(words, name)
		}
	}
	return strings.Join(words, " ")
}

// Spoken names the days as growers do: "Tuesday and Friday".
func (w Weekdays) Spoken() string {
	var names []string
	for i := range 7 {
		if weekday := time.Weekday((i + 1) % 7); w.Has(weekday) {
			names = append(names, weekday.String())
		}
	}
	if n := len(names); n > 1 {
		return strings.Join(names[:n-1], ", ") + " and " + names[n-1]
	}
	return strings.Join(names, "")
}

// PickDays are the days on which the farm cuts: weekdays, and days beside them.
type PickDays struct {
	Weekly Weekdays
	Extra  []Day
}

// Between returns the pick days from first to last, both included, in order.
func (p PickDays) Between(first, last Day) []Day {
	var days []Day
	for d := first; !d.After(last); d = d.Add(1) {
		if p.Has(d) {
			days = append(days, d)
		}
	}
	return days
}

// Has tells whether the farm cuts on day d.
func (p PickDays) Has(d Day) bool {
	return p.Weekly.Has(d.Weekday()) || slices.Contains(p.Extra, d)
}

// Before returns the last pick day that lies before d and not before earliest; the zero Day if there is none.
func (p PickDays) Before(d, earliest Day) Day {
	for e := d.Add(-1); !e.Before(earliest); e = e.Add(-1) {
		if p.Has(e) {
			return e
		}
	}
	return Day{}
}
