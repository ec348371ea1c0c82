// Package school teaches to judge stems and measures how somebody does it: tasks with their answers and reasons, and the eye that answers them.
package school

import (
	"math"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/evidence"
)

// An Answer is what somebody called a stem that stood on a rung, and after how many seconds.
type Answer struct {
	Truth, Said crop.Rung
	Seconds     float64
}

// A Sight is what answers tell of somebody's eyes: for each rung a Dirichlet distribution of what it is called (Gelman et al. 2013, ch. 3.4).
type Sight [crop.Rungs][crop.Rungs]float64

// SightOf returns what answers tell. What is common to all rungs, how often a stem is called one or two too tight or too open, is learned from all of them together,
// and each rung on its own from there, the more freely the more the rungs differ: how many answers the common eye is worth for a rung is that under which the
// answers are the likeliest (empirical Bayes, Gelman et al. 2013, ch. 5.1). Before the first answer it is the usual eye of a crew.
func SightOf(answers []Answer) Sight {
	var counts, common Sight
	for _, a := range answers {
		counts[a.Truth][a.Said]++
	}
	rates := offRates(counts)
	for k := range common {
		for o, rate := range rates {
			common[k][max(0, min(crop.Rungs-1, k+o-mostOff))] += rate
		}
	}
	best, strength := math.Inf(-1), 0.0
	for _, s := range strengths {
		log := 0.0
		for k := range counts {
			log += likelihood(counts[k], common[k], s)
		}
		if log > best {
			best, strength = log, s
		}
	}
	sight := counts
	for k := range sight {
		for said := range sight[k] {
			sight[k][said] += strength * common[k][said]
		}
	}
	return sight
}

// strengths are how many answers a rung the common eye may be worth.
var strengths = []float64{4, 8, 16, 32, 64, 128}

// mostOff is by how many rungs anybody is off: what is further is called so.
const mostOff = 2

// usualStems is how many answers the usual eyes of a crew are worth, and usualOff how often they are off by so many rungs, from two too tight to two too open.
const usualStems = 12

var usualOff = [2*mostOff + 1]float64{0.005, 0.08, 0.83, 0.08, 0.005}

// offRates returns how often stems are called so many rungs off, of those of which that can be.
func offRates(counts Sight) (rates [2*mostOff + 1]float64) {
	right := 1.0
	for o := -mostOff; o <= mostOff; o++ {
		if o == 0 {
			continue
		}
		off, all := usualStems*usualOff[o+mostOff], float64(usualStems)
		for truth := range counts {
			if truth+o < 0 || truth+o >= crop.Rungs {
				continue
			}
			for said, n := range counts[truth] {
				all += n
				if max(-mostOff, min(mostOff, said-truth)) == o {
					off += n
				}
			}
		}
		rates[o+mostOff] = off / all
		right -= off / all
	}
	rates[mostOff] = max(0.01, right)
	return rates
}

// likelihood is the log of how likely a rung's answers are where each is drawn by chances that differ from common ones as a Dirichlet distribution of a strength has
// it (the Dirichlet-multinomial distribution, but for a constant).
func likelihood(counts, common [crop.Rungs]float64, strength float64) float64 {
	n, log := 0.0, 0.0
	for said, c := range counts {
		n += c
		if c > 0 {
			alpha := strength * max(1e-4, common[said])
			log += lgamma(c+alpha) - lgamma(alpha)
		}
	}
	return log + lgamma(strength) - lgamma(n+strength)
}

func lgamma(x float64) float64 {
	v, _ := math.Lgamma(x)
	return v
}

// Chance returns how likely a stem on a rung is called another, 0 to 1, and the standard deviation of that.
func (s Sight) Chance(truth, said crop.Rung) (mean, sd float64) {
	sum := 0.0
	for _, n := range s[truth] {
		sum += n
	}
	mean = s[truth][said] / sum
	return mean, math.Sqrt(mean * (1 - mean) / (sum + 1))
}

// Eye returns the likeliest eye.
func (s Sight) Eye() evidence.Eye {
	var e evidence.Eye
	for truth := range crop.Rung(crop.Rungs) {
		for said := range crop.Rung(crop.Rungs) {
			e[truth][said], _ = s.Chance(truth, said)
		}
	}
	return e
}

// Lean returns by how many rungs stems are called too open on average, negative for too tight, and the standard deviation of that: over the rungs on which a count
// has stems, from tight to over.
func (s Sight) Lean() (rungs, sd float64) {
	variance, n := 0.0, 0.0
	for truth := crop.Tight; truth <= crop.Over; truth++ {
		mean, square, sum := 0.0, 0.0, 0.0
		for said, a := range s[truth] {
			off := float64(said) - float64(truth)
			mean, square, sum = mean+a*off, square+a*off*off, sum+a
		}
		mean /= sum
		rungs += mean
		variance += (square/sum - mean*mean) / (sum + 1)
		n++
	}
	return rungs / n, math.Sqrt(variance) / n
}

// A Doubt is why answers are not believed.
type Doubt int

// The doubts.
const (
	NoDoubt Doubt = iota
	TooFew        // too few answers to tell
	TooFast       // faster than anybody looks
	NoLook        // they hardly go with what was shown
)

// What it takes to be believed: as many answers, at least as long a look at most of them, and as much agreement. Somebody who clicks anything agrees by 0, a
// careful beginner by some 0.7.
const (
	leastAnswers = 16
	leastSeconds = 0.8
	leastKappa   = 0.45
)

// DoubtOf tells whether answers are to be believed: somebody who is bored, presses one key or any, is noticed.
func DoubtOf(answers []Answer) Doubt {
	if len(answers) < leastAnswers {
		return TooFew
	}
	var seconds []float64
	for _, a := range answers {
		seconds = append(seconds, a.Seconds)
	}
	slices.Sort(seconds)
	switch {
	case seconds[len(seconds)/2] < leastSeconds:
		return TooFast
	case Kappa(answers) < leastKappa:
		return NoLook
	}
	return NoDoubt
}

// Kappa returns how well answers agree with what was shown beyond chance, errors weighed by their square: 1 for all right, 0 for anybody who does not look
// (Cohen 1968, Psychological Bulletin 70:213-220).
func Kappa(answers []Answer) float64 {
	var truths, saids [crop.Rungs]float64
	apart := 0.0
	square := func(a, b int) float64 { return float64((a - b) * (a - b)) }
	for _, a := range answers {
		truths[a.Truth]++
		saids[a.Said]++
		apart += square(int(a.Truth), int(a.Said))
	}
	chance, n := 0.0, float64(len(answers))
	for i, x := range truths {
		for j, y := range saids {
			chance += square(i, j) * x * y / n
		}
	}
	if chance == 0 {
		return 0
	}
	return 1 - apart/chance
}
