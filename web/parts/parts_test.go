package parts

import (
	"strings"
	"testing"
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
