package evidence

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/growth"
	"dewcount/croptable"
)

// row is a planting of zinnias sown on a day, in a summer of steady warmth, wanted on 20 July.
func row(t testing.TB, id, variety, started string) Planting {
	t.Helper()
	return rowUnder(t, id, variety, started, slices.Repeat([]climate.Extremes{{TminC: 13, TmaxC: 25}}, 200))
}

// rowUnder is a row in the weather of the days from 1 April on.
func rowUnder(t testing.TB, id, variety, started string, days []climate.Extremes) Planting {
	t.Helper()
	entries := croptable.Shipped()
	profile := entries[slices.IndexFunc(entries, func(e croptable.Entry) bool { return e.ID == "zinnia-tall" })].Profile()
	market, _ := profile.Window(crop.Market, "")
	lengths := climate.DayLengthsAt(46.9)
	first := day.Must("2026-04-01")
	series := climate.Series{First: first, Days: days}
	return Planting{ID: id, Variety: variety, Until: day.Must("2026-07-20").At(0),
		Clock: growth.Clocks(profile, lengths, nil, series.Hourly(46.9)),
		Course: growth.NewCourse(growth.Planting{Profile: profile, Market: market, Method: crop.Direct, Plants: 80, Started: day.Must(started)},
			growth.Place{Lengths: lengths}, growth.BoxCd)}
}

// see counts a planting on some mornings as a row with these traits would show itself, with the chance of a Poisson number.
func (p *Planting) see(t testing.TB, truth growth.Traits, mornings ...string) {
	t.Helper()
	random := rand.New(rand.NewPCG(9, 9))
	run := p.Course.NewRun(p.Clock, truth)
	for _, m := range mornings {
		c := Count{At: day.Must(m).At(6), Plants: 40}
		run.To(c.At)
		for k, stems := range run.Rungs() {
			mean := stems * 40 / 80
			c.Stems[k] = max(0, int(math.Round(mean+math.Sqrt(mean)*random.NormFloat64())))
		}
		p.Counts = append(p.Counts, c)
	}
}

func meanAndSD(drawn []growth.Traits, of func(growth.Traits) float64) (mean, sd float64) {
	for _, d := range drawn {
		mean += math.Log(of(d)) / float64(len(drawn))
	}
	for _, d := range drawn {
		off := math.Log(of(d)) - mean
		sd += off * off / float64(len(drawn))
	}
	return mean, math.Sqrt(sd)
}

func paceOf(t growth.Traits) float64  { return t.Pace }
func stemsOf(t growth.Traits) float64 { return t.Stems }

// traitsOf returns the draws of plantings' traits.
func traitsOf(draws int, plantings ...Planting) [][]growth.Traits {
	var all [][]growth.Traits
	for _, k := range Standing(plantings, draws, 1) {
		all = append(all, k.Traits)
	}
	return all
}

func TestCountsFindTheTraits(t *testing.T) {
	truth := growth.Traits{Pace: 0.9, Stems: 1.5, Regrow: 1}
	blind := row(t, "A", "red", "2026-05-10")
	seen := row(t, "A", "red", "2026-05-10")
	seen.see(t, truth, "2026-07-02", "2026-07-08", "2026-07-14")
	before, after := Standing([]Planting{blind}, 200, 1)[0].Traits, Standing([]Planting{seen}, 200, 1)[0].Traits
	for _, c := range []struct {
		name  string
		of    func(growth.Traits) float64
		truth float64
	}{{"pace", paceOf, 0.9}, {"stems", stemsOf, 1.5}} {
		_, wide := meanAndSD(before, c.of)
		mean, narrow := meanAndSD(after, c.of)
		if math.Abs(mean-math.Log(c.truth)) > 0.12 || narrow > 0.7*wide {
			t.Errorf("%s is thought to be %.3f ± %.3f after three counts (± %.3f before), it is %.3f", c.name, math.Exp(mean), narrow, wide, c.truth)
		}
	}
}

