package review

import (
	"cmp"
	"slices"
	"sort"

	"dewcount/core/day"
)

// Stems are stems of one crop that were cut on a day and can be sold from the next on, through the last on which they still serve.
type Stems struct {
	Cut, Last day.Day
	Number    int
}

// A Due is what is wanted of a crop on a day, what a stem brings, and what each that is missing of a promise costs beside it.
type Due struct {
	On             day.Day
	Wanted         int
	Price, Penalty float64
}

// Worth is what so many stems of a due are worth, in its currency: what is missing of a promise is taken off.
func (d *Due) Worth(filled int) float64 {
	return d.Price*float64(filled) - d.Penalty*float64(d.Wanted-filled)
}

// Serve returns how many stems each due gets where they are given out as well as can be. Who takes which stems is a matching of days and of stretches of days, so that
// those that last shortest go first (Glover 1967, Naval Res. Logist. Quart. 14:313-316), and dues can be filled in the order of what a stem is worth to them (what can be filled together is a
// matroid: Edmonds & Fulkerson 1965, J. Res. NBS 69B:147-153).
func Serve(stems []Stems, dues []Due) []int {
	stems = slices.Clone(stems)
	slices.SortFunc(stems, func(a, b Stems) int { return cmp.Or(a.Last.Compare(b.Last), a.Cut.Compare(b.Cut)) })
	byWorth, byDay := order(dues), order(dues)
	slices.SortStableFunc(byWorth, func(a, b int) int {
		return cmp.Or(cmp.Compare(dues[b].Price+dues[b].Penalty, dues[a].Price+dues[a].Penalty), dues[a].On.Compare(dues[b].On))
	})
	slices.SortStableFunc(byDay, func(a, b int) int { return dues[a].On.Compare(dues[b].On) })
	filled, left := make([]int, len(dues)), make([]int, len(stems))
	fits := func() bool {
		for i := range stems {
			left[i] = stems[i].Number
		}
		for _, d := range byDay {
			need := filled[d]
			for i := 0; i < len(stems) && need > 0; i++ {
				if stems[i].Cut.Before(dues[d].On) && !stems[i].Last.Before(dues[d].On) {
					n := min(need, left[i])
					left[i], need = left[i]-n, need-n
				}
			}
			if need > 0 {
				return false
			}
		}
		return true
	}
	for _, d := range byWorth {
		filled[d] = dues[d].Wanted
		if fits() {
			continue
		}
		filled[d] = sort.Search(dues[d].Wanted+1, func(n int) bool {
			filled[d] = n
			return !fits()
		}) - 1
	}
	return filled
}

func order(dues []Due) []int {
	all := make([]int, len(dues))
	for i := range all {
		all[i] = i
	}
	return all
}
