package forecast

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/evidence"
	"dewcount/core/growth"
	"dewcount/croptable"
)

func profiles() map[string]*crop.Profile {
	byID := make(map[string]*crop.Profile)
	for _, e := range croptable.Shipped() {
		byID[e.ID] = e.Profile()
	}
	return byID
}

// meadow is a farm in mid-July with so many direct-sown plantings of three crops, three weeks apart, and nothing on record.
func meadow(plantings int) *Farm {
	today := day.Must("2026-07-09")
	season := climate.UsualSeason(46.9, 520)
	weekly, _ := day.ParseWeekdays("tue fri")
	f := &Farm{
		Outlook: climate.Outlook{Latitude: 46.9, ElevationM: 520, From: today},
		Picks:   day.PickDays{Weekly: weekly}, PickHour: 8, From: today, To: today.Add(35),
		Members: 40, Draws: 64, Seed: 1, BoxCd: growth.BoxCd,
	}
	for d := today.Add(-400); d.Before(today); d = d.Add(1) {
		f.Outlook.Observed = append(f.Outlook.Observed, climate.Dated{Day: d, Extremes: season.On(d.YearDay())})
	}
	byID := profiles()
	ids := []string{"zinnia-tall", "cosmos-single", "sunflower-single"}
	for i := range plantings {
		p := byID[ids[i%len(ids)]]
		planting := Planting{
			ID: fmt.Sprintf("P%02d", i), Variety: p.ID + " red", Sound: 0.95, Until: today.At(6),
			Growth: growth.Planting{Profile: p, Method: crop.Direct, Plants: 60, Started: day.Must("2026-04-25").Add(21 * (i / 3 % 4))},
		}
		for u := range crop.Use(crop.Uses) {
			planting.Windows[u], planting.HasUse[u] = p.Window(u, "")
		}
		planting.Growth.Market = planting.Windows[crop.Market]
		f.Plantings = append(f.Plantings, planting)
	}
	return f
}

func total(c Cells, u crop.Use) float64 {
	sum := 0.0
	for _, pick := range c.ByPick {
		sum += pick[u].Mean()
	}
	return sum
}

func TestForecastIsOrderedAndTheSameAgain(t *testing.T) {
	farm := meadow(6)
	farm.Members, farm.Draws = 10, 16
	f, again := New(farm, nil).Forecast(), New(farm, nil).Forecast()
	for i, cells := range f.Plantings {
		for j, pick := range cells.ByPick {
			for u, s := range pick {
				last := 0.0
				for _, p := range []float64{0, 0.1, 0.25, 0.5, 0.75, 0.9, 1} {
					q := s.Quantile(p)
					if q < last || math.IsNaN(q) {
						t.Fatalf("planting %d, pick %d: quantile %v is %v after %v", i, j, p, q, last)
					}
					last = q
				}
				if b := again.Plantings[i].ByPick[j][u]; !slices.Equal(s.often, b.often) || s.mean != b.mean {
					t.Fatalf("planting %d, pick %d: the same seed gave other stems", i, j)
				}
			}
		}
	}
}

func TestMorePlantsNeverFewerStems(t *testing.T) {
	few, many := meadow(3), meadow(3)
	for i := range many.Plantings {
		many.Plantings[i].Growth.Plants = 90
	}
	a, b := New(few, nil).Forecast(), New(many, nil).Forecast()
	for i := range a.Plantings {
		for j := range a.Plantings[i].ByPick {
			x, y := a.Plantings[i].ByPick[j][crop.Market], b.Plantings[i].ByPick[j][crop.Market]
			if y.Mean() < x.Mean() || y.Sure() < x.Sure() || y.AtBest() < x.AtBest() {
				t.Errorf("planting %d, pick %d: fewer stems from 90 plants than from 60", i, j)
			}
		}
	}
}

// A crop's bounds come of sums within a weather and a draw: they are wider than independent rows would be and narrower than
// added bounds.
func TestCropIsSummedWithinAMember(t *testing.T) {
	farm := meadow(12)
	f := New(farm, nil).Forecast()
	for j := range f.PickDays {
		var low, high, mean float64
		for i, p := range farm.Plantings {
			if p.Growth.Profile.ID == "zinnia-tall" {
				s := f.Plantings[i].ByPick[j][crop.Market]
				low, high, mean = low+s.Bound(0.1), high+s.Bound(0.9), mean+s.Mean()
			}
		}
		s := f.Crops["zinnia-tall"].ByPick[j][crop.Market]
		if math.Abs(s.Mean()-mean) > 1e-9*(1+mean) {
			t.Errorf("pick %d: the crop's mean %v is not the sum %v", j, s.Mean(), mean)
		}
		if mean > 70 && (s.Bound(0.1) < low || s.Bound(0.9) > high) {
			t.Errorf("pick %d: the crop's bounds %v–%v lie outside the added ones %v–%v", j, s.Bound(0.1), s.Bound(0.9), low, high)
		}
	}
}

