package look

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
)

// A frost threatens in the nights that are still to come: the one before this morning is over, and a shrub that lies bare has nothing to lose.
func TestFrostThreatensWhatCanBeSaved(t *testing.T) {
	issued := func(today day.Day, nights ...float64) func(*book.Book) {
		return func(b *book.Book) {
			for i, c := range nights {
				b.Weather = append(b.Weather, book.WeatherDay{Date: today.Add(i), TminC: c, TmaxC: c + 8, IssuedOn: today.Add(-1)})
			}
			b.Varieties = append(b.Varieties, book.Variety{Name: "Hedge", Crop: "lilac"})
			b.Plantings = append(b.Plantings, book.Planting{ID: "hedge", Variety: "Hedge", Method: crop.Established, StartedOn: day.Must("2025-10-01"), Plants: 8})
		}
	}
	for _, c := range []struct {
		name, today string
		nights      []float64
		threatened  []string
		night       int // days after today
	}{
		{"last night", "2026-09-20", []float64{-6, 9, 9, 9, 9, 9}, nil, 0},
		{"the night after the next", "2026-09-20", []float64{9, 9, -6, 9, 9, 9}, []string{"2026-06-10"}, 2},
		{"the fifth night", "2026-09-20", []float64{9, 9, 9, 9, 9, -6}, []string{"2026-06-10"}, 5},
		{"a hedge in winter", "2026-12-14", []float64{-9, -9, -9, -9, -9, -9}, nil, 0},
	} {
		today := day.Must(c.today)
		s := meadow(t, today, issued(today, c.nights...), "2026-06-10")
		threat, ok := s.FrostThreat()
		var rows []string
		for _, i := range threat.Plantings {
			rows = append(rows, s.Model.Plantings[i].ID)
		}
		if ok != (c.threatened != nil) || len(rows) != len(c.threatened) || ok && (rows[0] != c.threatened[0] || threat.Night != today.Add(c.night) || threat.Chance < 0.3) {
			t.Errorf("%s: %v by %s, %.2f; want %v by %s", c.name, rows, threat.Night, threat.Chance, c.threatened, today.Add(c.night))
		}
	}
	spring := day.Must("2026-05-12")
	s := meadow(t, spring, func(b *book.Book) {
		b.Weather = nil // a usual spring
		issued(spring, 6, 6, -6, 6, 6, 6)(b)
	})
	if threat, ok := s.FrostThreat(); !ok || s.Model.Plantings[threat.Plantings[0]].ID != "hedge" || threat.Night != spring.Add(2) {
		t.Errorf("a lilac in bud in May is not threatened: %+v (%v on its ladder)", threat, s.Stand.Standing(0).Rungs)
	}
}
