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
	if chilled, ok := course.chilled(clock.as(climate.AsTable)); ok && course.chillNeed > 0 {
		start = chilled
	}
	cd := p.BudCd
	if p.Pinch.Policy == "always" {
		cd += p.Pinch.DelayCd
	}
	budded, ok := clock.as(climate.AsTable).light.When(run.sinceCd + cd)
	if !ok {
		return 0, false
	}
	at, ok := clock.as(climate.AsTable).warmth.When(clock.as(climate.AsTable).warmth.At(max(budded, run.growsFrom)) + p.OnRungCd()[planting.Market.From])
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

// Worked by hand: what was established on 1 October 2025 has a season in 2026 and every year after; bulbs set that autumn have one of
// their own until the end of 2026; a perennial sown in spring flowers after its first winter; the south's year turns on 1 July.
func TestSeasonsOfWhatLasts(t *testing.T) {
	upto := day.Must("2028-02-01")
	for _, c := range []struct {
		crop     string
		method   crop.Method
		started  string
		latitude float64
		want     []string // the first days of its seasons; empty for one from its start
		until    string   // the end of the first
	}{
		{"peony", crop.Established, "2025-10-01", 47, []string{"2026-01-01", "2027-01-01", "2028-01-01"}, "2027-01-01"},
		{"peony", crop.Established, "2025-10-01", -41, []string{"2025-07-01", "2026-07-01", "2027-07-01"}, "2026-07-01"},
		{"daffodil", crop.Bulb, "2025-10-20", 47, []string{"", "2027-01-01", "2028-01-01"}, "2027-01-01"},
		{"delphinium", crop.Tray, "2025-03-10", 47, []string{"", "2027-01-01", "2028-01-01"}, "2027-01-01"},
		{"agastache", crop.Tray, "2025-03-10", 47, []string{"", "2026-01-01", "2027-01-01", "2028-01-01"}, "2026-01-01"},
		{"astrantia", crop.Division, "2025-08-20", 47, []string{"2026-01-01", "2027-01-01", "2028-01-01"}, "2027-01-01"},
		{"tulip", crop.Bulb, "2025-11-01", 47, []string{""}, ""},
		{"sweet-william", crop.Tray, "2025-06-01", 47, []string{""}, ""},
	} {
		p := Planting{Profile: profile(t, c.crop), Method: c.method, Plants: 20, Started: day.Must(c.started)}
		seasons := p.Seasons(c.latitude, p.Started, upto)
		var got []string
		for _, s := range seasons {
			got = append(got, s.From.String())
		}
		if !slices.Equal(got, c.want) || seasons[0].Until.String() != c.until {
			t.Errorf("%s %s from %s at %v: seasons from %q, the first until %v, want %q until %q", c.crop, c.method, c.started, c.latitude,
				got, seasons[0].Until, c.want, c.until)
		}
	}
}

// Eighty-four cold days are counted from the planting on; a bulb that is set in spring was chilled before.
func TestChillHoldsABulb(t *testing.T) {
	p := profile(t, "tulip")
	lengths := climate.DayLengthsAt(47)
	series := climate.Series{First: day.Must("2025-10-01")}
	for i := range 300 {
		e := climate.Extremes{TminC: 8, TmaxC: 14} // not cold
		if i >= 40 && i < 140 {
			e = climate.Extremes{TminC: 4, TmaxC: 14} // a mean of 9 °C is
		}
		series.Days = append(series.Days, e)
	}
	clock := Clocks(p, lengths, nil, series.Hourly(47))
	emerged := func(started string) (float64, bool) {
		planting := Planting{Profile: p, Market: p.Cut[crop.Market], Method: crop.Bulb, Plants: 50, Started: day.Must(started)}
		return NewCourse(planting, Place{Latitude: 47, Lengths: lengths}, BoxCd).NewRun(clock, plainTraits).Emerged()
	}
	met := series.First.Add(40 + 84)
	at, ok := emerged("2025-10-20")
	if want, _ := clock.as(climate.AsTable).warmth.When(clock.as(climate.AsTable).warmth.At(met.At(0)) + p.EmergeCd); !ok || at != want {
		t.Errorf("shoots on %v, want them %v °Cd after %v", day.On(at), p.EmergeCd, met)
	}
	if at, ok := emerged("2026-02-10"); !ok || day.On(at).After(day.Must("2026-03-10")) {
		t.Errorf("bulbs set in February show on %v, %v: they were chilled in the store", day.On(at), ok)
	}
	if _, ok := emerged("2025-12-20"); ok {
		t.Error("bulbs set too late for their chill came up all the same")
	}
}

// A steered crop buds on its short days, whatever the sun does: eighteen long days after it stands in its bed, or when it is said.
func TestSteeredCropWaitsForShortDays(t *testing.T) {
	p := profile(t, "chrysanthemum-controlled")
	clock, lengths := steady(p, day.Must("2026-05-01"), climate.Extremes{TminC: 14, TmaxC: 22}, 52)
	bud := func(short string) day.Day {
		planting := Planting{Profile: p, Market: p.Cut[crop.Market], Method: crop.Cutting, Plants: 50, Started: day.Must("2026-06-01")}
		if short != "" {
			planting.ShortDays = day.Must(short)
		}
		at, _ := NewCourse(planting, Place{Latitude: 52, Lengths: lengths}, BoxCd).NewRun(clock, plainTraits).FirstBud()
		return day.On(at)
	}
	usual := bud("")
	if early := bud("2026-06-19"); early != usual {
		t.Errorf("first buds on %v, with short days from 19 June on %v", usual, early)
	}
	if late := bud("2026-07-01"); late.Sub(usual) != 12 {
		t.Errorf("short days twelve days later move the bud by %d", late.Sub(usual))
	}
}