func TestAWarmWeekMovesTheDates(t *testing.T) {
	cool := New(meadow(12), nil).Milestones(9)
	warm := meadow(12)
	for i := range 7 {
		e := climate.UsualSeason(46.9, 520).On(190 + i)
		warm.Outlook.Issued = append(warm.Outlook.Issued, climate.Dated{Day: warm.From.Add(i),
			Extremes: climate.Extremes{TminC: e.TminC + 4, TmaxC: e.TmaxC + 4}})
	}
	got := New(warm, nil).Milestones(9)
	if !got.FirstBud.Likely.Before(cool.FirstBud.Likely) || got.FirstCut.Likely.After(cool.FirstCut.Likely) {
		t.Errorf("first bud on %v in a usual week, on %v in a warm one", cool.FirstBud.Likely, got.FirstBud.Likely)
	}
	if !(cool.Emerged.Late.Before(cool.FirstBud.Early) && !cool.FirstCut.Early.Before(cool.FirstBud.Early) &&
		cool.FirstCut.Late.Before(cool.LastCut.Likely)) {
		t.Errorf("milestones out of order: %+v", cool)
	}
}

// counted makes planting i's count of the morning from what a run with these traits would show, on so many plants.
func counted(farm *Farm, i int, traits growth.Traits, plants int) evidence.Count {
	stand := New(farm, nil)
	run := stand.lives[i][0].course.NewRun(stand.lives[i][0].clocks.members[0], traits)
	at := farm.From.At(6)
	run.To(at)
	c := evidence.Count{At: at, Plants: plants}
	for k, stems := range run.Rungs() {
		c.Stems[k] = int(math.Round(stems * float64(plants) / float64(farm.Plantings[i].Growth.Plants)))
	}
	return c
}

func TestACountMovesTheNumbersAndNarrowsThem(t *testing.T) {
	farm := meadow(3)
	before := New(farm, nil).Forecast()
	truth := growth.Traits{Pace: 0.93, Stems: 1.4, Regrow: 1}
	farm.Plantings[0].Counts = []evidence.Count{counted(farm, 0, truth, 60)}
	stand := New(farm, nil)
	after := stand.Forecast()
	saw := farm.Plantings[0].Counts[0]
	stands := stand.Standing(0)
	seen := 0.0
	for _, n := range saw.Stems[:crop.Over] {
		seen += float64(n)
	}
	if math.Abs(stands.Likely-seen) > 0.15*seen {
		t.Errorf("%v stems were counted on all plants, %.0f are said to stand", seen, stands.Likely)
	}
	width := func(f *Forecast, j int) float64 {
		s := f.Plantings[0].ByPick[j][crop.Market]
		return (s.Bound(0.9) - s.Bound(0.1)) / (1 + s.Mean())
	}
	for j := range 3 {
		if width(after, j) >= width(before, j) {
			t.Errorf("pick %d: the band is %.2f of the stems after the count, %.2f before", j, width(after, j), width(before, j))
		}
	}
	if a, b := total(after.Plantings[0], crop.Market), total(before.Plantings[0], crop.Market); a < 1.1*b {
		t.Errorf("a rich count moved the stems from %.0f to %.0f", b, a)
	}

	// The other crops have nothing to learn from it, the same crop's later rows have.
	if a, b := total(after.Plantings[2], crop.Market), total(before.Plantings[2], crop.Market); math.Abs(a-b) > 1e-9 {
		t.Errorf("a count of zinnias moved the sunflowers from %v to %v", b, a)
	}
	teach := meadow(6)
	teach.Plantings[0].Counts = farm.Plantings[0].Counts
	taught, untaught := New(teach, nil).Milestones(3), New(meadow(6), nil).Milestones(3)
	if !taught.FirstBud.Likely.Before(untaught.FirstBud.Likely) || !taught.FirstCut.Late.Before(untaught.FirstCut.Late) {
		t.Errorf("the later sowing %+v, unmoved by an early first one from %+v", taught, untaught)
	}
}

