package plan

import (
	"math"
	"slices"
)

// wary is the share of the misses allowed that the search may use up: what is chosen for the weathers that were tried does a little worse
// in others. By hand, with a few weathers, it may use them all.
func wary(samples int) float64 {
	const many = 100
	if samples < many {
		return 1
	}
	return 0.8
}

// reasonable returns the most plants that a sowing may sensibly have: severalPlants times as many as supply the greatest want in the best
// week of the best sowing as often as not.
func (s *solver) reasonable() int {
	best, most := 0.0, 0.0
	for _, want := range s.want {
		most = max(most, want)
	}
	middle := make([]float32, s.samples)
	for i := range s.candidates {
		c := &s.candidates[i]
		for w := c.from; w < c.until; w++ {
			copy(middle, c.stems[w])
			slices.Sort(middle)
			best = max(best, float64(middle[s.samples/2]))
		}
	}
	if best == 0 {
		return leastPlants
	}
	return max(leastPlants, int(math.Ceil(severalPlants*most/best)))
}

// severalPlants is how many times the plants of an ordinary week one sowing may have.
const severalPlants = 4

// tooMany is from how many times the want on the mean a week is not held any more: at its edges a season is so unsure that as much again
// would have to be grown for nothing. togetherMost is how many sowings of one kind may share a week.
const (
	tooMany      = 4
	togetherMost = 4
)

// reachable tells whether the rows on record and some sowings that follow each other could hold a week, of which no more than tooMany times the
// want is to be expected.
func (s *solver) reachable(w int, t *Try) bool {
	if s.lacking(s.base[w], w) <= 0 {
		return true
	}
	lack := make([]float64, 0, s.samples)
	for i := range s.candidates {
		together := make([]float32, s.samples)
		shared, last := 0, t.Trials[s.candidates[i].trial].Sowing
		for c := i; c < len(s.candidates) && shared < togetherMost; c++ {
			next := t.Trials[s.candidates[c].trial].Sowing
			if next.Method != last.Method || next.Pinched != last.Pinched {
				continue
			}
			shared++
			mean := 0.0
			for k, stems := range s.candidates[c].stems[w] {
				together[k] += stems
			}
			for _, stems := range together {
				mean += float64(stems) / float64(s.samples)
			}
			plants, ok := s.needOf(together, w, s.base[w], lack)
			if ok && plants <= float64(shared*s.limits.Plants) && plants*mean <= tooMany*s.want[w] {
				return true
			}
		}
	}
	return false
}
