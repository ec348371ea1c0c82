package find

import (
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"

	"dewcount/core/day"
)

// A Query is what somebody asks for: documents that hold all of some words, or words that begin so, of some days.
type Query struct {
	Words    []string
	From, To day.Day // zero for any day
}

// idle are words of a question that say nothing of what is looked for.
var idle = strings.Fields("a about an all and any are around at be did do does for from had has have how i in is it its last me my note notes of on or our said season show that the there they this to us was we were what when where which who why with wrote write written year")

// Ask reads a question in the words of people: "what did we write about the white dahlia last August?" asks for white and dahlia, in the last August before a day.
// A year is that year; last year, this year, yesterday and today are what they are.
func Ask(question string, today day.Day) Query {
	var q Query
	words := strings.FieldsFunc(strings.ToLower(question), func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsMark(r) && !unicode.IsDigit(r) })
	year, month := 0, time.Month(0)
	for i, w := range words {
		before := ""
		if i > 0 {
			before = words[i-1]
		}
		switch n, err := strconv.Atoi(w); {
		case err == nil && n >= 1990 && n <= 2200:
			year = n
		case w == "year" && before == "last":
			year = today.Midnight().Year() - 1
		case w == "year" && before == "this":
			year = today.Midnight().Year()
		case w == "yesterday":
			q.From, q.To = today.Add(-1), today.Add(-1)
		case w == "today":
			q.From, q.To = today, today
		case monthOf(w, before) != 0:
			month = monthOf(w, before)
		case !slices.Contains(idle, w) && !slices.Contains(q.Words, w):
			q.Words = append(q.Words, w)
		}
	}
	switch {
	case month != 0:
		if year == 0 {
			if year = today.Midnight().Year(); month > today.Midnight().Month() {
				year-- // the last that was
			}
		}
		q.From = day.Of(year, month, 1)
		q.To = day.Of(year, month+1, 1).Add(-1)
	case year != 0:
		q.From, q.To = day.Of(year, 1, 1), day.Of(year, 12, 31)
	}
	return q
}

// monthOf returns the month that a word names, 0 for none; "may" and "march" are verbs as well, unless something before them says otherwise.
func monthOf(word, before string) time.Month {
	for m := time.January; m <= time.December; m++ {
		name := strings.ToLower(m.String())
		if word == name || len(word) == 3 && strings.HasPrefix(name, word) {
			verb := word == "may" || word == "march" || word == "mar"
			if !verb || slices.Contains([]string{"in", "last", "this", "of", "early", "late", "mid"}, before) {
				return m
			}
		}
	}
	return 0
}

// IsEmpty tells whether nothing is asked for.
func (q Query) IsEmpty() bool { return len(q.Words) == 0 && q.From.IsZero() }

// Match writes the words as SQLite's full-text index asks for them: each as the beginning of a word, all of them. The plural of a word finds its singular too.
func (q Query) Match() string {
	var parts []string
	for _, w := range q.Words {
		stem := w
		if runes := []rune(w); len(runes) > 4 {
			stem = strings.TrimSuffix(strings.TrimSuffix(w, "s"), "ie")
		}
		parts = append(parts, `"`+stem+`"*`) // its letters and digits alone
	}
	return strings.Join(parts, " AND ")
}
