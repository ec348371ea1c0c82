package fordate

import (
	"fmt"

	"dewcount/farm/plans"
	"dewcount/say"
)

type programmeView struct {
	Steps []programmeStep
	Weeks []programmeWeek // one day of each week
	Days  []programmeWeek // every day
}

type programmeStep struct{ When, What string }

type programmeWeek struct{ Week, Natural, Lamps, Blackout string }

// newProgramme says what lamps and blackout do, step by step and week by week.
func newProgramme(locale say.Locale, d *plans.DateResult) *programmeView {
	g := d.Programme
	v := &programmeView{}
	step := func(when, what string) { v.Steps = append(v.Steps, programmeStep{when, what}) }
	step(locale.Date(g.Planted), fmt.Sprintf("Plant rooted cuttings under cover; strike your own two to three weeks before. From now on %.1f hours of light and more, so that they grow and do not bud.", g.LongH))
	if !g.PinchBy.IsZero() {
		step("by "+locale.Date(g.PinchBy), "Pinch, so that the side shoots have begun when the short days do.")
	}
	step(locale.Date(g.ShortFrom), fmt.Sprintf("Short days begin: %.1f hours of light each day, no light at all in the night, without a day left out.", g.ShortH))
	step("about "+locale.Date(g.ColourOn), "Buds show colour: blackout can end.")
	step(locale.Date(d.CutOn), "Cut.")
	for i, w := range g.Days {
		line := programmeWeek{locale.Date(w.Day), fmt.Sprintf("%.1f", w.NaturalH), hoursOrNone(w.LampsH), hoursOrNone(w.BlackoutH)}
		v.Days = append(v.Days, line)
		if i%7 == 0 {
			v.Weeks = append(v.Weeks, line)
		}
	}
	return v
}

func hoursOrNone(h float64) string {
	if h == 0 {
		return "none"
	}
	return fmt.Sprintf("%.1f", h)
}
