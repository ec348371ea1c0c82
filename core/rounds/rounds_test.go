package rounds

import (
	"math"
	"strings"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/core/plan"
)

// A flatSky has the same weather every day, but for what is written down.
type flatSky struct {
	every    climate.Extremes
	days     map[string]climate.Extremes
	rain     map[string]float64
	frostOn  day.Day // the night in which it freezes for sure
	winterC  float64
	latitude float64
}

func (s flatSky) Extremes(d day.Day) climate.Extremes {
	if e, ok := s.days[d.String()]; ok {
		return e
	}
	return s.every
}
func (s flatSky) DegreeDays(of climate.Response, d day.Day) float64 {
	return of.SteadyDegreeDays(s.Extremes(d))
}
func (s flatSky) Rain(d day.Day) (float64, bool) {
	mm, known := s.rain[d.String()]
	return mm, known
}
func (s flatSky) NightBelow(d day.Day, _ float64) float64 {
	if d == s.frostOn {
		return 0.9
	}
	return 0
}
func (s flatSky) FirstBelow(float64) day.Day { return s.frostOn }
func (s flatSky) WinterC() float64           { return s.winterC }
func (s flatSky) Latitude() float64          { return s.latitude }

// mild is a steady 20 °C: with a base of 10 °C ten degree-days a day, so that dates can be counted on fingers.
var mild = flatSky{every: climate.Extremes{TminC: 20, TmaxC: 20}, latitude: 47, winterC: -4}

func on(s string) day.Day { return day.Must(s) }

func at(s string) forecast.When { return forecast.When{Early: on(s), Likely: on(s), Late: on(s)} }

// flower is a branching annual of 100 cm that is netted, pinched always and starts to bud 40 days after it is up.
func flower() *Planting {
	p := &crop.Profile{ID: "flower", Name: "Flower", Form: "double-daisy", Life: crop.HalfHardyAnnual, FrostKillC: -1, HeightCM: [2]float64{100, 120}, SpacingCM: 25, Support: "net",
		SoilMinC: 12, Response: climate.Response{BaseC: 10, OptC: 25, CeilingC: 35}, Pinch: crop.Pinch{Policy: "always", StemsFactor: 2.5}, Yield: crop.Yield{Habit: crop.Again}}
	p.RungsCd[crop.Tight] = 49
	return &Planting{ID: "F1", Profile: p, Method: crop.Direct, Plants: 100, Started: on("2026-05-01"), Out: on("2026-05-01"), Done: make(map[Task]day.Day),
		Dates: forecast.Milestones{Emerged: at("2026-05-11"), FirstBud: at("2026-06-20"), FirstCut: at("2026-07-01"), LastCut: at("2026-08-20")}}
}

// jobsOf returns the jobs of a planting by task, from a day on.
func jobsOf(p *Planting, sky Sky, today string) map[Task]Job {
	all := make(map[Task]Job)
	for _, j := range Of(p, sky, on(today), on(today).Add(400)) {
		all[j.Task] = j
	}
	return all
}

