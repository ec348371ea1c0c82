package demo

import (
	"fmt"
	"testing"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// asked is the demo's forecast with so many orders of several lines over five weeks, beside sixty plantings.
func asked(tb testing.TB, orders int) *look.Snapshot {
	tb.Helper()
	b := load(tb, filled(tb))
	for n := 0; len(b.Orders) < orders; n++ {
		kind := []string{"event", "standing", "market"}[n%3]
		o := book.Order{ID: fmt.Sprintf("order %d", n), Kind: kind, DueOn: FirstDay.Add(1 + n*5%34)}
		b.Orders = append(b.Orders, o)
		for l := range 4 {
			v := b.Varieties[(7*n+3*l)%len(b.Varieties)]
			stems := 10 + 10*l
			line := book.OrderLine{Order: o.ID, Line: l + 1, Crop: v.Crop, Stems: &stems}
			if l == 3 {
				line.Crop, line.Role = "", v.Role
			}
			b.OrderLines = append(b.OrderLines, line)
		}
	}
	s, err := look.NewSnapshot(b, 0, look.Morning(FirstDay), nil)
	if err != nil {
		tb.Fatal(err)
	}
	return s
}

// BenchmarkPromises is what serving all orders takes once the forecast stands.
func BenchmarkPromises(b *testing.B) {
	s := asked(b, 30)
	market.PromisesOf(s)
	for b.Loop() {
		market.Share(s, market.Ways{})
	}
}

// BenchmarkPromisesToMany is the same with two hundred orders.
func BenchmarkPromisesToMany(b *testing.B) {
	s := asked(b, 200)
	market.PromisesOf(s)
	for b.Loop() {
		market.Share(s, market.Ways{})
	}
}

// BenchmarkSupply is what looking at the rungs of all picks takes, once for all who ask.
func BenchmarkSupply(b *testing.B) {
	s := asked(b, 30)
	for b.Loop() {
		s.Stand.Supply(256)
	}
}

// BenchmarkAsk is what an answer on the telephone takes.
func BenchmarkAsk(b *testing.B) {
	s := asked(b, 30)
	market.PromisesOf(s)
	a := market.Ask{Line: book.OrderLine{Crop: "snapdragon", Colour: "white"}, Stems: 40, On: day.Must("2026-07-18"), Kind: "event"}
	for b.Loop() {
		a.Answer(s, a.On)
	}
}
