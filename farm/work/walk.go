package work

import (
	"slices"
	"strings"

	"dewcount/core/day"
	"dewcount/farm/book"

	"github.com/maruel/natural"
)

// Walk returns the ids of the plantings that stand on a day in the order in which somebody walks along them: bed after bed by their
// names, then by their place in the bed. What has no bed comes last.
func Walk(b *book.Book, on day.Day) []string {
	var standing []book.Planting
	for _, p := range b.Plantings {
		if !p.StartedOn.After(on) && (p.EndedOn.IsZero() || p.EndedOn.After(on)) {
			standing = append(standing, p)
		}
	}
	slices.SortStableFunc(standing, func(x, y book.Planting) int {
		switch {
		case (x.Bed == "") != (y.Bed == ""):
			return strings.Compare(y.Bed, x.Bed)
		case x.Bed != y.Bed:
			return natural.Compare(x.Bed, y.Bed)
		case x.Squares != y.Squares:
			return natural.Compare(x.Squares, y.Squares)
		}
		return natural.Compare(x.ID, y.ID)
	})
	ids := make([]string, len(standing))
	for i, p := range standing {
		ids[i] = p.ID
	}
	return ids
}
