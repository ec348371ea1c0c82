package evidence

import (
	"slices"
	"testing"

	"dewcount/core/growth"
)

// What is long over teaches the same from its lesson as from its records, is worked out once, and anew when something has changed in it.
func TestLessonsTeachWhatTheRecordsDid(t *testing.T) {
	old, young := row(t, "A", "red", "2026-05-10"), row(t, "B", "red", "2026-06-01")
	old.see(t, growth.Traits{Pace: 0.85, Stems: 1.4, Regrow: 1.1}, "2026-07-02", "2026-07-08", "2026-07-14")
	plain := Standing([]Planting{old, young}, 64, 1)
	old.Over = "the weather of that year"
	lessons := NewLessons()
	standing := func() ([]Known, func(int) Known) {
		return StandingOf([]Planting{old, young}, func(i int) bool { return i == 1 }, lessons, 64, 1)
	}
	first, later := standing()
	if !slices.Equal(first[1].Traits, plain[1].Traits) || first[0].Traits != nil {
		t.Errorf("from a lesson the young row has %v, from the records %v", first[1].Traits[:3], plain[1].Traits[:3])
	}
	if asked := later(0); !slices.Equal(asked.Traits, plain[0].Traits) || len(asked.Runs) != 64 || asked.Runs[3].Stems() != plain[0].Runs[3].Stems() {
		t.Error("asked after all, what is over is not as it was")
	}
	lesson := lessons.known["A"]
	if standing(); lessons.known["A"] != lesson {
		t.Error("a lesson that nothing has changed in is worked out anew")
	}
	old.Counts = slices.Clone(old.Counts)
	old.Counts[1].Stems[2] += 9
	if standing(); lessons.known["A"] == lesson {
		t.Error("a corrected count leaves the lesson as it was")
	}
	lesson = lessons.known["A"]
	old.Over = "another weather"
	if standing(); lessons.known["A"] == lesson {
		t.Error("a corrected day of weather leaves the lesson as it was")
	}
}
