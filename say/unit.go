package say

import (
	"math"
	"regexp"
	"strconv"
	"strings"
)

// A Unit is what a measure is kept in.
type Unit int

// The units that have another beside them for who reads imperial ones.
const (
	NoUnit     Unit = iota
	Celsius         // °F
	Centimetre      // in
	Metre           // ft
	Millimetre      // in
)

const (
	cmAnInch = 2.54
	mmAnInch = 25.4
	mAFoot   = 0.3048
)

// units says of each its suffix in names of fields, its two names, and how many digits behind the point it usually has.
var units = map[Unit]struct {
	suffix, metric, imperial string
	digits                   int
}{
	Celsius:    {"c", "°C", "°F", 1},
	Centimetre: {"cm", "cm", "in", 1},
	Metre:      {"m", "m", "ft", 2},
	Millimetre: {"mm", "mm", "in", 1},
}

// unitEnd finds the unit that ends a field's name, or the part of it before a point: stem_cm.first.
var unitEnd = regexp.MustCompile(`_(cm|mm|m|c)(\.|$)`)

// UnitOf returns the unit that a field's name ends with.
func UnitOf(name string) Unit {
	if end := unitEnd.FindStringSubmatch(name); end != nil {
		for u, about := range units {
			if about.suffix == end[1] {
				return u
			}
		}
	}
	return NoUnit
}

// Name writes a unit.
func (l Locale) Name(u Unit) string {
	if l.Imperial {
		return units[u].imperial
	}
	return units[u].metric
}

// number turns a metric measure into what is read.
// places writes a number to so many decimal places, and nought without a sign.
func places(n float64, decimals int) string {
	text := strconv.FormatFloat(n, 'f', decimals, 64)
	if strings.Trim(text, "-0.") == "" {
		return strings.TrimPrefix(text, "-")
	}
	return text
}

func (l Locale) number(u Unit, n float64) float64 {
	if !l.Imperial {
		return n
	}
	switch u {
	case Celsius:
		return n*9/5 + 32
	case Centimetre:
		return n / cmAnInch
	case Metre:
		return n / mAFoot
	case Millimetre:
		return n / mmAnInch
	}
	return n
}

// finer is from how many digits behind the point on a number that was typed is meant to be finer than usual, and by how many digits it is.
const (
	finer       = 4
	finerDigits = 3
)

// metric turns what was typed into a metric measure, with as many digits as it usually has.
func (l Locale) metric(u Unit, typed string) (float64, bool) {
	n, err := strconv.ParseFloat(typed, 64)
	if err != nil || math.IsNaN(n) || math.IsInf(n, 0) {
		return 0, false
	}
	digits := units[u].digits
	if _, behind, _ := strings.Cut(typed, "."); len(behind) >= finer {
		digits += finerDigits
	}
	switch u {
	case Celsius:
		n = (n - 32) * 5 / 9
	case Centimetre:
		n *= cmAnInch
	case Metre:
		n *= mAFoot
	case Millimetre:
		n *= mmAnInch
	}
	n, _ = strconv.ParseFloat(strconv.FormatFloat(n, 'f', digits, 64), 64) // what is written reads back
	return n, true
}

// Number writes a metric measure as it is read, with as few digits as read back to the same.
func (l Locale) Number(u Unit, n float64) string {
	if !l.Imperial || u == NoUnit {
		return plain(n)
	}
	read := l.number(u, n)
	const most = finer + finerDigits + 1
	for digits := range most {
		text := strconv.FormatFloat(read, 'f', digits, 64)
		if back, ok := l.metric(u, text); ok && back == n {
			return text
		}
	}
	return strconv.FormatFloat(read, 'f', most, 64)
}

// plain writes a number with as few digits as read back to the same.
func plain(n float64) string { return strconv.FormatFloat(n, 'f', -1, 64) }

// Out writes the numbers of a field as they are read: those of a field whose name ends with a unit, one or several parted by blanks.
func (l Locale) Out(name, text string) string {
	u := UnitOf(name)
	return l.each(u, text, func(word string) (string, bool) {
		n, err := strconv.ParseFloat(word, 64)
		return l.Number(u, n), err == nil && !math.IsNaN(n) && !math.IsInf(n, 0)
	})
}

// In turns what was typed into a field into its metric numbers. What is no number stays as it was typed.
func (l Locale) In(name, typed string) string {
	u := UnitOf(name)
	return l.each(u, typed, func(word string) (string, bool) {
		n, ok := l.metric(u, word)
		return plain(n), ok
	})
}

// each turns every word of a measure into another; as soon as one is no number, all of it stays as it is.
func (l Locale) each(u Unit, text string, turn func(string) (string, bool)) string {
	if !l.Imperial || u == NoUnit {
		return text
	}
	words := strings.Fields(text)
	for i, w := range words {
		turned, ok := turn(w)
		if !ok {
			return text
		}
		words[i] = turned
	}
	return strings.Join(words, " ")
}

// Write writes a measure of a field, whose name ends with its unit.
func (l Locale) Write(name string, n float64) string { return l.Number(UnitOf(name), n) }

// UnitOf names the unit of a field, as it is read.
func (l Locale) UnitOf(name string) string { return l.Name(UnitOf(name)) }

// Label writes the label of a field, whose unit stands at its end where it has one: "Length in cm".
func (l Locale) Label(name, label string) string {
	u := UnitOf(name)
	if !l.Imperial || u == NoUnit {
		return label
	}
	return strings.Replace(label, " in "+units[u].metric, " in "+units[u].imperial, 1)
}
