package demo

import (
	"flag"
	"math/rand/v2"
	"sync"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/review"
	"dewcount/core/school"
	"dewcount/farm/book"
	"dewcount/standin"
)

var eyeSeasons = flag.Int("eye-seasons", 1, "seasons of a crew that leans")

// leaningEyes call a third of the stems another rung, nine times in ten one too open.
var leaningEyes = standin.Eyes{Misjudges: 0.35, Misses: 0.03, Leans: 0.4}

// A crew that leans counts a season. The forecast is held against what came as it reads any crew's counts, and as it reads them once the same eyes were in the
// school for ten lessons: it is no worse in any season, and better over many (the table is in docs/model.md).
func TestWhatTheSchoolIsWorth(t *testing.T) {
	crewEyes = &leaningEyes
	defer func() { crewEyes = nil }()
	var without, with review.Score
	for i := range *eyeSeasons {
		s := grow(t, uint64(7001+i))
		alone := s.scored(t, s.book)
		taught := s.book.Own()
		taught.Lessons = []book.Lesson{{ID: "ten", Person: "one", At: day.At(s.first, 6, 0), Counts: true, Answers: lessons(uint64(i))}}
		read := s.scored(t, taught)
		if read.WIS > 1.03*alone.WIS {
			t.Errorf("season %d: the forecast errs by %.0f stems with the school and %.0f without", i, read.WIS, alone.WIS)
		}
		t.Logf("season %d: %.3f", i, read.WIS/alone.WIS)
		without.WIS, without.Picks, without.In80 = without.WIS+alone.WIS, without.Picks+alone.Picks, without.In80+alone.In80
		with.WIS, with.Picks, with.In80 = with.WIS+read.WIS, with.Picks+read.Picks, with.In80+read.In80
	}
	t.Logf("%d seasons, %d picks: errs by %.3f of what it did without the school; the 80 %% band holds %.3f, without %.3f", *eyeSeasons, with.Picks, with.WIS/without.WIS, with.Share(with.In80), without.Share(without.In80))
}

// lessons are ten lessons' answers of the leaning eyes.
func lessons(seed uint64) []school.Answer {
	random := rand.New(rand.NewPCG(seed, 17))
	var answers []school.Answer
	for range 80 {
		truth := crop.Rung(random.IntN(crop.Rungs))
		said := truth
		if random.Float64() < leaningEyes.Misjudges {
			if said--; random.Float64() < 0.5+leaningEyes.Leans {
				said += 2
			}
		}
		answers = append(answers, school.Answer{Truth: truth, Said: max(crop.Tight, min(crop.Spent, said)), Seconds: 2})
	}
	return answers
}

// scored holds what would have been forecast of a book against what came of its season.
func (s *season) scored(t *testing.T, b *book.Book) review.Score {
	t.Helper()
	told, v := *s, newVerdict()
	told.book = b
	v.judge(t, &told, false, new(sync.Mutex))
	return v.of[all].all
}
