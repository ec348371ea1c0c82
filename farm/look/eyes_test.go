package look

import (
	"math/rand/v2"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/school"
	"dewcount/farm/book"
)

// Somebody calls every other stem one rung too open. With lessons in which they do the same, and with their consent, more of the row is taken to stand where it
// does: nearer the truth than without. Without consent, and of who presses any key, nothing changes.
func TestALeaningEyeIsReadRight(t *testing.T) {
	today := day.Must("2026-07-20")
	truth := [crop.Rungs]int{60, 50, 40, 30, 20, 10, 0, 0}
	called := truth
	for k := crop.Over - 1; k >= crop.Tight; k-- {
		lean := called[k] / 2
		called[k], called[k+1] = called[k]-lean, called[k+1]+lean
	}
	random := rand.New(rand.NewPCG(2, 2))
	lean := func(k crop.Rung) crop.Rung {
		if random.IntN(2) == 0 {
			return min(crop.Spent, k+1)
		}
		return k
	}
	off := func(lesson *book.Lesson) float64 {
		s := meadow(t, today, func(b *book.Book) {
			b.Counts = []book.Count{{ID: "c", CountedAt: day.At(today, 6, 0), Planting: "2026-04-15", PlantsCount: 60, Stems: called, Counter: "Ash"}}
			if lesson != nil {
				b.Lessons = []book.Lesson{*lesson}
			}
		}, "2026-04-15")
		sum := 0.0
		for k, n := range s.Stand.Standing(0).Rungs {
			sum += max(n-float64(truth[k]), float64(truth[k])-n)
		}
		return sum
	}
	lesson := book.Lesson{ID: "l", Person: "ash", At: day.At(today.Add(-10), 6, 0), Counts: true}
	for i := range 320 {
		k := crop.Rung(i % crop.Rungs)
		lesson.Answers = append(lesson.Answers, school.Answer{Truth: k, Said: lean(k), Seconds: 2})
	}
	without, with := off(nil), off(&lesson)
	if with > 0.85*without {
		t.Errorf("with lessons the row is %.0f stems off, without %.0f", with, without)
	}
	silent := lesson
	silent.Counts = false
	bored := lesson
	bored.Answers = nil
	for range 320 {
		bored.Answers = append(bored.Answers, school.Answer{Truth: crop.Rung(random.IntN(crop.Rungs)), Said: crop.Rung(random.IntN(crop.Rungs)), Seconds: 2})
	}
	for name, l := range map[string]book.Lesson{"without consent": silent, "who presses any key": bored} {
		if got := off(&l); got != without {
			t.Errorf("%s the row is %.1f stems off, want %.1f", name, got, without)
		}
	}
}
