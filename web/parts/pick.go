package parts

import (
	"fmt"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/say"
)

// A PickView is a pick day to choose.
type PickView struct {
	Day, Spoken, Stems string
	Chosen             bool
}

// NewPicks returns the forecast's pick days with the stems of all crops that are likely on each.
func NewPicks(snap *say.Snapshot, chosen day.Day) []PickView {
	var picks []PickView
	for j, d := range snap.Forecast.PickDays {
		total := 0
		for _, cells := range snap.Forecast.Crops {
			total += cells.ByPick[j][crop.Market].Likely()
		}
		picks = append(picks, PickView{Day: d.String(), Spoken: snap.Date(d), Stems: fmt.Sprintf("likely %d", total), Chosen: d == chosen})
	}
	return picks
}
