package farm

import (
	"cmp"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"dewcount/core/day"
)

// Walk returns the ids of the plantings that stand on a day in the order in which somebody walks along them: bed after bed by their
// names, then by their place in the bed. What has no bed comes last.
func (b *Book) Walk(on day.Day) []string {
	var standing []Planting
	for _, p := range b.Plantings {
		if !p.StartedOn.After(on) && (p.EndedOn.IsZero() || p.EndedOn.After(on)) {
			standing = append(standing, p)
		}
	}
	slices.SortStableFunc(standing, func(x, y Planting) int {
		switch {
		case (x.Bed == "") != (y.Bed == ""):
			return strings.Compare(y.Bed, x.Bed)
		case x.Bed != y.Bed:
			return compareCounted(x.Bed, y.Bed)
		case x.Squares != y.Squares:
			return compareCounted(x.Squares, y.Squares)
		}
		return compareCounted(x.ID, y.ID)
	})
	ids := make([]string, len(standing))
	for i, p := range standing {
		ids[i] = p.ID
	}
	return ids
}

// compareCounted compares names as people count: Bed 2 comes before Bed 10.
func compareCounted(a, b string) int {
	for a != "" && b != "" {
		x, restA := counted(a)
		y, restB := counted(b)
		i, errA := strconv.Atoi(x)
		j, errB := strconv.Atoi(y)
		order := strings.Compare(x, y)
		if errA == nil && errB == nil {
			order = cmp.Compare(i, j)
		}
		if order != 0 {
			return order
		}
		a, b = restA, restB
	}
	return cmp.Compare(len(a), len(b))
}

// counted parts the digits in front of a name, or the letters, from the rest.
func counted(s string) (part, rest string) {
	first := true
	digits := false
	for i, r := range s {
		if first {
			digits, first = unicode.IsDigit(r), false
		}
		if unicode.IsDigit(r) != digits {
			return s[:i], s[i:]
		}
	}
	return s, ""
}
