package evidence

import (
	"math"

	"dewcount/core/growth"
)

// An item is one number on record beside what the model expects: first stems of the first flush for each unit of the stems
// trait, then those that recorded cuts set off for each unit of the regrow trait.
type item struct {
	first, regrown float64
	seen           float64
	size           float64 // of the negative binomial
	weight         float64
	atLeast        bool   // only a lower bound was seen
	who            string // counted it; nobody for a cut
}

// A walk is what a planting's records hold against one pace and spread: the items, and the log likelihood of its dates.
type walk struct {
	items []item
	dates float64
}

// expect walks through the planting's story at the pace and with the spread of traits, and returns the items on record and the log
// likelihood of its dates.
func (p *Planting) expect(story []episode, of growth.Traits) ([]item, float64) {
	of.Stems, of.Regrow = 1, 1
	first := p.Course.NewRun(p.Clock, of)
	of.Stems = 0
	regrown := p.Course.NewRun(p.Clock, of)
	window := p.Course.Planting().Market
	plants := p.Course.Planting().Plants
	var items []item
	dates := 0.0
	if p.FirstBud > 0 {
		const seenWithinDays = 3
		expected, _ := first.FirstBud()
		off := (expected - p.FirstBud) / seenWithinDays
		dates = -math.Min(off*off/2, 8)
	}
	counted := math.Inf(-1)
	for _, e := range story {
		first.To(e.at)
		regrown.To(e.at)
		switch {
		case e.count != nil:
			share := float64(e.count.Plants) / float64(plants)
			weight := min(1, (e.at-counted)/repeatDays)
			a, b := e.count.Eye.Sees(first.Rungs()), e.count.Eye.Sees(regrown.Rungs())
			for k, n := range e.count.Stems {
				items = append(items, item{first: a[k] * share, regrown: b[k] * share, seen: float64(n),
					size: size(e.count.Plants, rungPlantCV, rungCV2), weight: weight, who: e.count.Counter})
			}
			counted = e.at
			if e.count.Tried > 0 {
				first.Hold(e.count.soft())
				regrown.Hold(e.count.soft())
			}
		case e.cut != nil:
			a, b := first.Ready(window, e.cut.Ahead), regrown.Ready(window, e.cut.Ahead)
			share := e.cut.share(a + b)
			items = append(items, item{first: a, regrown: b, seen: float64(e.cut.Taken + max(0, e.cut.Left)),
				size: size(plants, plantsCV, cutCV2), weight: 1, atLeast: e.cut.Left == LeftUnknown, who: nobody})
			first.Take(window, share, e.cut.Ahead)
			regrown.Take(window, share, e.cut.Ahead)
			regrown.Regrow(float64(e.cut.Taken))
		default:
			first.Regrow(first.Take(window, 1, e.pick.Ahead))
			regrown.Regrow(regrown.Take(window, 1, e.pick.Ahead))
		}
	}
	return items, dates
}

// soft returns the share of the necks tried that failed, drawn a little towards none.
func (c *Count) soft() float64 { return float64(c.Tried-c.Firm) / float64(c.Tried+1) }

// repeatDays is how long the same stems stand where they can be counted again: a count so many days after another is news,
// a sooner one is so in part.
const repeatDays = 8

// share returns which part of the ready stems a cut took, where the model expected so many.
func (c *Cut) share(ready float64) float64 {
	switch {
	case c.Left == LeftNone:
		return 1
	case c.Left > 0:
		return float64(c.Taken) / float64(c.Taken+c.Left)
	case ready <= float64(c.Taken):
		return 1
	default:
		return float64(c.Taken) / ready
	}
}

// misfit returns the weighted mean of the squares of how far the items lie from what traits expect, each by its variance.
func misfit(items []item, first, regrow float64) float64 {
	sum, weight := 0.0, 0.0
	for _, it := range items {
		mean := it.first*first + it.regrown*regrow + leastExpected
		if it.atLeast && mean > it.seen {
			continue
		}
		off := it.seen - mean
		sum += it.weight * off * off / (mean + mean*mean/it.size)
		weight += it.weight
	}
	return sum / max(1, weight)
}
