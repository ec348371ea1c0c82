package market

import (
	"testing"

	"dewcount/farm/book"
)

func TestCovers(t *testing.T) {
	for _, x := range []struct {
		wanted  int
		chance  float64
		short   int
		cover   Cover
		isShort bool
	}{
		{0, 0, 0, NothingWanted, false},
		{50, 0.9, 0, Covered, false},
		{50, 0.89, 0, LikelyCovered, false},
		{50, 0.45, 3, LikelyShort, true},
		{50, 0.05, 30, LikelyShort, true},
		{50, 0.04, 40, Short, true},
	} {
		if got := CoverOf(x.wanted, x.chance, x.short); got != x.cover || got.IsShort() != x.isShort {
			t.Errorf("%d wanted at %.2f, short by %d: cover %d, want %d", x.wanted, x.chance, x.short, got, x.cover)
		}
	}
}

// A line that no row can give is short however sure its number looks; one that asks for nothing is not.
func TestLinesThatNoRowGives(t *testing.T) {
	ten := 10
	due := Due{Lines: []Want{{OrderLine: book.OrderLine{Stems: &ten}, Wanted: 10, Chance: 1}, {}, {Known: true, Wanted: 10, Chance: 0.95}}}
	if c := due.Lines[0].Cover(); c != Short {
		t.Errorf("no row gives it and its cover is %d", c)
	}
	if n := due.ShortLines(); n != 1 {
		t.Errorf("%d lines are short, want 1", n)
	}
}
