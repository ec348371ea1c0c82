package demo

import (
	"fmt"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/plans"
)

// crowded is the demo's book with so many plantings: its own, and further sowings of their varieties through the season to come.
func crowded(tb testing.TB, plantings int) *book.Book {
	tb.Helper()
	book := load(tb, filled(tb))
	own := len(book.Plantings)
	for i := 0; len(book.Plantings) < plantings; i++ {
		p := book.Plantings[i%own]
		if profile := book.ProfileOf(p); profile.Lasts(p.Method) {
			continue
		}
		p.ID = fmt.Sprintf("%s-%d", p.ID, i)
		by := day.Of(2027, 4, 10).Add(i % 100).Sub(p.StartedOn)
		p.StartedOn = p.StartedOn.Add(by)
		for _, d := range []*day.Day{&p.PlantedOutOn, &p.PinchedOn} {
			if !d.IsZero() {
				*d = d.Add(by)
			}
		}
		p.EndedOn, p.Squares = day.Day{}, ""
		book.Plantings = append(book.Plantings, p)
	}
	return book
}

// BenchmarkSeasonMove is what the server works out when one of two hundred plantings is moved.
func BenchmarkSeasonMove(b *testing.B) {
	book := crowded(b, 200)
	season, err := look.NewSeason(book, FirstDay, 2027, nil)
	if err != nil {
		b.Fatal(err)
	}
	for j := range season.Model.Plantings { // as its page has drawn it
		season.StemsOf(j)
	}
	p := book.Plantings[len(book.Plantings)-3]
	for i := 0; b.Loop(); i++ {
		p.StartedOn = p.StartedOn.Add(1 - 2*(i%2))
		moved, err := season.With(p)
		if err != nil {
			b.Fatal(err)
		}
		for j := range moved.Model.Plantings {
			moved.StemsOf(j)
		}
	}
}

// BenchmarkSeasonCold is a whole season of two hundred plantings from nothing.
func BenchmarkSeasonCold(b *testing.B) {
	book := crowded(b, 200)
	for b.Loop() {
		if _, err := look.NewSeason(book, FirstDay, 2027, nil); err != nil {
			b.Fatal(err)
		}
	}
}

// BenchmarkEvenBloom is the search for the successions of one crop over a season, from its trials to its plan.
func BenchmarkEvenBloom(b *testing.B) {
	snap, err := look.NewSnapshot(load(b, filled(b)), 0, look.Morning(FirstDay), nil)
	if err != nil {
		b.Fatal(err)
	}
	for _, crop := range []string{"sunflower-single", "cosmos-single", "snapdragon"} {
		b.Run(crop, func(b *testing.B) {
			ask := plans.SuccessionAsk{Crop: crop, From: day.Of(2027, 6, 28), To: day.Of(2027, 9, 26), Stems: 60, Chance: 0.9, EveryDays: 14, Pinch: true}
			for b.Loop() {
				if _, err := plans.Successions(b.Context(), snap, ask, nil); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

// BenchmarkForDate is the search for the sowings of one crop for a date of next year.
func BenchmarkForDate(b *testing.B) {
	snap, err := look.NewSnapshot(load(b, filled(b)), 0, look.Morning(FirstDay), nil)
	if err != nil {
		b.Fatal(err)
	}
	for _, name := range []string{"sunflower-single", "cosmos-single"} {
		b.Run(name, func(b *testing.B) {
			ask := plans.DateAsk{Crop: name, On: day.Of(2027, 7, 24), CutOn: day.Of(2027, 7, 23), Stems: 40, Use: crop.Event, Chance: 0.9}
			for b.Loop() {
				if _, err := plans.ForDate(b.Context(), snap, ask, nil); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
