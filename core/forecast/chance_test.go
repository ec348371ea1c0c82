package forecast

import (
	"testing"

	"gonum.org/v1/gonum/stat/distuv"
)

// What comes is the number whose cumulated chance first reaches u, by gonum's distributions; where many may come, within a hundredth.
func TestWholeStemsAreTheInverseOfTheirDistribution(t *testing.T) {
	c := newChance(1, "row")
	for i := range c.factor {
		c.factor[i] = 1
	}
	check := func(what string, cdf func(float64) float64, variance, u, got float64) {
		t.Helper()
		rounding := 1e-3 // of the table of exponentials
		if variance >= manyStems {
			rounding = 0.01
		}
		if cdf(got) < u-rounding || got > 0 && cdf(got-1) > u+rounding {
			t.Errorf("%s: %v at chance %.4f, but up to it are %.4f and below it %.4f", what, got, u, cdf(got), cdf(got-1))
		}
	}
	for i := 0; i < chances; i += 97 {
		for _, mean := range []float64{0.01, 0.7, 5, 11.9, 12, 40, 900} {
			want := distuv.Poisson{Lambda: mean}
			check("of any", want.CDF, mean, c.luck[i].u, float64(c.of(mean, i)))
		}
		for _, all := range []float64{1, 7, 40, 300} {
			for _, p := range []float64{0.01, 0.2, 0.5, 0.51, 0.9, 0.99, 1} {
				want := distuv.Binomial{N: all, P: p}
				check("of those left", want.CDF, all*p*(1-p), c.luck[i].u, float64(c.ofLeft(all, p*all, i)))
			}
		}
	}
}
