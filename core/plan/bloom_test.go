package plan

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// paper is a try made by hand: stems a plant by sowing and week, each of several equally likely weathers a factor earlier or later.
func paper(sowings, weeks, samples int, stems func(sowing, week, sample int) float32) *Try {
	first := day.Must("2026-06-01") // a Monday
	t := &Try{Samples: samples}
	for w := range weeks {
		t.Picks = append(t.Picks, first.Add(7*w+1))
		t.Rows = append(t.Rows, make([]float32, samples))
	}
	for i := range sowings {
		trial := Trial{Sowing: Sowing{Method: crop.Direct, Started: first.Add(7*i - 60)}}
		for w := range weeks {
			by := make([]float32, samples)
			for s := range by {
				by[s] = stems(i, w, s)
			}
			trial.ByPick = append(trial.ByPick, by)
		}
		t.Trials = append(t.Trials, trial)
	}
	return t
}

func wantOf(weeks int, stems, chance float64) Want {
	w := Want{First: WeekOf(day.Must("2026-06-01")), Chance: chance}
	for range weeks {
		w.Stems = append(w.Stems, stems)
	}
	return w
}

// On squared paper: a sowing gives two stems a plant in its own week and one in the week after, whatever the weather. Ten stems a week for
// three weeks want five plants of the first; the second sowing then owes five stems, three plants; the third owes seven, four.
// Without the second, week 2 has the first's alone: ten plants of it, and five of the third: more plants, yet a sowing fewer.
func TestEvenBloomOnSquaredPaper(t *testing.T) {
	try := paper(3, 3, 1, func(i, w, _ int) float32 {
		switch w - i {
		case 0:
			return 2
		case 1:
			return 1
		}
		return 0
	})
	b := try.EvenBloom(t.Context(), wantOf(3, 10, 1), Limits{}, nil)
	want := map[int]int{2: 15, 3: 12}
	for _, o := range b.Options {
		if o.Plants != want[o.Sowings] {
			t.Errorf("%d sowings take %d plants, not %d", o.Sowings, o.Plants, want[o.Sowings])
		}
		delete(want, o.Sowings)
	}
	if len(want) > 0 {
		t.Errorf("no plan with these numbers of sowings: %v of %v", want, b.Options)
	}
	if b.Plants != 12 { // 12 × 1.1³ = 15.97 is less than 15 × 1.1² = 18.15
		t.Errorf("the plan takes %d plants: %v", b.Plants, b.Sowings)
	}
	for _, w := range b.Weeks {
		if w.Chance < 1-1e-9 || w.Short > 0 {
			t.Errorf("week of %s is short: %+v", w.Monday, w)
		}
	}
}

func TestEvenBloomLikeExhaustiveSearch(t *testing.T) {
	const sowings, weeks, samples, most = 4, 4, 10, 14
	for seed := range uint64(60) {
		random := rand.New(rand.NewPCG(seed, 7))
		var late [samples]float64
		for s := range late {
			late[s] = 0.7 * random.NormFloat64()
		}
		own := make([]float64, sowings*samples)
		for i := range own {
			own[i] = 0.3 * random.NormFloat64()
		}
		width, peak := 0.6+random.Float64(), 1+3*random.Float64()
		try := paper(sowings, weeks, samples, func(i, w, s int) float32 {
			off := (float64(w-i) - late[s] - own[i*samples+s]) / width
			return float32(max(0, peak*(1-off*off/4)))
		})
		want, limits := wantOf(weeks, 10, 0.8), Limits{Plants: most}
		found := try.EvenBloom(t.Context(), want, limits, nil)
		for w := range want.Stems {
			if !found.Weeks[w].Reachable {
				want.Stems[w] = 0 // what was given up is no part of the comparison
			}
		}
		exact := exhaustive(try, want, most)
		cost := func(stems [sowings + 1]float64) float64 {
			least := math.Inf(1)
			for k, n := range stems {
				if n > 0 {
					least = min(least, n*math.Pow(1+oneMoreSowing, float64(k)))
				}
			}
			return least
		}
		var mine [sowings + 1]float64
		for _, o := range found.Options {
			mine[o.Sowings] = o.Stems
			if o.Stems < exact[o.Sowings]*(1-1e-6) {
				t.Errorf("seed %d: %d sowings of %.1f stems were said to do, the least is %.1f", seed, o.Sowings, o.Stems, exact[o.Sowings])
			}
		}
		if a, b := cost(mine), cost(exact); a > 1.06*b && !math.IsInf(b, 1) {
			t.Errorf("seed %d: the plan costs %.1f, the best %.1f: %v and %v", seed, a, b, mine, exact)
		}
	}
}

