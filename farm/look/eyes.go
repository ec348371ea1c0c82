package look

import (
	"dewcount/core/evidence"
	"dewcount/core/school"
)

// eyeOf returns how a counter calls stems, as the stem school has measured it: of whom nothing is known, who does not want it, or whose answers are not believed
// it is the zero Eye, as a crew's usually are.
func (s *seen) eyeOf(counter string) evidence.Eye {
	if len(s.b.Lessons) == 0 || counter == "" {
		return evidence.Eye{}
	}
	eye, known := s.eyes[counter]
	if !known {
		if answers, consents := s.b.AnswersOf(counter, s.view.Upto); consents && school.DoubtOf(answers) == school.NoDoubt {
			eye = school.SightOf(answers).Eye()
		}
		s.eyes[counter] = eye
	}
	return eye
}
