package climate

import (
	"math"
	"testing"

	"dewcount/core/day"
)

// A hundred and forty days, as many as what is supposed is worth, that were foretold 4 °C too warm by night and right by day: middles come out 2 °C
// below what was said and ranges 4 above it, and half of that is believed. About the half that is, the errors' squares are 1 and 4, and beside
// 1.1² the spreads of a day are √((1.21+1)/2) = 1.051 and √((1.21+4)/2) = 1.614. Three days ahead they are 3^0.6 = 1.933 times as large, but never larger than
// the season's own, 3.3 °C where hardly anything is on record. A day of 200 °C is a slip of the pen, and tells nothing.
func TestServiceByHand(t *testing.T) {
	from := day.Must("2026-10-12")
	outlook := Outlook{Latitude: 46.9, ElevationM: 520, From: from}
	if got := outlook.Service(); got.middle != (forecastError{0, 1.1, 3.3}) || got.span != (forecastError{0, 1.1, 3.4}) {
		t.Errorf("with nothing on record the service errs by %+v", got)
	}
	for i := range 140 {
		d := from.Add(-1 - i)
		outlook.Foretold = append(outlook.Foretold, Foretold{Dated{d, Extremes{9, 20}}, 1, Extremes{5, 20}})
	}
	outlook.Foretold = append(outlook.Foretold, Foretold{Dated{from.Add(-1), Extremes{9, 20}}, 2, Extremes{5, 200}})
	got := outlook.Service()
	for name, pair := range map[string][2]float64{
		"days without the slip of the pen": {float64(got.Days), 140}, "middle": {got.middle.biasC, -1}, "range": {got.span.biasC, 2}, "nights": {got.NightsC(), -2}, "days": {got.DaysC(), 0},
		"middle of a day ahead": {got.ErrsC(1), 1.051}, "of three": {got.ErrsC(3), 1.051 * 1.9332}, "of two weeks": {got.ErrsC(14), 3.3}, "range of a day": {got.span.dayC, 1.614},
	} {
		if math.Abs(pair[0]-pair[1]) > 1e-3 {
			t.Errorf("%s: %.4f, by hand %.4f", name, pair[0], pair[1])
		}
	}
}

// The members of who has heard 4 °C too warm nights all year are colder by night than the forecast says, and foresee more frosts than those of who has
// heard right ones; those are as near to the forecast as it has always come.
func TestMembersFollowTheServiceAsItErrs(t *testing.T) {
	from := day.Must("2026-10-12")
	night := func(outC float64) (mean, sd float64) {
		outlook := Outlook{Latitude: 46.9, ElevationM: 520, From: from}
		for i := range 7 {
			outlook.Issued = append(outlook.Issued, Dated{from.Add(i), Extremes{3, 13}})
			for back := range 360 {
				outlook.Foretold = append(outlook.Foretold, Foretold{Dated{from.Add(-1 - back), Extremes{3, 13}}, i + 1, Extremes{3 + outC, 13}})
			}
		}
		members := outlook.Members(400, 7, 1)
		for _, m := range members {
			mean += m.Days[2].TminC / 400
		}
		for _, m := range members {
			sd += (m.Days[2].TminC - mean) * (m.Days[2].TminC - mean) / 400
		}
		return mean, math.Sqrt(sd)
	}
	if mean, sd := night(0); math.Abs(mean-3) > 0.1 || sd > 0.8 {
		t.Errorf("a service that is always right is followed to %.2f °C ± %.2f where it says 3", mean, sd)
	}
	if mean, _ := night(-4); mean > -0.5 || mean < -1.1 {
		t.Errorf("nights that come out 4 °C colder than is said: %.2f expected where the service says 3", mean)
	}
}