// exhaustive returns the fewest stems in all by number of sowings, trying every number of plants of every sowing.
func exhaustive(try *Try, want Want, most int) (least [5]float64) {
	each := make([]float64, len(try.Trials))
	for i := range each {
		each[i] = try.Stems([]Planned{{try.Trials[i].Sowing, 1}})
	}
	plants := make([]int, len(try.Trials))
	allowed := int((1-want.Chance)*float64(try.Samples) + 1e-9)
	holds := func() bool {
		for w := range want.Stems {
			short := 0
			for s := range try.Samples {
				stems := 0.0
				for i, n := range plants {
					stems += float64(n) * float64(try.Trials[i].ByPick[w][s])
				}
				if stems < want.Stems[w]-hair {
					short++
				}
			}
			if short > allowed {
				return false
			}
		}
		return true
	}
	var next func(i, used int, stems float64)
	next = func(i, used int, stems float64) {
		if i < len(plants) {
			for n := 0; n <= most; n++ {
				plants[i] = n
				switch {
				case n == 0:
					next(i+1, used, stems)
				case n >= leastPlants:
					next(i+1, used+1, stems+float64(n)*each[i])
				}
			}
			plants[i] = 0
			return
		}
		if (least[used] == 0 || stems < least[used]) && holds() {
			least[used] = stems
		}
	}
	next(0, 0, 0)
	return least
}

func TestMoreIsNeverEasier(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 3))
	try := paper(6, 6, 40, func(i, w, s int) float32 {
		off := float64(w-i) - 0.8*random.NormFloat64()
		return float32(max(0, 2*(1-off*off/3)))
	})
	plants := func(stems, chance float64) int {
		b := try.EvenBloom(t.Context(), wantOf(6, stems, chance), Limits{}, nil)
		least := 1 << 30
		for _, o := range b.Options {
			least = min(least, o.Plants)
		}
		return least
	}
	for _, c := range [][4]float64{{10, 0.8, 20, 0.8}, {10, 0.6, 10, 0.9}} {
		if easy, hard := plants(c[0], c[1]), plants(c[2], c[3]); easy > hard {
			t.Errorf("%v stems at %v want %d plants, %v at %v only %d", c[0], c[1], easy, c[2], c[3], hard)
		}
	}
}

func TestLimitsHold(t *testing.T) {
	try := paper(5, 5, 1, func(i, w, _ int) float32 {
		if w == i || w == i+1 {
			return 1
		}
		return 0
	})
	b := try.EvenBloom(t.Context(), wantOf(5, 10, 1), Limits{Plants: 10, AtOnce: 35, Sowings: 5}, nil)
	if len(b.Sowings) == 0 {
		t.Fatal("no plan")
	}
	for _, p := range b.Sowings {
		if p.Plants > 10 {
			t.Errorf("a sowing of %d plants", p.Plants)
		}
	}
	again := func() string { return fmt.Sprint(try.EvenBloom(t.Context(), wantOf(5, 10, 1), Limits{}, nil)) }
	if first := again(); again() != first {
		t.Error("the same want gives another plan")
	}
}
