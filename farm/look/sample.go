package look

import (
	"dewcount/core/crop"
	"dewcount/core/evidence"
)

// A Sample is which plants of a row to count, and what that would leave of the next pick's spread.
type Sample struct {
	Plants int // to count
	Every  int // of the row: every fifth is 5; 1 where all are counted
	Buds   bool
	Few    bool       // too few stems at the next pick to speak of its spread
	Now    [2]float64 // stems of the next pick: P10 and P90
	After  func(plants int) [2]float64
}

// Sample returns which plants of planting i to count.
func (s *Snapshot) Sample(i int) Sample {
	const few, thin = 3, 8 // stems at a pick: below few their number is chance, below thin no sample of reason meets them
	plants := s.Model.Plantings[i].Growth.Plants
	standing := s.Stand.Standing(i)
	out := Sample{Plants: min(plants, 12), Every: 1, Buds: standing.Likely >= 1, Few: true}
	if out.Buds {
		perPlant, wanted := standing.Likely/float64(plants), standing.Likely/float64(plants)
		if len(s.Forecast.PickDays) > 0 && s.Forecast.Plantings[i].ByPick[0][crop.Market].Mean() >= few {
			next := s.Forecast.Plantings[i].ByPick[0][crop.Market]
			perPlant, out.Few = next.Mean()/float64(plants), false
			out.Now = [2]float64{next.Bound(0.1), next.Bound(0.9)}
			if next.Mean() >= thin {
				wanted = perPlant
			}
		}
		out.Plants = evidence.Sample(plants, wanted)
		out.After = func(n int) [2]float64 {
			next := s.Forecast.Plantings[i].ByPick[0][crop.Market]
			part, middle := evidence.Narrowed(evidence.SampleCV(n, plants, perPlant)), next.Bound(0.5)
			return [2]float64{middle - part*(middle-out.Now[0]), middle + part*(out.Now[1]-middle)}
		}
	}
	out.Every = max(1, plants/out.Plants)
	return out
}

// UsualSample is how many plants a count looks at where the row has more and nothing else was asked.
const UsualSample = 15

// worthCounting is the part of a spread that a count must not leave more than, to be called narrower.
const worthCounting = 0.92

// Narrowing returns how many plants of all, as asked for or more, have to be counted to narrow the next pick's spread, and the bounds that
// they would leave; false where no count does.
func (s Sample) Narrowing(plants int) (counted int, bounds [2]float64, ok bool) {
	for _, n := range []int{s.Plants, 3 * s.Plants, plants} {
		if after := s.After(min(n, plants)); after[1]-after[0] <= worthCounting*(s.Now[1]-s.Now[0]) {
			return n, after, true
		}
	}
	return 0, bounds, false
}
