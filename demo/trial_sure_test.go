package demo

import (
	"math"
	"testing"
)

// A quotient is what of a season is divided: what was expected by what came, or the forecast's score by the oracle's.
type quotient struct{ over, under float64 }

// bySeason are quotients of kinds of picks by season. In winter few farms have stems, and of the oracle's seasons a few have most of the loss: how sure
// a quotient of all seasons is, is said by leaving out one after another.
type bySeason map[string]map[uint64]*quotient

func (b bySeason) note(kind string, seed uint64, over, under float64) {
	if b[kind] == nil {
		b[kind] = make(map[uint64]*quotient)
	}
	if b[kind][seed] == nil {
		b[kind][seed] = new(quotient)
	}
	b[kind][seed].over += over
	b[kind][seed].under += under
}

// uncertain returns the standard error of a kind's quotient by the jackknife over seasons (Efron 1982, The Jackknife, the Bootstrap and Other
// Resampling Plans, ch. 3), +Inf where one season has all that it is divided by.
func (b bySeason) uncertain(kind string) float64 {
	var all quotient
	for _, s := range b[kind] {
		all.over += s.over
		all.under += s.under
	}
	n, sum, squares := float64(len(b[kind])), 0.0, 0.0
	for _, s := range b[kind] {
		if all.under == s.under {
			return math.Inf(1)
		}
		without := (all.over - s.over) / (all.under - s.under)
		sum += without
		squares += without * without
	}
	return math.Sqrt(max(0, (n-1)*(squares/n-sum/n*sum/n)))
}

// Of seasons that give a stem each the quotient is the mean of what was expected, and its error that of a mean: of 1, 2, 3 and 6 by hand √(14/3)/2.
func TestUncertaintyByHand(t *testing.T) {
	b := make(bySeason)
	for seed, expected := range []float64{1, 2, 3, 6} {
		b.note("month 01", uint64(seed), expected, 1)
	}
	if got, want := b.uncertain("month 01"), math.Sqrt(14./3)/2; math.Abs(got-want) > 1e-12 {
		t.Errorf("an error of %v, want %v", got, want)
	}
}