func TestDatesByHand(t *testing.T) {
	sown := flower()
	raised := flower()
	raised.Method, raised.Out = crop.Tray, on("2026-06-01")
	raised.Raising = &plan.Raising{Sown: on("2026-05-01"), Earliest: on("2026-05-25"), Out: on("2026-06-01"), Latest: on("2026-06-08"), OffHeat: on("2026-05-11"), PotOn: on("2026-05-21"),
		Harden: []plan.HardenDay{{Day: on("2026-05-24")}}, Stunts: true}
	wet := mild
	wet.rain = map[string]float64{"2026-06-02": 6}
	tuber := flower()
	tuber.Profile.Life, tuber.Method = crop.TuberLife, crop.Tuber
	cold, frosty := mild, mild
	cold.winterC, cold.frostOn, frosty.frostOn = -14, on("2026-10-12"), on("2026-10-12")
	done := flower()
	done.Done[Net] = on("2026-05-20")
	feeding := flower()
	feeding.Feeding, feeding.Done[Feed] = crop.WeeksFeed, on("2026-06-01")
	event := flower()
	event.Disbud, event.Events = true, []day.Day{on("2026-07-18")}
	bagged := flower()
	bagged.Bags = true
	over := flower()
	over.Finished, over.NextHere = true, on("2026-09-05")
	picked := flower()
	picked.CountFor = on("2026-07-10")
	picked.Standing = [crop.Rungs]float64{10, 5, 5, 5, 5, 8, 4, 2}
	picked.Picks = []Pick{{On: on("2026-07-10"), Stems: 13, Hours: 0.1}}
	picked.Counted, picked.Cut = on("2026-07-03"), on("2026-07-07")
	about := flower() // of one flush: it would not be deadheaded if it did not seed itself about
	about.Profile.Yield.Habit, about.Profile.SeedsAbout = crop.Branching, true
	about.Standing, about.Cut = picked.Standing, picked.Cut
	heads := flower()
	heads.Profile.SeedHeads = true
	heads.Standing[crop.Spent] = 4
	tall := flower()
	tall.Profile.Pinch.AtCM = 30
	planned := flower()
	planned.Profile.Pinch = crop.Pinch{Policy: "optional", AtCM: 30, StemsFactor: 2}
	planned.PinchOn = on("2026-05-20")
	spring := flower()
	spring.Feeding = crop.SpringFeed
	bloom := flower()
	bloom.Done[Scout] = on("2026-07-10")
	early := flower()
	early.SoilWarm = on("2026-05-06")
	for _, c := range []struct {
		name                   string
		p                      *Planting
		sky                    Sky
		today                  string
		task                   Task
		earliest, best, latest string
	}{
		// warmth is even, so a part of the 40 days from up to bud is that part of days: 12 % are 4.8, the fifth day completes them
		{"first thinning", sown, mild, "2026-05-05", Thin, "2026-05-13", "2026-05-15", "2026-05-21"},
		{"second thinning, 28 % of 40 days", sown, mild, "2026-05-05", ThinMore, "2026-05-19", "2026-05-22", "2026-05-30"},
		// 100 cm are 70 at the first bud: 15 cm are 3/14 of 40 days, 8.6; 40 cm are 4/7, 22.9
		{"net while low", sown, mild, "2026-05-12", Net, "2026-05-11", "2026-05-19", "2026-06-02"},
		{"raise it at 45 cm, 25.7 days", done, mild, "2026-05-25", RaiseNet, "2026-06-02", "2026-06-05", "2026-06-15"},
		{"pinch at 15 cm", sown, mild, "2026-05-12", Pinch, "2026-05-16", "2026-05-19", "2026-05-26"},
		// 30 cm are 3/7 of 40 days, 17.1
		{"pinch at the crop's own height", tall, mild, "2026-05-12", Pinch, "2026-05-25", "2026-05-28", "2026-06-04"},
		{"pinch as planned, five days later at most", planned, mild, "2026-05-12", Pinch, "2026-05-22", "2026-05-25", "2026-06-01"},
		{"the planned day is past and the plants were too low", planned, mild, "2026-05-22", Pinch, "2026-05-22", "2026-05-25", "2026-06-01"},
		{"strip when the first buds show", sown, mild, "2026-06-10", Strip, "2026-06-15", "2026-06-22", "2026-07-02"},
		{"feed once, a fortnight after it is up", spring, mild, "2026-05-15", Feed, "2026-05-21", "2026-05-25", "2026-06-08"},
		{"scout every week", sown, mild, "2026-05-12", Scout, "2026-05-17", "2026-05-18", "2026-05-21"},
		{"scout every four days in bloom", bloom, mild, "2026-07-11", Scout, "2026-07-13", "2026-07-14", "2026-07-17"},
		{"count when the first buds are due", sown, mild, "2026-06-10", Count, "2026-06-21", "2026-06-23", "2026-06-30"},
		{"pull out after the last cut", sown, mild, "2026-08-10", PullOut, "2026-08-21", "2026-08-22", "2026-09-01"},
		{"sow when the soil is warm", early, mild, "2026-04-25", Sow, "2026-05-06", "2026-05-06", "2026-05-13"},
		{"off the heat when up", raised, mild, "2026-05-10", OffHeat, "2026-05-11", "2026-05-11", "2026-05-12"},
		{"pot on", raised, mild, "2026-05-15", PotOn, "2026-05-17", "2026-05-21", "2026-05-28"},
		{"harden off", raised, mild, "2026-05-20", Harden, "2026-05-22", "2026-05-24", "2026-05-28"},
		{"plant out on the wet day after the planned one", raised, wet, "2026-05-28", PlantOut, "2026-05-25", "2026-06-02", "2026-06-08"},
		{"feed three weeks after the last time", feeding, mild, "2026-06-10", Feed, "2026-06-18", "2026-06-22", "2026-06-29"},
		{"disbud 14 to 10 days before the event", event, mild, "2026-07-01", Disbud, "2026-07-04", "2026-07-06", "2026-07-08"},
		// 49 degree-days on the first rung are five days at 9.9 a day: halfway between base and optimum the answer is 7.5, at 20 °C (10/10)(2/3)^1.5 of 12.1
		{"bag at first colour", bagged, mild, "2026-06-21", Bag, "2026-06-24", "2026-06-25", "2026-06-27"},
		{"count the day before the pick", picked, mild, "2026-07-08", Count, "2026-07-08", "2026-07-09", "2026-07-10"},
		{"deadhead three days after the cut", picked, mild, "2026-07-08", Deadhead, "2026-07-09", "2026-07-10", "2026-07-12"},
		{"cut on the pick day", picked, mild, "2026-07-08", Cut, "2026-07-10", "2026-07-10", "2026-07-10"},
		{"cut down in time what seeds itself about", about, mild, "2026-07-08", Deadhead, "2026-07-09", "2026-07-10", "2026-07-12"},
		{"seed heads are a crop as well", heads, mild, "2026-07-08", SeedHead, "2026-07-08", "2026-07-15", "2026-07-22"},
		{"pull out before the next comes", over, mild, "2026-08-25", PullOut, "2026-08-25", "2026-08-26", "2026-09-03"},
		{"the evening before the frost", sown, frosty, "2026-10-08", Frost, "2026-10-11", "2026-10-11", "2026-10-11"},
		{"tubers stay under cover in a mild winter", tuber, frosty, "2026-10-08", Cover, "2026-10-12", "2026-10-19", "2026-11-09"},
		{"tubers are lifted in a cold one", tuber, cold, "2026-10-08", Lift, "2026-10-12", "2026-10-19", "2026-11-02"},
	} {
		j, ok := jobsOf(c.p, c.sky, c.today)[c.task]
		if !ok || j.Earliest != on(c.earliest) || j.Best != on(c.best) || j.Latest != on(c.latest) {
			t.Errorf("%s: %s to %s, best %s (there: %v), want %s to %s, best %s", c.name, j.Earliest, j.Latest, j.Best, ok, c.earliest, c.latest, c.best)
		}
		if ok && (len(j.Reason) == 0 || len(j.Cost) == 0 || j.Minutes <= 0 || j.Harm <= 0 || j.Harm > 1) {
			t.Errorf("%s: %+v lacks a reason, a cost, minutes or harm", c.name, j)
		}
	}
}

