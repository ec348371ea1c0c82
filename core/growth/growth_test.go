package growth

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/croptable"
)

func profile(t testing.TB, id string) *crop.Profile {
	t.Helper()
	entries := croptable.Shipped()
	i := slices.IndexFunc(entries, func(e croptable.Entry) bool { return e.ID == id })
	if i < 0 {
		t.Fatalf("no crop %q", id)
	}
	return entries[i].Profile()
}

// steady returns the clock of a year in which every day has the same extremes, and nothing but its day lengths changes.
func steady(p *crop.Profile, first day.Day, e climate.Extremes, latitude float64) (Clock, *climate.DayLengths) {
	series := climate.Series{First: first, Days: slices.Repeat([]climate.Extremes{e}, 365)}
	lengths := climate.DayLengthsAt(latitude)
	return Clocks(p, lengths, nil, series.Hourly(latitude)), lengths
}

func sown(p *crop.Profile, started string) Planting {
	market, _ := p.Window(crop.Market, "")
	return Planting{Profile: p, Market: market, Method: crop.Direct, Plants: 40, Started: day.Must(started)}
}

var plainTraits = Traits{Pace: 1, Stems: 1, Regrow: 1}

func TestStemsAreKept(t *testing.T) {
	for _, id := range []string{"zinnia-tall", "sunflower-single", "cornflower", "amaranth-hanging"} {
		p := profile(t, id)
		planting := sown(p, "2026-05-10")
		planting.Pinched, planting.PinchedShare = day.Must("2026-06-10"), 0.5
		clock, lengths := steady(p, day.Must("2026-05-01"), climate.Extremes{TminC: 12, TmaxC: 25}, 46.9)
		run := NewCourse(planting, Place{Lengths: lengths}, BoxCd).NewRun(clock, Traits{Pace: 1.05, Stems: 1.2, Regrow: 0.9})
		whole, cut := run.ToCome(), 0.0
		for d := day.Must("2026-05-10"); d.Before(day.Must("2026-10-30")); d = d.Add(1) {
			run.To(d.At(8))
			standing := 0.0
			for k, stems := range run.Rungs() {
				if stems < 0 {
					t.Fatalf("%s: %v stems on rung %d on %v", id, stems, k, d)
				}
				standing += stems
			}
			if got := run.ToCome() + standing + cut; math.Abs(got-whole) > 1e-9 {
				t.Fatalf("%s: %v stems on %v, %v at the start", id, got, d, whole)
			}
			if d.Weekday() == 5 {
				before := run.ToCome()
				cut += run.Cut(planting.Market, 1)
				whole += run.ToCome() - before // what the plants answer with
			}
		}
		if run.Standing(planting.Market) > whole/2 || cut < whole/4 {
			t.Errorf("%s: of %.0f stems %.0f were cut", id, whole, cut)
		}
	}
}

// The closed form against a literal walk: a chain of first-order boxes of the same mean and spread, a hundredth of a day at a
// time, for the share of plants of a single-stem crop that have budded.
func TestFlushIsTheBoxcarTrain(t *testing.T) {
	p := profile(t, "sunflower-single")
	f := newFlush(p, 0, Usual)
	boxes := int(math.Round(f.leadCd * f.leadCd / f.leadVar))
	train := make([]float64, boxes)
	train[0] = 1
	budded, cd := 0.0, 0.0
	const stepCd = 0.05
	moves := stepCd * float64(boxes) / f.leadCd
	for cd < 1.4*f.leadCd {
		moved := 0.0
		for i, plants := range train {
			train[i] += moved - moves*plants
			moved = moves * plants
		}
		budded += moved
		cd += stepCd
		if got := f.at(cd); math.Abs(got-budded) > 0.01 {
			t.Fatalf("after %.1f °Cd the flush has %.4f budded, the boxes %.4f", cd, got, budded)
		}
	}
}

