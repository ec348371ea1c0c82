package forecast

import (
	"slices"

	"dewcount/core/growth"
)

// A Learned is what the records leave likely of a planting beside the crop table: how much slower it is, how many more stems it has and
// how many more shoots follow a cut, each as a factor with its bounds (nine times in ten more than the first, the middle, one time
// in ten more than the last); and how unevenly its stems come, Usual as long as neither other is as likely as not.
type Learned struct {
	Pace, Stems, Regrow [3]float64
	Spread              growth.Spread
	Strained            bool // its records contradict each other or all that is thought possible
}

// Learned returns what is known of planting i in the season that the farm is looked at in, and whether it has one.
func (s *Stand) Learned(i int) (Learned, bool) {
	r := s.on(i, s.farm.From)
	if r == nil {
		return Learned{}, false
	}
	var pace, stems, regrow []float64
	known := r.standing()
	of := make(map[growth.Spread]int)
	for _, t := range known.Traits {
		pace, stems, regrow = append(pace, t.Pace), append(stems, t.Stems), append(regrow, t.Regrow)
		of[t.Spread]++
	}
	bounds := func(values []float64) [3]float64 {
		slices.Sort(values)
		at := func(p float64) float64 { return values[min(len(values)-1, int(p*float64(len(values))))] }
		return [3]float64{at(0.1), at(0.5), at(0.9)}
	}
	spread := growth.Usual
	for _, s := range [...]growth.Spread{growth.Even, growth.Uneven} {
		if 2*of[s] >= len(known.Traits) {
			spread = s
		}
	}
	return Learned{bounds(pace), bounds(stems), bounds(regrow), spread, known.Strained}, true
}
