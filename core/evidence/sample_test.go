package evidence

import (
	"math"
	"testing"
)

// By hand: 12 of 60 plants with one stem each: sqrt((1 + 0.4²)/12 × 48/60) = 0.278; all of them leave nothing unsure.
func TestSampleCV(t *testing.T) {
	for _, c := range []struct {
		some, all int
		perPlant  float64
		want      float64
	}{{12, 60, 1, 0.2781}, {24, 60, 1, 0.1703}, {12, 60, 0.25, 0.5266}, {60, 60, 1, 0}, {80, 60, 1, 0}, {0, 60, 1, math.Inf(1)}, {12, 60, 0, math.Inf(1)}} {
		if got := SampleCV(c.some, c.all, c.perPlant); math.Abs(got-c.want) > 5e-4 && got != c.want {
			t.Errorf("SampleCV(%d, %d, %v) = %.4f, want %v", c.some, c.all, c.perPlant, got, c.want)
		}
	}
}

func TestMorePlantsNarrowMoreAndNeverWiden(t *testing.T) {
	for _, perPlant := range []float64{0.05, 0.4, 2, 8} {
		before := 1.0
		for n := 1; n <= 200; n++ {
			left := Narrowed(SampleCV(n, 200, perPlant))
			if left > before+1e-12 || left < leastPart-1e-9 {
				t.Fatalf("%d of 200 plants with %v stems each leave %.3f of the spread, one plant fewer %.3f", n, perPlant, left, before)
			}
			before = left
		}
	}
}

func TestSampleIsWithinReason(t *testing.T) {
	for _, c := range []struct {
		all      int
		perPlant float64
		low      int
		high     int
	}{{4, 1, 4, 4}, {60, 1, 6, 8}, {60, 0.4, 8, 14}, {200, 0.02, 40, 40}, {200, 10, 6, 6}} {
		if n := Sample(c.all, c.perPlant); n < c.low || n > c.high {
			t.Errorf("Sample(%d, %v) = %d, want %d to %d", c.all, c.perPlant, n, c.low, c.high)
		}
	}
}