func TestWhatIsDoneOrDoesNotApplyIsNoJob(t *testing.T) {
	netted := flower()
	netted.Done[Net] = on("2026-05-12")
	pinched := flower()
	pinched.Pinched = true
	out := flower()
	out.Method, out.IsOut, out.Raising = crop.Tray, true, &plan.Raising{Out: on("2026-06-01"), Latest: on("2026-06-08")}
	roofed := flower()
	roofed.Under = true
	frosty := mild
	frosty.frostOn = on("2026-05-20")
	tuber := flower()
	tuber.Method = crop.Tuber
	one := flower()
	one.Profile.Yield.Habit = crop.Branching
	one.Standing[crop.Spent] = 9
	kept := flower() // planned for a day that is past, when it was high enough
	kept.PinchOn = on("2026-05-13")
	kept.Dates.Emerged, kept.Dates.FirstBud = at("2026-04-20"), at("2026-05-30")
	for _, c := range []struct {
		name string
		p    *Planting
		task Task
	}{{"netted", netted, Net}, {"pinched", pinched, Pinch}, {"pinched as planned", kept, Pinch}, {"planted out", out, PlantOut}, {"frost under a roof", roofed, Frost}, {"bags without beetles", flower(), Bag},
		{"deadheading what has one flush and seeds nowhere", one, Deadhead}, {"seed heads that nobody wants", one, SeedHead}, {"disbudding without an event", flower(), Disbud}, {"watering a tuber that has just come up", tuber, Water}} {
		if j, ok := jobsOf(c.p, frosty, "2026-05-14")[c.task]; ok {
			t.Errorf("%s: there is a job, %s on %s", c.name, j.Task, j.Best)
		}
	}
}

