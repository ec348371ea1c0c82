package forecast

import (
	"math"
	"testing"
)

func TestSpreadByHand(t *testing.T) {
	s := newSpread([]int32{3, 1, 2, 2, 7, 0, 2, 3, 9, 1}, 3)
	for p, want := range map[float64]float64{0.1: 0, 0.25: 1, 0.5: 2, 0.75: 3, 0.9: 7, 1: 9} {
		if got := s.Quantile(p); got != want {
			t.Errorf("Quantile(%v) = %v, want %v", p, got, want)
		}
	}
	for n, want := range map[int]float64{-1: 1, 0: 1, 1: 0.9, 3: 0.4, 9: 0.1, 10: 0} {
		if got := s.AtLeast(n); math.Abs(got-want) > 1e-12 {
			t.Errorf("AtLeast(%d) = %v, want %v", n, got, want)
		}
	}
}

// Of twenty samples eight are of no stem, six of one, three of two and three of four: up to them 40, 70, 85 and 100 of a hundred. What is told above the
// middle is the number that comes nearest to its chance; below it nothing is told that comes less often than is said.
func TestBoundsByHand(t *testing.T) {
	s := newSpread([]int32{0, 0, 0, 0, 0, 0, 0, 0, 1, 1, 1, 1, 1, 1, 2, 2, 2, 4, 4, 4}, 1.2)
	for p, want := range map[float64]float64{
		0.1: 0, 0.25: 0, 0.4: 0, 0.5: 1, // 0.4: as many as that are come
		0.75: 1,       // 70 lie nearer than 85
		0.8:  2,       // 85 lie nearer than 70
		0.9:  2,       // 85 lie nearer than 100
		0.95: 4, 1: 4, // 100 lie nearer than 85
		0.925: 4, // as near: the careful one
	} {
		if got := s.Bound(p); got != want {
			t.Errorf("Bound(%v) = %v, want %v", p, got, want)
		}
	}
	if s.Sure() != 0 || s.Likely() != 1 || s.AtBest() != 2 {
		t.Errorf("%d sure, %d likely, %d at best; want 0, 1, 2", s.Sure(), s.Likely(), s.AtBest())
	}
	if rare := newSpread([]int32{0, 0, 0, 0, 0, 0, 0, 0, 0, 5}, 0.5); rare.AtBest() != 0 || rare.Bound(0.96) != 5 {
		t.Errorf("five stems one time in ten are %d at best, and %v with a chance of 0.96", rare.AtBest(), rare.Bound(0.96))
	}
	if sparse := newSpread([]int32{3, 3, 3, 3, 3, 3, 3, 9, 9, 9}, 4.8); sparse.Bound(0.75) != 3 {
		t.Errorf("%v with a chance of 0.75, want 3, which has seven of ten", sparse.Bound(0.75))
	}
}

// Numbers beyond all reason are told in steps, so that they fill no memory: within a step of what they are, and in order.
func TestASpreadOfAbsurdNumbersIsSmall(t *testing.T) {
	s := newSpread([]int32{0, 700_000, 1_400_000, 2_000_000_000}, 500_525_000)
	if len(s.often) > finest+1 {
		t.Errorf("it tells %d numbers apart", len(s.often))
	}
	step := 2_000_000_000.0/finest + 1
	for p, want := range map[float64]float64{0.25: 0, 0.5: 700_000, 0.75: 1_400_000, 1: 2_000_000_000} {
		if got := s.Quantile(p); math.Abs(got-want) > step {
			t.Errorf("Quantile(%v) = %.0f, want %.0f within %.0f", p, got, want, step)
		}
	}
	if got := s.AtLeast(1_000_000); got != 0.5 {
		t.Errorf("AtLeast(a million) = %v, want 0.5", got)
	}
}
