package look

import (
	"dewcount/core/crop"
	"dewcount/core/day"
)

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
	Resting // nothing stands, and it shoots again
)

// Stage returns where planting i stands, and in bud or bloom how many stems it likely has.
func (s *Snapshot) Stage(i int) (stage Stage, stems int) {
	p, today := &s.Model.Plantings[i], s.View.Today
	lasts := p.Growth.Profile.Lasts(p.Growth.Method)
	switch {
	case s.Stand.Dead(i) && !lasts:
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
	case lasts && s.Rests(i, today):
		return Resting, 0
	case standing.Finished():
		return Spent, 0
	case p.Growth.Out().After(today):
		return InNursery, 0
	}
	return Growing, 0
}

// Over tells whether nothing is counted or cut any more on planting i: it is dead, pulled out or spent. What lasts is only when it was pulled out.
func (s *Snapshot) Over(i int) bool {
	p := &s.Model.Plantings[i]
	if !p.Ended.IsZero() && !p.Ended.After(s.View.Today) {
		return true
	}
	return !p.Growth.Profile.Lasts(p.Growth.Method) && (s.Stand.Dead(i) || s.Stand.Standing(i).Finished())
}

// rooted is how many days after its start what lasts has stood through a season, so that it shoots again; before that it comes up for the first time.
const rooted = 200

// Rests tells whether planting i lies bare until after a day, to shoot again.
func (s *Snapshot) Rests(i int, until day.Day) bool {
	p := &s.Model.Plantings[i]
	if !p.Growth.Profile.Lasts(p.Growth.Method) || s.Stand.Standing(i).Likely >= 1 {
		return false
	}
	if s.Stand.Dead(i) || s.Stand.Standing(i).Finished() {
		return true
	}
	up := s.Milestones(i).Emerged.Likely
	return (up.IsZero() || up.After(until)) && (p.Growth.Method == crop.Established || s.View.Today.Sub(p.Growth.Started) > rooted)
}