func TestRowsTeachTheirKin(t *testing.T) {
	known := row(t, "A", "red", "2026-05-10")
	known.see(t, growth.Traits{Pace: 0.88, Stems: 1, Regrow: 1}, "2026-07-02", "2026-07-08", "2026-07-14")
	drawn := traitsOf(400, known, row(t, "B", "red", "2026-06-01"), row(t, "C", "lime", "2026-06-01"))
	own, _ := meanAndSD(drawn[0], paceOf)
	sister, sisterSD := meanAndSD(drawn[1], paceOf)
	cousin, cousinSD := meanAndSD(drawn[2], paceOf)
	if !(own < sister && sister < cousin && cousin < -0.02) || !(sisterSD < cousinSD) {
		t.Errorf("log pace %.3f of the row, %.3f ± %.3f of its variety, %.3f ± %.3f of its crop", own, sister, sisterSD, cousin, cousinSD)
	}
	again := traitsOf(400, known, row(t, "B", "red", "2026-06-01"), row(t, "C", "lime", "2026-06-01"), row(t, "D", "lime", "2026-06-01"))
	if again[1][7] != drawn[1][7] {
		t.Error("another planting has changed the draws of this one")
	}
}

// However much is on record, the draws must not fall together on one point.
func TestRecordsLeaveAChoice(t *testing.T) {
	p := row(t, "A", "red", "2026-05-10")
	mornings := []string{}
	for d := day.Must("2026-06-25"); d.Before(day.Must("2026-07-20")); d = d.Add(1) {
		mornings = append(mornings, d.String())
	}
	p.see(t, growth.Traits{Pace: 1.1, Stems: 0.6, Regrow: 1}, mornings...)
	distinct := make(map[growth.Traits]bool)
	for _, d := range traitsOf(64, p)[0] {
		distinct[d] = true
	}
	if len(distinct) < 60 {
		t.Errorf("%d different draws of 64", len(distinct))
	}
	if _, sd := meanAndSD(traitsOf(64, p)[0], paceOf); sd < 0.004 {
		t.Errorf("the pace is thought to be known to ± %.4f", sd)
	}
}

func TestStandingAgreesWithTheCount(t *testing.T) {
	p := row(t, "A", "red", "2026-05-10")
	p.Counts = []Count{{At: p.Until, Plants: 80, Stems: [crop.Rungs]int{150, 40, 25, 20, 20, 60, 10, 5}}}
	var mean [crop.Rungs]float64
	runs := Standing([]Planting{p}, 64, 1)[0]
	for _, run := range runs.Runs {
		for k, stems := range run.Rungs() {
			mean[k] += stems / float64(len(runs.Runs))
		}
	}
	for k, n := range p.Counts[0].Stems {
		if off := math.Abs(mean[k] - float64(n)); off > 0.25*float64(n)+4 {
			t.Errorf("rung %d: %.1f stems are thought to stand where %d were counted", k, mean[k], n)
		}
	}
}

// A row on which only spent stems are seen has nothing to cut, however often it is counted; what is seen that no draw foresaw still counts.
func TestACountBringsNoStemsThatNobodySaw(t *testing.T) {
	p := row(t, "A", "red", "2026-05-10")
	random := rand.New(rand.NewPCG(1, 1))
	stands := [crop.Rungs]float64{crop.Over: 4, crop.Spent: 200}
	for range 6 {
		stands = p.standing(stands, &Count{Plants: 20, Stems: [crop.Rungs]int{crop.Over: 3, crop.Spent: 50}}, 1, random)
	}
	for k := crop.Tight; k <= crop.Open; k++ {
		if stands[k] > 0 {
			t.Errorf("%.2f stems are thought to stand on %v, where nobody saw any", stands[k], k)
		}
	}
	seen := [crop.Rungs]int{crop.Third: 10}
	if got := p.standing([crop.Rungs]float64{}, &Count{Plants: 20, Stems: seen}, 1, random)[crop.Third]; got < 10 || got > 60 {
		t.Errorf("%.1f stems are thought to stand where 10 were seen on a quarter of the plants, and none was expected", got)
	}
}

