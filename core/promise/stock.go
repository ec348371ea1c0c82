package promise

import (
	"math"
	"math/rand/v2"

	"dewcount/core/crop"

	"gonum.org/v1/gonum/stat/distuv"
)

// A Part is where stems of a stock go that stand on one rung, are of one of its colours, and have one of its lengths.
type Part struct {
	Source int // -1 for those that nobody can use
	Rung   crop.Rung
	Colour int     // its place among the stock's colours
	Long   float64 // share of stems that have such a length, 0 to 1
}

// A Stock is stems of a row at one pick that share their fate: those that are cut, those that are still too tight for that, or those past it.
type Stock struct {
	Row     int // rows draw their colours and lengths anew
	Parts   []Part
	Colours []float64 // shares of a mix, which together are 1
}

// mixPlants is how sure the shares of a mix are: as if so many plants of it had been looked at.
const mixPlants = 9

// Deal shares a stock's stems out to its sources, in whole ones: how many are of which colour nobody knows beforehand, and each stem is as long as it grows.
// It adds them to stems and returns how many those are. The same sample gives the same.
func (s *Stock) Deal(rungs [crop.Rungs]float32, seed uint64, sample int, stems []int) int {
	sum, usable := 0.0, 0
	colours := s.Colours
	if len(colours) > 1 {
		colours = dirichlet(colours, rand.New(rand.NewPCG(seed^uint64(s.Row)*0x9e3779b97f4a7c15, uint64(sample))))
	}
	for _, p := range s.Parts {
		sum += float64(rungs[p.Rung]) * colours[p.Colour] * p.Long
		if p.Source >= 0 {
			usable++
		}
	}
	all, given := int(sum+0.5), 0
	if all == 0 || usable == 0 {
		return 0
	}
	var random *rand.Rand
	left := all
	for i := 0; i < len(s.Parts) && left > 0; i++ {
		p := s.Parts[i]
		here := float64(rungs[p.Rung]) * colours[p.Colour] * p.Long
		if here <= 0 {
			continue
		}
		n := left
		if share := here / sum; share < 1-1e-6 {
			if random == nil {
				random = rand.New(rand.NewPCG(seed^(uint64(s.Row)<<20+uint64(i)), uint64(sample)))
			}
			n = binomial(left, share, random)
		}
		sum -= here
		left -= n
		if p.Source >= 0 {
			stems[p.Source] += n
			given += n
		}
	}
	return given
}

// Usual shares a stock's stems out as they are usually, without chance, and returns how many have a source.
func (s *Stock) Usual(rungs [crop.Rungs]float32, all int, stems []int) int {
	sum := 0.0
	for _, p := range s.Parts {
		sum += float64(rungs[p.Rung]) * s.Colours[p.Colour] * p.Long
	}
	if sum == 0 {
		return 0
	}
	before, given, usable := 0.0, 0, 0
	for _, p := range s.Parts {
		before += float64(rungs[p.Rung]) * s.Colours[p.Colour] * p.Long
		upto := int(float64(all)*before/sum + 0.5)
		if p.Source >= 0 {
			stems[p.Source] += upto - given
			usable += upto - given
		}
		given = upto
	}
	return usable
}

// binomial draws how many of n stems are of a kind that a share of them is (0 to 1).
func binomial(n int, share float64, random *rand.Rand) int {
	mean := float64(n) * share
	if spread := mean * (1 - share); spread > 9 {
		return min(n, max(0, int(math.Round(mean+math.Sqrt(spread)*random.NormFloat64()))))
	}
	of := 0
	for range n {
		if random.Float64() < share {
			of++
		}
	}
	return of
}

// dirichlet draws shares about those given.
func dirichlet(shares []float64, random *rand.Rand) []float64 {
	drawn := make([]float64, len(shares))
	sum := 0.0
	for i, share := range shares {
		if share > 0 {
			drawn[i] = distuv.Gamma{Alpha: mixPlants * share, Beta: 1, Src: random}.Rand()
			sum += drawn[i]
		}
	}
	for i := range drawn {
		drawn[i] /= sum
	}
	return drawn
}
