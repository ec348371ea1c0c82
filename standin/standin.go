// Package standin is a small made-up outside world: a weather service and a field that grows, for the demo farm and for tests
// of what the forecast is worth. It knows nothing of how the core computes: the field grows stem by stem, by habits of its
// own.
package standin

import (
	"hash/fnv"
	"math"
	"math/rand/v2"
)

// stream returns the random numbers of one thing and one purpose.
func stream(seed uint64, parts ...string) *rand.Rand {
	h := fnv.New64a()
	for _, p := range parts {
		h.Write([]byte(p))
		h.Write([]byte{0})
	}
	return rand.New(rand.NewPCG(seed, h.Sum64()))
}

// lognormal returns a multiplier around 1 with a standard deviation of its logarithm.
func lognormal(r *rand.Rand, sd float64) float64 { return math.Exp(sd * r.NormFloat64()) }

// meanOne returns a multiplier whose mean is 1, with a standard deviation of its logarithm.
func meanOne(r *rand.Rand, sd float64) float64 { return math.Exp(sd*r.NormFloat64() - sd*sd/2) }

// poisson returns a count with a mean of at most some dozens.
func poisson(r *rand.Rand, mean float64) int {
	n := -1
	for left := mean; left >= 0; n++ {
		left -= r.ExpFloat64()
	}
	return n
}
