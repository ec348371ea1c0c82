package plans

import (
	"context"
	"slices"

	"dewcount/core/plan"
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
