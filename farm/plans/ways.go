package plans

import (
	"context"
	"slices"

	"dewcount/core/plan"
	"dewcount/farm/look"
)

// A Front is plans for an even bloom beside each other, the recommended one first.
type Front struct {
	Sowings [][]plan.Planned
	Weeks   [][]plan.WeekOutcome
}

// EvenBloom returns the plan by warmth and the one by the calendar.
func EvenBloom(ctx context.Context, s *look.Snapshot, a SuccessionAsk) (*Front, error) {
	p, err := Successions(ctx, s, a, nil)
	if err != nil {
		return nil, err
	}
	return &Front{[][]plan.Planned{slices.Clip(p.Bloom.Sowings), p.Calendar}, [][]plan.WeekOutcome{p.Bloom.Weeks, p.CalendarWeeks}}, nil
}
