package store

import (
	"testing"

	"dewcount/core/day"
	"dewcount/farm/book"
)

// Worked by hand: of forty stems thirty were sold and ten came back for want of buyers: thirty will do; for their looks: forty again; all forty sold: a tenth
// more. What came back is there still, and only the last day counts.
func TestWhatASaleTeaches(t *testing.T) {
	saturday := thursday.Add(2)
	for _, c := range []struct {
		back int
		why  string
		next int
	}{{10, book.TooMany, 30}, {10, "", 30}, {10, book.TooOpen, 40}, {0, "", 44}} {
		b := aFarm(t)
		apply(t, b, book.Change{Add: []book.Record{cut("d", "DW1", 60, day.At(thursday, 8, 0)), book.Order{ID: "Market", Kind: "market", DueOn: saturday, Repeats: "weekly"}.Record()}})
		moves := []book.Record{book.Move{ID: "sold", Lot: "d", At: day.At(saturday, 14, 0), What: book.Sold, Stems: 40 - c.back, Order: "Market"}.Record()}
		if c.back > 0 {
			moves = append(moves, book.Move{ID: "back", Lot: "d", At: day.At(saturday, 14, 0), What: book.Unsold, Stems: c.back, Order: "Market", Note: c.why}.Record())
		}
		apply(t, b, book.Change{Add: moves})
		before := BeforeOf(b, "Market", "Ball wine", saturday.Add(7))
		if before.On != saturday || before.Sold != 40-c.back || before.Back != c.back || before.Why != c.why || before.Next() != c.next {
			t.Errorf("%d back, %s: %+v, the next time %d", c.back, c.why, before, before.Next())
		}
		if again := BeforeOf(b, "Market", "Ball wine", saturday); !again.On.IsZero() {
			t.Errorf("before the first there was %+v", again)
		}
		there := 0
		for _, h := range Of(b, day.At(saturday, 15, 0)).Heaps {
			there += h.Stems
		}
		if there != 60-40+c.back {
			t.Errorf("%d are there", there)
		}
	}
}
