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

// priorStems is how many answers a rung the usual eyes of a crew are worth before somebody has answered.
const priorStems = 4

// A Sight is what answers tell of somebody's eyes: for each rung a Dirichlet distribution of what it is called, the usual eyes of a crew before the first answer
// (Gelman et al. 2013, ch. 3.4).
type Sight [crop.Rungs][crop.Rungs]float64

// SightOf returns what answers tell.
func SightOf(answers []Answer) Sight {
	var s Sight
	const elsewhere = 0.02 // of what is worth a prior, spread over all rungs: anything can be said
	for k, row := range evidence.Usual() {
		for said, chance := range row {
			s[k][said] = priorStems * ((1-elsewhere)*chance + elsewhere/float64(crop.Rungs))
		}
	}
	for _, a := range answers {
		s[a.Truth][a.Said]++
	}
	return s
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
