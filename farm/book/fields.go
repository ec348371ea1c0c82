package book

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"dewcount/core/day"
	"dewcount/fault"
)

// Fields reads one record from text, as a notebook's line or a form hands it over, and gathers what is wrong with it.
type Fields struct {
	get    func(name string) string
	faults fault.List
	as     Measures // of who reads the faults
	kept   bool     // what is read is on record already: what a rule of today refuses is read all the same
}

// NewFields returns a reader of fields by name; a field that is missing reads as empty.
func NewFields(get func(name string) string) *Fields { return &Fields{get: get, as: metric{}} }

// Measures is how somebody reads the measures of fields, whose names end with their unit.
type Measures interface {
	Write(name string, n float64) string
	UnitOf(name string) string
}

// metric is Measures as they are kept.
type metric struct{}

func (metric) Write(_ string, n float64) string { return Decimal(n) }

func (metric) UnitOf(name string) string {
	if strings.HasSuffix(name, "_c") {
		return "°C"
	}
	return ""
}

// For has the faults written for somebody who reads measures in a way of their own.
func (f *Fields) For(m Measures) *Fields {
	f.as = m
	return f
}

// measure writes a measure of a field, with its unit.
func (f *Fields) measure(name string, n float64) string {
	return f.as.Write(name, n) + " " + f.as.UnitOf(name)
}

// Fault notes that a field is wrong.
func (f *Fields) Fault(name, advice string, args ...any) {
	if f.kept {
		return
	}
	f.faults = append(f.faults, fault.InField{Field: name, Advice: fmt.Sprintf(advice, args...)})
}

// Faults returns what was wrong so far, nil if nothing.
func (f *Fields) Faults() error { return f.faults.OrNil() }

func (f *Fields) Raw(name string) string { return strings.TrimSpace(f.get(name)) }

// most is how long a text may be.
const (
	longestName = 80
	longestNote = 2000
	longestID   = 400 // ids hold names
)

// Text returns a field that may be empty.
func (f *Fields) Text(name string) string { return f.text(name, longestName) }

// Note returns a longer text that may be empty, with line ends as LF.
func (f *Fields) Note(name string) string {
	return strings.ReplaceAll(strings.ReplaceAll(f.text(name, longestNote), "\r\n", "\n"), "\r", "\n")
}

// text returns a field of so many letters at the most. What no keyboard makes is refused here for all of them: a text that is no UTF-8, and
// signs that a reader cannot see but that change what stands beside them.
func (f *Fields) text(name string, longest int) string {
	s := f.Raw(name)
	switch {
	case !utf8.ValidString(s):
		f.Fault(name, "this is not text as it is written today: type it again")
	case strings.ContainsFunc(s, func(r rune) bool { return unseen(r) && !(longest == longestNote && strings.ContainsRune("\n\r\t", r)) }):
		f.Fault(name, "this holds a sign that cannot be seen, such as a line end or a tab: type it again")
	}
	if len([]rune(s)) > longest {
		f.Fault(name, "this is longer than %d letters: shorten it", longest)
	}
	return s
}

// unseen tells whether a sign is one that no text needs: control characters, and those that turn the direction of what follows.
func unseen(r rune) bool {
	return unicode.IsControl(r) || r >= 0x202a && r <= 0x202e || r >= 0x2066 && r <= 0x2069
}

// Key returns the name that a record is known by, in addresses too; what says what is wanted. It must not be empty, nor one that an address
// means something else by, nor hold the bar that parts the names in a key.
func (f *Fields) Key(name, what string) string {
	s := f.Name(name, what)
	f.address(name, s)
	return s
}

// ID is Key for an id, which may be empty and is given to a record that is not named by a person.
func (f *Fields) ID(name string) string {
	s := f.text(name, longestID)
	f.address(name, s)
	return s
}

func (f *Fields) address(name, s string) {
	switch {
	case s == "." || s == ".." || strings.EqualFold(s, "new"):
		f.Fault(name, "nothing can be called %q, since its page could not be found: add a word or a number", s)
	case strings.Contains(s, "|"):
		f.Fault(name, "an upright bar cannot stand in a name: write a hyphen or a slash")
	}
}

// Name returns a field that must not be empty; what says what is wanted.
func (f *Fields) Name(name, what string) string {
	s := f.Text(name)
	if s == "" {
		f.Fault(name, "%s is missing: write it here", what)
	}
	return s
}

