package forecast

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/evidence"
	"dewcount/core/growth"
)

// A row that ended 60 days ago is still looked at; a day later it only teaches. What the others are told is then the same, row by row and pick
// by pick, and whoever asks after it still gets its dates as they were.
func TestWhatIsLongOverOnlyTeaches(t *testing.T) {
	ended := func(daysAgo int) *Stand {
		farm := meadow(6)
		farm.Members, farm.Draws = 8, 16
		farm.Lessons = evidence.NewLessons()
		old := &farm.Plantings[3] // a zinnia that its neighbours learn from
		old.Growth.Started = old.Growth.Started.Add(-365)
		old.Counts = []evidence.Count{counted(farm, 0, growth.Traits{Pace: 0.9, Stems: 1.5, Regrow: 1}, 30)}
		old.Counts[0].At = farm.From.Add(-370).At(6)
		old.Ended = farm.From.Add(-daysAgo)
		return New(farm, nil)
	}
	young, over := ended(longOver), ended(longOver+1)
	if young.LongOver(3) || !over.LongOver(3) || over.LongOver(0) {
		t.Fatalf("long over are %t, %t and %t; want only a row that ended %d days ago", young.LongOver(3), over.LongOver(3), over.LongOver(0), longOver+1)
	}
	before, after := young.Forecast(), over.Forecast()
	for i := range before.Plantings {
		for j := range before.PickDays {
			a, b := before.Plantings[i].ByPick[j][crop.Market], after.Plantings[i].ByPick[j][crop.Market]
			if a.Sure() != b.Sure() || a.Likely() != b.Likely() || a.AtBest() != b.AtBest() {
				t.Fatalf("row %d on %s: %d, %d, %d while the old row is looked at, %d, %d, %d once it only teaches", i, before.PickDays[j], a.Sure(), a.Likely(), a.AtBest(), b.Sure(), b.Likely(), b.AtBest())
			}
		}
	}
	if a, b := young.Milestones(3), over.Milestones(3); a.Emerged != b.Emerged || a.FirstBud != b.FirstBud || b.FirstBud.Likely.IsZero() {
		t.Errorf("its dates are %v, and were %v", b, a)
	}
}

// An annual that nobody has ended is over two summers after its start, unless stems were seen on it since: a row that was counted today is not.
func TestWhatWasCountedTodayIsNotOver(t *testing.T) {
	old := func(alive day.Day) *Stand {
		farm := meadow(3)
		farm.Members, farm.Draws = 8, 16
		p := &farm.Plantings[0]
		p.Growth.Started, p.Alive = farm.From.Add(-mostDays-longOver-1), alive
		if !alive.IsZero() {
			p.Counts = []evidence.Count{{At: alive.At(6), Plants: 10, Stems: [crop.Rungs]int{0, 4, 6, 8, 5, 2}}}
			p.Until = p.Counts[0].At
		}
		return New(farm, nil)
	}
	from := meadow(1).From
	forgotten, seen := old(day.Day{}), old(from)
	if !forgotten.LongOver(0) || seen.LongOver(0) {
		t.Fatalf("long over are %t and %t, want the row alone on which nothing was seen", forgotten.LongOver(0), seen.LongOver(0))
	}
	if got := seen.Forecast().Plantings[0].ByPick[0][crop.Market].Likely(); got < 20 {
		t.Errorf("of 114 stems that stand in the window on 60 plants %d are likely to be cut at the next pick", got)
	}
}
