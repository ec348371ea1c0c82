package book

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/school"
)

// What is written down later for an earlier day stands where its day is: the latest note and the latest count come first, and whether counts may be read says the last lesson that was held.
func TestWhatIsWrittenDownLaterStandsInItsDay(t *testing.T) {
	b := NewBook(nil)
	autumn, summer := day.Must("2025-11-03"), day.Must("2026-07-01")
	b.Notes = []Note{{ID: "b", On: summer, About: AboutBed, Subject: "A"}, {ID: "a", On: autumn, About: AboutBed, Subject: "A"}}
	if all := b.NotesOn(AboutBed, "A"); len(all) != 2 || all[0].ID != "b" {
		t.Errorf("notes: %+v", all)
	}
	b.Stock = []StockCount{{Variety: "White", Part: crop.Tuber, On: summer, Pieces: 18}, {Variety: "White", Part: crop.Tuber, On: autumn, Pieces: 12}, {Variety: "White", Part: crop.Tuber, On: summer, Pieces: 17}}
	if all := b.StockOf("White", crop.Tuber); len(all) != 2 || all[0].Pieces != 17 || all[1].Pieces != 12 {
		t.Errorf("counts: %+v, want 17 that were counted again and 12", all)
	}
	one := []school.Answer{{Seconds: 1}}
	b.Lessons = []Lesson{{Person: "Tam", At: day.At(summer, 6, 0), Counts: true, Answers: one}, {Person: "Tam", At: day.At(autumn, 6, 0), Answers: one}}
	if answers, consents := b.AnswersOf("tam", summer); len(answers) != 2 || !consents {
		t.Errorf("%d answers, consents %v: the last lesson said yes", len(answers), consents)
	}
}
