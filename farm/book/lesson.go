package book

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/school"
)

// A Lesson is what somebody answered in the stem school in one go: how they called stems of which the rung was known.
type Lesson struct {
	ID, Person string
	At         day.Moment
	Counts     bool // whether their counts may be read by it: what their last lesson says holds for all
	Answers    []school.Answer
}

// ReadLesson reads a lesson: its answers as tight>colour@2.1, the rung that was shown, the one that was said and the seconds, apart by blanks.
func ReadLesson(f *Fields) Lesson {
	l := Lesson{ID: f.ID("id"), Person: f.Name("person", "who answered"), At: f.Moment("at"), Counts: f.Word("counts", "", "yes") == "yes"}
	for part := range strings.FieldsSeq(f.Note("answers")) {
		a, err := parseAnswer(part)
		if err != nil {
			f.Fault("answers", "%v", err)
			break
		}
		l.Answers = append(l.Answers, a)
	}
	if len(l.Answers) == 0 {
		f.Fault("answers", "call some stems first")
	}
	if l.ID == "" {
		l.ID = idOf(append([]string{Lessons.Name}, l.Record().Lines[0]...)...)
	}
	return l
}

func parseAnswer(s string) (school.Answer, error) {
	shown, rest, ok := strings.Cut(s, ">")
	said, seconds, timed := strings.Cut(rest, "@")
	truth, errTruth := crop.ParseRung(shown)
	called, errSaid := crop.ParseRung(said)
	n, errSeconds := strconv.ParseFloat(seconds, 64)
	if !ok || !timed || errTruth != nil || errSaid != nil || errSeconds != nil || !(n >= 0 && n < 1e4) {
		return school.Answer{}, fmt.Errorf("%q is no answer: write it as tight>colour@2.1", s)
	}
	return school.Answer{Truth: truth, Said: called, Seconds: n}, nil
}

// Record returns the lesson as text.
func (l Lesson) Record() Record {
	var answers []string
	for _, a := range l.Answers {
		answers = append(answers, fmt.Sprintf("%s>%s@%s", a.Truth, a.Said, Decimal(a.Seconds)))
	}
	counts := ""
	if l.Counts {
		counts = "yes"
	}
	return Record{Lessons, [][]string{{l.Person, l.At.String(), counts, strings.Join(answers, " "), l.ID}}}
}

// AnswersOf returns what somebody answered in all their lessons up to a day, the first first, and whether their counts may be read by it.
func (b *Book) AnswersOf(person string, upto day.Day) (answers []school.Answer, consents bool) {
	lessons := slices.Clone(b.Lessons)
	slices.SortStableFunc(lessons, func(x, y Lesson) int { return x.At.Compare(y.At) })
	for _, l := range lessons {
		if strings.EqualFold(l.Person, person) && !l.At.Day().After(upto) {
			answers, consents = append(answers, l.Answers...), l.Counts
		}
	}
	return answers, consents
}
