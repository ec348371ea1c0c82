package forecast

import (
	"math"
	"slices"

	"dewcount/core/climate"
	"dewcount/core/growth"
)

// A Learned is what the records leave likely of a planting beside the crop table: how much slower it is, how many more stems it has, how
// many more shoots follow a cut half way through its bloom and how many more at its end than at its beginning, each as a factor with its
// bounds (nine times in ten more than the first, the middle, one time in ten more than the last); how unevenly its stems come, Usual as long as
// neither other is likelier than not; and so how it answers to temperature.
type Learned struct {
	Pace, Stems, Regrow, Fade [3]float64
	Spread                    growth.Spread
	Answer                    climate.Answer
	Strained                  bool // its records contradict each other or all that is thought possible
}

// Learned returns what is known of planting i in the season that the farm is looked at in, and whether it has one.
func (s *Stand) Learned(i int) (Learned, bool) {
	r := s.on(i, s.farm.From)
	if r == nil {
		return Learned{}, false
	}
	var pace, stems, regrow, fade []float64
	known := r.standing()
	spreads, answers := make(map[growth.Spread]int), make(map[climate.Answer]int)
	for _, t := range known.Traits {
		pace, stems, regrow, fade = append(pace, t.Pace), append(stems, t.Stems), append(regrow, t.Regrow), append(fade, math.Exp(t.Fade))
		spreads[t.Spread]++
		answers[t.Answer]++
	}
	bounds := func(values []float64) [3]float64 {
		slices.Sort(values)
		at := func(p float64) float64 { return values[min(len(values)-1, int(p*float64(len(values))))] }
		return [3]float64{at(0.1), at(0.5), at(0.9)}
	}
	return Learned{bounds(pace), bounds(stems), bounds(regrow), bounds(fade), likely(spreads), likely(answers), known.Strained}, true
}

// likely returns that which has more than half of the draws, the zero value where nothing has.
func likely[T comparable](of map[T]int) T {
	all := 0
	for _, n := range of {
		all += n
	}
	for which, n := range of {
		if 2*n > all {
			return which
		}
	}
	var usual T
	return usual
}
