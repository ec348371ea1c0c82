package say

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"

	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/core/rounds"
	"dewcount/farm/look"
)

// A Locale is how one person reads dates and measures. The zero Locale has metric units, and no weeks.
type Locale struct {
	Imperial    bool    // inches, feet and °F
	WeekNumbers bool    // the number of the week beside each date (ISO 8601)
	Today       day.Day // a date of another year is written with it
}

// A Snapshot is the farm's state as one person reads it.
type Snapshot struct {
	*look.Snapshot
	Locale
}

// A Season is a growing year as one person reads it.
type Season struct {
	*look.Season
	Locale
}

func (l Locale) week(d day.Day) string {
	_, week := d.Midnight().ISOWeek()
	return strconv.Itoa(week)
}

// Date writes a date with its weekday, and with its year where that is not today's: "Fri 10 July".
func (l Locale) Date(d day.Day) string {
	words := d.Spoken()
	year, _, _ := d.Date()
	if now, _, _ := l.Today.Date(); !l.Today.IsZero() && year != now {
		words = d.Midnight().Format("Mon 2 January 2006")
	}
	if l.WeekNumbers && !d.IsZero() {
		words += ", week " + l.week(d)
	}
	return words
}

// Bare is Date without a year, where the page says which.
func (l Locale) Bare(d day.Day) string {
	l.Today = day.Day{}
	return l.Date(d)
}

// FullDate is Date with everything in full: "Friday 10 July 2026".
func (l Locale) FullDate(d day.Day) string {
	words := d.Midnight().Format("Monday 2 January 2006")
	if l.WeekNumbers {
		words += ", week " + l.week(d)
	}
	return words
}

// DayOfYear writes a date that comes back every year: "10 July".
func (l Locale) DayOfYear(d day.Day) string {
	words := d.Midnight().Format("2 January")
	if l.WeekNumbers {
		words += ", week " + l.week(d)
	}
	return words
}

// Short writes a date where there is little room: "10 Jul".
func (l Locale) Short(d day.Day) string {
	words := d.Midnight().Format("2 Jan")
	if l.WeekNumbers {
		words += ", w" + l.week(d)
	}
	return words
}

// Moment is Date with the hour, where there is one.
func (l Locale) Moment(m day.Moment) string {
	if clock := m.Clock(); clock != "" {
		return l.Date(m.Day()) + ", " + clock
	}
	return l.Date(m.Day())
}

// When says a date with its bounds.
func (l Locale) When(w forecast.When) string {
	switch {
	case w.Likely.IsZero():
		return "hardly this season"
	case w.Early == w.Late:
		return l.Date(w.Likely)
	default:
		return fmt.Sprintf("%s (%s to %s)", l.Date(w.Likely), l.Short(w.Early), l.Short(w.Late))
	}
}

// Readable writes a value of a record as a person reads it; name is the field's.
func (l Locale) Readable(name, value string) string {
	if value == "" {
		return "nothing"
	}
	if d, err := day.Parse(value); err == nil {
		return l.Date(d)
	}
	if m, err := day.ParseMoment(value); err == nil {
		return l.Moment(m)
	}
	return l.Out(name, value)
}

// Sentence writes a reason of the rounds, as a sentence.
func (l Locale) Sentence(s rounds.Sentence) string { return Sentence(l.Words(s)) }

// Words writes a reason of the rounds.
func (l Locale) Words(s rounds.Sentence) string {
	words := ""
	for _, part := range s {
		switch v := part.(type) {
		case day.Day:
			words += l.Date(v)
		case rounds.Celsius:
			words += l.Celsius(float64(v))
		case rounds.CM:
			words += l.CM(float64(v))
		case rounds.MM:
			words += l.MM(float64(v))
		case rounds.Chance:
			words += Tenths(float64(v))
		default:
			words += fmt.Sprint(v)
		}
	}
	return words
}

// Celsius writes a temperature to the whole degree.
func (l Locale) Celsius(c float64) string { return l.whole(Celsius, c) }

// Tenth writes a temperature to the tenth of a degree.
func (l Locale) Tenth(c float64) string {
	return l.TenthBare(c) + " " + l.Name(Celsius)
}

// TenthBare is Tenth without its unit.
func (l Locale) TenthBare(c float64) string { return places(l.number(Celsius, c), 1) }

// CM writes a length to the whole centimetre or inch.
func (l Locale) CM(cm float64) string { return l.whole(Centimetre, cm) }

// MM writes rain to the whole millimetre, or the tenth of an inch.
func (l Locale) MM(mm float64) string {
	if l.Imperial {
		return fmt.Sprintf("%.1f in", mm/mmAnInch)
	}
	return l.whole(Millimetre, mm)
}

func (l Locale) whole(u Unit, n float64) string {
	return places(l.number(u, n), 0) + " " + l.Name(u)
}

// KG writes a weight to the whole kilogram or pound.
func (l Locale) KG(kg float64) string {
	if l.Imperial {
		return fmt.Sprintf("%.0f lb", kg*2.2046)
	}
	return fmt.Sprintf("%.0f kg", kg)
}

// Litres writes a volume to the half litre, or to the quart.
func (l Locale) Litres(n float64) string {
	if l.Imperial {
		return fmt.Sprintf("%.0f qt", max(1, n*1.0567))
	}
	half := math.Round(2*n) / 2
	if half == 1 {
		return "1 litre"
	}
	return strconv.FormatFloat(half, 'f', -1, 64) + " litres"
}

// inProse finds the measures in a sentence of the crop table.
var inProse = regexp.MustCompile(`(-?[0-9.]+) (cm|°C|mm)\b`)

// Prose writes a sentence of the crop table, whose measures are metric.
func (l Locale) Prose(words string) string {
	if !l.Imperial {
		return words
	}
	return inProse.ReplaceAllStringFunc(words, func(measure string) string {
		number, unit, _ := strings.Cut(measure, " ")
		n, err := strconv.ParseFloat(number, 64)
		if err != nil {
			return measure
		}
		return l.whole(map[string]Unit{"cm": Centimetre, "°C": Celsius, "mm": Millimetre}[unit], n)
	})
}

// Exact writes a measure with the digits that it has.
func (l Locale) Exact(u Unit, n float64) string { return l.Number(u, n) + " " + l.Name(u) }

// Range writes two measures of a kind, to the whole unit: "12 to 20 °C".
func (l Locale) Range(u Unit, low, high float64) string {
	return places(l.number(u, low), 0) + " to " + l.whole(u, high)
}

// Money writes a sum in the farm's currency.
func (s *Snapshot) Money(sum float64) string {
	place, err := s.Book.Place()
	if err != nil {
		return "" // a snapshot was made of it, so it is sound
	}
	return strings.TrimSpace(fmt.Sprintf("%.2f %s", sum, place.Currency))
}
