package evidence

import "math"

// A crew has more than one pair of eyes: somebody counts a trio as three, somebody overlooks what stands low. What somebody sees of a
// crop, as a factor of what stands there, is judged by the cuts of the same rows, which are facts.

// eyesSD is the standard deviation of the log of such a factor before anything is known of somebody.
const eyesSD = 0.18

// leastBias is the log factor from which on counts are read anew.
const leastBias = 0.04

// leastCuts is how many cuts of a row it takes to judge its counts by.
const leastCuts = 3

// A glance is what one row says of somebody's eyes: a log factor and its variance.
type glance struct{ log, variance float64 }

// eyes returns the log factors of everybody who counted rows of a crop, where they are far enough from none to matter.
func eyes(rows []map[string]glance) map[string]float64 {
	sum, precision := make(map[string]float64), make(map[string]float64)
	for _, glances := range rows {
		for who, g := range glances {
			sum[who] += g.log / g.variance
			precision[who] += 1 / g.variance
		}
	}
	biased := make(map[string]float64)
	for who := range sum {
		if log := sum[who] / (precision[who] + 1/(eyesSD*eyesSD)); math.Abs(log) >= leastBias {
			biased[who] = log
		}
	}
	return biased
}

// glances compares, at the pace and of the kind that explain the records best, what everybody counted with what the cuts alone make likely.
func (l *lattice) glances() map[string]glance {
	items := l.best.items
	cuts, taken := 0, 0.0
	for _, it := range items {
		if it.who == nobody && !it.atLeast && it.seen > 0 {
			cuts++
			taken += it.seen
		}
	}
	if cuts < leastCuts {
		return nil
	}
	_, likeliest, _ := likelihood(items, l.prior, func(it *item) bool { return it.who == nobody })
	by := multipliers(likeliest)
	seen, expected := make(map[string]float64), make(map[string]float64)
	for _, it := range items {
		if it.who != nobody {
			seen[it.who] += it.weight * it.seen
			expected[it.who] += it.weight * it.expects(by)
		}
	}
	glances := make(map[string]glance)
	for who := range seen {
		const few = 2 // stems whose number is chance
		if expected[who] > few {
			glances[who] = glance{
				log:      math.Log((seen[who] + few) / (expected[who] + few)),
				variance: 1/(seen[who]+few) + 1/(taken+few) + cutCV2/float64(cuts) + glanceVar,
			}
		}
	}
	return glances
}

// glanceVar is the variance of the log of what the model itself gets wrong between a row's counts and its cuts.
const glanceVar = 0.015

// nobody is who made a cut, as far as eyes go.
const nobody = "\x00"
