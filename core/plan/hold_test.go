package plan

import (
	"math/rand/v2"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// By hand: Tuesday and Friday of two weeks give 8 and 12 stems, then 3 and 2, and ten are wanted in each. Friday's twelve last four days, until Tuesday: five of them
// help out, since ten more than are wanted are there. Held for three days none do; where the second week lacks more than the first has, it gets what there is.
func TestWhatIsHeldOverHelpsOut(t *testing.T) {
	first := day.Must("2026-06-01")
	try := &Try{Samples: 2, Picks: []day.Day{first.Add(1), first.Add(4), first.Add(8), first.Add(11)}}
	byPick := [][]float32{{8, 8}, {12, 4}, {3, 3}, {2, 2}}
	want := wantOf(2, 10, 1)
	for days, weeks := range map[int][2][2]float32{4: {{15, 10}, {10, 7}}, 3: {{20, 12}, {5, 5}}, 0: {{20, 12}, {5, 5}}} {
		held := try.weeklyHeld(byPick, want, try.holdingOf(want, days))
		for w := range weeks {
			for s, stems := range weeks[w] {
				if held[w][s] != stems {
					t.Errorf("held for %d days week %d has %v, want %v", days, w, held[w], weeks[w])
				}
			}
		}
	}
	nothing := want
	nothing.Stems = []float64{0, 10}
	if held := try.weeklyHeld(byPick, nothing, try.holdingOf(nothing, 4)); held[1][0] != 5 {
		t.Errorf("what nobody wanted in a week that is not planned is held over: %v", held[1])
	}
}

// Whatever sowings give: with stems that are held a plan has no more stems than without, its weeks are held as surely, and no stem is counted twice.
func TestHoldingSparesStems(t *testing.T) {
	for seed := range uint64(30) {
		random := rand.New(rand.NewPCG(seed, 9))
		first := day.Must("2026-06-01")
		const weeks, samples = 6, 60
		try := &Try{Samples: samples}
		for w := range weeks {
			try.Picks = append(try.Picks, first.Add(7*w+1), first.Add(7*w+4))
		}
		try.Rows = make([][]float32, len(try.Picks))
		for j := range try.Rows {
			try.Rows[j] = make([]float32, samples)
		}
		for i := range weeks {
			trial := Trial{Sowing: Sowing{Method: crop.Direct, Started: first.Add(7*i - 60)}}
			late := make([]float64, samples)
			for s := range late {
				late[s] = random.NormFloat64()
			}
			for j := range try.Picks {
				by := make([]float32, samples)
				for s := range by {
					off := (float64(j)-2*float64(i)-late[s])/2 - 0.5
					by[s] = float32(max(0, 1-off*off/3))
				}
				trial.ByPick = append(trial.ByPick, by)
			}
			try.Trials = append(try.Trials, trial)
		}
		want := wantOf(weeks, 20, 0.8)
		fresh, held := try.EvenBloom(t.Context(), want, Limits{}, nil), try.EvenBloom(t.Context(), want, Limits{Hold: 4}, nil)
		for _, o := range held.Options {
			for _, f := range fresh.Options {
				if f.Sowings == o.Sowings && o.Stems > f.Stems+1e-6 {
					t.Errorf("seed %d: %d sowings of %.0f stems where stems are held, %.0f where they are not", seed, o.Sowings, o.Stems, f.Stems)
				}
			}
		}
		there := try.picksOf(held.Sowings, false)
		all, counted := 0.0, 0.0
		for j := range there {
			all += float64(there[j][0])
		}
		for _, sums := range try.weeklyHeld(there, want, try.holdingOf(want, 4)) {
			counted += float64(sums[0])
		}
		if counted > all+1e-3 {
			t.Errorf("seed %d: %.1f stems are counted, %.1f are there", seed, counted, all)
		}
		for _, w := range held.Weeks {
			if w.Reachable && w.Chance < want.Chance-1e-9 {
				t.Errorf("seed %d: the week of %s is held %.2f of the time", seed, w.Monday, w.Chance)
			}
		}
	}
}

// By hand: two early sowings give a stem a plant in two weathers of ten, and little in the others. Where that is a fifth of a stem, ten stems of the first week take fifty plants beside ten for each later
// week, and it is held; where it is 0.13, they would take 77, more than six for each stem, and it is given up.
func TestAnEdgeThatTakesTooManyPlantsIsGivenUp(t *testing.T) {
	for little, held := range map[float32]bool{0.2: true, 0.13: false} {
		try := paper(4, 3, 10, func(i, w, sample int) float32 {
			switch {
			case i < 2 && w == 0 && sample < 2, i >= 2 && w == i-1:
				return 1
			case i < 2 && w == 0:
				return little
			}
			return 0
		})
		b := try.EvenBloom(t.Context(), wantOf(3, 10, 1), Limits{}, nil)
		if b.Weeks[0].Reachable != held || !b.Weeks[1].Reachable || !b.Weeks[2].Reachable {
			t.Errorf("with %v of a stem: held %v, %v, %v by %v", little, b.Weeks[0].Reachable, b.Weeks[1].Reachable, b.Weeks[2].Reachable, b.Sowings)
		}
	}
}
