package say

import (
	"fmt"

	"dewcount/core/crop"
	"dewcount/core/plan"
	"dewcount/farm/plans"
)

// NoWinter says that a crop will hardly flower where winters are too mild for it.
func NoWinter(what string, p *crop.Profile) string {
	return fmt.Sprintf("%s wants %d cold days before it flowers, and a usual winter here has fewer: none is promised.", what, p.ChillDays)
}

// DoubtWords says what is wrong with when a planting is started; empty where nothing is.
func DoubtWords(snap *Snapshot, i int) string {
	d := plans.DoubtOf(snap.Snapshot, i)
	g := &snap.Model.Plantings[i].Growth
	switch {
	case d.NoWinter:
		return NoWinter(snap.Model.Plantings[i].Variety, g.Profile)
	case d.Early && (g.Method == crop.Bulb || g.Method == crop.Corm) && g.Profile.ChillDays > 0:
		return "Its bulbs want a winter: they are set in autumn, or bought chilled."
	case d.Early && g.Method == crop.Tuber && !d.Frost.IsZero():
		return fmt.Sprintf("Too early: tubers are potted a month before the last frost, %s, and not sooner.", snap.Date(d.Frost))
	case d.Early && plan.Tender(g.Profile) && !d.Frost.IsZero():
		return fmt.Sprintf("It bears no frost, and the last one is about %s: it should not stand outdoors sooner.", snap.Date(d.Frost))
	case d.Early:
		return "It would stand outdoors in frost that kills it: wait, or give it a roof."
	case d.Cold:
		return "The ground is too cold for it to root when it is planted out: wait for spring, plant sooner in autumn, or give it a roof."
	case d.Late && !d.LastSafe.IsZero():
		return fmt.Sprintf("Too late: it will hardly flower before the frost. The last safe day to start it is %s.", snap.Date(d.LastSafe))
	case d.Late:
		return "It will hardly flower before the frost."
	}
	return ""
}
