package rounds

import (
	"fmt"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
)

// fillWithin is for how many days after a row was pulled out its bare squares are spoken of.
const fillWithin = 21

// Fill returns what to do with the squares of a planting that was pulled out on a day, and whether there is anything: what comes there next decides, zero if
// nothing is planned. Whether the season still lets things grow is asked of the sky.
func Fill(p *Planting, sky Sky, ended, today day.Day) (Job, bool) {
	bare := today.Sub(ended)
	if p.Profile.Lasts(p.Method) || p.Method == crop.Established || p.Pot || bare < 0 || bare > fillWithin || !p.Done[Mulch].IsZero() {
		return Job{}, false
	}
	const toWinter = 240 // days: nothing planned is as if it were next year's
	days := toWinter
	if !p.NextHere.IsZero() {
		days = p.NextHere.Sub(today)
	}
	const soon = 10 // days for which nobody covers a bed
	if days < soon {
		return Job{}, false
	}
	const m2 = 1e4 // cm² in one
	area := float64(p.Plants) * p.Profile.SpacingCM * p.Profile.SpacingCM / m2
	warm := growsFor(sky, today, manureWarmDays)
	j := Job{Task: Mulch, Planting: p.ID, Earliest: maxDay(ended, today.Add(-1)), Best: maxDay(ended.Add(3), today), Latest: maxDay(ended.Add(14), today), Harm: 0.2, Minutes: 5 + 1.5*area,
		Reason: Sentence{"its squares lie bare"}, Cost: Sentence{"weeds seed there, and rain beats the soil flat"}}
	if !p.NextHere.IsZero() {
		j.Reason = append(j.Reason, " until ", p.NextHere)
	}
	switch plan.FillOf(days, warm) {
	case plan.Mulch:
		j.Reason = append(j.Reason, fmt.Sprintf(": clear and mulch them, about %.0f m²", max(1, area)))
	default:
		j.Reason = append(j.Reason, fmt.Sprintf(": a green manure has time, about %.0f m²; cut it before it flowers", max(1, area)))
	}
	return j, true
}

// manureWarmDays is for how many days it has to be warm enough after a green manure was sown.
const manureWarmDays = 35

// growsFor tells whether the next days are warm enough for most things to grow.
func growsFor(sky Sky, from day.Day, days int) bool {
	const warmC = 8.0
	sum := 0.0
	for i := range days {
		e := sky.Extremes(from.Add(i))
		sum += (e.TminC + e.TmaxC) / 2
	}
	return sum/float64(days) >= warmC
}
