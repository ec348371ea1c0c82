package backtest

import (
	"strings"
	"testing"

	"dewcount/core/review"
	farmReview "dewcount/farm/review"
)

// The sentence above all tables says whether the bounds held as they should, and a crop that held poorly is marked.
func TestTheVerdict(t *testing.T) {
	for held, want := range map[int]string{80: "as they should: 80", 84: "as they should", 69: "69 in 100 came between sure and at best: fewer than the 80 that should", 92: "wider than they need be"} {
		s := review.Score{Picks: 100, In80: held, WIS: 31, Calendar: 100}
		if got := verdict(s); !strings.Contains(got, want) || !strings.Contains(got, "erred 69 % less than a calendar") || !strings.Contains(got, "Of 100 picks") {
			t.Errorf("%d of 100 held: %s", held, got)
		}
		if line := newLine("Zinnia", "", s); line.Poor != (held < 70) || line.Better != "69 %" {
			t.Errorf("%d of 100 held: %+v", held, line)
		}
	}
	if got := newLine("Basil", "", review.Score{Picks: 12, In80: 9, WIS: 133, Calendar: 100}); got.Better != "33 % worse" || got.Held != "75 in 100" {
		t.Errorf("%+v", got)
	}
	if v := newTrust(nil, farmReview.Trust{}); v.None == "" || v.Verdict != "" {
		t.Errorf("of no cut it is said %+v", v)
	}
}
