package promise

import (
	"math"
	"testing"

	"dewcount/core/crop"
)

// Whatever is dealt, no stem is made: sources have no more than stands, what nobody can use is not among them, and on the mean each has its share.
func TestDealingMakesNoStems(t *testing.T) {
	s := &Stock{Row: 3, Colours: []float64{0.4, 0.6}, Parts: []Part{{Source: 0, Rung: crop.Half, Colour: 0, Long: 0.75}, {Source: 1, Rung: crop.Half, Colour: 0, Long: 0.25}, {Source: -1, Rung: crop.Half, Colour: 1, Long: 1},
		{Source: 1, Rung: crop.Open, Colour: 0, Long: 1}, {Source: 0, Rung: crop.Open, Colour: 1, Long: 1}}}
	var rungs [crop.Rungs]float32
	rungs[crop.Half], rungs[crop.Open] = 60, 20.4
	const samples = 4000
	mean := make([]float64, 2)
	for k := range samples {
		stems := make([]int, 2)
		given := s.Deal(rungs, 1, k, stems)
		if given != stems[0]+stems[1] || given > 80 || min(stems[0], stems[1]) < 0 {
			t.Fatalf("sample %d: %d are dealt, as %v", k, given, stems)
		}
		again := make([]int, 2)
		if s.Deal(rungs, 1, k, again); again[0] != stems[0] || again[1] != stems[1] {
			t.Fatalf("sample %d is %v and then %v", k, stems, again)
		}
		for i := range mean {
			mean[i] += float64(stems[i]) / samples
		}
	}
	// 60 × 0.4 × 0.75 + 20.4 × 0.6 = 30.2 and 60 × 0.4 × 0.25 + 20.4 × 0.4 = 14.2, of 80 whole stems
	for i, want := range []float64{30.24, 14.16} {
		if math.Abs(mean[i]-want) > 0.6 {
			t.Errorf("source %d has %.2f on the mean, want %.2f", i, mean[i], want)
		}
	}
	usual := make([]int, 2)
	if n := s.Usual(rungs, 80, usual); n != usual[0]+usual[1] || usual[0] != 30 || usual[1] != 14 {
		t.Errorf("usually %v, %d in all", usual, n)
	}
	if n := s.Deal([crop.Rungs]float32{}, 1, 0, usual); n != 0 {
		t.Errorf("of nothing %d are dealt", n)
	}
}