func TestALargeSampleNarrowsMoreThanASmallOne(t *testing.T) {
	width := func(plants int) float64 {
		farm := meadow(1)
		farm.Plantings[0].Counts = []evidence.Count{counted(farm, 0, growth.Traits{Pace: 1, Stems: 1, Regrow: 1}, plants)}
		sum := 0.0
		for _, pick := range New(farm, nil).Forecast().Plantings[0].ByPick[:4] {
			sum += pick[crop.Market].Bound(0.9) - pick[crop.Market].Bound(0.1)
		}
		return sum
	}
	if a, b := width(60), width(6); a >= b {
		t.Errorf("80 %% bands of %v stems after counting all 60 plants, %v after 6", a, b)
	}
}

func TestNonsenseGivesNumbers(t *testing.T) {
	farm := meadow(3)
	farm.Plantings[0].Counts = []evidence.Count{{At: farm.From.At(6), Plants: 2, Stems: [crop.Rungs]int{0, 900, 0, 0, 4000}}}
	farm.Plantings[1].Cuts = []evidence.Cut{{At: farm.From.At(-60), Taken: 4000}} // four thousand, before a bud was there
	farm.Plantings[2].Growth.Plants = 0
	farm.Outlook.Latitude = 89
	farm.Outlook.Observed[100].TmaxC = 45
	f := New(farm, nil).Forecast()
	for i := range f.Plantings {
		for j, pick := range f.Plantings[i].ByPick {
			if m := pick[crop.Market].Mean(); math.IsNaN(m) || math.IsInf(m, 0) || m < 0 {
				t.Errorf("planting %d, pick %d: %v stems", i, j, m)
			}
		}
	}
	if got := total(f.Plantings[2], crop.Market); got != 0 {
		t.Errorf("no plants give %v stems", got)
	}
}

func TestFrostAndPullingOutEndAPlanting(t *testing.T) {
	farm := meadow(3)
	farm.Plantings[0].Ended = farm.From.Add(10)
	n := len(farm.Outlook.Observed)
	farm.Outlook.Observed[n-3].TminC = -4 // a hard frost in July
	f := New(farm, nil).Forecast()
	for i := range 3 {
		if got := total(f.Plantings[i], crop.Market); got != 0 {
			t.Errorf("planting %d gives %v stems after the frost", i, got)
		}
	}
	farm.Outlook.Observed[n-3].TminC = 12
	f = New(farm, nil).Forecast()
	for j, d := range f.PickDays {
		if s := f.Plantings[0].ByPick[j][crop.Market]; !d.Before(farm.Plantings[0].Ended) && s.Mean() > 0 {
			t.Errorf("%v stems on %v from a row that was pulled out", s.Mean(), d)
		}
	}
}

// A use whose window begins beyond the market's has earlier picks of its own: stems are not gone to market before they are ripe
// for it.
func TestLateUsesHaveTheirOwnPicks(t *testing.T) {
	farm := meadow(1)
	p := &farm.Plantings[0]
	p.Windows[crop.Drying], p.HasUse[crop.Drying] = crop.Window{From: crop.Over, To: crop.Spent}, true
	f := New(farm, nil).Forecast()
	if got, market := total(f.Plantings[0], crop.Drying), total(f.Plantings[0], crop.Market); got < 0.5*market {
		t.Errorf("%.1f stems to dry where %.1f could have gone to market", got, market)
	}
	p.Windows[crop.Florist] = crop.Window{From: crop.Tight, To: crop.Spent}
	f = New(farm, nil).Forecast()
	for j, pick := range f.Plantings[0].ByPick {
		if pick[crop.Florist].Mean() < pick[crop.Market].Mean()-0.5 {
			t.Errorf("pick %d: a wider window holds %.1f stems, the market's %.1f", j, pick[crop.Florist].Mean(), pick[crop.Market].Mean())
		}
	}
}

