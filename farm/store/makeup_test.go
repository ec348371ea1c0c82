package store

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"dewcount/core/day"
	"dewcount/farm/book"
)

func recipe(role, colour string, stems int) book.RecipeLine {
	return book.RecipeLine{Recipe: "posy", Role: role, Colour: colour, Stems: stems}
}

// Worked by hand. Thirty wine dahlias and forty coral zinnias, all focal: posies of two wine and three of any take 28 of the dahlias for wine, the
// other two and all zinnias for any. 70 stems at five are 14 posies, both ingredients run out and nothing is left. With fifty zinnias it would be 15 by the wine alone.
func TestWholeBouquetsByHand(t *testing.T) {
	b := aFarm(t)
	apply(t, b, book.Change{Add: []book.Record{cut("d", "DW1", 30, day.At(thursday, 8, 0)), cut("z", "ZC1", 40, day.At(thursday, 8, 0))}})
	l := Of(b, day.At(thursday, 12, 0))
	b.RecipeLines = []book.RecipeLine{recipe("focal", "", 3), recipe("focal", "wine", 2)}
	m := l.MakeUp(b, "posy")
	if m.Whole != 14 || len(m.RunsOut) != 2 {
		t.Errorf("%+v", m)
	}
	if m.Left[0]+m.Left[1] != 0 {
		t.Errorf("left over: %v of 70 stems for 14 posies of five", m.Left)
	}
	more := l
	more.Heaps = append([]Heap(nil), l.Heaps...)
	for h := range more.Heaps {
		if more.Heaps[h].Lot == "z" {
			more.Heaps[h].Stems = 50
		}
	}
	if m := more.MakeUp(b, "posy"); m.Whole != 15 || len(m.RunsOut) != 1 || m.RunsOut[0].Colour != "wine" || m.Left[0] != 5 {
		t.Errorf("with fifty zinnias: %+v", m)
	}
	b.RecipeLines = []book.RecipeLine{recipe("focal", "wine", 4), recipe("spike", "", 1)}
	if m := l.MakeUp(b, "posy"); m.Whole != 0 || len(m.RunsOut) != 1 || m.RunsOut[0].Role != "spike" || m.Left[0] != 30 {
		t.Errorf("without spikes: %+v", m)
	}
	if m := l.MakeUp(b, "nothing"); m.Whole != 0 {
		t.Errorf("of no recipe: %+v", m)
	}
}

// Against trying everything: on small stores the number of whole bouquets is the most there is, and what is taken is there and fits.
func TestWholeBouquetsAreTheMost(t *testing.T) {
	for seed := range uint64(300) {
		random := rand.New(rand.NewPCG(seed, 9))
		b := aFarm(t)
		var l Ledger
		varieties := []book.Variety{{Name: "Ball wine", Crop: "dahlia-ball", Colour: "wine", Role: "focal"}, {Name: "Zinnia coral", Crop: "zinnia-tall", Colour: "coral", Role: "focal"}, {Name: "Fill", Crop: "zinnia-tall", Colour: "coral:0.5;wine:0.5", Role: "filler"}}
		b.Varieties = varieties
		for n := range 1 + random.IntN(4) {
			v := varieties[random.IntN(3)]
			h := Heap{Lot: fmt.Sprint(n), Variety: v.Name, Colour: v.Colour, Crop: b.Crop(v.Crop), Stems: 1 + random.IntN(6)}
			h.Now.Left = [3]float64{1, 2, 3}
			l.Heaps = append(l.Heaps, h)
		}
		b.RecipeLines = nil
		for range 1 + random.IntN(3) {
			b.RecipeLines = append(b.RecipeLines, recipe([]string{"", "focal", "filler"}[random.IntN(3)], []string{"", "wine", "coral"}[random.IntN(3)], 1+random.IntN(3)))
		}
		m := l.MakeUp(b, "posy")
		if want := brute(b, &l); m.Whole != want {
			t.Fatalf("seed %d: %d whole, %d are possible: %+v of %+v", seed, m.Whole, want, b.RecipeLines, l.Heaps)
		}
		used, got := make([]int, len(l.Heaps)), make([]int, len(b.RecipeLines))
		for _, taking := range m.Takes {
			used[taking.Heap] += taking.Stems
			got[taking.Line] += taking.Stems
			if taking.Stems > fits(b, &l.Heaps[taking.Heap], b.RecipeLines[taking.Line]) {
				t.Fatalf("seed %d: %+v does not fit", seed, taking)
			}
		}
		for h, n := range used {
			if n > l.Heaps[h].Stems {
				t.Fatalf("seed %d: %d of %d stems", seed, n, l.Heaps[h].Stems)
			}
		}
		for i, n := range got {
			if n != m.Whole*b.RecipeLines[i].Stems {
				t.Fatalf("seed %d: %d stems of %+v for %d bouquets", seed, n, b.RecipeLines[i], m.Whole)
			}
		}
	}
}

// brute returns the most bouquets by trying, stem by stem, which ingredient each heap's stems go to.
func brute(b *book.Book, l *Ledger) int {
	lines := b.RecipeLines
	possible := func(bouquets int) bool {
		want := make([]int, len(lines))
		for i := range lines {
			want[i] = bouquets * lines[i].Stems
		}
		left := make([]int, len(l.Heaps))
		for h := range l.Heaps {
			left[h] = l.Heaps[h].Stems
		}
		var try func(i, h, need int) bool
		try = func(i, h, need int) bool {
			if i == len(lines) {
				return true
			}
			if need == 0 {
				if i+1 == len(lines) {
					return true
				}
				return try(i+1, 0, want[i+1])
			}
			if h == len(l.Heaps) {
				return false
			}
			for n := min(need, left[h], fits(b, &l.Heaps[h], lines[i])); n >= 0; n-- {
				left[h] -= n
				ok := try(i, h+1, need-n)
				left[h] += n
				if ok {
					return true
				}
			}
			return false
		}
		return try(0, 0, want[0])
	}
	n := 0
	for possible(n + 1) {
		n++
	}
	return n
}

// A substitute goes in where an ingredient is short, and stays where it is not: of four wine dahlias and three coral zinnias, posies of two are two of dahlias
// alone, and a third takes zinnias.
func TestSubstitutesGoInSecond(t *testing.T) {
	b := aFarm(t)
	apply(t, b, book.Change{Add: []book.Record{cut("z", "ZC1", 3, day.At(thursday, 6, 0)), cut("d", "DW1", 4, day.At(thursday, 8, 0))}})
	l := Of(b, day.At(thursday, 12, 0))
	dahlia := recipe("", "", 2)
	dahlia.Crop, dahlia.Substitutes = "dahlia-ball", "zinnia-tall"
	b.RecipeLines = []book.RecipeLine{dahlia}
	if m := l.MakeUp(b, "posy"); m.Whole != 3 {
		t.Errorf("%d posies", m.Whole)
	}
	takes, ok := l.Takes(b, "posy", 2)
	if !ok || len(takes) != 1 || takes[0].Stems != 4 || l.Heaps[takes[0].Heap].Lot != "d" {
		t.Errorf("two posies take %+v", takes)
	}
}
