package why

import (
	"strings"
	"testing"

	"dewcount/core/climate"
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
		if said := learnedWords(forecast.Learned{Pace: one, Stems: one, Regrow: one, Fade: one, Spread: spread}, true); !strings.Contains(said, words) || strings.Contains(said, "flush") != (spread != growth.Usual) {
			t.Errorf("of spread %d it is said: %s", spread, said)
		}
	}
}

func TestAnAnswerToTemperatureThatWasLearnedIsSaid(t *testing.T) {
	one := [3]float64{0.9, 1, 1.1}
	for answer, words := range map[climate.Answer]string{climate.Flat: "minds the cold less", climate.Steep: "minds the cold more", climate.AsTable: "(eight times in ten)."} {
		if said := learnedWords(forecast.Learned{Pace: one, Stems: one, Regrow: one, Fade: one, Answer: answer}, true); !strings.HasSuffix(said, words) && !strings.Contains(said, words+" than the table has it") {
			t.Errorf("of answer %d it is said: %s", answer, said)
		}
	}
}

// How a bloom fades is said only where it is sure (nine times in ten), and only of what comes again.
func TestAFadeThatWasLearnedIsSaid(t *testing.T) {
	one := [3]float64{0.9, 1, 1.1}
	for words, fade := range map[string][3]float64{"tire sooner": {0.5, 0.7, 0.95}, "hold out longer": {1.05, 1.3, 1.6}, "(eight times in ten).": {0.8, 0.9, 1.05}} {
		l := forecast.Learned{Pace: one, Stems: one, Regrow: one, Fade: fade}
		if said := learnedWords(l, true); !strings.Contains(said, words) || strings.Contains(said, "Its plants") != (fade[2] < 1 || fade[0] > 1) {
			t.Errorf("of a fade of %v it is said: %s", fade, said)
		}
		if said := learnedWords(l, false); strings.Contains(said, "Its plants") {
			t.Errorf("of what comes once it is said: %s", said)
		}
	}
}