// A farm that crosses the new year in the south, and one that starts on a leap day, are farms like others.
func TestSeasonsThatCrossTheNewYear(t *testing.T) {
	farm := meadow(3)
	farm.Outlook.Latitude, farm.Outlook.Observed = -43, nil
	farm.Outlook.From, farm.From = day.Must("2024-02-29"), day.Must("2024-02-29")
	farm.To = farm.From.Add(35)
	for i := range farm.Plantings {
		farm.Plantings[i].Growth.Started = day.Must("2023-12-10").Add(10 * i)
		farm.Plantings[i].Until = farm.From.At(0)
	}
	stand := New(farm, nil)
	if stand.Bridged != farm.From.Sub(day.Must("2023-12-10")) {
		t.Errorf("%d days were bridged", stand.Bridged)
	}
	f := stand.Forecast()
	if got := total(f.Plantings[0], crop.Market); got < 20 {
		t.Errorf("%.1f stems from zinnias of a southern summer", got)
	}
	if m := stand.Milestones(0); !m.FirstCut.Likely.After(day.Must("2024-01-15")) || m.LastCut.Late.Before(m.FirstCut.Likely) {
		t.Errorf("milestones %+v", m)
	}
}

// A frost may have come in a gap of the record: in November, with nothing written down since July, the zinnias are dead.
func TestAGapMayHideAFrost(t *testing.T) {
	farm := meadow(3)
	today := day.Must("2026-11-23")
	farm.Outlook.From, farm.From, farm.To = today, today, today.Add(35)
	for i := range farm.Plantings {
		farm.Plantings[i].Until = today.At(6)
	}
	stand := New(farm, nil)
	if f := stand.Forecast(); !stand.Dead(0) || total(f.Plantings[0], crop.Market) != 0 {
		t.Errorf("%.0f stems from zinnias in late November", total(f.Plantings[0], crop.Market))
	}
}

// A plant of one stem gives one: however the picks turn out, in no weather and with no traits are there more stems in all than plants, and most
// plants give theirs.
func TestOneStemAPlant(t *testing.T) {
	farm := meadow(3)
	farm.Plantings = farm.Plantings[2:]
	p := &farm.Plantings[0]
	p.Growth.Plants, p.Growth.Started = 160, day.Must("2026-05-12")
	p.HasUse[crop.Event], p.Windows[crop.Event] = true, crop.Window{From: p.Growth.Market.To + 1, To: crop.Over} // with picks of its own
	forecast := New(farm, nil).Forecast()
	all, late := make([]int32, farm.Members*farm.Draws), make([]int32, farm.Members*farm.Draws)
	for j := range forecast.PickDays {
		for i, n := range forecast.Samples(0, j, crop.Market) {
			all[i] += n
			late[i] += forecast.Samples(0, j, crop.Event)[i]
		}
	}
	if most := slices.Max(late); most > 160 || most == 0 {
		t.Errorf("%d stems of 160 plants where they are cut late", most)
	}
	middle := slices.Clone(all)
	slices.Sort(middle)
	if most := middle[len(middle)-1]; most > 160 {
		t.Errorf("%d stems of 160 plants", most)
	}
	if half := middle[len(middle)/2]; half < 100 || middle[0] == middle[len(middle)-1] {
		t.Errorf("as often more as fewer than %d stems of 160 plants, from %d to %d", half, middle[0], middle[len(middle)-1])
	}
}

// A set of traits that grows in one weather alone is killed by that weather's frost, and by no other's.
func TestPairedSamplesAreOfTheirWeather(t *testing.T) {
	farm := meadow(12)
	const late = 10
	farm.Members, farm.Draws, farm.To = 7, 60, farm.From.Add(150)
	all := New(farm, nil).Forecast()
	paired := *farm
	paired.Paired = true
	some := New(&paired, nil).Forecast()
	torn := 0 // picks in some weathers before the frost and in some after it
	for j := range all.PickDays {
		var alive [7]bool
		for at, n := range all.Samples(late, j, crop.Market) {
			alive[at/farm.Draws] = alive[at/farm.Draws] || n > 0
		}
		if slices.Contains(alive[:], true) && slices.Contains(alive[:], false) && all.PickDays[j].Sub(farm.From) > 60 {
			torn++
		}
		of := some.Samples(late, j, crop.Market)
		if len(of) != farm.Draws || len(of) != paired.Samples() {
			t.Fatalf("%d samples of %d sets of traits", len(of), farm.Draws)
		}
		for d, n := range of {
			if n > 0 && !alive[d%farm.Members] {
				t.Errorf("%d stems on %s in a weather that has killed them", n, all.PickDays[j])
			}
		}
	}
	if torn == 0 {
		t.Error("no frost comes in between")
	}
}
