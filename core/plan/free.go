package plan

import (
	"dewcount/core/crop"
	"dewcount/core/day"
)

// How long a planting stands beyond its cuts: until it is pulled out, and where no bloom is in sight for that of most crops; guesses, in days.
const (
	ClearDays = 7
	bloomDays = 45
)

// FreeFrom returns the day from which the squares of a planting are free again: that on which it ended, a week after its last cut is likely, or, where no
// cut is in sight, when its crop's slow rows have bloomed. lastCut and ended are zero where they are not known. It returns the zero Day for what
// stands for years.
func FreeFrom(p *crop.Profile, m crop.Method, inBed, lastCut, ended day.Day) day.Day {
	switch {
	case !ended.IsZero():
		return ended
	case p.Lasts(m):
		return day.Day{}
	case !lastCut.IsZero():
		return lastCut.Add(ClearDays)
	default:
		return inBed.Add(p.TypicalDays[1] + bloomDays)
	}
}
