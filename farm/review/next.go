package review

import (
	"cmp"
	"math"
	"slices"
)

// A Change is what a year says should be done otherwise in the next.
type Change int

// What can be done otherwise, what matters most first.
const (
	FewerPlants Change = iota // much of what was cut went to nobody
	MorePlants                // clearly fewer stems came than were expected
	LessCulled                // much was thrown away at the cut, for one cause
	SowEarlier                // it came later than was thought possible
	SowLater                  // it came sooner
	DropIt                    // next to nothing of it was sold
)

// An Advice is a change for a crop or, where dates are meant, a planting, with what it rests on.
type Advice struct {
	Change
	Crop, Planting string
	Days           int     // to sow earlier or later
	Part           float64 // of the plants: 1.2 is a fifth more
	Cause          string  // for which it was thrown away
	Share          float64 // that was thrown away or went to nobody
	Stems          int     // that the advice rests on
}

// From what on a year says something: what is less is chance.
const (
	fewStems   = 30   // of a crop, and nothing is said of it
	muchLost   = 0.35 // of what is accounted for
	allLost    = 0.75
	muchCulled = 0.12
	leastDays  = 5
	mostPart   = 1.5 // nobody should plant by one year more than half as many again, or fewer than two thirds
)

// Next returns what a year says for the next, what matters most first.
func (l *Looked) Next() []Advice {
	var all []Advice
	for i := range l.Crops {
		c := &l.Crops[i]
		all = append(all, l.ofFates(c)...)
		if part, beyond := c.Part(); l.Over && beyond && part < 1 && c.Expected[2] >= fewStems && !slices.ContainsFunc(all, func(a Advice) bool { return a.Crop == c.Crop }) {
			all = append(all, Advice{Change: MorePlants, Crop: c.Crop, Part: min(mostPart, 1/max(part, 0.1)), Stems: c.Stems})
		}
		thrown := c.Thrown()
		if why := c.Reasons(); len(why) > 0 && c.Stems+thrown >= fewStems && float64(thrown) >= muchCulled*float64(c.Stems+thrown) {
			all = append(all, Advice{Change: LessCulled, Crop: c.Crop, Cause: why[0], Share: float64(thrown) / float64(c.Stems+thrown), Stems: thrown})
		}
	}
	for i := range l.Plantings {
		c := &l.Plantings[i]
		if days, beyond := c.Late(); !c.Lasts && beyond && max(days, -days) >= leastDays && c.Stems >= fewStems {
			a := Advice{Change: SowEarlier, Crop: c.Crop, Planting: c.Planting, Days: days, Stems: c.Stems}
			if days < 0 {
				a.Change, a.Days = SowLater, -days
			}
			all = append(all, a)
		}
	}
	slices.SortStableFunc(all, func(a, b Advice) int {
		return cmp.Or(cmp.Compare(a.Change, b.Change), cmp.Compare(b.Stems, a.Stems))
	})
	return all
}

// ofFates returns what is said by what became of a crop's stems.
func (l *Looked) ofFates(c *Came) []Advice {
	of := c.Fates.Sold + c.Fates.MadeUp + c.Fates.Lost // what still stands there may yet be sold
	if of < fewStems {
		return nil
	}
	lost := float64(c.Fates.Lost) / float64(of)
	switch {
	case lost >= allLost:
		return []Advice{{Change: DropIt, Crop: c.Crop, Share: lost, Stems: of}}
	case lost >= muchLost:
		return []Advice{{Change: FewerPlants, Crop: c.Crop, Part: math.Max(1/mostPart, 1-lost), Share: lost, Stems: of}}
	}
	return nil
}