// Allen et al. (1998), FAO Irrigation and Drainage Paper 56: example 8 (20° S, 3 September, 32.2 MJ) and example 20 (Lyon, 45°43' N, July,
// 14.8 to 26.6 °C, 5.0 mm a day).
func TestThirstIsThatOfThePublishedExamples(t *testing.T) {
	if got := climate.Sunlight(-20, 246); math.Abs(got-32.2) > 0.05 {
		t.Errorf("Sunlight(-20, 246) = %.2f, want 32.2", got)
	}
	if got := Thirst(climate.Extremes{TminC: 14.8, TmaxC: 26.6}, 45.72, 196); math.Abs(got-5.0) > 0.05 {
		t.Errorf("Thirst in Lyon in July = %.2f mm, want 5.0", got)
	}
	for _, latitude := range []float64{-90, -66, 0, 66, 90} {
		for yearDay := 1; yearDay <= 366; yearDay++ {
			if mj := climate.Sunlight(latitude, yearDay); !(mj >= 0 && mj < 50) {
				t.Fatalf("Sunlight(%v, %d) = %v", latitude, yearDay, mj)
			}
		}
	}
}

// A day of 10 to 30 °C in June at 47° N takes 6.6 mm: an established row that bears 18 mm is thirsty on the third day after it was
// watered; one seed bed, which has half a lawn's thirst and bears 2 mm, on the first. Watering is done in the evening.
func TestWateringGoesByHeatAndRain(t *testing.T) {
	hot := mild
	hot.every = climate.Extremes{TminC: 10, TmaxC: 30}
	rainy := hot
	rainy.rain = map[string]float64{"2026-06-12": 14}
	established := flower()
	established.Done[Water] = on("2026-06-10")
	heavy := flower()
	heavy.Heavy, heavy.Done[Water] = true, on("2026-06-10")
	seed := flower()
	seed.Dates.Emerged, seed.Done[Water] = at("2026-06-20"), on("2026-06-10")
	seed.Started = on("2026-06-08")
	for _, c := range []struct {
		name  string
		p     *Planting
		sky   Sky
		best  string
		words string
	}{{"hot and dry", established, hot, "2026-06-13", "deep and seldom"}, {"after rain", established, rainy, "2026-06-15", "deep and seldom"}, {"a seed bed", seed, hot, "2026-06-11", "by hand"},
		{"heavy soil", heavy, hot, "2026-06-15", "holds water"}} {
		j, ok := jobsOf(c.p, c.sky, "2026-06-11")[Water]
		if !ok || j.Best != on(c.best) || !strings.Contains(j.Reason.String(), c.words) {
			t.Errorf("%s: water on %s (%q), want %s and %q", c.name, j.Best, j.Reason, c.best, c.words)
		}
	}
}

func TestSunflowersAreNotWateredInBloom(t *testing.T) {
	dry := mild
	dry.every = climate.Extremes{TminC: 10, TmaxC: 30}
	p := flower()
	p.Profile.Botanical = "Helianthus annuus"
	p.Done[Water] = on("2026-06-01")
	if _, ok := jobsOf(p, dry, "2026-06-20")[Water]; !ok {
		t.Error("before bloom nobody waters it")
	}
	if j, ok := jobsOf(p, dry, "2026-07-05")[Water]; ok {
		t.Errorf("in bloom it is to be watered on %s", j.Best)
	}
}

// What is warmer comes no later: thinning, netting and pinching follow the warmth of the days.
func TestJobsFollowTheWarmth(t *testing.T) {
	p := flower()
	slow, quick := mild, mild
	slow.days, quick.days = map[string]climate.Extremes{}, map[string]climate.Extremes{}
	for d := on("2026-05-11"); d.Before(on("2026-05-25")); d = d.Add(1) { // the first fortnight decides
		slow.days[d.String()] = climate.Extremes{TminC: 9, TmaxC: 15}
		quick.days[d.String()] = climate.Extremes{TminC: 20, TmaxC: 26}
	}
	cold, warm := jobsOf(p, slow, "2026-05-12"), jobsOf(p, quick, "2026-05-12")
	for _, task := range []Task{Thin, ThinMore, Net, Pinch} {
		if !warm[task].Best.Before(cold[task].Best) {
			t.Errorf("%s: %s in a warm May, %s in a cold one", task, warm[task].Best, cold[task].Best)
		}
	}
}

func TestJobsKeepTheirNames(t *testing.T) {
	p := flower()
	before, after := jobsOf(p, mild, "2026-05-12"), jobsOf(p, mild, "2026-05-14")
	for _, task := range []Task{Thin, Net, Pinch} {
		if before[task].ID() != after[task].ID() {
			t.Errorf("%s is called %q and two days later %q", task, before[task].ID(), after[task].ID())
		}
	}
}

