package school

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/cutting"
	"dewcount/croptable"
)

// leaning is somebody who calls a quarter of all stems one rung too open and a twentieth one too tight.
func leaning(truth crop.Rung, random *rand.Rand) crop.Rung {
	switch u := random.Float64(); {
	case u < 0.25:
		return min(crop.Spent, truth+1)
	case u < 0.30:
		return max(crop.Tight, truth-1)
	}
	return truth
}

func learn(n int, seed uint64, says func(crop.Rung, *rand.Rand) crop.Rung, seconds float64) []Answer {
	random := rand.New(rand.NewPCG(seed, 3))
	var answers []Answer
	for range n {
		truth := crop.Rung(random.IntN(crop.Rungs))
		answers = append(answers, Answer{truth, says(truth, random), seconds * (0.5 + random.Float64())})
	}
	return answers
}

// Over 200 learners of 240 answers each, how often a rung is called the next one lies within two standard deviations of what is true at least 90 times in 100,
// and nearer the more answers there are.
func TestAnEyeIsMeasuredWithinItsUncertainty(t *testing.T) {
	within, all := 0, 0
	off := map[int]float64{}
	for seed := range uint64(200) {
		for _, n := range []int{40, 240} {
			s := SightOf(learn(n, seed, leaning, 3))
			mean, sd := s.Chance(crop.Third, crop.Half)
			off[n] += math.Abs(mean - 0.25)
			if n == 240 {
				if all++; math.Abs(mean-0.25) <= 2*sd {
					within++
				}
			}
			sum := 0.0
			for _, chance := range s.Eye()[crop.Third] {
				sum += chance
			}
			if math.Abs(sum-1) > 1e-9 {
				t.Fatalf("a row of an eye is %v", sum)
			}
		}
	}
	if within < 90*all/100 {
		t.Errorf("%d of %d lie within two standard deviations", within, all)
	}
	if off[240] >= off[40] {
		t.Errorf("more answers tell no more: %v", off)
	}
	lean, sd := SightOf(learn(800, 7, leaning, 3)).Lean()
	if lean < 0.1 || lean > 0.25 || lean < 3*sd { // a fifth of a rung, drawn a little towards nothing
		t.Errorf("somebody who calls stems too open leans by %.2f ± %.2f rungs", lean, sd)
	}
}

// By hand: before the first answer it is the usual eye. Of ten halves called open and ten each of the others called right, one rung is another eye than the others: it
// goes its own way, and the others hardly follow.
func TestSightByHand(t *testing.T) {
	before, _ := SightOf(nil).Chance(crop.Half, crop.Half)
	if math.Abs(before-0.83) > 1e-9 {
		t.Errorf("%v", before)
	}
	var answers []Answer
	for i := range 240 {
		truth := crop.Rung(i % crop.Rungs)
		said := truth
		if truth == crop.Half {
			said = crop.Open
		}
		answers = append(answers, Answer{truth, said, 2})
	}
	s := SightOf(answers)
	if one, _ := s.Chance(crop.Half, crop.Open); one < 0.85 {
		t.Errorf("a rung that is always called the next is so %.2f", one)
	}
	if others, _ := s.Chance(crop.Third, crop.Third); others < 0.93 {
		t.Errorf("a rung that is always called right is so %.2f", others)
	}
	even := SightOf(learn(240, 9, leaning, 3)) // all rungs alike: they are told by all answers
	for k := crop.Colour; k <= crop.Open; k++ {
		if mean, sd := even.Chance(k, k+1); math.Abs(mean-0.25) > 0.09 || sd > 0.05 {
			t.Errorf("%s is called the next %.2f ± %.2f", k, mean, sd)
		}
	}
}

