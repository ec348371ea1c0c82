package growth

import (
	"slices"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/croptable"
)

// A country is a made-up climate: means of each month's extremes, and the usual last frost.
type country struct {
	name       string
	latitude   float64
	tmin, tmax [12]float64
	lastFrost  string
}

var maritime = country{"cool maritime", 51,
	[12]float64{2.5, 2.3, 3.5, 5, 8, 11, 13, 12.8, 10.5, 8, 5, 3},
	[12]float64{8, 8.3, 11, 13.8, 17.3, 20.3, 22.5, 22, 19, 15, 11, 8.5}, "2025-05-05"}

var continental = country{"warm continental", 41,
	[12]float64{-5, -4, 0, 5.5, 11, 16, 19, 18, 14, 7.5, 2.5, -2.5},
	[12]float64{3.5, 5.5, 10.5, 17, 22.5, 27.5, 30, 29, 25, 18.5, 12, 6}, "2025-04-28"}

// weather returns the country's usual days of three years from the January before the last frost's year.
func (c country) weather() climate.Series {
	series := climate.Series{First: day.Must("2024-01-01")}
	for i := range 3 * 365 {
		_, month, date := series.First.Add(i).Date()
		place := float64(month-1) + (float64(date)-15.5)/30.4
		low := int(place)
		if place < 0 {
			low = -1
		}
		part := place - float64(low)
		between := func(m [12]float64) float64 {
			a, b := m[(low+12)%12], m[(low+13)%12]
			return a + part*(b-a)
		}
		series.Days = append(series.Days, climate.Extremes{TminC: between(c.tmin), TmaxC: between(c.tmax)})
	}
	return series
}

// bedDay is the usual day, counted from the last frost, on which a crop goes into its bed.
func bedDay(p *crop.Profile) int {
	own := map[string]int{"phacelia": 0, "larkspur": -45, "ranunculus": -60, "anemone": -60, "stock": -15, "sweet-pea": -32,
		"lisianthus": 0, "cosmos-single": 8, "cosmos-double": 8, "china-aster": 8}
	if days, ok := own[p.ID]; ok {
		return days
	}
	switch p.Life {
	case crop.TenderAnnual:
		if p.PreferredStart == crop.Direct {
			return 14
		}
		return 18
	case crop.HalfHardyAnnual, crop.Perennial:
		return 5
	case crop.HardyAnnual:
		if p.PreferredStart == crop.Direct {
			return -30
		}
		return -20
	case crop.Biennial:
		return 75
	case crop.TuberLife:
		return 7
	case crop.CormLife:
		return -10
	case crop.BulbLife:
		return -32
	default:
		return 18
	}
}

// firstStem returns the days from the start of the average plant's clock to its first stem on the market's first rung.
func (c country) firstStem(p *crop.Profile) (days float64, came bool) {
	bed := day.Must(c.lastFrost).Add(bedDay(p))
	planting := Planting{Profile: p, Market: p.Cut[crop.Market], Method: p.PreferredStart, Plants: 40, Started: bed}
	switch {
	case planting.Method == crop.Tray:
		weeks := (p.Nursery.EarliestWeeks + p.Nursery.LatestWeeks) / 2
		planting.Started, planting.PlantedOut = bed.Add(-int(7*weeks)), bed
	case planting.Method == crop.Established:
		planting.Started = day.Must("2024-10-01")
	case planting.Method == crop.Bulb && p.ChillDays > 0:
		planting.Started = day.Must("2024-10-25")
	}
	if p.Pinch.Policy == "always" {
		planting.Pinched, planting.PinchedShare = bed.Add(14), 1
	}
	seasons := planting.Seasons(c.latitude, planting.Started, day.Must("2025-06-01"))
	season := seasons[0]
	weather := c.weather()
	if p.Steered() {
		weather = weather.Warmer(3, 4)
	}
	lengths := climate.DayLengthsAt(c.latitude)
	clock := Clocks(p, lengths, nil, weather.Hourly(c.latitude))
	course := NewCourse(season.Planting, Place{Latitude: c.latitude, Lengths: lengths, Bench: bench(p)}, BoxCd)
	run := course.NewRun(clock, plainTraits)
	start := planting.Started.At(12)
	if !season.Turn.IsZero() {
		start = season.Turn.At(0)
	}
	if chilled, ok := course.chilled(clock); ok && course.chillNeed > 0 {
		start = chilled
	}
	cd := p.BudCd
	if p.Pinch.Policy == "always" {
		cd += p.Pinch.DelayCd
	}
	budded, ok := clock.Light.When(run.sinceCd + cd)
	if !ok {
		return 0, false
	}
	at, ok := clock.Warmth.When(clock.Warmth.At(max(budded, run.growsFrom)) + p.OnRungCd()[planting.Market.From])
	return at - start, ok
}

// Every crop of the table, started as it prefers, comes within its typical days and a fifth in a cool or a warm country.
func TestTypicalDays(t *testing.T) {
	for _, e := range croptable.Shipped() {
		p := e.Profile()
		low, high := 0.8*float64(p.TypicalDays[0]), 1.2*float64(p.TypicalDays[1])
		var found []float64
		for _, c := range []country{maritime, continental} {
			if days, ok := c.firstStem(p); ok {
				found = append(found, days)
			}
		}
		if !slices.ContainsFunc(found, func(days float64) bool { return low <= days && days <= high }) {
			t.Errorf("%s, %s: first stem after %.0f days, typical are %v", p.ID, p.PreferredStart, found, p.TypicalDays)
		}
	}
}
