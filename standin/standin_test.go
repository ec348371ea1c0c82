package standin

import (
	"math"
	"slices"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/croptable"
)

var newYear = day.Must("2024-01-01")

func TestForecastErrsMoreTheFartherItLooks(t *testing.T) {
	w := NewWeather(Valley, 3, newYear)
	var off [ForecastDays]float64
	const evenings = 500
	for i := range evenings {
		issued := newYear.Add(i)
		for lead, d := range w.Forecast(issued) {
			truth := w.On(issued.Add(lead + 1))
			off[lead] += math.Abs(d.TmaxC-truth.TmaxC) / evenings
		}
	}
	if !(off[0] < off[2] && off[2] < off[6]) || off[0] < 0.3 || off[6] > 5 {
		t.Errorf("mean errors by lead %.2f", off)
	}
	if a, b := NewWeather(Valley, 3, newYear).On(newYear.Add(700)), w.On(newYear.Add(700)); a != b {
		t.Errorf("the same seed had %v and %v", a, b)
	}
}

func TestWeatherIsAValleysYear(t *testing.T) {
	w := NewWeather(Valley, 3, newYear)
	var july, january float64
	for year := range 2 {
		for i := range 31 {
			july += w.On(day.Of(2024+year, 7, 1+i)).TmaxC / 62
			january += w.On(day.Of(2024+year, 1, 1+i)).TmaxC / 62
		}
	}
	if july < 20 || july > 30 || january < -2 || january > 8 {
		t.Errorf("mean maximum %.1f in July, %.1f in January", july, january)
	}
}

func field(today day.Day, cuts ...Taken) *Field {
	var rows []Row
	for _, e := range croptable.Shipped() {
		if e.ID == "zinnia-tall" || e.ID == "sunflower-single" {
			p := e.Profile()
			market, _ := p.Window(crop.Market, "")
			rows = append(rows, Row{Planting: e.ID, Variety: e.ID, Profile: p, Method: crop.Direct, Market: market, Plants: 80, Started: day.Must("2026-04-25"), Out: day.Must("2026-04-25")})
		}
	}
	return NewField(5, NewWeather(Valley, 5, newYear), 46.9, rows, cuts, today)
}

func stems(f *Field, planting string) int { return len(f.row(planting).stems) }

func TestFieldIsReplayedTheSame(t *testing.T) {
	today := day.Must("2026-07-20")
	cuts := []Taken{{"zinnia-tall", day.Must("2026-07-10"), 15}, {"zinnia-tall", day.Must("2026-07-14"), 20}}
	a, b := field(today, cuts...), field(today.Add(-5), cuts...)
	for range 5 {
		b.Step(nil)
	}
	for _, planting := range []string{"zinnia-tall", "sunflower-single"} {
		if x, y := a.Look(planting, 20, UsualEyes), b.Look(planting, 20, UsualEyes); x != y {
			t.Errorf("%s: replayed %+v, stepped %+v", planting, x, y)
		}
	}
}

func TestCuttingMakesZinniasComeAgain(t *testing.T) {
	cut := Taken{"zinnia-tall", day.Must("2026-07-14"), 30}
	before, after := field(day.Must("2026-07-14")), field(day.Must("2026-07-15"), cut)
	if a, b := stems(before, "zinnia-tall"), stems(after, "zinnia-tall"); b <= a-30 {
		t.Errorf("%d stems before 30 were cut, %d after: nothing has grown again", a, b)
	}
	gone := Taken{"sunflower-single", day.Must("2026-07-14"), 10}
	if a, b := stems(field(day.Must("2026-07-14")), "sunflower-single"), stems(field(day.Must("2026-07-14").Add(0), gone), "sunflower-single"); a != b {
		t.Errorf("a cut of the day itself is already gone: %d and %d", a, b)
	}
}

func TestCrewSeesAboutWhatStands(t *testing.T) {
	f := field(day.Must("2026-07-16"))
	seen := f.Look("zinnia-tall", 80, UsualEyes)
	total, there := 0, 0
	for _, n := range seen.Stems {
		total += n
	}
	for _, s := range f.row("zinnia-tall").stems {
		if s.rung >= 0 {
			there++
		}
	}
	if there < 50 || math.Abs(float64(total-there)) > 0.1*float64(there) {
		t.Errorf("the crew saw %d of %d stems", total, there)
	}
	if !seen.Up || seen.Over || seen.Ready < seen.Culled {
		t.Errorf("seen %+v", seen)
	}
}

// A crop of one stem a plant bears as many as the crop table says where it is pinched, and one where it is not.
func TestPinchedPlantsOfOneStemBearMore(t *testing.T) {
	table := croptable.Shipped()
	p := table[slices.IndexFunc(table, func(e croptable.Entry) bool { return e.ID == "chrysanthemum-controlled" })].Profile()
	market, _ := p.Window(crop.Market, "")
	struck := day.Must("2026-05-01")
	row := Row{Planting: "plain", Variety: "spray", Profile: p, Method: crop.Cutting, Market: market, Plants: 200, Started: struck, Out: struck, WarmerC: 3.5}
	pinched := row
	pinched.Planting, pinched.Pinched, pinched.PinchedShare = "pinched", struck.Add(18), 1
	f := NewField(5, NewWeather(Valley, 5, newYear), 46.9, []Row{row, pinched}, nil, struck.Add(110))
	bearing := func(planting string) (n float64) {
		for _, plant := range f.row(planting).plants {
			if plant.budded && !plant.barren {
				n++
			}
		}
		return n
	}
	if plants, stems := bearing("plain"), float64(f.FirstFlush("plain")); plants < 150 || stems != plants {
		t.Errorf("%.0f stems on %.0f plants", stems, plants)
	}
	if each := float64(f.FirstFlush("pinched")) / bearing("pinched"); math.Abs(each-p.Pinch.StemsFactor) > 0.3 {
		t.Errorf("%.2f stems on each pinched plant, the table has %.1f", each, p.Pinch.StemsFactor)
	}
}