// Word returns a field that must be one of some words; empty where that is one of them.
func (f *Fields) Word(name string, words ...string) string {
	s := f.Raw(name)
	if !slices.Contains(words, s) {
		named := slices.DeleteFunc(slices.Clone(words), func(w string) bool { return w == "" })
		f.Fault(name, "%q is not known here: write one of %s", s, strings.Join(named, ", "))
	}
	return s
}

// Number returns a number within low and high, which must be there.
func (f *Fields) Number(name string, low, high float64) float64 {
	if n := f.OptNumber(name, low, high); n != nil {
		return *n
	}
	if f.Raw(name) == "" {
		f.Fault(name, "a number is missing: write one from %s to %s", f.as.Write(name, low), f.as.Write(name, high))
	}
	return 0
}

// OptNumber returns a number within low and high, nil where the field is empty.
func (f *Fields) OptNumber(name string, low, high float64) *float64 {
	s := f.Raw(name)
	if s == "" {
		return nil
	}
	n, err := strconv.ParseFloat(s, 64)
	if err != nil || math.IsNaN(n) || math.IsInf(n, 0) {
		f.Fault(name, "%q is no number: write it with a decimal point, such as 12.5", s)
		return nil
	}
	if !(low <= n && n <= high) {
		f.Fault(name, "%s is out of reason: write a number from %s to %s", f.as.Write(name, n), f.as.Write(name, low), f.as.Write(name, high))
		if !f.kept {
			return nil
		}
	}
	if n == 0 {
		n = 0 // a minus zero would be written as one
	}
	return &n
}

// Whole returns a whole number within low and high, which must be there.
func (f *Fields) Whole(name string, low, high int) int {
	if n := f.OptWhole(name, low, high); n != nil {
		return *n
	}
	if f.Raw(name) == "" {
		f.Fault(name, "a number is missing: write a whole one from %d to %d", low, high)
	}
	return 0
}

// OptWhole returns a whole number within low and high, nil where the field is empty.
func (f *Fields) OptWhole(name string, low, high int) *int {
	s := f.Raw(name)
	if s == "" {
		return nil
	}
	n, err := strconv.Atoi(s)
	if err != nil {
		f.Fault(name, "%q is no whole number: write one from %d to %d", s, low, high)
		return nil
	}
	if n < low || n > high {
		f.Fault(name, "%d is out of reason: write a whole number from %d to %d", n, low, high)
		if !f.kept {
			return nil
		}
	}
	return &n
}

// The years within which a date can be a farm's: beyond them it is a slip of the pen.
const (
	firstYear = 1950
	lastYear  = 2199
)

// Day returns a date, which must be there.
func (f *Fields) Day(name string) day.Day {
	d := f.OptDay(name)
	if d.IsZero() && f.Raw(name) == "" {
		f.Fault(name, "a date is missing: write it as 2026-07-11")
	}
	return d
}

// OptDay returns a date, the zero Day where the field is empty.
func (f *Fields) OptDay(name string) day.Day {
	s := f.Raw(name)
	if s == "" {
		return day.Day{}
	}
	d, err := day.Parse(s)
	if err != nil {
		f.Fault(name, "%v", err)
		return day.Day{}
	}
	f.inYears(name, d)
	return d
}

func (f *Fields) inYears(name string, d day.Day) {
	if year, _, _ := d.Date(); year < firstYear || year > lastYear {
		f.Fault(name, "the year %d is out of reason: write one from %d to %d", year, firstYear, lastYear)
	}
}

// Moment returns a date or date-time, which must be there.
func (f *Fields) Moment(name string) day.Moment {
	s := f.Raw(name)
	if s == "" {
		f.Fault(name, "a date is missing: write it as 2026-07-11 or 2026-07-11T06:20")
		return day.Moment{}
	}
	m, err := day.ParseMoment(s)
	if err != nil {
		f.Fault(name, "%v", err)
		return day.Moment{}
	}
	f.inYears(name, m.Day())
	return m
}

// Decimal writes a number with as few digits as read back to the same.
func Decimal(n float64) string { return strconv.FormatFloat(n, 'f', -1, 64) }

func optDecimal(n *float64) string {
	if n == nil {
		return ""
	}
	return Decimal(*n)
}

func optWhole(n *int) string {
	if n == nil {
		return ""
	}
	return strconv.Itoa(*n)
}