// Worked by hand: with a base of 5, an optimum of 25 and a ceiling of 40, 18 °C are (22/15) (13/20)^(4/3) = 0.8258 of the optimum, and 17 °C
// (23/15) (12/20)^(4/3) = 0.7760, which have to give 12: 12.771 °Cd a day, and 2 more in a seed bed. Emergence takes 95, the bud 470 and the
// rungs to third open 304: the average stem stands there after 95/14.77 + 774/12.771 = 67.0 days.
func TestSteadyWarmthByHand(t *testing.T) {
	p := profile(t, "sunflower-single")
	planting := sown(p, "2026-05-10")
	clock, lengths := steady(p, day.Must("2026-05-01"), climate.Extremes{TminC: 18, TmaxC: 18}, 46.9)
	run := NewCourse(planting, Place{Lengths: lengths}, BoxCd).NewRun(clock, plainTraits)
	emerged, ok := run.Emerged()
	if want := planting.Started.At(12) + 95/14.7709; !ok || math.Abs(emerged-want) > 1e-3 {
		t.Errorf("emerged %v days after the start, want %v", emerged-planting.Started.At(12), 95/14.7709)
	}
	half := float64(planting.Plants) / 2
	for !(run.Standing(crop.Window{From: crop.Third, To: crop.Spent}) >= half) {
		run.To(run.at + 0.1)
	}
	if got := run.at - planting.Started.At(12); math.Abs(got-67.04) > 1 {
		t.Errorf("half of the stems are a third open after %.1f days, want 67.0", got)
	}
}

func firstCut(t *testing.T, p *crop.Profile, planting Planting, clock Clock, lengths *climate.DayLengths, boxCd float64) float64 {
	t.Helper()
	run := NewCourse(planting, Place{Lengths: lengths, Bench: bench(p)}, boxCd).NewRun(clock, plainTraits)
	for run.Standing(crop.Window{From: planting.Market.From, To: crop.Spent}) < run.FirstFlush()/20 {
		run.To(run.at + 0.05)
		if run.at > planting.Started.At(0)+360 {
			return math.Inf(1)
		}
	}
	return run.at
}

func bench(p *crop.Profile) climate.Extremes {
	return climate.Extremes{TminC: p.Nursery.Night, TmaxC: p.Nursery.Day}
}

func TestFinerBoxesMoveNoDates(t *testing.T) {
	for _, id := range []string{"zinnia-tall", "phacelia", "cosmos-single"} {
		p := profile(t, id)
		clock, lengths := steady(p, day.Must("2026-04-20"), climate.Extremes{TminC: 10, TmaxC: 22}, 46.9)
		coarse := firstCut(t, p, sown(p, "2026-05-01"), clock, lengths, BoxCd)
		fine := firstCut(t, p, sown(p, "2026-05-01"), clock, lengths, BoxCd/2)
		if math.Abs(coarse-fine) >= 0.5 {
			t.Errorf("%s: boxes of half the width move the first cut by %.2f days", id, coarse-fine)
		}
	}
}

func TestWarmerIsNeverLater(t *testing.T) {
	p := profile(t, "cosmos-single")
	before := math.Inf(1)
	for warm := 8.0; warm <= 18; warm += 0.5 {
		clock, lengths := steady(p, day.Must("2026-04-20"), climate.Extremes{TminC: warm - 4, TmaxC: warm + 4}, 46.9)
		at := firstCut(t, p, sown(p, "2026-05-01"), clock, lengths, BoxCd)
		if at > before {
			t.Errorf("at %v °C the first cut comes later than half a degree cooler", warm)
		}
		before = at
	}
}

// With the weather and the day lengths shifted by half a year, the south grows the same plant.
func TestHemispheresMirror(t *testing.T) {
	p := profile(t, "zinnia-tall")
	north, lengths := steady(p, day.Must("2025-05-01"), climate.Extremes{TminC: 12, TmaxC: 24}, 46.9)
	south, southern := steady(p, day.Must("2025-11-01"), climate.Extremes{TminC: 12, TmaxC: 24}, -46.9)
	a := firstCut(t, p, sown(p, "2025-05-10"), north, lengths, BoxCd) - day.Must("2025-05-10").At(0)
	b := firstCut(t, p, sown(p, "2025-11-10"), south, southern, BoxCd) - day.Must("2025-11-10").At(0)
	if math.Abs(a-b) > 2 {
		t.Errorf("first cut after %.1f days in the north, %.1f in the south", a, b)
	}
}

