// Package evidence learns from what was seen: it weighs what a planting's traits may be by how well they explain the dates,
// counts and cuts on record, lets plantings of a variety and varieties of a crop teach each other, and brings the stems that
// stand today in line with the last count.
//
// Nobody's traits are known beforehand. Log pace, log stems and log regrowth of a planting are normal about those of its
// variety, those about its crop's, and those about the crop table's values (partial pooling, Gelman & Hill 2007, ch. 12). A
// planting's own records weigh a lattice of possible traits; what the lattice says goes up the tree as a mean and a
// precision, and joint draws come down again. Every draw has the same weight, so that none can take it all.
package evidence

import (
	"cmp"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/growth"
)

// A Count is what a morning count saw: on so many plants, the stems of each rung.
type Count struct {
	At      float64 // instant
	Plants  int
	Stems   [crop.Rungs]int
	Tried   int    // of the stems in the market's window, those whose neck was tried
	Firm    int    // of these, those that passed
	Counter string // who counted
	Eye     Eye    // and how they call stems, where that is known
}

// Total returns the stems counted.
func (c Count) Total() int {
	sum := 0
	for _, n := range c.Stems {
		sum += n
	}
	return sum
}

// A Cut is what was taken from a planting at once, sound or not.
type Cut struct {
	At    float64 // instant
	Ahead float64 // instant of the next pick, where what would be over by then was cut as well; 0 where it was not
	Taken int
	Left  int // ready stems left standing; LeftNone where all that was ready was taken, LeftUnknown where only what sold was
}

// What is known of the ready stems that a cut left standing, where it is no number.
const (
	LeftNone    = 0
	LeftUnknown = -1
)

// A Planting is one planting with all that is on record of it.
type Planting struct {
	ID, Variety string
	Course      *growth.Course
	Clock       growth.Clock // at least as far as Until
	Counts      []Count      // in any order, none after Until
	Cuts        []Cut        // in any order, none after Until
	Picks       []Cut        // at which the farm will have cut what was ready, though nothing is on record; Taken says nothing
	Unwritten   bool         // the farm writes down no cuts at all: those picks count as made
	FirstBud    float64      // instant at which several plants had a tight bud; 0 where not seen
	Until       float64      // the instant at which the planting is wanted
	Over        any          // what a planting that is long over rests on beside its course and records, such as its weather; nil for one that is wanted
}

// hasRecords tells whether the planting's own lattice has anything to say.
func (p *Planting) hasRecords() bool {
	return len(p.Counts)+len(p.Cuts) > 0 || p.FirstBud > 0
}

// An episode is one thing of a planting's story: a count, a cut, or a pick day that left no record.
type episode struct {
	at    float64
	count *Count
	cut   *Cut
	pick  *Cut
}

// story returns the episodes in order; a count comes before a cut of the same instant. A count of no plants tells nothing.
func (p *Planting) story() []episode {
	var story []episode
	for i := range p.Counts {
		if p.Counts[i].Plants <= 0 || p.Course.Planting().Plants <= 0 {
			continue
		}
		story = append(story, episode{at: p.Counts[i].At, count: &p.Counts[i]})
	}
	for i := range p.Cuts {
		story = append(story, episode{at: p.Cuts[i].At, cut: &p.Cuts[i]})
	}
	for i := range p.Picks {
		story = append(story, episode{at: p.Picks[i].At, pick: &p.Picks[i]})
	}
	slices.SortStableFunc(story, func(a, b episode) int { return cmp.Compare(a.at, b.at) })
	return story
}

// How much counts and cuts scatter beyond chance: plants differ in their stems by plantsCV, and the model itself misses a
// rung's or a pick's stems by a factor with these squared coefficients of variation.
const (
	plantsCV    = 0.4
	rungPlantCV = 0.8 // in those of one rung: a plant's stems come together
	rungCV2     = 1. / 10
	cutCV2      = 1. / 14
	standingCV2 = 0.025 // of a rung's stems about its draw, before the count is looked at,
	standingFew = 3     // and more where so few stand that the flush's very first or last stems are meant
)

// size returns the size parameter of the negative binomial distribution of stems on so many plants that differ by a coefficient of
// variation.
func size(plants int, differCV, ownCV2 float64) float64 {
	return 1 / (ownCV2 + differCV*differCV/float64(max(1, plants)))
}
