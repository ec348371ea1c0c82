package forecast

import (
	"runtime"
	"testing"
	"time"

	"dewcount/core/crop"
	"dewcount/core/evidence"
)

// bare is the arithmetic of the method and nothing else: for each planting, weather, draw and two days a look at the sum of warmth and at
// the flush and a box filled at three speeds; for each pick the boxes of the window emptied at three speeds, and new shoots put
// into the boxes of a regrowth.
func bare(plantings, samples, days, picks int) float64 {
	const boxes, window, regrowth = 64, 8, 12
	var warmth [512]float64
	for i := range warmth {
		warmth[i] = 2.5 * float64(i)
	}
	sum := 0.0
	for range plantings {
		for k := range samples {
			var train [3][boxes]float64
			at := float64(k % 7)
			for range days / 2 {
				place := at * 4
				i := int(place) % 500
				cd := warmth[i] + (place-float64(i))*(warmth[i+1]-warmth[i])
				j := int(cd/30) % 500
				stems := warmth[j] + (cd/30-float64(j))*(warmth[j+1]-warmth[j])
				box := int(cd/12) % boxes
				for v := range train {
					train[v][box] += stems * 0.3
				}
				at += 2
			}
			for p := range picks {
				taken := 0.0
				for v := range train {
					from := (p*5 + v) % (boxes - window)
					for b := from; b < from+window; b++ {
						taken += train[v][b]
						train[v][b] = 0
					}
				}
				for v := range train {
					from := (p*5 + 20 + v) % (boxes - regrowth)
					for b := from; b < from+regrowth; b++ {
						train[v][b] += taken * 0.1
					}
				}
				sum += taken
			}
		}
	}
	return sum
}

func BenchmarkWholeFarmCold(b *testing.B) {
	farm := meadow(60)
	const days = 35
	var alone time.Duration // of the bare loop, which takes turns with the forecast: a shared machine slows both
	for b.Loop() {
		New(farm, nil).Forecast()
		b.StopTimer()
		start := time.Now()
		sink += bare(60, farm.Members*farm.Draws, days, 10)
		alone += time.Since(start)
		b.StartTimer()
	}
	each := float64(b.Elapsed().Nanoseconds()) / float64(b.N)
	b.ReportMetric(each/float64(60*days*farm.Members), "ns/planting-member-day")
	b.ReportMetric(float64(b.Elapsed())*float64(runtime.GOMAXPROCS(0))/float64(alone), "×bare-loop")
}

var sink float64

func BenchmarkAfterOneCount(b *testing.B) {
	before := New(meadow(60), nil)
	before.Forecast()
	farm := meadow(60)
	farm.Plantings[0].Counts = []evidence.Count{{At: farm.From.At(6), Plants: 60, Stems: [crop.Rungs]int{40, 10, 8, 5, 5, 9}}}
	for b.Loop() {
		New(farm, before).Forecast()
	}
}

// A farm is forecast again and again for years on end: nothing of it may stay behind.
func TestAThousandForecastsLeaveNothingBehind(t *testing.T) {
	var stand *Stand
	heap := func(forecasts int) float64 {
		for i := range forecasts {
			farm := meadow(3)
			farm.Members, farm.Draws = 4, 4
			farm.Plantings[0].Counts = []evidence.Count{{At: farm.From.At(6), Plants: 60, Stems: [crop.Rungs]int{40, 10, 8, 5, 5, i % 30}}}
			stand = New(farm, stand)
			stand.Forecast()
		}
		runtime.GC()
		var m runtime.MemStats
		runtime.ReadMemStats(&m)
		return float64(m.HeapAlloc)
	}
	early := heap(100)
	if late := heap(900); late > 1.2*early+1e6 {
		t.Errorf("%.1f MB in use after a hundred forecasts, %.1f MB after a thousand", early/1e6, late/1e6)
	}
}
