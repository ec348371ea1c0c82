package morning

import (
	"fmt"
	"strings"

	"dewcount/core/day"
	"dewcount/say"
)

// What the morning page warns of: how many days ahead, from which warmth on, and from which chance of frost on.
const (
	warnDays    = 5
	hotDayC     = 30
	frostChance = 0.1
)

// warnings are what the weather of the next days threatens.
func warnings(snap *say.Snapshot) []string {
	var words []string
	if frost := frostWarning(snap); frost != "" {
		words = append(words, frost)
	}
	const looksBack = 60
	for _, d := range snap.Model.Outlook.Odd(snap.View.Today.Add(-looksBack)) {
		words = append(words, fmt.Sprintf("The weather on record for %s, %s to %s, lies far from what is usual here: was it written down right?", snap.Date(d.Day), snap.TenthBare(d.TminC), snap.Tenth(d.TmaxC)))
	}
	hot, on := 0.0, day.Day{}
	for i := range warnDays {
		d := snap.View.From.Add(i)
		if e := snap.Stand.Weather(d); e.TmaxC >= hotDayC && e.TmaxC > hot {
			hot, on = e.TmaxC, d
		}
	}
	if !on.IsZero() {
		words = append(words, fmt.Sprintf("%s are expected on %s: stems open fast in such heat. Cut them early, a rung tighter than usual, and look again in the evening.", snap.Celsius(hot), snap.Date(on)))
	}
	return words
}

func frostWarning(snap *say.Snapshot) string {
	var rows []string
	worst, soonest := 0.0, warnDays
	for i, p := range snap.Model.Plantings {
		chance := snap.Stand.FrostWithin(i, warnDays)
		if chance < frostChance || snap.Over(i) {
			continue
		}
		worst = max(worst, chance)
		rows = append(rows, p.ID)
		for soonest > 1 && snap.Stand.FrostWithin(i, soonest-1) >= frostChance {
			soonest--
		}
	}
	if rows == nil {
		return ""
	}
	const named = 8
	what := strings.Join(rows, ", ")
	if len(rows) > named {
		what = fmt.Sprintf("%s and %d more rows", strings.Join(rows[:named], ", "), len(rows)-named)
	}
	night := snap.View.From.Add(soonest - 1)
	return fmt.Sprintf("Frost may kill %s by %s (%s). On the evening before, cut all that can be used, and cover what should live on.", what, snap.Date(night), say.Tenths(worst))
}

// cuttingHours says when stems can be cut on a day.
func cuttingHours(snap *say.Snapshot, d day.Day) string {
	place, err := snap.Book.Place()
	if err != nil {
		return ""
	}
	var parts []string
	for _, span := range snap.Stand.CuttingHours(d) {
		parts = append(parts, fmt.Sprintf("%s to %s", say.Clock(span.From, d, place), say.Clock(span.To, d, place)))
	}
	if parts == nil {
		return ""
	}
	e := snap.Stand.Weather(d)
	return fmt.Sprintf("Cut from about %s: after the dew, before the heat (%s expected).", strings.Join(parts, ", or "), snap.Range(say.Celsius, e.TminC, e.TmaxC))
}
