package forecast

import (
	"slices"
	"sync"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/evidence"
	"dewcount/core/growth"
)

// After one new count only its crop is reckoned anew, and everything is as if all had been.
func TestWhatHasNotChangedIsTakenOver(t *testing.T) {
	before := New(meadow(6), nil)
	before.Forecast()
	farm := meadow(6)
	farm.Plantings[0].Counts = []evidence.Count{counted(farm, 0, growth.Traits{Pace: 0.95, Stems: 1.3, Regrow: 1}, 60)}
	sameAsCold(t, farm, before)

	// One without records is moved: the others of its crop, with records and without, are as they were.
	planned := func() *Farm {
		farm := meadow(9)
		farm.Plantings[0].Counts = []evidence.Count{counted(farm, 0, growth.Traits{Pace: 0.95, Stems: 1.3, Regrow: 1}, 60)}
		return farm
	}
	stood := New(planned(), nil)
	stood.Forecast()
	moved := planned()
	moved.Plantings[6].Growth.Started = moved.Plantings[6].Growth.Started.Add(9)
	sameAsCold(t, moved, stood)
	again := New(moved, stood)
	if again.lives[0][0] != stood.lives[0][0] || again.lives[6][0] == stood.lives[6][0] {
		t.Error("what has not moved was worked out anew, or what has was not")
	}
	warm := meadow(6)
	warm.Outlook.Observed[300].TmaxC += 5
	if New(warm, before).lives[3][0] == before.lives[3][0] {
		t.Error("another weather was not noticed")
	}
}

// sameAsCold holds that a forecast which takes over from a stand before has the numbers of one from nothing.
func sameAsCold(t *testing.T, farm *Farm, before *Stand) {
	t.Helper()
	quick, slow := New(farm, before).Forecast(), New(farm, nil).Forecast()
	for i := range slow.Plantings {
		for j := range slow.PickDays {
			for u := range crop.Use(crop.Uses) {
				a, b := quick.Plantings[i].ByPick[j][u], slow.Plantings[i].ByPick[j][u]
				if !slices.Equal(a.often, b.often) || a.mean != b.mean {
					t.Fatalf("planting %d, pick %d, %v: %v taken over, %v from cold", i, j, u, a.mean, b.mean)
				}
			}
		}
	}
	for _, sums := range []struct{ quick, slow map[string]Cells }{{quick.Crops, slow.Crops}, {quick.Varieties, slow.Varieties}} {
		for id := range sums.slow {
			if a, b := total(sums.quick[id], crop.Market), total(sums.slow[id], crop.Market); a != b {
				t.Errorf("%s: %v stems taken over, %v from cold", id, a, b)
			}
		}
	}
}

// Stands that follow the same one share its weather, at the same time too (run with -race).
func TestStandsAtOnceShareTheirWeather(t *testing.T) {
	farm := meadow(3)
	before := New(farm, nil)
	before.Forecast()
	var ready, followers sync.WaitGroup
	stands := make([]*Stand, 4)
	ready.Add(len(stands))
	for i := range stands {
		followers.Go(func() {
			next := *farm
			next.Plantings = slices.Clone(farm.Plantings)
			next.Plantings[0].Cover = Cover{NightC: 3, DayC: 4 + float64(i/2)} // what the stand before has not worked out
			ready.Done()
			ready.Wait()
			stands[i] = New(&next, before)
		})
	}
	followers.Wait()
	if a, b, c := stands[0].FirstFlush(0), stands[1].FirstFlush(0), stands[2].lives[0][0].clocks; a != b || c == stands[0].lives[0][0].clocks || c != stands[3].lives[0][0].clocks {
		t.Errorf("stands of the same farm differ, %v and %v stems, or of two covers share their hours", a, b)
	}
}
