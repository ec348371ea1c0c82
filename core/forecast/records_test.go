package forecast

import (
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/evidence"
	"dewcount/core/growth"
)

// Tulips after a winter without a cold day: the crop table lets them wait for the next one, but who counts buds is believed.
func TestBudsThatWereCountedComeAfterAMildWinter(t *testing.T) {
	farm := meadow(0)
	today := day.Must("2026-04-15")
	farm.Members, farm.Draws = 10, 16
	farm.From, farm.To, farm.Outlook.From, farm.Outlook.Observed = today, today.Add(35), today, nil
	for d := today.Add(-300); d.Before(today); d = d.Add(1) {
		const milderC = 11
		usual := climate.UsualSeason(46.9, 520).On(d.YearDay())
		farm.Outlook.Observed = append(farm.Outlook.Observed, climate.Dated{Day: d, Extremes: climate.Extremes{TminC: usual.TminC + milderC, TmaxC: usual.TmaxC + milderC}})
	}
	p := profiles()["tulip"]
	row := Planting{ID: "T", Variety: "Tulip", Sound: 0.95, Until: today.At(6), Growth: growth.Planting{Profile: p, Method: crop.Bulb, Plants: 60, Started: day.Must("2025-10-20")}}
	for u := range crop.Use(crop.Uses) {
		row.Windows[u], row.HasUse[u] = p.Window(u, "")
	}
	row.Growth.Market = row.Windows[crop.Market]
	told := func() float64 {
		farm.Plantings = []Planting{row}
		return total(New(farm, nil).Forecast().Plantings[0], crop.Market)
	}
	if n := told(); n > 0.5 {
		t.Errorf("%.1f stems of bulbs that had no chill and of which nothing was seen", n)
	}
	row.Counts = []evidence.Count{{At: today.At(6), Plants: 30, Stems: [crop.Rungs]int{crop.Spent: 3}}}
	if n := told(); n > 1 {
		t.Errorf("%.1f stems of bulbs that had no chill, on which dry heads were counted", n)
	}
	row.Counts = []evidence.Count{{At: today.At(6), Plants: 30, Stems: [crop.Rungs]int{12, 4}}}
	if n := told(); n < 40 || n > 60 {
		t.Errorf("%.1f stems of 60 tulips of which half were counted, half of those in bud", n)
	}
}
