package school

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/school"
	"dewcount/say"
)

// An eyeView is what the answers so far tell of somebody's eye.
type eyeView struct {
	Answers int
	Verdict string // how it leans, or why it is not believed
	Used    string // whether counts are read by it
	Rungs   []string
	Lines   []eyeLine
}

// An eyeLine is a rung with what it is called, in stems of a hundred.
type eyeLine struct {
	Rung  string
	Right string // how often it is called right, and how sure that is
	Cells []cellView
}

type cellView struct {
	Percent          string
	Diagonal, Strong bool
}

func newEye(answers []school.Answer, consents bool) *eyeView {
	v := &eyeView{Answers: len(answers)}
	sight := school.SightOf(answers)
	v.Verdict = verdictOf(answers)
	switch {
	case school.DoubtOf(answers) != school.NoDoubt:
		v.Used = "Counts are read as those of any crew until then."
	case consents:
		v.Used = "Counts are read by it: what is called too open is put back where it stands."
	default:
		v.Used = "Counts are not read by it, as was wished."
	}
	for k := range crop.Rung(crop.Rungs) {
		right, sd := sight.Chance(k, k)
		line := eyeLine{Rung: k.String(), Right: fmt.Sprintf("%.0f ± %.0f", 100*right, 100*sd)}
		v.Rungs = append(v.Rungs, k.String())
		for said := range crop.Rung(crop.Rungs) {
			const shown, strong = 0.03, 0.2 // of stems
			cell := cellView{Diagonal: said == k}
			if chance, _ := sight.Chance(k, said); chance >= shown {
				cell.Percent, cell.Strong = fmt.Sprintf("%.0f", 100*chance), chance >= strong && said != k
			}
			line.Cells = append(line.Cells, cell)
		}
		v.Lines = append(v.Lines, line)
	}
	return v
}

// verdictOf says how an eye leans, or why its answers are not believed.
func verdictOf(answers []school.Answer) string {
	switch school.DoubtOf(answers) {
	case school.TooFew:
		return "Too few answers yet to tell how this eye leans: a lesson or two more."
	case school.TooFast:
		return "Answered faster than anybody looks: take a second for each stem."
	case school.NoLook:
		return "The answers hardly go with what was shown: look at the ladder beside the reason, and once more."
	}
	lean, sd := school.SightOf(answers).Lean()
	const worth = 0.06 // rungs
	switch {
	case math.Abs(lean) < max(worth, 1.5*sd):
		return "This eye is even: as many stems are called too open as too tight."
	case lean > 0:
		return fmt.Sprintf("This eye leans: of ten stems about %s called a rung too open.", tens(lean))
	}
	return fmt.Sprintf("This eye leans: of ten stems about %s called a rung too tight.", tens(-lean))
}

func tens(lean float64) string {
	if n := max(1, int(math.Round(10*lean))); n > 1 {
		return fmt.Sprintf("%d are", n)
	}
	return "one is"
}

// An otherView is what is known of another helper's eye.
type otherView struct{ Name, Words string }

// others are all who have answered but one, by name.
func others(snap *say.Snapshot, but string) []otherView {
	var names []string
	for _, l := range snap.Book.Lessons {
		if !strings.EqualFold(l.Person, but) && !slices.ContainsFunc(names, func(n string) bool { return strings.EqualFold(n, l.Person) }) {
			names = append(names, l.Person)
		}
	}
	slices.Sort(names)
	var all []otherView
	for _, name := range names {
		answers, _ := snap.Book.AnswersOf(name, snap.View.Today)
		all = append(all, otherView{name, fmt.Sprintf("%s. %s", say.Number(len(answers), "answer"), verdictOf(answers))})
	}
	return all
}
