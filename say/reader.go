package say

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"

	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/core/rounds"
	"dewcount/farm/look"
)

// A Reader is how one person reads dates and measures. The zero Reader reads metric units, and no weeks.
type Reader struct {
	Imperial    bool    // inches, feet and °F
	WeekNumbers bool    // the number of the week beside each date (ISO 8601)
	Today       day.Day // a date of another year is written with it
}

// A Snapshot is the farm's state as one person reads it.
type Snapshot struct {
	*look.Snapshot
	Reader
}

// A Season is a growing year as one person reads it.
type Season struct {
	*look.Season
	Reader
}

func (r Reader) week(d day.Day) string {
	_, week := d.Midnight().ISOWeek()
	return strconv.Itoa(week)
}

// Date writes a date with its weekday, and with its year where that is not today's: "Fri 10 July".
func (r Reader) Date(d day.Day) string {
	words := d.Spoken()
	year, _, _ := d.Date()
	if now, _, _ := r.Today.Date(); !r.Today.IsZero() && year != now {
		words = d.Midnight().Format("Mon 2 January 2006")
	}
	if r.WeekNumbers && !d.IsZero() {
		words += ", week " + r.week(d)
	}
	return words
}

// Bare is Date without a year, where the page says which.
func (r Reader) Bare(d day.Day) string {
	r.Today = day.Day{}
	return r.Date(d)
}

// FullDate is Date with everything in full: "Friday 10 July 2026".
func (r Reader) FullDate(d day.Day) string {
	words := d.Midnight().Format("Monday 2 January 2006")
	if r.WeekNumbers {
		words += ", week " + r.week(d)
	}
	return words
}

// DayOfYear writes a date that comes back every year: "10 July".
func (r Reader) DayOfYear(d day.Day) string {
	words := d.Midnight().Format("2 January")
	if r.WeekNumbers {
		words += ", week " + r.week(d)
	}
	return words
}

// Short writes a date where there is little room: "10 Jul".
func (r Reader) Short(d day.Day) string {
	words := d.Midnight().Format("2 Jan")
	if r.WeekNumbers {
		words += ", w" + r.week(d)
	}
	return words
}

// Moment is Date with the hour, where there is one.
func (r Reader) Moment(m day.Moment) string {
	if clock := m.Clock(); clock != "" {
		return r.Date(m.Day()) + ", " + clock
	}
	return r.Date(m.Day())
}

// When says a date with its bounds.
func (r Reader) When(w forecast.When) string {
	switch {
	case w.Likely.IsZero():
		return "hardly this season"
	case w.Early == w.Late:
		return r.Date(w.Likely)
	default:
		return fmt.Sprintf("%s (%s to %s)", r.Date(w.Likely), r.Short(w.Early), r.Short(w.Late))
	}
}

// Readable writes a value of a record as a person reads it; name is the field's.
func (r Reader) Readable(name, value string) string {
	if value == "" {
		return "nothing"
	}
	if d, err := day.Parse(value); err == nil {
		return r.Date(d)
	}
	if m, err := day.ParseMoment(value); err == nil {
		return r.Moment(m)
	}
	return r.Out(name, value)
}

// Sentence writes a reason of the rounds, as a sentence.
func (r Reader) Sentence(s rounds.Sentence) string { return Sentence(r.Words(s)) }

// Words writes a reason of the rounds.
func (r Reader) Words(s rounds.Sentence) string {
	words := ""
	for _, part := range s {
		switch v := part.(type) {
		case day.Day:
			words += r.Date(v)
		case rounds.Celsius:
			words += r.Celsius(float64(v))
		case rounds.CM:
			words += r.CM(float64(v))
		case rounds.MM:
			words += r.MM(float64(v))
		default:
			words += fmt.Sprint(v)
		}
	}
	return words
}

// Celsius writes a temperature to the whole degree.
func (r Reader) Celsius(c float64) string { return r.whole(Celsius, c) }

// Tenth writes a temperature to the tenth of a degree.
func (r Reader) Tenth(c float64) string {
	return fmt.Sprintf("%.1f %s", r.number(Celsius, c), r.Name(Celsius))
}

// TenthBare is Tenth without its unit.
func (r Reader) TenthBare(c float64) string { return fmt.Sprintf("%.1f", r.number(Celsius, c)) }

// CM writes a length to the whole centimetre or inch.
func (r Reader) CM(cm float64) string { return r.whole(Centimetre, cm) }

// MM writes rain to the whole millimetre, or the tenth of an inch.
func (r Reader) MM(mm float64) string {
	if r.Imperial {
		return fmt.Sprintf("%.1f in", mm/mmAnInch)
	}
	return r.whole(Millimetre, mm)
}

func (r Reader) whole(u Unit, n float64) string {
	return fmt.Sprintf("%.0f %s", r.number(u, n), r.Name(u))
}

// KG writes a weight to the whole kilogram or pound.
func (r Reader) KG(kg float64) string {
	if r.Imperial {
		return fmt.Sprintf("%.0f lb", kg*2.2046)
	}
	return fmt.Sprintf("%.0f kg", kg)
}

// inProse finds the measures in a sentence of the crop table.
var inProse = regexp.MustCompile(`(-?[0-9.]+) (cm|°C|mm)\b`)

// Prose writes a sentence of the crop table, whose measures are metric.
func (r Reader) Prose(words string) string {
	if !r.Imperial {
		return words
	}
	return inProse.ReplaceAllStringFunc(words, func(measure string) string {
		number, unit, _ := strings.Cut(measure, " ")
		n, err := strconv.ParseFloat(number, 64)
		if err != nil {
			return measure
		}
		return r.whole(map[string]Unit{"cm": Centimetre, "°C": Celsius, "mm": Millimetre}[unit], n)
	})
}

// Exact writes a measure with the digits that it has.
func (r Reader) Exact(u Unit, n float64) string { return r.Number(u, n) + " " + r.Name(u) }

// Range writes two measures of a kind, to the whole unit: "12 to 20 °C".
func (r Reader) Range(u Unit, low, high float64) string {
	return fmt.Sprintf("%.0f to %s", r.number(u, low), r.whole(u, high))
}
