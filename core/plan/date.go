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

// A DatePlan is sowings for a date.
type DatePlan struct {
	Sowings           []Planned
	Chance            float64 // that there are as many stems as wanted
	ChanceOfTwice     float64 // the same with twice the plants
	Low, Likely, High float64 // stems on the day
}

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

// A DateAnswer is when to sow for a date, and what else could be done. Plans that cannot be made are nil.
type DateAnswer struct {
	One    *DatePlan    // a single sowing
	Two    *DatePlan    // two of the same size, some days apart
	Half   *DatePlan    // a single one of which half of the plants are pinched
	ByDate []DateChance // of the days around, with the plants of the single sowing and pinched as it is
	Sure   bool         // whether the single sowing is as sure as wanted
}

// SowFor returns the answer for a date: first all days a week apart, then the days around the best of them one by one. A plan has as
// many plants as make it as sure as wanted, yet not more than is reasonable: of what is not so sure then, the chance says so. When ctx ends, so
// does the search, with an empty answer.
func (g *Ground) SowFor(ctx context.Context, starts Starts, want DateWant, progress func(float64)) DateAnswer {
	if progress == nil {
		progress = func(float64) {}
	}
	const coarse, around = 6, 9
	wide := g.tryDate(starts.Between(want.CutOn, want.CutOn, coarse), want)
	progress(0.5)
	if ctx.Err() != nil {
		return DateAnswer{}
	}
	best := wide.single(want)
	if best == nil {
		return DateAnswer{}
	}
	centre := best.Sowings[0].Sowing
	var sowings []Sowing
	for by := -around; by <= around; by++ {
		if d := centre.Started.Add(by); !d.Before(starts.From) {
			sowings = append(sowings, starts.On(d)...)
		}
	}
	fine := g.tryDate(sowings, want)
	progress(0.9)
	if ctx.Err() != nil {
		return DateAnswer{}
	}
	answer := DateAnswer{One: fine.single(want), Two: fine.pair(want), Half: fine.half(want)}
	if answer.One == nil {
		return DateAnswer{}
	}
	one := answer.One.Sowings[0]
	unseen := g.Unseen().tryDate(sowings, want)
	answer.judge(unseen, want)
	for i := range unseen.Trials {
		if s := unseen.Trials[i].Sowing; s.Method == one.Method && s.Pinched == one.Pinched {
			answer.ByDate = append(answer.ByDate, DateChance{s, chance(unseen.onDay(i, want), one.Plants, want)})
		}
	}
	answer.Sure = answer.One.Chance >= want.Chance
	progress(1)
	return answer
}

// judge gives the plans of an answer the chances and stems that they have in a try that was not looked at when they were chosen.
func (a *DateAnswer) judge(unseen *Try, want DateWant) {
	for _, p := range []*DatePlan{a.One, a.Two, a.Half} {
		if p == nil {
			continue
		}
		var own []Sowing
		each := make([]float32, unseen.Samples)
		for _, s := range p.Sowings {
			own = append(own, s.Sowing)
			i := slices.IndexFunc(unseen.Trials, func(t Trial) bool { return t.Sowing == s.Sowing })
			for k, stems := range unseen.onDay(i, want) {
				each[k] += stems / float32(len(p.Sowings))
			}
		}
		*p = *planOf(own, each, p.Plants(), want)
	}
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
	dateMembers = 32
	dateDraws   = 48
)

// tryDate tries sowings that are cut in the window of the use that they are for, and of which nothing is cut within reservedDays of the first of the day's picks.
func (g *Ground) tryDate(sowings []Sowing, want DateWant) *Try {
	reserved := *g
	reserved.members, reserved.draws = dateMembers, dateDraws
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
	most := math.MaxInt32
	if ample > 0 {
		most = int(math.Ceil(severalPlants * float64(want.Stems) / ample))
	}
	need := make([]float64, len(each)) // plants, by sample
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
	enough := need[min(len(need)-1, int(math.Ceil(want.Chance*float64(len(need))-1e-9)))]
	if math.IsInf(enough, 1) {
		return max(leastPlants, min(most, usualDatePlants(want.Stems)))
	}
	return max(leastPlants, min(most, int(math.Ceil(enough-hair))))
}

