package morning

import (
	"fmt"
	"strings"

	"dewcount/core/day"
	"dewcount/farm/look"
	"dewcount/say"
)

// A warningView is what the weather threatens; of a frost there is a page of its own.
type warningView struct {
	Words string
	Frost bool
}

// warnings are what the weather of the next days threatens.
func warnings(snap *say.Snapshot) []warningView {
	var words []warningView
	if t, ok := snap.FrostThreat(); ok {
		words = append(words, warningView{frostWarning(snap, t), true})
	}
	for _, d := range snap.DoubtfulWeather() {
		words = append(words, warningView{Words: fmt.Sprintf("The weather on record for %s, %s to %s, lies far from what is usual here: was it written down right?", snap.Date(d.Day), snap.TenthBare(d.TminC), snap.Tenth(d.TmaxC))})
	}
	if hot, ok := snap.HeatThreat(); ok {
		words = append(words, warningView{Words: fmt.Sprintf("%s are expected on %s: stems open fast in such heat. Cut them early, a rung tighter than usual, and look again in the evening.", snap.Celsius(hot.TmaxC), snap.Date(hot.Day))})
	}
	return words
}

func frostWarning(snap *say.Snapshot, t look.FrostThreat) string {
	var rows []string
	for _, i := range t.Plantings {
		rows = append(rows, snap.Model.Plantings[i].ID)
	}
	const named = 8
	what := strings.Join(rows, ", ")
	if len(rows) > named {
		what = fmt.Sprintf("%s and %d more rows", strings.Join(rows[:named], ", "), len(rows)-named)
	}
	return fmt.Sprintf("Frost may kill %s by %s (%s). On the evening before, cut all that can be used, and cover what should live on.", what, snap.Date(t.Night), say.Tenths(t.Chance))
}

// cuttingHours says when stems can be cut on a day.
func cuttingHours(snap *say.Snapshot, d day.Day) string {
	place, err := snap.Book.Place()
	if err != nil {
		return ""
	}
	return say.CutWhen(snap, snap.Stand.CuttingHours(d, place.CutUntilC), d, place)
}
