package school

import (
	"math/rand/v2"
	"strconv"

	"dewcount/core/crop"
	"dewcount/core/cutting"
)

// An Ask is what is asked of a stem.
type Ask string

// What is asked.
const (
	AskRung  Ask = "rung"  // on which rung it stands
	AskCall  Ask = "call"  // cut, wait, hold or discard
	AskBud   Ask = "bud"   // a new bud or a spent head
	AskStems Ask = "stems" // as how many stems a branch counts
)

// The answers to AskBud.
const (
	NewBud    = "new bud"
	SpentHead = "spent head"
)

// A Subject is a crop of the farm with a colour that it grows in.
type Subject struct {
	Crop   *crop.Profile
	Colour string
	School string // on the rung to cut, as the farm chose; empty for the table's window
}

// A Task is a stem that is shown, and what is asked of it.
type Task struct {
	Ask Ask
	Subject
	Rung   crop.Rung
	Part   float64     // how far it is on its rung, 0 to 1
	Failed []crop.Test // that it fails, of those asked for the use
	Use    crop.Use
	Days   cutting.Days
	Stems  int     // of AskStems: branches that can be cut, each with one leading head
	Heads  int     // and all heads and buds that are seen
	Turn   float64 // degrees by which it leans
}

// Call returns the verdict on the stem, as the cut call has it.
func (t Task) Call() cutting.Call {
	return cutting.Of(cutting.Stem{Crop: t.Crop, Use: t.Use, School: t.School, Rung: t.Rung, Failed: t.Failed}, t.Days)
}

// Answer returns what is right.
func (t Task) Answer() string {
	switch t.Ask {
	case AskCall:
		return string(t.Call().Verdict)
	case AskBud:
		if t.Rung == crop.Spent {
			return SpentHead
		}
		return NewBud
	case AskStems:
		return strconv.Itoa(t.Stems)
	}
	return t.Rung.String()
}

// Answers returns what can be answered, in the order in which it is offered.
func (t Task) Answers() []string {
	switch t.Ask {
	case AskCall:
		return []string{string(cutting.CutNow), string(cutting.Wait), string(cutting.Hold), string(cutting.Discard)}
	case AskBud:
		return []string{NewBud, SpentHead}
	case AskStems:
		return []string{"1", "2", "3", "4", "5", "6", "7"}
	}
	var all []string
	for k := range crop.Rung(crop.Rungs) {
		all = append(all, k.String())
	}
	return all
}

// Levels of difficulty, from stems in the middle of their rungs to those between two.
const (
	Easiest = 1
	Hardest = 4
)

// LevelOf returns the difficulty for somebody who has answered so far: harder the better the last answers were.
func LevelOf(answers []Answer) int {
	const last = 24
	answers = answers[max(0, len(answers)-last):]
	if len(answers) < last/2 {
		return Easiest
	}
	right := 0
	for _, a := range answers {
		if a.Truth == a.Said {
			right++
		}
	}
	switch share := float64(right) / float64(len(answers)); {
	case share < 0.55:
		return Easiest
	case share < 0.7:
		return 2
	case share < 0.85:
		return 3
	}
	return Hardest
}

// Lesson returns so many tasks on subjects for somebody of whom answers are known: half of them ask for the rung, most of rungs that they mistake.
func Lesson(subjects []Subject, answers []Answer, tasks int, random *rand.Rand) []Task {
	if len(subjects) == 0 {
		return nil
	}
	sight, level := SightOf(answers), LevelOf(answers)
	asks := []Ask{AskRung, AskCall, AskRung, AskBud, AskRung, AskCall, AskRung, AskStems}
	var lesson []Task
	for i := range tasks {
		t := Task{Ask: asks[i%len(asks)], Subject: subjects[random.IntN(len(subjects))], Turn: float64(random.IntN(2*mostTurn+1) - mostTurn)}
		within := 0.1 + 0.1*float64(level) // of half a rung, on both sides of its middle
		t.Part = 0.5 + within*(2*random.Float64()-1)
		switch t.Ask {
		case AskRung:
			t.Rung = sight.weakest(random)
		case AskCall:
			t.call(random)
		case AskBud:
			t.Rung = crop.Tight
			if random.IntN(2) == 0 {
				t.Rung = crop.Spent
			}
		case AskStems:
			t.Rung, t.Stems = crop.Half, 1+random.IntN(3)
			t.Heads = t.Stems + 1 + random.IntN(4)
		}
		lesson = append(lesson, t)
	}
	return lesson
}

// mostTurn is by how many degrees a stem leans at most.
const mostTurn = 18

// weakest draws a rung, the more likely the more often it is mistaken or the less is known of it.
func (s Sight) weakest(random *rand.Rand) crop.Rung {
	var weights [crop.Rungs]float64
	sum := 0.0
	for k := range weights {
		right, sd := s.Chance(crop.Rung(k), crop.Rung(k))
		weights[k] = 0.1 + 1 - right + sd
		sum += weights[k]
	}
	at := sum * random.Float64()
	for k, w := range weights {
		if at -= w; at < 0 {
			return crop.Rung(k)
		}
	}
	return crop.Spent
}

// call draws a use of the crop, a rung about the borders of its window and the tests that fail.
func (t *Task) call(random *rand.Rand) {
	var uses []crop.Use
	for u := range crop.Use(crop.Uses) {
		if _, ok := t.Crop.Window(u, t.School); ok {
			uses = append(uses, u)
		}
	}
	if len(uses) == 0 {
		t.Ask, t.Rung = AskRung, crop.Rung(random.IntN(crop.Rungs))
		return
	}
	t.Use = uses[random.IntN(len(uses))]
	w, _ := t.Crop.Window(t.Use, t.School)
	low, high := max(0, int(w.From)-1), min(crop.Rungs-1, int(w.To)+1)
	t.Rung = crop.Rung(low + random.IntN(high-low+1))
	if asked := t.Crop.Judged(t.Use); len(asked) > 0 && w.Holds(t.Rung) && random.IntN(5) < 2 {
		t.Failed = []crop.Test{asked[random.IntN(len(asked))]}
	}
	const summerCd, pickDays, coolC = 12, 3, 4.5
	t.Days = cutting.Days{CdADay: summerCd, NextPick: pickDays, Wanted: float64(random.IntN(4)), HeldC: coolC}
}
