package growth

import (
	"math"

	"dewcount/core/crop"
)

// A Spread is how unevenly the stems of a planting come: up the ladder, and in the first flush of a plant. The crop table gives
// no number for it.
type Spread int8

// Usual is what is taken of a crop of which nothing is known.
const (
	Even   Spread = -1
	Usual  Spread = 0
	Uneven Spread = 1
)

// Spreads are all there are.
var Spreads = [...]Spread{Even, Usual, Uneven}

// unevenness is what a spread stands for: how the warmth of one rung differs between stems, rung by rung, and that of the whole way,
// as coefficients of variation; and how long the further stems of a plant's first flush follow its first one on average, as a part of a
// regrowth, or of the bloom where nothing comes again.
type unevenness struct{ rungCV, stemCV, ofRegrowth, ofBloom float64 }

// of returns what the spread stands for in a crop: one whose plants come to bud together, such as a sunflower of one stem, opens together
// too, we take it.
func (s Spread) of(p *crop.Profile) unevenness {
	u := [...]unevenness{{0.13, 0.04, 0.175, 0.125}, {0.23, 0.07, 0.3, 0.225}, {0.36, 0.10, 0.45, 0.35}}[s+1]
	const usualCV, least, most = 0.1, 0.6, 1.3
	plants := min(most, max(least, math.Sqrt(p.SpreadCV/usualCV)))
	u.rungCV *= plants
	u.stemCV *= plants
	return u
}

// reached returns the warmth from the tight bud to each rung of stems whose warmth for a way lies so many standard deviations beside the
// mean, for a pace of 1. A way of several rungs differs by what each of them does and by the stem's own speed, so that a long rung spreads
// most of all.
func (u unevenness) reached(p *crop.Profile, deviations float64) [crop.Rungs]float64 {
	var reached [crop.Rungs]float64
	sum, squares, sd := 0.0, 0.0, 0.0
	for k, cd := range p.RungsCd {
		sum += cd
		squares += u.rungCV * u.rungCV * cd * cd
		before := sd
		sd = math.Sqrt(squares + u.stemCV*u.stemCV*sum*sum)
		const shortest = 0.15 // of a rung: nobody skips one
		reached[k+1] = reached[k] + max(shortest*cd, cd+deviations*(sd-before))
	}
	return reached
}
