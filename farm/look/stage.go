package look

import "dewcount/core/crop"

// A Stage is where a planting stands in its life.
type Stage int

// The stages, in the order in which one is looked for.
const (
	Killed    Stage = iota // by a frost
	PulledOut              // it has ended
	ToStart                // its day has not come, or is today
	InBud                  // one stem or more on the ladder
	Spent                  // nothing on the ladder, and nothing to come
	InNursery
	Growing // without buds yet
)

// Stage returns where planting i stands, and in bud or bloom how many stems it likely has.
func (s *Snapshot) Stage(i int) (stage Stage, stems int) {
	p, today := &s.Model.Plantings[i], s.View.Today
	switch {
	case s.Stand.Dead(i):
		return Killed, 0
	case !p.Ended.IsZero() && !p.Ended.After(today):
		return PulledOut, 0
	case !p.Growth.Started.Before(today) && p.Growth.Method != crop.Established:
		return ToStart, 0
	}
	standing := s.Stand.Standing(i)
	switch {
	case standing.Likely >= 1:
		return InBud, int(standing.Likely + 0.5)
	case standing.Finished():
		return Spent, 0
	case p.Growth.Out().After(today):
		return InNursery, 0
	}
	return Growing, 0
}

// Over tells whether nothing is counted or cut any more on planting i: it is dead, pulled out or spent.
func (s *Snapshot) Over(i int) bool {
	ended := s.Model.Plantings[i].Ended
	return s.Stand.Dead(i) || !ended.IsZero() && !ended.After(s.View.Today) || s.Stand.Standing(i).Finished()
}
