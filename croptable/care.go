package croptable

import (
	"slices"
	"strings"

	"dewcount/core/crop"
)

// The table has no field for feeding and for beetles: they stand in its sentences of care and in its list of pests, which are read here alone.

// feeding returns how a crop's care says that it is fed.
func (e *Entry) feeding() crop.Feeding {
	for _, sentence := range e.Care {
		said := strings.ToLower(sentence)
		switch {
		case !strings.Contains(said, "feed"), strings.Contains(said, "feed little"), strings.Contains(said, "feed only on poor soil"):
		case strings.Contains(said, "every three weeks"):
			return crop.WeeksFeed
		default:
			return crop.SpringFeed
		}
	}
	return crop.NoFeed
}

// hasBeetles tells whether beetles are among a crop's pests.
func (e *Entry) hasBeetles() bool {
	return slices.ContainsFunc(e.Pests, func(pest string) bool { return strings.Contains(pest, "beetle") })
}
