package forecast

import (
	"testing"

	"dewcount/core/climate"
	"dewcount/core/day"
)

// Fleece from today on brings stems sooner and shade later, and neither changes what was before it.
func TestWhatIsLaidOverARowMovesItFromThatDayOn(t *testing.T) {
	firstBud := func(l Laid) day.Day {
		farm := meadow(12)
		farm.Plantings[9].Cover.Laid[1] = l
		return New(farm, nil).Milestones(9).FirstBud.Likely
	}
	today := meadow(1).From
	open := firstBud(Laid{})
	fleeced, shaded := firstBud(Laid{NightC: 1.5, DayC: 4, From: today}), firstBud(Laid{DayC: -2.5, From: today})
	off, before := firstBud(Laid{NightC: 1.5, DayC: 4, From: today, Until: today}), firstBud(Laid{NightC: 30, DayC: 30, From: today.Add(-400), Until: today.Add(-390)})
	if !fleeced.Before(open) || !shaded.After(open) || off != open || before != open {
		t.Errorf("the first bud is on %s, under fleece on %s, under shade on %s; taken off at once %s, long ago %s", open, fleeced, shaded, off, before)
	}
	// by hand: a day of 8 to 20 °C under a tunnel and fleece is one of 12.5 to 28 °C, on its last day the tunnel's 11 to 24 °C
	c := Cover{NightC: 3, DayC: 4, Laid: [2]Laid{1: {NightC: 1.5, DayC: 4, From: today, Until: today.Add(2)}}}
	for days, want := range []climate.Extremes{{TminC: 12.5, TmaxC: 28}, {TminC: 12.5, TmaxC: 28}, {TminC: 11, TmaxC: 24}} {
		if got := c.over(climate.Extremes{TminC: 8, TmaxC: 20}, today.Add(days)); got != want {
			t.Errorf("after %d days %+v, want %+v", days, got, want)
		}
	}
}
