package market

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
	"time"

	"dewcount/core/day"
)

var (
	number   = regexp.MustCompile(`[-−]?\b\d{1,5}\b`)
	counted  = regexp.MustCompile(`(?i)\b(a dozen|dozen|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|fifteen|twenty|thirty|forty|fifty|sixty|eighty|hundred)\b`)
	isoDate  = regexp.MustCompile(`\b\d{4}-\d{2}-\d{2}\b`)
	spoken   = regexp.MustCompile(`(?i)\b(\d{1,2})(?:st|nd|rd|th)?\.?\s*(?:of\s+)?(jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\b|\b(jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\s*(\d{1,2})(?:st|nd|rd|th)?\b`)
	weekday  = regexp.MustCompile(`(?i)\b(mon|tues|wednes|thurs|fri|satur|sun)day\b|\b(mon|tue|wed|thu|fri|sat|sun)\b`)
	clock    = regexp.MustCompile(`(?i)\b\d{1,2}([:.]\d{2})?\s*(am\b|pm\b|a\.m\.|p\.m\.|o'clock|h\b)|\b\d{1,2}:\d{2}\b`)
	tomorrow = regexp.MustCompile(`(?i)\btomorrow\b`)
)

var counts = map[string]int{"a dozen": 12, "dozen": 12, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9, "ten": 10, "eleven": 11, "twelve": 12,
	"fifteen": 15, "twenty": 20, "thirty": 30, "forty": 40, "fifty": 50, "sixty": 60, "eighty": 80, "hundred": 100}

// NumberIn reads the first number out of what was said, in figures before words, and returns the rest; 0 where there is none.
func NumberIn(said string) (int, string) {
	if m := number.FindString(said); m != "" {
		n, _ := strconv.Atoi(m) // a minus of another sort is no number, and none is wanted below nothing
		return n, strings.Replace(said, m, " ", 1)
	}
	if m := counted.FindString(said); m != "" {
		return counts[strings.ToLower(m)], strings.Replace(said, m, " ", 1)
	}
	return 0, said
}

// DayIn reads a day out of what was said, and returns the rest: a date, a day and a month, the next such weekday, tomorrow. It is zero where there is none.
func DayIn(said string, today day.Day) (day.Day, string) {
	if m := isoDate.FindString(said); m != "" {
		if d, err := day.Parse(m); err == nil {
			return d, strings.Replace(said, m, " ", 1)
		}
	}
	if m := spoken.FindStringSubmatch(said); m != nil {
		date, _ := strconv.Atoi(m[1] + m[4])
		month, err := time.Parse("Jan", strings.ToUpper((m[2] + m[3])[:1])+strings.ToLower((m[2] + m[3])[1:]))
		year, _, _ := today.Date()
		for _, y := range []int{year, year + 1} {
			if d, wrong := day.Parse(fmt.Sprintf("%04d-%02d-%02d", y, int(month.Month()), date)); err == nil && wrong == nil && !d.Before(today) {
				return d, strings.Replace(said, m[0], " ", 1)
			}
		}
	}
	if m := tomorrow.FindString(said); m != "" {
		return today.Add(1), strings.Replace(said, m, " ", 1)
	}
	if m := weekday.FindString(said); m != "" {
		for n := 1; n <= 7; n++ {
			if d := today.Add(n); strings.EqualFold(d.Weekday().String()[:3], m[:3]) {
				return d, strings.Replace(said, m, " ", 1)
			}
		}
	}
	return day.Day{}, said
}
