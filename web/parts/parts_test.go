package parts

import (
	"strings"
	"testing"

	"dewcount/farm/market"
	"dewcount/say"
)

func TestVerdicts(t *testing.T) {
	for _, c := range []struct {
		wanted int
		chance float64
		short  int
		words  string
		bad    bool
	}{
		{40, 0.99, 0, "covered, as good as certain", false}, {40, 0.91, 0, "covered, 9 times", false}, {40, 0.6, 0, "likely covered, 6 times", false},
		{40, 0.3, 8, "likely 8 short, covered 3 times", true}, {40, 0.01, 38, "likely 38 short", true}, {0, 1, 0, "nothing wanted", false},
	} {
		words, bad := Verdict(c.wanted, c.chance, c.short)
		if !strings.Contains(words, c.words) || bad != c.bad {
			t.Errorf("%d wanted, chance %v, %d short: %q, %v", c.wanted, c.chance, c.short, words, bad)
		}
	}
}

// Lines that are covered are folded, but not where that saves nothing; what may be short is read at once.
func TestOnlyWhatIsCoveredIsFolded(t *testing.T) {
	sure, short := market.Want{Known: true, Wanted: 40, Chance: 0.95}, market.Want{Known: true, Wanted: 41, Chance: 0.3}
	for _, c := range []struct {
		lines  []market.Want
		chance float64
		fold   string
		read   int
	}{
		{[]market.Want{sure, sure, sure}, 0.93, "3 lines, all of it 9 times in 10", 0}, {[]market.Want{sure, short, sure, sure}, 0.3, "3 more lines covered", 1}, {[]market.Want{sure, short, sure}, 0.3, "", 3},
		{nil, 1, "", 0},
	} {
		due := market.Due{Lines: c.lines, Chance: c.chance}
		v := NewDue(say.Locale{}, due).InShort(due)
		if v.Fold != c.fold || len(v.Lines) != c.read || len(v.Lines)+len(v.Sure) != len(c.lines) {
			t.Errorf("%d lines at %v: %d are read, %d folded under %q", len(c.lines), c.chance, len(v.Lines), len(v.Sure), v.Fold)
		}
		if len(v.Lines) == 1 && v.Lines[0].Wanted != "41" {
			t.Errorf("the line that is read wants %s", v.Lines[0].Wanted)
		}
	}
}