func TestATrayKeptTooLong(t *testing.T) {
	stems := func(id string, weeks int) (float64, day.Day) {
		p := profile(t, id)
		clock, lengths := steady(p, day.Must("2026-03-01"), climate.Extremes{TminC: 12, TmaxC: 24}, 46.9)
		out := day.Must("2026-05-20")
		planting := Planting{Profile: p, Market: p.Cut[crop.Market], Method: crop.Tray, Plants: 40, Started: out.Add(-7 * weeks), PlantedOut: out}
		course := NewCourse(planting, Place{Lengths: lengths, Bench: bench(p)}, BoxCd)
		at, _ := course.NewRun(clock, plainTraits).FirstBud()
		return course.FirstFlush(), day.On(at)
	}
	good, _ := stems("celosia-crest", 4)
	if late, _ := stems("celosia-crest", 6); late >= 0.6*good || late <= 0 {
		t.Errorf("two weeks too long in the tray leave a stunting crop %v of %v stems", late, good)
	}
	good, _ = stems("zinnia-tall", 5)
	if late, _ := stems("zinnia-tall", 8); late != good {
		t.Errorf("a crop that only slows down lost stems: %v of %v", late, good)
	}
	sweet, _ := stems("sweet-pea", 9)
	if late, _ := stems("sweet-pea", 12); late != sweet {
		t.Error("a crop that tolerates a small pot lost stems")
	}
}

// Worked by hand: of stems that came evenly into the window, a third that failed are held for a third of what the window lets pass; what
// will be past the window by the next pick is taken ahead of it.
func TestFirmNecksAndPickingAhead(t *testing.T) {
	p := profile(t, "sunflower-single")
	clock, lengths := steady(p, day.Must("2026-05-01"), climate.Extremes{TminC: 14, TmaxC: 26}, 46.9)
	planting := sown(p, "2026-05-05")
	run := NewCourse(planting, Place{Lengths: lengths}, 2).NewRun(clock, plainTraits)
	for at := day.Must("2026-06-20"); run.Standing(planting.Market) < 8; at = at.Add(1) {
		run.To(at.At(8))
	}
	standing := run.Standing(planting.Market)
	run.Hold(1. / 3)
	if ready := run.Ready(planting.Market, 0); ready >= standing || ready < 0.3*standing {
		t.Errorf("%v of %v stems are ready when a third of the necks failed", ready, standing)
	}
	run.Hold(0)
	if ready := run.Ready(planting.Market, 0); ready != standing {
		t.Errorf("%v of %v stems are ready when no neck failed", ready, standing)
	}
	week := day.On(run.at).Add(10).At(8)
	more := run.Ready(planting.Market, week)
	if more <= standing {
		t.Errorf("picking ahead by ten days takes %v stems, the window holds %v", more, standing)
	}
	run.Take(planting.Market, 1, week)
	run.To(week)
	if gone := run.Standing(crop.Window{From: planting.Market.To + 1, To: crop.Spent}); gone > 0.1*more { // the quickest come into the window and go past it in that time
		t.Errorf("%v stems went past the window though the pick looked ahead", gone)
	}
}

// A change of pace moves no stem and no bud from where it is.
func TestDriftLeavesStemsWhereTheyAre(t *testing.T) {
	p := profile(t, "cosmos-single")
	clock, lengths := steady(p, day.Must("2026-05-01"), climate.Extremes{TminC: 12, TmaxC: 24}, 46.9)
	run := NewCourse(sown(p, "2026-05-05"), Place{Lengths: lengths}, BoxCd).NewRun(clock, plainTraits)
	run.To(day.Must("2026-07-20").At(8))
	before, toCome := run.Rungs(), run.ToCome()
	run.Drift(1.2)
	for k, stems := range run.Rungs() {
		if diff := stems - before[k]; diff > 1e-9 || diff < -1e-9 {
			t.Errorf("rung %d had %v stems, has %v", k, before[k], stems)
		}
	}
	if diff := run.ToCome() - toCome; diff > 1e-9 || diff < -1e-9 {
		t.Errorf("%v stems were to come, now %v", toCome, run.ToCome())
	}
}

// In the south, with the north's weather half a year later and its latitude mirrored, lasting plants and bulbs flower within two days of
// half a year later; a short-day one within four, since from equinox to equinox the southern summer is a week shorter.
func TestLastingPlantsMirror(t *testing.T) {
	const half = 182 // days
	north := continental.weather()
	south := climate.Series{First: north.First.Add(half), Days: north.Days}
	for _, id := range []string{"peony", "michaelmas-aster", "tulip", "rose-garden"} {
		p := profile(t, id)
		first := func(latitude float64, series climate.Series, started day.Day) day.Day {
			planting := Planting{Profile: p, Market: p.Cut[crop.Market], Method: p.PreferredStart, Plants: 20, Started: started}
			season := planting.Seasons(latitude, started, started.Add(300))[0]
			lengths := climate.DayLengthsAt(latitude)
			clock := Clocks(p, lengths, nil, series.Hourly(latitude))
			at, ok := NewCourse(season.Planting, Place{Latitude: latitude, Lengths: lengths}, BoxCd).NewRun(clock, plainTraits).FirstBud()
			if !ok {
				t.Fatalf("%s never buds at %v", id, latitude)
			}
			return day.On(at)
		}
		started := day.Must("2024-10-10")
		a, b := first(41, north, started), first(-41, south, started.Add(half))
		days := 2
		if p.Daylength.Kind != "neutral" {
			days = 4
		}
		if off := b.Sub(a) - half; off < -days || off > days {
			t.Errorf("%s buds on %v in the north and on %v in the south", id, a, b)
		}
	}
}
