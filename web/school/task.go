package school

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/school"
	"dewcount/say"
	"dewcount/web/draw"
)

// A taskView is one stem with its question, its answers and, once it is answered, the reason.
type taskView struct {
	Number        int
	Ask, Question string
	About         string // the crop, and for whom
	Petal         string
	Stem          draw.Elements
	Lean          string // how it is turned, for SVG
	Words         string // what is seen, for those who cannot see it
	Looks         []lookView
	Answers       []answerView
	Right, Truth  string
	Reason        string
	Ladder        []draw.RungView
}

// A lookView is a closer look, by a button: what it shows, drawn and in words.
type lookView struct {
	ID, Button, Words string
	Drawn             draw.Elements
}

type answerView struct{ Value, Words string }

// callWords are the verdicts as they are offered.
var callWords = map[string]string{"cut now": "Cut it", "wait": "Let it stand", "cut and hold": "Cut and hold it", "discard": "Throw it away"}

func newTask(snap *say.Snapshot, t school.Task, number int) taskView {
	v := taskView{Number: number, Ask: string(t.Ask), About: about(t), Petal: draw.PetalClass(t.Colour), Right: t.Answer(), Truth: t.Rung.String(), Lean: fmt.Sprintf("rotate(%.0f 32 74)", t.Turn),
		Stem: draw.Specimen(t.Crop.Form, t.Rung, t.Part), Words: say.Sentence(crop.Sign(t.Crop.Ladder, t.Rung))}
	if slices.Contains(t.Failed, crop.ColourTrue) {
		v.Petal = "petal-dull"
	}
	for _, a := range t.Answers() {
		v.Answers = append(v.Answers, answerView{Value: a, Words: a})
	}
	switch t.Ask {
	case school.AskRung:
		v.Question = "On which rung does it stand?"
		v.Reason = fmt.Sprintf("It stands on %s: %s.", t.Rung, crop.Sign(t.Crop.Ladder, t.Rung))
	case school.AskCall:
		v.Question = fmt.Sprintf("For %s: what do you do with it?", say.For(t.Use))
		v.About += fmt.Sprintf(". Wanted %s; the next pick is in %s.", wanted(t.Days.Wanted), say.Days(int(t.Days.NextPick)))
		v.Looks = looksAt(t)
		v.Reason = say.Sentence(say.Call(t.Call(), t.Use))
		if len(t.Failed) > 0 {
			v.Reason = say.Sentence(say.Fails(t.Failed[0])) + " " + v.Reason
		}
		for i := range v.Answers {
			v.Answers[i].Words = callWords[v.Answers[i].Value]
		}
	case school.AskBud:
		v.Question = "A new bud, or a spent head?"
		v.Looks = []lookView{squeeze(t.Rung == crop.Spent)}
		v.Reason = "Rounded and flat on top, and firm: a new bud. It stays."
		if t.Rung == crop.Spent {
			v.Reason = "It runs to a point, and is slimy when it is squeezed: a spent head. It comes off, so that the plant goes on."
		}
	case school.AskStems:
		v.Question = "As how many stems does this branch count?"
		v.Stem, v.Lean = draw.Branch(t.Stems, t.Heads), ""
		v.Words = fmt.Sprintf("A branch with %s that lead, and %s below them.", say.Number(t.Stems, "shoot"), say.Number(t.Heads-t.Stems, "side bud"))
		v.Reason = fmt.Sprintf("%s: one stem is a branch that can be cut with one leading head. Buds below the place of the cut belong to it.", say.Sentence(say.Number(t.Stems, "stem")))
		v.Reason = strings.Replace(v.Reason, ".:", ":", 1)
		return v
	}
	windows, _ := snap.Book.Windows(t.Crop)
	window := windows[t.Use]
	var none [crop.Rungs]float64
	v.Ladder = draw.LadderOf(t.Crop.Ladder, none, window)
	return v
}

// about names the crop and its colour.
func about(t school.Task) string {
	if t.Colour == "" {
		return t.Crop.Name
	}
	return t.Crop.Name + ", " + t.Colour
}

func wanted(days float64) string {
	switch n := int(days); n {
	case 0:
		return "today"
	case 1:
		return "tomorrow"
	default:
		return "in " + strconv.Itoa(n) + " days"
	}
}

// looksAt are the tests that can be made of a stem that is to be cut, each with what it shows: what fails, and what is soft because the flower is over.
func looksAt(t school.Task) []lookView {
	over, form := t.Rung >= crop.Over, t.Crop.Form
	fails := func(test crop.Test) bool { return over || slices.Contains(t.Failed, test) }
	var looks []lookView
	for _, test := range t.Crop.Judged(t.Use) {
		bad := fails(test)
		words := map[bool]string{true: say.Sentence(say.Fails(test)), false: say.Sentence(say.TestWords([]string{string(test)})[0])}[bad]
		one := lookView{ID: string(test), Words: words}
		switch test {
		case crop.StiffNeck:
			one.Button, one.Drawn = "Wag its neck", draw.Neck(form, t.Rung, bad)
		case crop.FirmBacks:
			one.Button, one.Drawn = "Turn it over", draw.Back(form, bad)
		case crop.NoShed:
			one.Button, one.Drawn = "Shake it", draw.Shaken(form, t.Rung, bad)
		case crop.CentreTight:
			one.Button, one.Drawn = "Look into the centre", draw.Centre(form, bad, false)
		case crop.NoPollen:
			one.Button, one.Drawn = "Look for pollen", draw.Centre(form, over, bad)
		default:
			continue // the colour is seen
		}
		looks = append(looks, one)
	}
	if slices.Contains(t.Failed, crop.ColourTrue) {
		looks = append(looks, lookView{ID: "colour", Button: "Hold it to the light", Words: say.Sentence(say.Fails(crop.ColourTrue)), Drawn: draw.Centre(form, false, false)})
	}
	return looks
}

func squeeze(spent bool) lookView {
	words := "Round, and firm between the fingers."
	if spent {
		words = "Pointed, and it gives: something runs out."
	}
	return lookView{ID: "squeeze", Button: "Squeeze it", Words: words, Drawn: draw.Squeezed(spent)}
}
