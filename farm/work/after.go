package work

import (
	"math"

	"dewcount/core/crop"
	"dewcount/farm/look"
)

// After is what a pick leaves to do once its stems are cut.
type After struct {
	Deadhead []RowStems // rows that are not on the sheet and carry heads that have gone over
	Past     []int      // rows that stand in bloom no longer: nothing more is to come
	Surplus  []Surplus  // stems that nobody has asked for, by crop
}

// RowStems is so many stems of a planting.
type RowStems struct{ Planting, Stems int }

// A Surplus is stems of a crop that nobody has asked for.
type Surplus struct {
	Crop  *crop.Profile
	Stems int
	Dries bool // they can be hung to dry
}

// fewGone is how many heads are worth a stop on the way back.
const fewGone = 5

// After returns what is left to do after a sheet's cut.
func (s *Sheet) After(on *look.Snapshot) After {
	var a After
	listed := make(map[int]bool)
	for _, r := range s.Rows {
		listed[r.Planting] = true
		a.add(on.Model.Plantings[r.Planting].Growth.Profile, r.Spare)
	}
	if s.Pick.Sub(on.View.Today) > soon {
		return a
	}
	for _, id := range Walk(on.Book, s.Pick) {
		i := on.Index(id)
		if i < 0 || listed[i] || on.Stand.Dead(i) {
			continue
		}
		standing := on.Stand.Standing(i)
		gone := int(math.Round(standing.Rungs[crop.Over] + standing.Rungs[crop.Spent]))
		switch {
		case standing.Finished() && gone > 0:
			a.Past = append(a.Past, i)
		case gone >= fewGone:
			a.Deadhead = append(a.Deadhead, RowStems{i, gone})
		}
	}
	return a
}

func (a *After) add(p *crop.Profile, stems int) {
	if stems == 0 {
		return
	}
	for k := range a.Surplus {
		if a.Surplus[k].Crop == p {
			a.Surplus[k].Stems += stems
			return
		}
	}
	_, dries := p.Cut[crop.Drying]
	a.Surplus = append(a.Surplus, Surplus{p, stems, dries})
}
