package market

import (
	"slices"

	"dewcount/core/day"
	"dewcount/farm/look"
)

// Wanted returns how many stems all orders together want in each week of the season, of one crop or of all where that is empty. What
// may be of any crop counts among all alone.
func Wanted(s *look.Season, cropID string) []float64 {
	weeks := s.Weeks()
	snap := &look.Snapshot{Book: s.Book, View: s.View, Model: s.Model, Stand: s.Stand}
	return wantedIn(snap, cropID, weeks[0].Monday, len(weeks), s.From, s.Until.Add(-1))
}

// WantedIn is Wanted of so many weeks from a Monday on.
func WantedIn(s *look.Snapshot, cropID string, monday day.Day, weeks int) []float64 {
	return wantedIn(s, cropID, monday, weeks, monday, monday.Add(7*weeks-1))
}

func wantedIn(s *look.Snapshot, cropID string, monday day.Day, weeks int, from, to day.Day) []float64 {
	wanted := make([]float64, weeks)
	for _, o := range s.Book.Orders {
		for _, d := range o.Between(from, to) {
			for _, l := range s.Book.OrderLines {
				if l.Order != o.ID {
					continue
				}
				for _, part := range ingredients(s, s.Book.LineOn(l, d)) {
					if w := wantOf(s, part.OrderLine); cropID == "" || w.CropID == cropID {
						wanted[d.Sub(monday)/7] += float64(w.Wanted)
					}
				}
			}
		}
	}
	return wanted
}

// A Call is an order on a day, with the crops that it names.
type Call struct {
	Order string
	On    day.Day
	Crops []string
}

// Calls returns what is due within the season from a day on and names a crop, in order.
func Calls(s *look.Season, from day.Day) []Call {
	snap := &look.Snapshot{Book: s.Book, View: s.View, Model: s.Model, Stand: s.Stand}
	if from.Before(s.From) {
		from = s.From
	}
	var all []Call
	for _, o := range s.Book.Orders {
		for _, d := range o.Between(from, s.Until.Add(-1)) {
			c := Call{Order: o.ID, On: d}
			for _, l := range s.Book.OrderLines {
				if l.Order != o.ID {
					continue
				}
				for _, part := range ingredients(snap, s.Book.LineOn(l, d)) {
					if w := wantOf(snap, part.OrderLine); w.CropID != "" && w.Wanted > 0 && !slices.Contains(c.Crops, w.CropID) {
						c.Crops = append(c.Crops, w.CropID)
					}
				}
			}
			if c.Crops != nil {
				all = append(all, c)
			}
		}
	}
	return all
}