// usualDatePlants is how many plants are looked at where nothing tells how many are reasonable.
func usualDatePlants(stems int) int { return 4 * stems }

// planOf returns a plan of sowings that share plants evenly, each plant giving so much on the day.
func planOf(sowings []Sowing, each []float32, plants int, want DateWant) *DatePlan {
	p := &DatePlan{Sowings: Evenly(sowings, plants), Chance: chance(each, plants, want), ChanceOfTwice: chance(each, 2*plants, want)}
	sorted := make([]float64, len(each))
	for k, y := range each {
		sorted[k] = want.own(k) + float64(plants)*float64(y)
	}
	slices.Sort(sorted)
	at := func(q float64) float64 { return sorted[min(len(sorted)-1, int(q*float64(len(sorted))))] }
	p.Low, p.Likely, p.High = at(0.1), at(0.5), at(0.9)
	return p
}

// Best returns the surest of an answer's plans, and of those that are sure enough the one with the fewest plants; nil where there is none.
func (a *DateAnswer) Best(want DateWant) *DatePlan {
	var best *DatePlan
	for _, p := range []*DatePlan{a.One, a.Half, a.Two} {
		if p != nil && better(p, best, want) {
			best = p
		}
	}
	return best
}

// better tells whether a plan is surer than another, up to the chance wanted, and among the sure ones needs fewer plants.
func better(p, q *DatePlan, want DateWant) bool {
	if q == nil {
		return p.Chance > 0
	}
	a, b := min(p.Chance, want.Chance), min(q.Chance, want.Chance)
	if a != b {
		return a > b
	}
	return p.Plants() < q.Plants()
}

// single returns the best plan of a single sowing among trials, nil where none has a chance.
func (t *Try) single(want DateWant) *DatePlan {
	var best *DatePlan
	ample := t.ample(want)
	for i := range t.Trials {
		each := t.onDay(i, want)
		if p := planOf([]Sowing{t.Trials[i].Sowing}, each, t.enough(each, want, ample), want); better(p, best, want) {
			best = p
		}
	}
	return best
}

// mean returns the stems a plant of two trials that share their plants.
func mean(a, b []float32) []float32 {
	both := make([]float32, len(a))
	for s := range both {
		both[s] = (a[s] + b[s]) / 2
	}
	return both
}

// leastApart is by how many days two batches must differ to be two.
const leastApart = 3

// pair returns the best plan of two sowings some days apart.
func (t *Try) pair(want DateWant) *DatePlan {
	var best *DatePlan
	ample := t.ample(want)
	for i := range t.Trials {
		for j := i + 1; j < len(t.Trials); j++ {
			a, b := t.Trials[i].Sowing, t.Trials[j].Sowing
			if b.Started.Sub(a.Started) < leastApart || a.Method != b.Method || a.Pinched != b.Pinched {
				continue
			}
			each := mean(t.onDay(i, want), t.onDay(j, want))
			if p := planOf([]Sowing{a, b}, each, t.enough(each, want, ample), want); better(p, best, want) {
				best = p
			}
		}
	}
	return best
}

// half returns the best plan of a sowing of which half of the plants are pinched, nil where the crop is not pinched at will.
func (t *Try) half(want DateWant) *DatePlan {
	var best *DatePlan
	ample := t.ample(want)
	for i := range t.Trials {
		plain := t.Trials[i].Sowing
		pinched := plain
		pinched.Pinched = true
		j := slices.IndexFunc(t.Trials, func(o Trial) bool { return o.Sowing == pinched })
		if plain.Pinched || j < 0 {
			continue
		}
		each := mean(t.onDay(i, want), t.onDay(j, want))
		if p := planOf([]Sowing{plain, pinched}, each, t.enough(each, want, ample), want); better(p, best, want) {
			best = p
		}
	}
	return best
}
