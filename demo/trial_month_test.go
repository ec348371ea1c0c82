package demo

import (
	"math"
	"strings"
	"testing"

	"dewcount/core/review"
)

// Bias by month is that of few farms in winter: how sure it is, is said by leaving out one season after another.
type bySeason map[string]map[uint64]*review.Score

func (b bySeason) note(seed uint64, kinds []string, r review.Pick) {
	for _, kind := range kinds {
		if !strings.HasPrefix(kind, "month") {
			continue
		}
		if b[kind] == nil {
			b[kind] = make(map[uint64]*review.Score)
		}
		if b[kind][seed] == nil {
			b[kind][seed] = new(review.Score)
		}
		b[kind][seed].Add(r)
	}
}

// uncertain returns the standard error of a kind's bias by the jackknife over seasons (Efron 1982, The Jackknife, the Bootstrap and Other
// Resampling Plans, ch. 3), +Inf where one season has all that came.
func (b bySeason) uncertain(kind string) float64 {
	var all review.Score
	for _, s := range b[kind] {
		all.Expected += s.Expected
		all.Came += s.Came
	}
	n, sum, squares := float64(len(b[kind])), 0.0, 0.0
	for _, s := range b[kind] {
		if all.Came == s.Came {
			return math.Inf(1)
		}
		without := review.Score{Expected: all.Expected - s.Expected, Came: all.Came - s.Came}.Bias()
		sum += without
		squares += without * without
	}
	return math.Sqrt(max(0, (n-1)*(squares/n-sum/n*sum/n)))
}

// Of seasons that give a stem each the bias is the mean of what was expected, less one, and its error that of a mean: of 1, 2, 3 and 6 by hand
// √(14/3)/2.
func TestUncertainBiasByHand(t *testing.T) {
	b := make(bySeason)
	for seed, expected := range []float64{1, 2, 3, 6} {
		b.note(uint64(seed), []string{all, "month 01"}, review.Pick{Mean: expected, Came: 1})
	}
	if got, want := b.uncertain("month 01"), math.Sqrt(14./3)/2; math.Abs(got-want) > 1e-12 || len(b) != 1 {
		t.Errorf("an error of %v, want %v", got, want)
	}
}