// A crop that comes again, cut twice a week through a warm summer, gives about the table's stems of a season.
func TestSeasonStemsComeAgain(t *testing.T) {
	for _, e := range croptable.Shipped() {
		p := e.Profile()
		if p.Yield.Habit != crop.Again || !p.HasStart(crop.Direct) || p.Life == "hardy-annual" || p.Pinch.Policy == "always" {
			continue
		}
		if each := cutThrough(p, sown(p, "2026-05-01"), nil) / 40; each < 0.7*p.Yield.SeasonStems || each > 1.2*p.Yield.SeasonStems {
			t.Errorf("%s: %.1f stems a plant, the table says %v", p.ID, each, p.Yield.SeasonStems)
		}
	}
}

// cutThrough returns the stems that are cut of a planting twice a week through a warm summer, and shows each day's.
func cutThrough(p *crop.Profile, planting Planting, show func(d day.Day, cut float64)) float64 {
	clock, lengths := steady(p, day.Must("2026-04-20"), climate.Extremes{TminC: 14, TmaxC: 26}, 44)
	run := NewCourse(planting, Place{Lengths: lengths}, BoxCd).NewRun(clock, plainTraits)
	sum := 0.0
	for d := planting.Started; d.Before(planting.Started.Add(170)); d = d.Add(1) {
		if d.Weekday() == 2 || d.Weekday() == 5 {
			run.To(d.At(8))
			cut := run.Cut(planting.Market, 1)
			if sum += cut; show != nil {
				show(d, cut)
			}
		}
	}
	return sum
}

// Worked by hand for rungs of 100 and 50 °Cd, of which each differs by 0.2 and the whole by 0.1: after the first the standard deviation is
// √(20² + 10²) = 22.4, after the second √(20² + 10² + 15²) = 26.9.
func TestLongRungsSpreadMost(t *testing.T) {
	p := new(crop.Profile)
	p.RungsCd = [crop.Rungs - 1]float64{100, 50}
	got := unevenness{rungCV: 0.2, stemCV: 0.1}.reached(p, -1)
	if math.Abs(got[1]-(100-22.36)) > 0.01 || math.Abs(got[2]-(150-26.93)) > 0.01 {
		t.Errorf("stems a standard deviation quicker stand there after %.2f and %.2f °Cd, want 77.64 and 123.07", got[1], got[2])
	}
	for _, s := range Spreads {
		for _, e := range croptable.Shipped() {
			for v := range speeds {
				reached := s.of(e.Profile()).reached(e.Profile(), speedNode[v])
				for k := range reached[1:] {
					if reached[k+1] <= reached[k] {
						t.Fatalf("%s: rung %d is reached after %.1f °Cd, the one before after %.1f", e.ID, k+1, reached[k+1], reached[k])
					}
				}
			}
		}
	}
}

// Vigour never rises as a bloom gets older, is at its most when it begins, and has ended when the longest has.
func TestVigourFalls(t *testing.T) {
	for _, e := range croptable.Shipped() {
		p := e.Profile()
		v := (*Shapes)(nil).vigourOf(p, crop.Half)
		if v == nil {
			continue
		}
		last := v.at(0)
		if last < 1/mostLevel-1e-9 || last > mostLevel+1e-9 {
			t.Errorf("%s: begins with a vigour of %.2f", e.ID, last)
		}
		for cd := 10.0; cd < 2*p.Yield.FloweringCd; cd += 10 {
			if now := v.at(cd); now > last+1e-9 || now < 0 {
				t.Fatalf("%s: vigour is %v after %v °Cd and %v before", e.ID, now, cd, last)
			} else {
				last = now
			}
		}
		if last != 0 {
			t.Errorf("%s: vigour is %v long after the bloom", e.ID, last)
		}
	}
}

// Worked by hand: half of the shoots at 14 MJ; a midsummer of 40 leaves all but two in a thousand, (14/40)^6; at 7, one in 65, 2^6.
func TestLightThinsAutumn(t *testing.T) {
	for mj, want := range map[float64]float64{14: 0.5, 40: 1 / (1 + 0.001838), 7: 1. / 65} {
		if got := lit(mj); math.Abs(got-want) > 1e-4 {
			t.Errorf("at %v MJ %.4f of the shoots are fed, want %.4f", mj, got, want)
		}
		if pace := inLight(mj); math.Abs(pace-(0.55+0.45*want)) > 1e-4 {
			t.Errorf("at %v MJ stems go at %.4f of their pace", mj, pace)
		}
	}
	if got := lit(0); got > 1e-9 || math.IsNaN(got) {
		t.Errorf("in the polar night %v of the shoots are fed", got)
	}
}