// A seed bed is watered by hand every other day until ten days after half of it is up, and is no established row for weeks; what was raised
// under cover is watered by hand for two to three weeks. More plants take longer.
func TestYoungPlantsAreWateredByHand(t *testing.T) {
	hot := mild
	hot.every = climate.Extremes{TminC: 14, TmaxC: 28}
	sown, raised := flower(), flower()
	raised.Method, raised.Out, raised.IsOut = crop.Cutting, on("2026-05-12"), true
	for _, c := range []struct {
		name, today string
		p           *Planting
		byHand      bool
	}{
		{"before it is up", "2026-05-08", sown, true}, {"half are up", "2026-05-12", sown, true}, {"nine days later", "2026-05-20", sown, true},
		{"growing", "2026-05-24", sown, false}, {"cuttings just planted", "2026-05-13", raised, true}, {"a fortnight in the bed", "2026-05-26", raised, true}, {"four weeks in the bed", "2026-06-09", raised, false},
	} {
		j, ok := jobsOf(c.p, hot, c.today)[Water]
		if !ok || j.ByHand != c.byHand {
			t.Errorf("%s: %q (there: %v), want by hand %v", c.name, j.Reason, ok, c.byHand)
		}
	}
	few := flower()
	few.Plants = 10
	a, b := jobsOf(sown, hot, "2026-05-12"), jobsOf(few, hot, "2026-05-12")
	for _, task := range []Task{Water, Scout, Thin, Net} {
		if a[task].Minutes <= b[task].Minutes {
			t.Errorf("%s takes %.1f minutes for %d plants and %.1f for %d", task, a[task].Minutes, sown.Plants, b[task].Minutes, few.Plants)
		}
	}
	if a, b := a[Water].Minutes, b[Water].Minutes; a != 9 || b != 4.5 { // 4 minutes, and 3 seconds a plant
		t.Errorf("watering by hand takes %.1f minutes for 100 plants and %.1f for 10, want 9 and 4.5", a, b)
	}
}

// Worth counting is what stands right and of which nobody is sure.
func TestCountDue(t *testing.T) {
	for _, c := range []struct {
		name               string
		sure, likely, best int
		counted            string
		want               bool
	}{
		{"in doubt, never counted", 20, 30, 44, "", true}, {"nothing stands right", 0, 0, 6, "", false}, {"everybody is sure", 28, 30, 33, "", false},
		{"a few stems more or less", 1, 2, 4, "", false}, {"a tenth of many", 290, 300, 310, "", false},
		{"counted three days before the pick", 20, 30, 44, "2026-07-07", false}, {"counted four days before it", 20, 30, 44, "2026-07-06", true},
	} {
		var counted day.Day
		if c.counted != "" {
			counted = on(c.counted)
		}
		if got := CountDue(c.sure, c.likely, c.best, counted, on("2026-07-10")); got != c.want {
			t.Errorf("%s: CountDue(%d, %d, %d) = %v, want %v", c.name, c.sure, c.likely, c.best, got, c.want)
		}
	}
}

// In winter nothing grows: nobody looks for pests or feeds, and a rosette is netted when it rises in spring.
func TestNothingIsDoneToWhatDoesNotGrow(t *testing.T) {
	cold := mild
	cold.every = climate.Extremes{TminC: 0, TmaxC: 6}
	hardy := flower()
	hardy.Profile.Overwinters, hardy.Feeding = true, crop.SpringFeed
	hardy.Started, hardy.Out = on("2026-09-01"), on("2026-09-01")
	hardy.Dates = forecast.Milestones{Emerged: at("2026-09-11"), FirstBud: at("2027-05-01"), FirstCut: at("2027-05-20"), LastCut: at("2027-07-01")}
	for _, task := range []Task{Scout, Feed} {
		if j, ok := jobsOf(hardy, cold, "2026-12-09")[task]; ok {
			t.Errorf("in the cold there is a job, %s on %s", task, j.Best)
		}
	}
	if j, ok := jobsOf(hardy, mild, "2027-02-10")[Net]; !ok || j.Best.Before(on("2027-02-16")) {
		t.Errorf("a rosette is netted on %s (there: %v), want when it rises after the middle of February", j.Best, ok)
	}
	south := mild
	south.latitude = -43
	hardy.Dates.FirstBud, hardy.Dates.LastCut = at("2027-10-20"), at("2027-12-20")
	if j, ok := jobsOf(hardy, south, "2027-08-01")[Net]; ok && j.Best.Before(on("2027-08-16")) {
		t.Errorf("in the south a rosette is netted on %s", j.Best)
	}
}
