package forecast

import (
	"hash/fnv"
	"math"
	"math/rand/v2"
	"slices"

	"dewcount/core/growth"

	"gonum.org/v1/gonum/stat/distuv"
)

// chance turns expected stems into whole ones: what a row gives scatters about what is expected of it, by a factor that is
// shared by a pick and by pure chance in each stem.
type chance struct {
	luck   []luck
	factor []float64
}

// luck is a chance u, 0 to 1, with the normal deviate z that has it and what skewness adds to that.
type luck struct{ u, z, skew float64 }

// pickCV is how much a whole pick scatters about what is expected, as a coefficient of variation: dew, pests and a picker's eye.
const pickCV = 0.12

// chances is how many numbers a planting's chance has; a prime, so that picks do not fall into step.
const chances = 4093

// evenLuck is every chance once, in order.
var evenLuck = func() (all [chances]luck) {
	for i := range all {
		u := (float64(i) + 0.5) / chances
		z := distuv.UnitNormal.Quantile(u)
		all[i] = luck{u, z, (z*z - 1) / 6}
	}
	return all
}()

func newChance(seed uint64, planting string) *chance {
	h := fnv.New64a()
	h.Write([]byte("chance\x00" + planting))
	random := rand.New(rand.NewPCG(seed, h.Sum64()))
	c := &chance{slices.Clone(evenLuck[:]), make([]float64, chances)}
	sd := math.Sqrt(math.Log(1 + pickCV*pickCV))
	for i := range c.factor {
		c.factor[i] = math.Exp(sd*random.NormFloat64() - sd*sd/2)
	}
	random.Shuffle(chances, func(i, j int) { c.luck[i], c.luck[j] = c.luck[j], c.luck[i] })
	return c
}

// noStems holds the chance that none comes where mean stems are expected, in steps of a 64th.
var noStems = func() (table [64*manyStems + 2]float64) {
	for i := range table {
		table[i] = math.Exp(-float64(i) / 64)
	}
	return table
}()

// noStem returns exp(-mean) for a mean of 0 to manyStems, to 4 digits: this is the innermost loop of a forecast.
func noStem(mean float64) float64 {
	place := 64 * mean
	i := int(place)
	return noStems[i] + (place-float64(i))*(noStems[i+1]-noStems[i])
}

// oneIn holds 1/n: a division takes longer than all else of a step.
var oneIn = func() (table [4*manyStems + 1]float64) {
	for n := 1; n < len(table); n++ {
		table[n] = 1 / float64(n)
	}
	return table
}()

// manyStems is the variance from which on the quantiles of a Poisson or binomial number are taken as those of a normal one with its skewness
// (Cornish & Fisher 1938, Rev. Inst. Int. Stat. 5:307-320): they lie where the number's own do, or one stem beside.
const manyStems = 12

// whole returns whole stems for an expectation, of those that are left (+Inf where there is no end to them); more expected is never fewer
// whole, but for one stem where one way of reckoning ends and the next begins. Where each of so many either comes or does not, their number
// is binomial.
func (c *chance) whole(expected, left float64, at, pick int) int32 {
	i := (at + pick*1021) % chances
	mean := expected * c.factor[i]
	if left < math.Inf(1) {
		return c.ofLeft(left, mean, i)
	}
	return c.of(mean, i)
}

// of returns how many come where so many are expected and any number may.
func (c *chance) of(mean float64, i int) int32 {
	if mean >= manyStems {
		return int32(mean + math.Sqrt(mean)*c.luck[i].z + c.luck[i].skew + 0.5)
	}
	if mean < 1e-6 {
		return 0
	}
	n, p, u := int32(0), noStem(mean), c.luck[i].u
	for sum := p; sum < u && n < 4*manyStems; sum += p {
		n++
		p *= mean * oneIn[n]
	}
	return n
}

// ofLeft returns how many of those that are left come, where so many are expected.
func (c *chance) ofLeft(left, mean float64, i int) int32 {
	all := math.Floor(left + 0.5)
	if !(all > 0) || mean < 1e-6 {
		return 0
	}
	p := min(1, mean/all)
	if p == 1 {
		return int32(all)
	}
	if spread := all * p * (1 - p); spread >= manyStems {
		return int32(min(all, max(0, all*p+math.Sqrt(spread)*c.luck[i].z+(1-2*p)*c.luck[i].skew+0.5)))
	}
	if p > 0.5 { // fewer are counted through where those that do not come are
		return int32(all) - binomial(int(all), 1-p, 1-c.luck[i].u)
	}
	return binomial(int(all), p, c.luck[i].u)
}

// binomial returns the least number of those that come with a chance of p (0 to 1/2) each, of so many, that is not exceeded with a chance of u.
func binomial(all int, p, u float64) int32 {
	n, odds, chance := 0, p/(1-p), power(1-p, all)
	for sum := chance; sum < u && n < all; sum += chance {
		n++
		chance *= float64(all-n+1) * odds * inverse(n)
	}
	return int32(n)
}

// inverse returns 1/n, n ≥ 1.
func inverse(n int) float64 {
	if n < len(oneIn) {
		return oneIn[n]
	}
	return 1 / float64(n)
}

// power returns x to the n, n ≥ 0.
func power(x float64, n int) float64 {
	y := 1.0
	for ; n > 0; n >>= 1 {
		if n&1 == 1 {
			y *= x
		}
		x *= x
	}
	return y
}

// A supply is the sound stems that a row still has to give in one sample: so many whole ones are left where so many were expected to be. Both
// are +Inf for all but crops of one stem a plant, of which no more can come than are left.
type supply struct{ left, coming float64 }

func supplyOf(p *Planting, run *growth.Run) supply {
	if !p.Growth.Profile.OneStem() {
		return supply{math.Inf(1), math.Inf(1)}
	}
	sound := p.Sound * run.Left()
	return supply{sound, sound}
}

// take returns how many whole stems a pick takes for which so many are expected.
func (s *supply) take(expected float64, at, pick int, c *chance) int32 {
	if math.IsInf(s.coming, 1) {
		return c.whole(expected, s.left, at, pick)
	}
	const least = 1e-9 // where rounding leaves less than nothing
	n := c.whole(expected*s.left/max(least, s.coming), s.left, at, pick)
	s.left, s.coming = s.left-float64(n), s.coming-expected
	return n
}
