package standin

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// Grown plants that are set in a mild autumn lie until their year turns, in the south on 1 July, and bloom in its season.
func TestWhatIsSetInAutumnRests(t *testing.T) {
	mild := Climate{
		TminC: [12]float64{6, 6.4, 8, 10, 13.4, 17.2, 19.8, 20, 17.6, 14.2, 10.1, 7.3},
		TmaxC: [12]float64{13.8, 14.6, 16.9, 19.8, 24.3, 28.8, 31.6, 31.4, 27.9, 23.2, 18.2, 14.9}}
	south := mild
	for m := range 12 {
		south.TminC[m], south.TmaxC[m] = mild.TminC[(m+6)%12], mild.TmaxC[(m+6)%12]
	}
	for _, c := range []struct {
		latitude    float64
		climate     Climate
		set, wakes  string
		bloomsAfter int // days after that
	}{{38, mild, "2025-10-01", "2026-01-01", 40}, {-38, south, "2025-04-01", "2025-07-01", 40}} {
		for _, id := range []string{"bearded-iris", "michaelmas-aster"} {
			p, market := habit(id)
			set := day.Must(c.set)
			f := NewField(3, NewWeather(c.climate, 3, set), c.latitude, []Row{{Planting: "P", Variety: "blue", Profile: p, Method: crop.Established, Market: market, Plants: 20, Started: set, Out: set}}, nil, set)
			first := day.Day{}
			for d := set; d.Sub(set) < 400 && first.IsZero(); d = d.Add(1) {
				if f.Look("P", 20, UsualEyes).Ready > 0 {
					first = d
				}
				f.Step(nil)
			}
			if wakes := day.Must(c.wakes); first.Sub(wakes) < c.bloomsAfter {
				t.Errorf("%s at %v° set on %s is in bloom on %s", id, c.latitude, c.set, first)
			}
		}
	}
}
