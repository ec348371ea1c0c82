package plan

import (
	"context"
	"slices"

	"dewcount/core/crop"
)

// SowFor returns the answer for a date: first all days a week apart, roughly, then those around the two best one by one. A plan has as
// many plants as make it as sure as wanted, yet not more than is reasonable: of what is not so sure then, the chance says so. When ctx ends, so
// does the search, with an empty answer.
func (g *Ground) SowFor(ctx context.Context, starts Starts, want DateWant, progress func(float64)) DateAnswer {
	if progress == nil {
		progress = func(float64) {}
	}
	rough := *g
	rough.members, rough.draws = dateMembers/3, dateDraws/3 // where to look closely needs no more
	centres := rough.tryDate(starts.Between(want.CutOn, want.CutOn, coarseDays), want).centres(want)
	progress(0.2)
	var answer DateAnswer
	var sowings []Sowing
	for i, centre := range centres {
		if ctx.Err() != nil {
			return DateAnswer{}
		}
		near := starts.around(centre)
		found := DateAnswer{Plans: g.tryDate(near, want).ways(want)}
		slices.SortStableFunc(found.Plans, func(p, q *DatePlan) int { return before(p, q, want) })
		if found.Of(One) != nil && (answer.Best() == nil || before(found.Best(), answer.Best(), want) < 0) {
			answer, sowings = found, near
		}
		progress(0.2 + 0.5*float64(i+1)/float64(len(centres)))
	}
	if answer.Best() == nil || ctx.Err() != nil {
		return DateAnswer{}
	}
	unseen := g.Unseen().tryDate(sowings, want)
	answer.judge(unseen, want)
	single := answer.Of(One)
	one := single.Sowings[0]
	for i := range unseen.Trials {
		if s := unseen.Trials[i].Sowing; s.Method == one.Method && s.Pinched == one.Pinched {
			answer.ByDate = append(answer.ByDate, DateChance{s, chance(unseen.onDay(i, want), one.Plants, want)})
		}
	}
	progress(1)
	return answer
}

// How a date is looked for: by days so far apart, then one by one so far around as many of the best as lie far enough from each other. A sowing of early spring
// and one of early summer can serve a date alike, and which needs fewer plants is seen when both are looked at closely.
const (
	coarseDays  = 6
	aroundDays  = 9
	mostCentres = 2
)

// centres returns the best sowings of a try, the best first, each so far from the others that no day lies around two of them.
func (t *Try) centres(want DateWant) []Sowing {
	var plans []*DatePlan
	for _, p := range append(t.singles(want), t.halves(want)...) {
		if p.Chance > 0 {
			plans = append(plans, p)
		}
	}
	slices.SortStableFunc(plans, func(p, q *DatePlan) int {
		switch {
		case better(p, q, want):
			return -1
		case better(q, p, want):
			return 1
		default:
			return 0
		}
	})
	var centres []Sowing
	for _, p := range plans {
		s := p.Sowings[0].Sowing
		beside := func(o Sowing) bool {
			return o.Method == s.Method && max(o.Started.Sub(s.Started), s.Started.Sub(o.Started)) <= 2*aroundDays
		}
		if !slices.ContainsFunc(centres, beside) {
			centres = append(centres, s)
		}
		if len(centres) == mostCentres {
			break
		}
	}
	return centres
}

// around returns the sowings of each day around one, started as it is.
func (s Starts) around(centre Sowing) []Sowing {
	s.Methods = []crop.Method{centre.Method}
	var sowings []Sowing
	for by := -aroundDays; by <= aroundDays; by++ {
		if d := centre.Started.Add(by); !d.Before(s.From) {
			sowings = append(sowings, s.On(d)...)
		}
	}
	return sowings
}