// Worked by hand: how much of what is ready a cut took.
func TestShareOfACut(t *testing.T) {
	for _, c := range []struct {
		taken, left int
		ready, want float64
	}{{30, LeftNone, 100, 1}, {30, 10, 100, 0.75}, {30, LeftUnknown, 120, 0.25}, {30, LeftUnknown, 20, 1}, {0, LeftNone, 5, 1}} {
		if got := (&Cut{Taken: c.taken, Left: c.left}).share(c.ready); math.Abs(got-c.want) > 1e-12 {
			t.Errorf("%d taken, %d left of %v ready: %v, want %v", c.taken, c.left, c.ready, got, c.want)
		}
	}
}

// Worked by hand: of 100 stems on one rung, 8 are called one lower and 8 one higher; nothing is lost at the ends.
func TestBlurred(t *testing.T) {
	got := new(Eye).Sees([crop.Rungs]float64{0, 0, 100})
	if want := [crop.Rungs]float64{0, 8, 84, 8}; math.Abs(got[1]-want[1])+math.Abs(got[2]-want[2])+math.Abs(got[3]-want[3]) > 1e-9 {
		t.Errorf("seen = %v, want %v", got, want)
	}
	if got := new(Eye).Sees([crop.Rungs]float64{50}); math.Abs(got[0]-46) > 1e-9 || math.Abs(got[1]-4) > 1e-9 {
		t.Errorf("seen at the end = %v", got)
	}
}

// Only what sold was cut: more may have stood there, so that a small cut is no evidence of a poor row.
func TestASmallSaleIsNoPoorRow(t *testing.T) {
	poor, sold := row(t, "A", "red", "2026-05-10"), row(t, "A", "red", "2026-05-10")
	at := day.Must("2026-07-24").At(8)
	poor.Cuts, sold.Cuts = []Cut{{At: at, Taken: 10, Left: LeftNone}}, []Cut{{At: at, Taken: 10, Left: LeftUnknown}}
	all, _ := meanAndSD(Standing([]Planting{poor}, 200, 1)[0].Traits, stemsOf)
	some, _ := meanAndSD(Standing([]Planting{sold}, 200, 1)[0].Traits, stemsOf)
	if !(all < some-0.05) {
		t.Errorf("log stems %.3f where all was cut, %.3f where ten were sold", all, some)
	}
}

func TestStrata(t *testing.T) {
	u := strata(50, rand.New(rand.NewPCG(1, 1)))
	slices.Sort(u)
	for i, v := range u {
		if v <= float64(i)/50 || v >= float64(i+1)/50 {
			t.Errorf("number %d is %v", i, v)
		}
	}
}

// Somebody overlooks a third of what stands; the cuts of the same row tell, and the next counts are read for what they mean.
func TestEyesAreJudgedByTheCuts(t *testing.T) {
	half := func(p *Planting, sees float64, counter string) {
		run := p.Course.NewRun(p.Clock, growth.Traits{Pace: 1, Stems: 1, Regrow: 1})
		window := p.Course.Planting().Market
		for i, d := 0, day.Must("2026-06-20"); d.Before(day.Must("2026-07-20")); i, d = i+1, d.Add(1) {
			if i%5 == 0 {
				run.To(d.At(6))
				c := Count{At: d.At(6), Plants: 80, Counter: counter}
				for k, stems := range run.Rungs() {
					c.Stems[k] = int(sees*stems + 0.5)
				}
				p.Counts = append(p.Counts, c)
			}
			if i%4 == 0 {
				run.To(d.At(8))
				taken := run.Take(window, 1, 0)
				run.Regrow(taken)
				p.Cuts = append(p.Cuts, Cut{At: d.At(8), Taken: int(taken + 0.5)})
			}
		}
	}
	judged := func(sees float64) float64 {
		p := row(t, "A", "coral", "2026-04-20")
		half(&p, sees, "ann")
		tree := newTree([]Planting{p}, nil)
		return math.Exp(tree.eyes["zinnia-tall"]["ann"])
	}
	if got := judged(0.67); got < 0.6 || got > 0.88 {
		t.Errorf("who sees two thirds is judged to see %.2f", got)
	}
	if got := judged(1); got < 0.93 || got > 1.07 {
		t.Errorf("who sees all is judged to see %.2f", got)
	}
}
