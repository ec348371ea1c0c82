package plan

import (
	"context"
	"math"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// A DateWant is stems that shall stand in the window of a use on one day, and how surely.
type DateWant struct {
	CutOn  day.Day   // the last morning on which they are cut
	Picks  []day.Day // on which is cut for it, in order, CutOn the last: what is cut on any of them can be held until the day. Nil for CutOn alone
	Use    crop.Use
	Stems  int
	Chance float64   // 0 to 1
	Own    []float32 // stems that there will be without any sowing, by sample; nil for none
}

// own returns the stems of a sample that need no sowing.
func (w *DateWant) own(sample int) float64 {
	if len(w.Own) == 0 {
		return 0
	}
	const stride = 37 // what the weather gives to rows on record and what it gives to a trial are drawn apart
	return float64(w.Own[sample*stride%len(w.Own)])
}

// picks returns the mornings on which is cut for the day.
func (w *DateWant) picks() []day.Day {
	if len(w.Picks) == 0 {
		return []day.Day{w.CutOn}
	}
	return w.Picks
}

// reservedDays is for how long before the first of them nothing is cut from a sowing that is made for the day.
const reservedDays = 7

// A Way is how many sowings a plan for a date has, and how they differ.
type Way int

// The ways.
const (
	One   Way = iota // a single sowing
	Two              // two of the same size, some days apart
	Three            // three
	Half             // a single one of which half of the plants are pinched
	Stand            // plants that stand for years
)

// A DatePlan is sowings for a date.
type DatePlan struct {
	Way               Way
	Sowings           []Planned
	Chance            float64 // that there are as many stems as wanted
	ChanceOfTwice     float64 // the same with twice the plants
	Low, Likely, High float64 // stems on the day
	Sizes             []Size  // what other chances take
	Ceiling           float64 // the chance that no number of plants goes beyond
	Most              int     // plants beyond which more are not reasonable
}

// A Size is how many plants make a plan so sure.
type Size struct {
	Chance float64
	Plants int // 0 where no reasonable number does
	Over   float64
}

// sizes are the chances for which the plants of a plan are told.
var sizes = []float64{0.7, 0.8, 0.9}

// Plants returns the plants of all sowings together.
func (p *DatePlan) Plants() int {
	sum := 0
	for _, s := range p.Sowings {
		sum += s.Plants
	}
	return sum
}

// A DateChance is how sure a number of plants started on a day would be.
type DateChance struct {
	Sowing
	Chance float64
}

// A DateAnswer is when to sow for a date, and what else could be done.
type DateAnswer struct {
	Plans  []*DatePlan  // those that can be made, the best first
	ByDate []DateChance // of the days around, with the plants of the single sowing and pinched as it is
}

// Of returns the plan of a way, nil where it cannot be made.
func (a *DateAnswer) Of(w Way) *DatePlan {
	for _, p := range a.Plans {
		if p.Way == w {
			return p
		}
	}
	return nil
}

// Best returns the best plan, nil where there is none.
func (a *DateAnswer) Best() *DatePlan {
	if len(a.Plans) == 0 {
		return nil
	}
	return a.Plans[0]
}

// judge sizes the plans of an answer anew in a try that was not looked at when their days were chosen, tells what they are worth in it, and puts the best first.
// A plan that no reasonable number of plants makes as sure as wanted has no more of them than pay.
func (a *DateAnswer) judge(unseen *Try, want DateWant) {
	ample := unseen.ample(want)
	for _, p := range a.Plans {
		var own []Sowing
		each := make([]float32, unseen.Samples)
		for _, s := range p.Sowings {
			own = append(own, s.Sowing)
			i := slices.IndexFunc(unseen.Trials, func(t Trial) bool { return t.Sowing == s.Sowing })
			for k, stems := range unseen.onDay(i, want) {
				each[k] += stems / float32(len(p.Sowings))
			}
		}
		if *p = *planOf(p.Way, own, each, unseen.enough(each, want, ample), want); p.Chance < want.Chance {
			*p = *planOf(p.Way, own, each, min(p.Plants(), nearlyAsSure(each, p.Chance, want)), want)
		}
		p.Most = most(want, ample)
		for k, y := range each {
			if y > 0 || want.own(k) >= float64(want.Stems)-hair {
				p.Ceiling += 1 / float64(len(each))
			}
		}
		for _, sure := range sizes {
			asked := want
			asked.Chance = sure
			size := Size{Chance: sure}
			if sized := planOf(p.Way, own, each, unseen.enough(each, asked, ample), want); sized.Chance >= sure-0.005 {
				size.Plants, size.Over = sized.Plants(), max(0, sized.Likely-float64(want.Stems))
			}
			p.Sizes = append(p.Sizes, size)
		}
	}
	slices.SortStableFunc(a.Plans, func(p, q *DatePlan) int { return before(p, q, want) })
}

// standsFor is for how many days plants have stood that give what grown ones do.
const standsFor = 800

// StandFor returns how many grown plants of what lasts for years give the stems, and when they flower: from the day on which a twentieth is cut to the day on which
// all but a twentieth are; zero Days where they do not.
func (g *Ground) StandFor(want DateWant) (answer DateAnswer, first, last day.Day) {
	grown := Sowing{Method: crop.Established, Started: g.Farm.From.Add(-standsFor)}
	const around = 120 // days after the date in which its bloom is looked for
	first, last = g.Try([]Sowing{grown}, crop.Market, want.CutOn.Add(around)).Cuts(grown)
	if p := g.tryDate([]Sowing{grown}, want).single(want); p != nil {
		p.Way = Stand
		answer.Plans = []*DatePlan{p}
		answer.judge(g.Unseen().tryDate([]Sowing{grown}, want), want)
	}
	return answer, first, last
}

// Near returns the day nearest to a date, of those whole weeks before and after it, for which a sowing gives the stems as often as not; zero where none within
// four weeks does.
func (g *Ground) Near(ctx context.Context, starts Starts, want DateWant) day.Day {
	const weeks, coarse = 4, 10
	want.Chance, want.Own = 0.5, nil
	for w := 1; w <= weeks; w++ {
		for _, by := range []int{7 * w, -7 * w} {
			moved := want
			moved.CutOn, moved.Picks = want.CutOn.Add(by), nil
			for _, d := range want.Picks {
				moved.Picks = append(moved.Picks, d.Add(by))
			}
			if first := moved.picks()[0]; !first.After(starts.From) || ctx.Err() != nil {
				continue
			}
			if p := g.Coarse().tryDate(starts.Between(moved.CutOn, moved.CutOn, coarse), moved).single(moved); p != nil && p.Chance >= 0.5 {
				return moved.CutOn
			}
		}
	}
	return day.Day{}
}

// SowOn returns the best plan for a date of a sowing made on one day, nil where it has no chance.
func (g *Ground) SowOn(starts Starts, on day.Day, want DateWant) *DatePlan {
	sowings := starts.On(on)
	if len(sowings) == 0 {
		return nil
	}
	return g.tryDate(sowings, want).single(want)
}

// How finely a date is looked at: a single day hangs on the weather more than a week of many does.
const (
	dateMembers = 96
	dateDraws   = 768
)

// tryDate tries sowings that are cut in the window of the use that they are for, and of which nothing is cut within reservedDays of the first of the day's picks.
func (g *Ground) tryDate(sowings []Sowing, want DateWant) *Try {
	reserved := *g
	if reserved.members == 0 {
		reserved.members, reserved.draws = dateMembers, dateDraws
	}
	ours := want.picks()
	picks := g.Farm.Picks.Between(g.Farm.From, ours[0].Add(-reservedDays))
	reserved.Farm.Picks = day.PickDays{Extra: append(picks, ours...)}
	if g.Row.HasUse[want.Use] {
		reserved.Row.Growth.Market = g.Row.Windows[want.Use]
		reserved.Row.Windows[crop.Market] = g.Row.Windows[want.Use]
	}
	return reserved.Try(sowings, crop.Market, want.CutOn)
}

// onDay returns the stems a plant of a trial that there are on the day, by sample: those of all picks whose stems can be held until then.
func (t *Try) onDay(trial int, want DateWant) []float32 {
	sum := make([]float32, t.Samples)
	for _, d := range want.picks() {
		if j := slices.Index(t.Picks, d); j >= 0 {
			for k, stems := range t.Trials[trial].ByPick[j] {
				sum[k] += stems
			}
		}
	}
	return sum
}

// chance returns how often so many plants give as many stems as are wanted.
func chance(each []float32, plants int, want DateWant) float64 {
	n := 0
	for k, y := range each {
		if want.own(k)+float64(y)*float64(plants) >= float64(want.Stems)-hair {
			n++
		}
	}
	return float64(n) / float64(len(each))
}

// ample is the most stems a plant that any trial gives as often as not.
func (t *Try) ample(want DateWant) float64 {
	best := 0.0
	for i := range t.Trials {
		sorted := slices.Clone(t.onDay(i, want))
		slices.Sort(sorted)
		best = max(best, float64(sorted[len(sorted)/2]))
	}
	return best
}

// enough returns the plants that make so many stems as sure as wanted, or as many as are reasonable.
func (t *Try) enough(each []float32, want DateWant, ample float64) int {
	return max(leastPlants, min(most(want, ample), plantsFor(needs(each, want), want.Chance)))
}

// most is how many plants for a date are reasonable: several times what the best trial takes. Where a plant gives less than a stem, more of them are nobody's answer.
func most(want DateWant, ample float64) int {
	if ample > 1 {
		return int(math.Ceil(severalPlants * float64(want.Stems) / ample))
	}
	return severalPlants * want.Stems
}

// nearlyAsSure returns the plants that come close to a chance which is all that can be had.
func nearlyAsSure(each []float32, all float64, want DateWant) int {
	return max(leastPlants, plantsFor(needs(each, want), max(0, all-alike)))
}

// needs returns the plants that give as many stems as wanted in each sample, in order; infinity where none do.
func needs(each []float32, want DateWant) []float64 {
	need := make([]float64, len(each))
	for k, y := range each {
		lacks := float64(want.Stems) - want.own(k)
		switch {
		case lacks <= 0:
		case y <= 0:
			need[k] = math.Inf(1)
		default:
			need[k] = lacks / float64(y)
		}
	}
	slices.Sort(need)
	return need
}

// plantsFor returns the plants that are enough in a share of the samples, math.MaxInt where no number is.
func plantsFor(need []float64, share float64) int {
	enough := need[min(len(need)-1, int(math.Ceil(share*float64(len(need))-1e-9)))]
	if math.IsInf(enough, 1) {
		return math.MaxInt
	}
	return int(math.Ceil(enough - hair))
}
