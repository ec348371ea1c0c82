package say

import (
	"fmt"

	"dewcount/core/day"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// Gifts says which stems a line is given: of which row, cut when, or standing where.
func Gifts(l Locale, s *look.Snapshot, gifts []market.Gift) []string {
	type from struct {
		planting int
		pick     day.Day
		place    string
		lot      bool
		early    bool
		kept     bool
	}
	stems := make(map[from]int)
	var order []from
	for _, g := range gifts {
		f := from{g.Planting, g.Pick, g.Place, g.Lot != "", g.Early, g.KeptFor != ""}
		if f.lot {
			f.planting = -1
		}
		if stems[f] == 0 {
			order = append(order, f)
		}
		stems[f] += g.Stems
	}
	var words []string
	for _, f := range order {
		switch {
		case f.kept:
			words = append(words, fmt.Sprintf("%d kept for it", stems[f]))
		case f.lot && f.place == "":
			words = append(words, fmt.Sprintf("%d that are cut", stems[f]))
		case f.lot:
			words = append(words, fmt.Sprintf("%d that stand in %s", stems[f], f.place))
		case f.early:
			words = append(words, fmt.Sprintf("%d of %s, cut tight on %s", stems[f], s.Model.Plantings[f.planting].ID, l.Date(f.pick)))
		default:
			words = append(words, fmt.Sprintf("%d of %s, cut on %s", stems[f], s.Model.Plantings[f.planting].ID, l.Date(f.pick)))
		}
	}
	return words
}
