package market_test

import (
	"testing"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// What went to a past market is told by variety, what came back beside it, also of what nobody bought.
func TestAPastMarketSaysWhatCameBack(t *testing.T) {
	b := julyFarm(t).Book.Own()
	saturday := day.Must("2026-07-11")
	order := book.Order{ID: "Market", Kind: "market", DueOn: saturday, Repeats: "weekly"}
	fifty := 50
	b.Orders, b.OrderLines = []book.Order{order}, []book.OrderLine{{Order: "Market", Line: 1, Role: "spike", Stems: &fifty}}
	b.StorePlaces = []book.StorePlace{{ID: "Cellar", Kind: "room", Celsius: 8, Since: day.Must("2026-07-01")}}
	for _, id := range []string{"SW", "SR"} {
		b.Cuts = append(b.Cuts, book.Cut{ID: "cut " + id, Planting: id, CutAt: day.At(saturday.Add(-1), 7, 0), Stems: 40})
	}
	noon := day.At(saturday, 13, 0)
	b.Moves = []book.Move{{ID: "1", Lot: "cut SW", At: noon, What: book.Sold, Stems: 24, Order: "Market"}, {ID: "2", Lot: "cut SW", At: noon, What: book.Unsold, Stems: 6, Order: "Market", Note: book.TooTight},
		{ID: "3", Lot: "cut SR", At: noon, What: book.Unsold, Stems: 10, Order: "Market", Note: book.OtherHue}}
	s, err := look.NewSnapshot(b, 1, look.Morning(day.Must("2026-07-16")), nil)
	if err != nil {
		t.Fatal(err)
	}
	past := market.Past(s, order, 4)
	if len(past) != 1 || past[0].Wanted != 50 || len(past[0].Gone) != 1 || past[0].Gone[0] != (market.Went{Variety: "Snap white", Stems: 24}) || len(past[0].Back) != 2 {
		t.Fatalf("%+v", past)
	}
	if red := past[0].Back[0]; red.Variety != "Snap red" || red.Back != 10 || red.Sold != 0 || red.Next() != 0 {
		t.Errorf("of the red ones: %+v, the next time %d", red, red.Next())
	}
	if white := past[0].Back[1]; white.Variety != "Snap white" || white.Next() != 30 || !white.OfTheStems() {
		t.Errorf("of the white ones: %+v, the next time %d", white, white.Next())
	}
}
