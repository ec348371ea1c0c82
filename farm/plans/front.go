package plans

import (
	"context"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/core/promise"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// A Front is plans for an even bloom beside each other, the recommended one first, the others by their number of sowings.
type Front struct {
	Sowings [][]plan.Planned
	Weeks   [][]plan.WeekOutcome
}

// EvenBloom returns the front of plans for an ask.
func EvenBloom(ctx context.Context, s *look.Snapshot, a SuccessionAsk) (*Front, error) {
	p, err := Successions(ctx, s, a, nil)
	if err != nil {
		return nil, err
	}
	front := &Front{[][]plan.Planned{slices.Clip(p.Bloom.Sowings)}, [][]plan.WeekOutcome{p.Bloom.Weeks}}
	for _, l := range p.Front {
		if !l.Chosen {
			front.Sowings, front.Weeks = append(front.Sowings, l.Sowings), append(front.Weeks, l.Weeks)
		}
	}
	return front, nil
}

// A FrontLine is a plan of so many sowings beside the others.
type FrontLine struct {
	Sowings []plan.Planned
	Weeks   []plan.WeekOutcome
	plan.Comparison
	Plants, Squares int
	Hours           float64 // of sowing and cutting
	Chosen          bool
}

// frontReach is how many sowings fewer and more than the chosen plan has are set beside it.
const frontReach = 3

// judge gives the weeks of all plans what they bring in weathers that were not looked at when the plans were made, beside the rows on record where they count, and
// compares them.
func (p *SuccessionPlan) judge(ground *plan.Ground, want plan.Want, limits plan.Limits, to day.Day, place book.Place) {
	var front []plan.Choice
	for _, c := range p.Bloom.Front {
		if by := len(c.Sowings) - len(p.Bloom.Sowings); by >= -frontReach && by <= frontReach {
			front = append(front, c)
		}
	}
	var sowings []plan.Sowing
	note := func(planned []plan.Planned) {
		for _, s := range planned {
			if !slices.Contains(sowings, s.Sowing) {
				sowings = append(sowings, s.Sowing)
			}
		}
	}
	note(p.Calendar)
	note(p.Bloom.Sowings)
	for _, c := range front {
		note(c.Sowings)
	}
	unseen := ground.Unseen().Try(sowings, crop.Market, to)
	searched := p.Bloom.Weeks
	outcome := func(planned []plan.Planned) []plan.WeekOutcome {
		weeks := unseen.Outcome(planned, want, limits)
		for w := range weeks {
			weeks[w].Reachable = searched[w].Reachable || weeks[w].Chance >= want.Chance // one that was given up may be held all the same
		}
		return weeks
	}
	p.Bloom.Weeks, p.CalendarWeeks = outcome(p.Bloom.Sowings), outcome(p.Calendar)
	reached := p.Bloom.Weeks // by which all are compared
	rows := 0.0              // stems that they are expected to give in the weeks that are held
	for w, alone := range unseen.Outcome(nil, want, limits) {
		if reached[w].Reachable && alone.Want > 0 {
			rows += alone.Want + alone.Over - alone.Short // their mean
		}
	}
	compared := func(weeks []plan.WeekOutcome, planned []plan.Planned) plan.Comparison {
		return plan.Compared(weeks, func(i int) bool { return reached[i].Reachable }, unseen.Stems(planned)+rows)
	}
	p.Even, p.Fixed = compared(p.Bloom.Weeks, p.Bloom.Sowings), compared(p.CalendarWeeks, p.Calendar)
	for _, c := range front {
		l := FrontLine{Sowings: c.Sowings, Weeks: outcome(c.Sowings), Chosen: len(c.Sowings) == len(p.Bloom.Sowings)}
		l.Comparison = compared(l.Weeks, c.Sowings)
		for _, s := range c.Sowings {
			l.Plants += s.Plants
		}
		l.Hours = (place.SowingMinutes*float64(len(c.Sowings)))/60 + unseen.Stems(c.Sowings)/place.StemsAnHour
		p.Front = append(p.Front, l)
	}
}

// HoldDays returns for how many days stems of a crop that are cut in the middle of a use's window are held and still serve it.
func HoldDays(b *book.Book, p *crop.Profile, use crop.Use) int {
	window, ok := p.Window(use, b.SchoolOf(p.ID, "cut"))
	if !ok {
		return 0
	}
	rule, days := b.Holding(), 0
	for d := 1; d <= int(p.Store.MaxDays); d++ {
		if rule.Serves(p, promise.Right{Use: use, Window: window}, promise.Stem{Cut: (window.From + window.To) / 2}, float64(d)) {
			days = d
		}
	}
	return days
}
