package say

import (
	"dewcount/core/day"
	"dewcount/core/plan"
	"testing"
)

func TestTroublesOfABedAreSaid(t *testing.T) {
	locale, from, until := Locale{Today: day.Must("2026-07-09")}, day.Must("2026-06-01"), day.Must("2026-09-02")
	tall := plan.Guest{Stay: plan.Stay{Planting: "SU1"}, HighCM: 150}
	low := plan.Guest{Stay: plan.Stay{Planting: "ZL1"}, HighCM: 70}
	netted := tall
	netted.Netted = true
	note := func(trouble plan.Trouble, a, b plan.Guest) plan.Note {
		return plan.Note{Trouble: trouble, A: a, B: b, From: from, Until: until}
	}
	water := []plan.Note{note(plan.WaterClash, low, tall), {Trouble: plan.WaterClash, A: low, B: plan.Guest{Stay: plan.Stay{Planting: "DA1"}}, From: from.Add(-3), Until: until.Add(1)}}
	for want, got := range map[string]string{
		"SU1 (150 cm) shades ZL1 (70 cm) at noon from Mon 1 June to Tue 1 September: change their places.":                                                                          locale.Note(note(plan.Shading, tall, low)),
		"SU1 (150 cm) and ZL1 (70 cm) are of one crop, tall and short: plant them apart.":                                                                                           locale.Note(note(plan.TallAndShort, tall, low)),
		"SU1 grows 150 cm high in the wind with nothing to hold it: give it support or a sheltered bed.":                                                                            locale.Note(note(plan.WindAndHigh, tall, plan.Guest{})),
		"SU1 stands in the wind: lay its net or set its stakes while it is low, from Mon 1 June on.":                                                                                locale.Note(note(plan.WindAndHigh, netted, plan.Guest{})),
		"On one water line, the seed of ZL1 wants it moist every day and the tubers of SU1 and DA1 dry, from Fri 29 May to Wed 2 September: water the seed by hand until it is up.": locale.WaterClash(water, water[0]),
		"SU1 and ZL1 want the same squares from Mon 1 June until Tue 1 September: move one of them, or give it other squares.":                                                      locale.Clash(plan.Clash{A: tall.Stay, B: low.Stay, From: from, Until: until}),
		"SU1 and ZL1 want the same squares from Mon 1 June for good: move one of them, or give it other squares.":                                                                   locale.Clash(plan.Clash{A: tall.Stay, B: low.Stay, From: from}),
	} {
		if got != want {
			t.Errorf("said %q, want %q", got, want)
		}
	}
}
