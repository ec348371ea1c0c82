package growth

import (
	"math"

	"dewcount/core/crop"
)

// Vigour is how many of the table's shoots a plant sets where a stem is cut: 1 - x^bend of it, x being the part of its bloom that is
// over. The table's straight line leaves most crops short of their own season_stems; the bend, and within narrower bounds the level,
// are such that a usual plant that is cut regularly comes near those. Plants differ in how long they bloom, so that what a row sets falls
// off in a tail.
type vigour struct {
	byCd  [vigourSteps]float64 // the mean over plants, by warmth since the first colour
	perCd float64              // steps for each °Cd
}

const (
	vigourSteps = 64
	bloomCV     = 0.18 // of the length of plants' blooms, a guess
)

// How far the answer to a cut may be bent and scaled: bend is mostBend^t, the level mostLevel^t, with t from -1 to 1.
const (
	mostBend  = 1.3
	mostLevel = 1.8
)

// A bloom is what the vigour of plants rests on; toMarket is the warmth from the tight bud to the first rung that is cut.
type bloom struct {
	yield    crop.Yield
	toMarket float64
}

func newVigour(of bloom) *vigour {
	low, high := -1.0, 1.0
	for range 16 {
		t := (low + high) / 2
		if of.season(t) < of.yield.SeasonStems {
			low = t
		} else {
			high = t
		}
	}
	t := (low + high) / 2
	stepCd := (1 + 3*bloomCV) * of.yield.FloweringCd / (vigourSteps - 1)
	v := &vigour{perCd: 1 / stepCd}
	for i := range v.byCd {
		v.byCd[i] = math.Pow(mostLevel, t) * of.mean(float64(i)*stepCd, math.Pow(mostBend, t))
	}
	return v
}

// mean returns the vigour, averaged over plants by the five-point rule of Gauss and Hermite (Abramowitz & Stegun 1964, table 25.10).
func (b bloom) mean(cd, bend float64) float64 {
	nodes := [5]float64{-2.8570, -1.3556, 0, 1.3556, 2.8570}
	weights := [5]float64{0.011257, 0.222076, 0.533333, 0.222076, 0.011257}
	sum := 0.0
	for i, z := range nodes {
		x := min(1, max(0, cd)/(b.yield.FloweringCd*(1+bloomCV*z)))
		sum += weights[i] * (1 - math.Pow(x, bend))
	}
	return sum
}

// season returns the stems of a plant each of which is cut as soon as it is ready, where the answer is bent and scaled by t.
func (b bloom) season(t float64) float64 {
	const stepCd = 10
	level, bend := math.Pow(mostLevel, t), math.Pow(mostBend, t)
	first := int(b.toMarket / stepCd)
	again := int((b.yield.RegrowCd + b.toMarket) / stepCd)
	last := int((1+3*bloomCV)*b.yield.FloweringCd/stepCd) + first
	ready := make([]float64, last+again+1)
	ready[first] = b.yield.FirstStems
	sum := 0.0
	for i := range last {
		if ready[i] > 0 {
			sum += ready[i]
			ready[i+again] += ready[i] * b.yield.ShootsPerCut * level * b.mean(float64(i*stepCd), bend)
		}
	}
	return sum + ready[last]
}

// at returns the vigour so much warmth after the average plant's first colour.
func (v *vigour) at(cd float64) float64 {
	place := cd * v.perCd
	switch {
	case !(place < vigourSteps-1):
		return 0
	case place < 0:
		place = 0
	}
	i := int(place)
	return v.byCd[i] + (place-float64(i))*(v.byCd[i+1]-v.byCd[i])
}
