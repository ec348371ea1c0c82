package store

import (
	"testing"

	"dewcount/core/day"
	"dewcount/farm/book"
)

func TestWorries(t *testing.T) {
	b := aFarm(t)
	friday := thursday.Add(1)
	apply(t, b, book.Change{Add: []book.Record{
		cut("cold", "ZC1", 40, day.At(thursday, 8, 0)), book.Move{ID: "m1", Lot: "cold", At: day.At(thursday, 10, 0), What: book.ToPlace, Stems: 40, Place: "fridge"}.Record(),
		cut("warm", "DW1", 20, day.At(thursday, 8, 0)), book.Move{ID: "m2", Lot: "warm", At: day.At(thursday, 10, 0), What: book.ToPlace, Stems: 20, Place: "cellar"}.Record(),
		cut("well", "DW1", 45, day.At(thursday, 8, 0)), book.Move{ID: "m3", Lot: "well", At: day.At(thursday, 10, 0), What: book.ToPlace, Stems: 45, Place: "fridge"}.Record(),
		cut("hung", "ZC1", 9, day.At(thursday, 8, 0)), book.Move{ID: "m4", Lot: "hung", At: day.At(thursday, 10, 0), What: book.ToPlace, Stems: 9, Place: "loft"}.Record(),
	}})
	at := day.At(friday, 8, 0)
	l := Of(b, at)
	worries := make(map[string]Worry)
	for _, w := range l.Worries(b, at) {
		if _, twice := worries[l.Heaps[w.Heap].Lot]; twice {
			t.Errorf("two worries about %s", l.Heaps[w.Heap].Lot)
		}
		worries[l.Heaps[w.Heap].Lot] = w
	}
	if w := worries["cold"]; w.Trouble != TooCold || w.Place != "cellar" {
		t.Errorf("zinnias in the fridge: %+v", w)
	}
	if w, ok := worries["warm"]; !ok || w.Trouble != TooWarm || w.Place != "fridge" { // 2.6^-0.8 - 2.6^-1.6 = 0.25 of a day each day
		t.Errorf("dahlias in the cellar: %+v", w)
	}
	if len(worries) != 2 {
		t.Errorf("%+v", worries)
	}
	// 45 dahlias at 30 a bucket and 40 zinnias, which foul theirs, at 30 or so.
	zinnia := l.Heaps[0].Crop
	for _, h := range l.Heaps {
		if h.Lot == "cold" {
			zinnia = h.Crop
		}
	}
	if want, got := 2+(40+zinnia.BucketStems-1)/zinnia.BucketStems, l.Buckets("fridge"); got != want {
		t.Errorf("%d buckets in the fridge, want %d", got, want)
	}
	if last := l.Heaps[len(l.Heaps)-1]; last.Lot != "hung" || !last.Dry() || last.DryOn() != day.Must("2026-07-27") {
		t.Errorf("what hangs comes last: %+v", last)
	}

	// A week later the dahlias in the fridge are beyond their four, and spent zinnias are bad neighbours of them.
	at = day.At(thursday.Add(7), 8, 0)
	l = Of(b, at)
	seen := make(map[Trouble]bool)
	for _, w := range l.Worries(b, at) {
		if l.Heaps[w.Heap].Lot == "well" {
			seen[w.Trouble] = true
		}
	}
	if !seen[TooLong] || !seen[OldNear] {
		t.Errorf("dahlias of last week beside spent zinnias: %v", seen)
	}
}
