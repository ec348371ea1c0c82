package evidence

import (
	"math"

	"dewcount/core/crop"
	"dewcount/core/growth"
)

// An item is one number on record beside what the model expects: the stems of each source for each unit of its multiplier.
type item struct {
	of      [sources]float64
	seen    float64
	size    float64 // of the negative binomial
	weight  float64
	atLeast bool   // only a lower bound was seen
	who     string // counted it; nobody for a cut
}

// Where stems come from: the first flush, and what recorded cuts set off, as far as it is that of a bloom's beginning and of its end. A cut half
// way through the bloom sets off half of each.
const (
	first = iota
	early
	late
	sources
)

// expects returns the stems that multipliers let expect.
func (it *item) expects(by [sources]float64) float64 {
	return it.of[first]*by[first] + it.of[early]*by[early] + it.of[late]*by[late]
}

// A walk is what a planting's records hold against one pace and kind: the items, and the log likelihood of its dates.
type walk struct {
	items []item
	dates float64
}

// expect walks through the planting's story at the pace and of the kind of traits, and returns the items on record and the log
// likelihood of its dates.
func (p *Planting) expect(story []episode, of growth.Traits) ([]item, float64) {
	runs := p.sources(of)
	window := p.Course.Planting().Market
	plants := p.Course.Planting().Plants
	var items []item
	dates := 0.0
	if p.FirstBud > 0 {
		const seenWithinDays = 3
		expected, _ := runs[first].FirstBud()
		off := (expected - p.FirstBud) / seenWithinDays
		dates = -math.Min(off*off/2, 8)
	}
	counted := math.Inf(-1)
	for _, e := range story {
		for _, r := range runs {
			r.To(e.at)
		}
		switch {
		case e.count != nil:
			share := float64(e.count.Plants) / float64(plants)
			weight := min(1, (e.at-counted)/repeatDays)
			var sees [sources][crop.Rungs]float64
			for k, r := range runs {
				sees[k] = e.count.Eye.Sees(r.Rungs())
			}
			for k, n := range e.count.Stems {
				items = append(items, item{of: [sources]float64{sees[first][k] * share, sees[early][k] * share, sees[late][k] * share}, seen: float64(n),
					size: size(e.count.Plants, rungPlantCV, rungCV2), weight: weight, who: e.count.Counter})
			}
			counted = e.at
			if e.count.Tried > 0 {
				for _, r := range runs {
					r.Hold(e.count.soft())
				}
			}
		case e.cut != nil:
			var ready [sources]float64
			for k, r := range runs {
				ready[k] = r.Ready(window, e.cut.Ahead)
			}
			items = append(items, item{of: ready, seen: float64(e.cut.Taken + max(0, e.cut.Left)),
				size: size(plants, plantsCV, cutCV2), weight: 1, atLeast: e.cut.Left == LeftUnknown, who: nobody})
			runs.cut(window, e.cut.share(ready[first]+ready[early]+ready[late]), e.cut.Ahead, float64(e.cut.Taken))
		default:
			runs.pick(window, e.pick.Ahead)
		}
	}
	return items, dates
}

// runs are a planting's sources, each alone; of a crop that never comes again the first flush is all there is.
type runs []*growth.Run

// sources returns the planting as the stems of each source alone, for multipliers of 1.
func (p *Planting) sources(of growth.Traits) runs {
	of.Stems, of.Regrow, of.Fade = 1, 1, 0
	all := runs{p.Course.NewRun(p.Clock, of)}
	if p.Course.Planting().Profile.Yield.Habit != crop.Again {
		return all
	}
	of.Stems = 0
	return append(all, p.Course.NewRun(p.Clock, of), p.Course.NewRun(p.Clock, of))
}

// cut takes a share of what is ready of each source, and lets the plants answer to so many stems on record: what they answer at the bloom's
// beginning is early, and late at its end.
func (r runs) cut(w crop.Window, share, ahead, taken float64) {
	for _, source := range r {
		source.Take(w, share, ahead)
	}
	if len(r) > early {
		spent := r[first].Spent()
		r[early].RegrowPart(taken, 1-spent)
		r[late].RegrowPart(taken, spent)
	}
}

// pick takes all that is ready of each source and lets the plants answer to that, since nothing is on record.
func (r runs) pick(w crop.Window, ahead float64) {
	for _, source := range r {
		source.Regrow(source.Take(w, 1, ahead))
	}
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
func misfit(items []item, by [sources]float64) float64 {
	sum, weight := 0.0, 0.0
	for _, it := range items {
		mean := it.expects(by) + leastExpected
		if it.atLeast && mean > it.seen {
			continue
		}
		off := it.seen - mean
		sum += it.weight * off * off / (mean + mean*mean/it.size)
		weight += it.weight
	}
	return sum / max(1, weight)
}
