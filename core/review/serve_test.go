package review

import (
	"math/rand/v2"
	"slices"
	"testing"

	"dewcount/core/day"
)

// By hand: 10 stems of Monday last until Thursday, 10 of Tuesday until Wednesday. Wednesday wants 10 at 1, Thursday 15 at 2: Thursday has the 10 that last, Wednesday the others.
func TestServeByHand(t *testing.T) {
	monday := day.Must("2026-07-06")
	stems := []Stems{{monday, monday.Add(3), 10}, {monday.Add(1), monday.Add(2), 10}}
	got := Serve(stems, []Due{{On: monday.Add(2), Wanted: 10, Price: 1}, {On: monday.Add(3), Wanted: 15, Price: 2}})
	if !slices.Equal(got, []int{10, 10}) {
		t.Errorf("%v, want 10 and 10", got)
	}
	if same := Serve(stems, []Due{{On: monday, Wanted: 5, Price: 9}}); same[0] != 0 {
		t.Errorf("%d stems are sold on the day on which they are cut", same[0])
	}
	promised := Due{Wanted: 20, Price: 1.5, Penalty: 0.5}
	if worth := promised.Worth(12); worth != 14 { // 12 × 1.50 less 8 × 0.50
		t.Errorf("worth %v, want 14", worth)
	}
}

// Against every way of giving out few stems one by one, nothing is worth more; no stem is given twice, and none to a day that it does not last to.
func TestServeAgainstEveryWay(t *testing.T) {
	first := day.Must("2026-07-01")
	for seed := range uint64(400) {
		random := rand.New(rand.NewPCG(seed, 5))
		var stems []Stems
		for range 1 + random.IntN(5) {
			cut := first.Add(random.IntN(5))
			stems = append(stems, Stems{cut, cut.Add(1 + random.IntN(4)), 1})
		}
		var dues []Due
		for range 1 + random.IntN(4) {
			dues = append(dues, Due{On: first.Add(1 + random.IntN(7)), Wanted: 1 + random.IntN(2), Price: 1 + float64(random.IntN(4)), Penalty: float64(random.IntN(3))})
		}
		worth := func(filled []int) float64 {
			sum := 0.0
			for i := range dues {
				sum += dues[i].Worth(filled[i])
			}
			return sum
		}
		filled := make([]int, len(dues))
		best := worth(filled)
		var every func(i int)
		every = func(i int) {
			if i == len(stems) {
				best = max(best, worth(filled))
				return
			}
			every(i + 1)
			for d := range dues {
				if stems[i].Cut.Before(dues[d].On) && !stems[i].Last.Before(dues[d].On) && filled[d] < dues[d].Wanted {
					filled[d]++
					every(i + 1)
					filled[d]--
				}
			}
		}
		every(0)
		if got := Serve(stems, dues); worth(got) != best {
			t.Fatalf("seed %d: %v is worth %v, %v can be had: %v, %v", seed, got, worth(got), best, stems, dues)
		}
	}
}