func TestCorrectMakesWhatWasSeen(t *testing.T) {
	p := profile(t, "zinnia-tall")
	clock, lengths := steady(p, day.Must("2026-05-01"), climate.Extremes{TminC: 13, TmaxC: 25}, 46.9)
	run := NewCourse(sown(p, "2026-05-10"), Place{Lengths: lengths}, BoxCd).NewRun(clock, plainTraits)
	run.To(day.Must("2026-07-14").At(6))
	random := rand.New(rand.NewPCG(3, 3))
	var want [crop.Rungs]float64
	for k := range want {
		want[k] = 5 + 30*random.Float64()
	}
	toCome := run.ToCome()
	run.Correct(want)
	for k, got := range run.Rungs() {
		if math.Abs(got-want[k]) > 0.2*want[k] { // a box across two rungs takes from both
			t.Errorf("rung %d: %.1f stems, want %.1f", k, got, want[k])
		}
	}
	if math.Abs(run.ToCome()-toCome) > 0.6 { // the box that is still filling lies on both sides
		t.Errorf("a count changed what is still to come from %.2f to %.2f", toCome, run.ToCome())
	}
}

// Where the boxes begin is of no account: shifting all of them by parts of a box moves no stem of a pick by more than a
// fiftieth of the flush.
func TestBoxBoundariesMakeNoJump(t *testing.T) {
	p := profile(t, "zinnia-tall")
	clock, lengths := steady(p, day.Must("2026-05-01"), climate.Extremes{TminC: 13, TmaxC: 25}, 46.9)
	var least, most [20]float64
	for shift := range 8 {
		course := NewCourse(sown(p, "2026-05-10"), Place{Lengths: lengths}, BoxCd)
		run := course.NewRun(clock, plainTraits)
		run.cohort.firstCd -= BoxCd * float64(shift) / 8
		for j := range least {
			run.To(day.Must("2026-07-10").Add(3 * j).At(8))
			cut := run.Cut(course.Planting().Market, 1)
			if shift == 0 {
				least[j], most[j] = cut, cut
			}
			least[j], most[j] = min(least[j], cut), max(most[j], cut)
			if most[j]-least[j] > course.FirstFlush()/50 {
				t.Errorf("pick %d: %.2f to %.2f stems as the boxes are shifted", j, least[j], most[j])
			}
		}
	}
}

// A planting that is only emerging when its record ends goes on under each weather as if it had known it all along.
func TestAWeatherGoesOnFromThePast(t *testing.T) {
	p := profile(t, "cosmos-single")
	first := day.Must("2026-04-20")
	e := climate.Extremes{TminC: 10, TmaxC: 22}
	whole, lengths := steady(p, first, e, 46.9)
	days := slices.Repeat([]climate.Extremes{e}, 365)
	past := Clocks(p, lengths, nil, climate.Series{First: first, Days: days[:20]}.Hourly(46.9))
	member := Clocks(p, lengths, &past, climate.Series{First: first.Add(20), Days: days[20:]}.Hourly(46.9))
	course := NewCourse(sown(p, "2026-05-02"), Place{Lengths: lengths}, BoxCd)
	straight, start := course.NewRun(whole, plainTraits), course.NewRun(past, plainTraits)
	start.To(first.Add(20).At(0))
	var on Run
	start.CopyTo(&on, member)
	for _, to := range []string{"2026-07-10", "2026-07-20", "2026-08-15"} {
		at := day.Must(to).At(8)
		straight.To(at)
		on.To(at)
		a, b := straight.Rungs(), on.Rungs()
		for k := range a {
			if math.Abs(a[k]-b[k]) > 0.03*straight.FirstFlush() {
				t.Errorf("%s, rung %d: %.2f stems straight on, %.2f by way of the past", to, k, a[k], b[k])
			}
		}
	}
}
