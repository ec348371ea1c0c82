package look

import (
	"dewcount/core/crop"
	"dewcount/farm/book"
)

// A Surprise is a count far from what was expected of its plants.
type Surprise struct {
	Seen, Low, High float64 // stems: seen, and the bounds of what was expected
	More            bool    // than expected, not fewer
}

// How far beyond the bounds a count must lie to surprise: by so many stems, whose number is chance, and by a share.
const (
	surpriseStems = 5
	surpriseShare = 0.3
)

// Surprise tells whether a count of planting i is far from what the farm expected before it.
func (s *Snapshot) Surprise(i int, c book.Count) (Surprise, bool) {
	expected := s.Stand.Standing(i)
	share := float64(c.PlantsCount) / float64(s.Model.Plantings[i].Growth.Plants)
	out := Surprise{Low: expected.Sure * share, High: expected.AtBest * share}
	for k, n := range c.Stems {
		if crop.Rung(k) < crop.Over {
			out.Seen += float64(n)
		}
	}
	out.More = out.Seen > out.High
	return out, out.Seen > (1+surpriseShare)*out.High+surpriseStems || out.Seen < (1-surpriseShare)*out.Low-surpriseStems
}
