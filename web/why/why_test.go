package why

import (
	"strings"
	"testing"

	"dewcount/core/forecast"
	"dewcount/core/growth"
)

// The picks are Wednesday, Saturday, Wednesday; the one looked at is Saturday.
func TestMovesSayWhereStemsWent(t *testing.T) {
	for _, c := range []struct {
		moved []float64
		words string
		fewer bool
	}{
		{[]float64{0, 12, 0}, "+12 stems", false}, {[]float64{0, 12, -9}, "+12 stems earlier", false}, {[]float64{-9, 12, 0}, "+12 stems later", false},
		{[]float64{0, -12, 9}, "-12 stems, they come later", true}, {[]float64{9, -12, 0}, "-12 stems, they come earlier", true},
		{[]float64{0, -12, 0}, "-12 stems", true}, {[]float64{5, 0.3, -5}, "hardly any change", false},
	} {
		if m := newMove("a warm night", c.moved, 1); m.Stems != c.words || m.Fewer != c.fewer || m.Words != "A warm night." {
			t.Errorf("%v: %+v, want %q", c.moved, m, c.words)
		}
	}
}

func TestASpreadThatWasLearnedIsSaid(t *testing.T) {
	one := [3]float64{0.9, 1, 1.1}
	for spread, words := range map[growth.Spread]string{growth.Even: "a short flush", growth.Uneven: "a long flush", growth.Usual: "(eight times in ten)."} {
		if said := learnedWords(forecast.Learned{Pace: one, Stems: one, Regrow: one, Spread: spread}, true); !strings.Contains(said, words) || strings.Contains(said, "flush") != (spread != growth.Usual) {
			t.Errorf("of spread %d it is said: %s", spread, said)
		}
	}
}