func TestWhoIsBored(t *testing.T) {
	same := func(crop.Rung, *rand.Rand) crop.Rung { return crop.Half }
	any := func(_ crop.Rung, random *rand.Rand) crop.Rung { return crop.Rung(random.IntN(crop.Rungs)) }
	right := func(truth crop.Rung, _ *rand.Rand) crop.Rung { return truth }
	beginner := func(truth crop.Rung, random *rand.Rand) crop.Rung {
		return crop.Rung(max(0, min(crop.Rungs-1, int(truth)+random.IntN(5)-2))) // up to two rungs off, any way
	}
	for name, c := range map[string]struct {
		answers []Answer
		want    Doubt
	}{"who presses one key": {learn(40, 1, same, 3), NoLook}, "who presses any key": {learn(40, 2, any, 3), NoLook}, "who is right and too fast to have looked": {learn(40, 3, right, 0.3), TooFast},
		"who has answered five": {learn(5, 4, right, 3), TooFew}, "who is careful": {learn(40, 5, leaning, 3), NoDoubt}, "a beginner": {learn(60, 6, beginner, 3), NoDoubt}} {
		if got := DoubtOf(c.answers); got != c.want {
			t.Errorf("%s is doubted %d, want %d (kappa %.2f)", name, got, c.want, Kappa(c.answers))
		}
	}
}

// Every answer of the school is what the cut call says, for every crop, use, school, rung and test, and is among those that are offered.
func TestTheSchoolAgreesWithTheCutCall(t *testing.T) {
	entries := croptable.Shipped()
	for i := range entries {
		p := entries[i].Profile()
		schools := []string{""}
		for _, s := range p.Schools {
			schools = append(schools, s.ID)
		}
		for _, chosen := range schools {
			for u := range crop.Use(crop.Uses) {
				if _, ok := p.Window(u, chosen); !ok {
					continue
				}
				for k := range crop.Rung(crop.Rungs) {
					for _, failed := range append([][]crop.Test{nil}, tests(p, u)...) {
						task := Task{Ask: AskCall, Subject: Subject{Crop: p, School: chosen}, Use: u, Rung: k, Failed: failed, Days: cutting.Days{CdADay: 12, NextPick: 3, Wanted: 1, HeldC: 4.5}}
						want := cutting.Of(cutting.Stem{Crop: p, Use: u, School: chosen, Rung: k, Failed: failed}, task.Days)
						if task.Answer() != string(want.Verdict) || !slices.Contains(task.Answers(), task.Answer()) {
							t.Fatalf("%s for %s on %s: %s, the cut call says %s", p.ID, u, k, task.Answer(), want.Verdict)
						}
					}
				}
			}
		}
	}
}

func tests(p *crop.Profile, u crop.Use) [][]crop.Test {
	var all [][]crop.Test
	for _, t := range p.Judged(u) {
		all = append(all, []crop.Test{t})
	}
	return all
}

// A lesson asks everything, its answers are offered, it is the same for the same seed, and what somebody mistakes is asked more often.
func TestLessons(t *testing.T) {
	var subjects []Subject
	entries := croptable.Shipped()
	for i := range entries {
		subjects = append(subjects, Subject{Crop: entries[i].Profile(), Colour: "white"})
	}
	blind := make([]Answer, 0, 80)
	for i := range 80 {
		truth := crop.Rung(i % crop.Rungs)
		said := truth
		if truth == crop.Third {
			said = crop.Half
		}
		blind = append(blind, Answer{truth, said, 2})
	}
	asked, thirds := make(map[Ask]int), 0
	lesson := Lesson(subjects, blind, 400, rand.New(rand.NewPCG(5, 5)))
	for _, task := range lesson {
		asked[task.Ask]++
		if !slices.Contains(task.Answers(), task.Answer()) || task.Part < 0 || task.Part > 1 {
			t.Errorf("%+v", task)
		}
		if task.Ask == AskRung && task.Rung == crop.Third {
			thirds++
		}
	}
	if asked[AskRung] < 150 || asked[AskCall] < 80 || asked[AskBud] < 40 || asked[AskStems] < 40 {
		t.Errorf("%v", asked)
	}
	if thirds < asked[AskRung]/5 {
		t.Errorf("of %d rungs a third is asked %d times, which is what goes wrong", asked[AskRung], thirds)
	}
	again := Lesson(subjects, blind, 400, rand.New(rand.NewPCG(5, 5)))
	for i := range lesson {
		if lesson[i].Rung != again[i].Rung || lesson[i].Crop != again[i].Crop {
			t.Fatal("one seed gives two lessons")
		}
	}
	if LevelOf(nil) != Easiest || LevelOf(learn(40, 1, func(k crop.Rung, _ *rand.Rand) crop.Rung { return k }, 2)) != Hardest {
		t.Error("difficulty does not follow the learner")
	}
	if Lesson(nil, nil, 10, rand.New(rand.NewPCG(1, 1))) != nil {
		t.Error("a lesson on nothing")
	}
}
