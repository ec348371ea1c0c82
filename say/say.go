package say

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"golang.org/x/text/runes"
	"golang.org/x/text/transform"
	"golang.org/x/text/unicode/norm"
)

// Compass names a direction in degrees.
func Compass(deg float64) string {
	names := []string{"north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west"}
	return names[int(math.Round(deg/45))%8]
}

// Plain writes a text without capitals and accents, so that lowenmaul finds Löwenmaul.
func Plain(s string) string {
	bare := transform.Chain(norm.NFD, runes.Remove(runes.In(unicode.Mn)), norm.NFC)
	out, _, err := transform.String(bare, s)
	if err != nil {
		out = s
	}
	return strings.ToLower(strings.ReplaceAll(out, "ß", "ss"))
}

func Number(n int, of string) string {
	if n == 1 {
		return "1 " + of
	}
	if strings.HasSuffix(of, "ch") {
		of += "e" // bunches
	}
	return fmt.Sprintf("%d %ss", n, of)
}

// Sentence makes a sentence of words: a capital in front, a full stop behind.
func Sentence(words string) string {
	first, size := utf8.DecodeRuneInString(words)
	if size == 0 {
		return ""
	}
	words = string(unicode.ToUpper(first)) + words[size:]
	if !strings.HasSuffix(words, ".") && !strings.HasSuffix(words, "?") {
		words += "."
	}
	return words
}

func Days(n int) string {
	if n == 1 {
		return "1 day"
	}
	return fmt.Sprintf("%d days", n)
}

// SpokenHours says minutes as growers do: in quarters of an hour.
func SpokenHours(minutes float64) string {
	if minutes < 53 {
		return fmt.Sprintf("%.0f min", math.Max(5, 5*math.Round(minutes/5)))
	}
	quarters := int(math.Round(minutes / 15))
	part := []string{"", "¼", "½", "¾"}[quarters%4]
	if quarters == 4 {
		return "1 hour"
	}
	return fmt.Sprintf("%d%s hours", quarters/4, part)
}

// Ordinal writes the place of something in a row.
func Ordinal(n int) string {
	words := []string{"", "", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth", "tenth"}
	if n < len(words) && words[n] != "" {
		return words[n]
	}
	switch {
	case n%10 == 1 && n%100 != 11:
		return fmt.Sprintf("%dst", n)
	case n%10 == 2 && n%100 != 12:
		return fmt.Sprintf("%dnd", n)
	case n%10 == 3 && n%100 != 13:
		return fmt.Sprintf("%drd", n)
	}
	return fmt.Sprintf("%dth", n)
}

// Tenths says a chance as growers do.
func Tenths(chance float64) string {
	switch n := int(math.Round(10 * chance)); {
	case chance >= 0.985:
		return "as good as certain"
	case n <= 1:
		return "1 time in 10 or less"
	default:
		return fmt.Sprintf("%d times in 10", min(9, n))
	}
}

// Stems writes a number of stems.
func Stems(n int) string {
	if n == 1 {
		return "1 stem"
	}
	return strconv.Itoa(n) + " stems"
}

// Or writes names of which one is meant.
func Or(names []string) string { return list(names, "or") }

// List writes names as a sentence does.
func List(names []string) string { return list(names, "and") }

// list sets semicolons where a name has a comma itself, as the names of many crops have.
func list(names []string, last string) string {
	if len(names) < 2 {
		return strings.Join(names, "")
	}
	between, before := ", ", " "
	if slices.ContainsFunc(names, func(name string) bool { return strings.Contains(name, ", ") }) {
		between = "; "
		if len(names) > 2 {
			before = between
		}
	}
	end := len(names) - 1
	return strings.Join(names[:end], between) + before + last + " " + names[end]
}

// Bounds says how many stems there will be, as growers do.
func Bounds(sure, likely, best int) string {
	switch {
	case best == 0:
		return "none"
	case sure == best:
		return fmt.Sprintf("%d sure", sure)
	default:
		return fmt.Sprintf("%d sure, %d likely, %d at best", sure, likely, best)
	}
}

// InBed names a bed in a sentence: "bed 3", and "Bed 3" where it is called so.
func InBed(id string) string {
	const word = "bed"
	if len(id) >= len(word) && strings.EqualFold(id[:len(word)], word) {
		return id
	}
	return word + " " + id
}
