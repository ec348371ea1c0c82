package forecast

import (
	"hash/fnv"
	"math"
	"math/rand/v2"

	"dewcount/core/growth"

	"gonum.org/v1/gonum/stat/distuv"
)

// chance turns expected stems into whole ones: what a row gives scatters about what is expected of it, by a factor that is
// shared by a pick and by pure chance in each stem.
type chance struct{ u, z, factor []float64 }

// pickCV is how much a whole pick scatters about what is expected, as a coefficient of variation: dew, pests and a picker's eye.
const pickCV = 0.12

// chances is how many numbers a planting's chance has; a prime, so that picks do not fall into step.
const chances = 4093

func newChance(seed uint64, planting string) *chance {
	h := fnv.New64a()
	h.Write([]byte("chance\x00" + planting))
	random := rand.New(rand.NewPCG(seed, h.Sum64()))
	c := &chance{make([]float64, chances), make([]float64, chances), make([]float64, chances)}
	sd := math.Sqrt(math.Log(1 + pickCV*pickCV))
	for i := range c.u {
		c.u[i] = (float64(i) + 0.5) / chances
		c.z[i] = distuv.UnitNormal.Quantile(c.u[i])
		c.factor[i] = math.Exp(sd*random.NormFloat64() - sd*sd/2)
	}
	random.Shuffle(chances, func(i, j int) {
		c.u[i], c.u[j] = c.u[j], c.u[i]
		c.z[i], c.z[j] = c.z[j], c.z[i]
	})
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

// manyStems is from where on a Poisson number is taken as normal.
const manyStems = 30

// whole returns whole stems for an expectation, of those that are left (+Inf where there is no end to them); more expected is never fewer
// whole. Where each of so many either comes or does not, their number is binomial.
func (c *chance) whole(expected, left float64, at, pick int) int32 {
	i := (at + pick*1021) % chances
	mean := expected * c.factor[i]
	if left < math.Inf(1) {
		return c.of(left, mean, i)
	}
	if mean >= manyStems {
		return int32(max(0, mean+math.Sqrt(mean)*c.z[i]+0.5))
	}
	if mean < 1e-6 {
		return 0
	}
	n, p := int32(0), noStem(mean)
	for sum := p; sum < c.u[i] && n < 4*manyStems; sum += p {
		n++
		p *= mean * oneIn[n]
	}
	return n
}

// of returns how many of those that are left come, where so many are expected.
func (c *chance) of(left, mean float64, i int) int32 {
	all := math.Floor(left + 0.5)
	if !(all > 0) || mean < 1e-6 {
		return 0
	}
	p := min(1, mean/all)
	if spread := all * p * (1 - p); spread >= manyStems/2 || p == 1 {
		return int32(min(all, max(0, all*p+math.Sqrt(spread)*c.z[i]+0.5)))
	}
	n, chance := 0.0, power(1-p, int(all))
	for sum := chance; sum < c.u[i] && n < all; sum += chance {
		n++
		chance *= (all - n + 1) / n * p / (1 - p)
	}
	return int32(n)
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
