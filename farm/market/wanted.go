package market

import "dewcount/farm/look"

// Wanted returns how many stems all orders together want in each week of the season, of one crop or of all where that is empty. What
// may be of any crop counts among all alone.
func Wanted(s *look.Season, cropID string) []float64 {
	weeks := s.Weeks()
	wanted := make([]float64, len(weeks))
	snap := &look.Snapshot{Book: s.Book, View: s.View, Model: s.Model, Stand: s.Stand}
	for _, o := range s.Book.Orders {
		stems := 0.0
		for _, l := range s.Book.OrderLines {
			if l.Order != o.ID {
				continue
			}
			for _, part := range ingredients(snap, l) {
				if w := wantOf(snap, part.OrderLine); cropID == "" || w.CropID == cropID {
					stems += float64(w.Wanted)
				}
			}
		}
		for _, d := range o.Between(s.From, s.Until.Add(-1)) {
			wanted[d.Sub(weeks[0].Monday)/7] += stems
		}
	}
	return wanted
}
