package farm_test

import (
	"fmt"
	"math"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/plans"
	"dewcount/farm/work"
	"dewcount/records"
)

// winterFarm is a farm in a general climate on a winter's day, with two beds and a variety each of some crops.
func winterFarm(t *testing.T, climate, latitude, today string) *farm.Farm {
	t.Helper()
	store, err := records.Open(ctx, filepath.Join(t.TempDir(), "farm.db"))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { store.Close() })
	ten, wide, packet, stock := 10.0, 1.2, 200, 50
	change := book.Change{Add: []book.Record{
		book.Bed{ID: "A", LengthM: &ten, WidthM: &wide}.Record(), book.Bed{ID: "B", LengthM: &ten, WidthM: &wide}.Record(),
		book.Tray{ID: "72", Cells: 72}.Record(),
		book.Variety{Name: "Cosmos white", Crop: "cosmos-single", SeedsAPacket: &packet, SeedsInStock: &stock}.Record(),
		book.Variety{Name: "Zinnia coral", Crop: "zinnia-tall"}.Record(),
		book.Variety{Name: "Snapdragon white", Crop: "snapdragon"}.Record(),
	}}
	for key, value := range map[string]string{"name": "Winter", "latitude": latitude, "longitude": "0", "elevation_m": "100", "timezone": "UTC", "pick_days": "tue fri", "climate": climate} {
		change.Add = append(change.Add, book.Setting{Key: key, Value: value}.Record())
	}
	if err := store.Apply(ctx, change); err != nil {
		t.Fatal(err)
	}
	return farm.New(store, func() time.Time { return day.Must(today).Midnight().Add(12 * time.Hour) })
}

// form is fields as somebody typed them: "stems=20 variety=Cosmos_white".
func form(fields string) *book.Fields {
	given := make(map[string]string)
	for _, f := range strings.Fields(fields) {
		name, value, _ := strings.Cut(f, "=")
		given[name] = strings.ReplaceAll(value, "_", " ")
	}
	return book.NewFields(func(name string) string { return given[name] })
}

func ask(t *testing.T, s *look.Snapshot, fields string) plans.SuccessionAsk {
	t.Helper()
	f := form(fields)
	a := plans.ReadSuccessionAsk(s.Book, f, s.View.Today)
	if err := f.Faults(); err != nil {
		t.Fatalf("%s: %v", fields, err)
	}
	return a
}

func TestWeeksAreCountedFromTheLastFrost(t *testing.T) {
	week1 := day.Must("2027-05-12")
	for d, want := range map[string]int{"2027-05-12": 1, "2027-05-18": 1, "2027-05-19": 2, "2027-05-11": 0, "2027-05-05": 0, "2027-05-04": -1, "2027-06-23": 7} {
		if got := look.WeekNo(week1, day.Must(d)); got != want {
			t.Errorf("%s is week %d, want %d", d, got, want)
		}
	}
}

// A plan is taken over in one step, on squares of its bed that nobody else has, and taken back in one.
func TestTakeOverAndBack(t *testing.T) {
	f := winterFarm(t, "foothills-47n", "47", "2027-01-10")
	s := snapshot(t, f)
	p, err := plans.Successions(ctx, s, ask(t, s, "variety=Cosmos_white bed=A stems=20 from=2027-07-12 until=2027-09-12 pinch=1"), nil)
	if err != nil || len(p.Sowings) == 0 {
		t.Fatalf("no plan: %+v, %v", p, err)
	}
	if p.Room <= 0 || p.LastSafe.IsZero() {
		t.Errorf("room for %d plants, last safe %s", p.Room, p.LastSafe)
	}
	planned := 0
	for _, d := range p.Sowings {
		planned += d.Plants
		if d.Started.After(p.LastSafe) || d.Started.Before(s.View.Today) || d.FirstCut.Before(d.Started.Add(30)) || d.LastCut.Before(d.FirstCut) {
			t.Errorf("a sowing of %s, cut %s to %s, last safe %s", d.Started, d.FirstCut, d.LastCut, p.LastSafe)
		}
	}
	taken, name := plans.PlantingsOf(s, p, "")
	if err := f.Add(ctx, "", taken...); err != nil {
		t.Fatal(err)
	}
	season, err := f.Season(snapshot(t, f), 2027)
	if err != nil {
		t.Fatal(err)
	}
	plants := 0
	var stays []plan.Stay
	for _, stay := range season.Stays()["A"] {
		plants += stay.Record.Plants
		stays = append(stays, stay.Stay)
		if stay.Record.Succession != name || stay.Patch == (plan.Patch{}) {
			t.Errorf("%s of plan %q on squares %v", stay.Planting, stay.Record.Succession, stay.Patch)
		}
	}
	if plants != planned || len(plan.Clashes(stays)) > 0 {
		t.Errorf("%d plants of %d planned, clashes %v", plants, planned, plan.Clashes(stays))
	}
	seeds := plans.Seeds(season)
	if len(seeds) != 1 || seeds[0].Plants != planned || seeds[0].ToOrder != seeds[0].Seeds-50 || seeds[0].Packets != (seeds[0].ToOrder+199)/200 {
		t.Errorf("seed list %+v", seeds)
	}
	if err := f.WithdrawSuccession(ctx, "", name); err != nil {
		t.Fatal(err)
	}
	if left := len(snapshot(t, f).Book.Plantings); left != 0 {
		t.Errorf("%d plantings are left after the plan was taken back", left)
	}
	if err := f.WithdrawSuccession(ctx, "", name); err == nil {
		t.Error("a plan was taken back twice")
	}
}

// What is planted already counts: where it supplies every week, nothing more is to be sown.
func TestWhatIsPlantedCounts(t *testing.T) {
	f := winterFarm(t, "foothills-47n", "47", "2027-01-10")
	row := book.Planting{ID: "CW1", Variety: "Cosmos white", Method: crop.Direct, StartedOn: day.Must("2027-05-14"), Plants: 600}
	if err := f.Add(ctx, "", row.Record()); err != nil {
		t.Fatal(err)
	}
	s := snapshot(t, f)
	fields := "variety=Cosmos_white stems=15 from=2027-08-09 until=2027-08-29"
	with, err := plans.Successions(ctx, s, ask(t, s, fields+" existing=1"), nil)
	if err != nil {
		t.Fatal(err)
	}
	without, err := plans.Successions(ctx, s, ask(t, s, fields), nil)
	if err != nil {
		t.Fatal(err)
	}
	if with.Even.StemsWasted < 0 || with.Fixed.StemsWasted < 0 || with.Even.StemsWasted < 100 { // 600 plants give far more than 15 a week
		t.Errorf("%.0f and %.0f stems too many beside 600 plants", with.Even.StemsWasted, with.Fixed.StemsWasted)
	}
	if len(with.Sowings) != 0 || len(without.Sowings) == 0 {
		t.Errorf("%d sowings beside 600 plants, %d without them", len(with.Sowings), len(without.Sowings))
	}
}

// A week is said not to be held only where it is less sure than was asked for, and the weeks of a plan are told so well that other weathers say the same.
func TestWeeksAreHeldOrNot(t *testing.T) {
	s := snapshot(t, winterFarm(t, "oceanic-43s", "-38", "2026-11-29"))
	held, weeks, off := 0, 0, 0.0
	for _, id := range []string{"sunflower-single", "zinnia-tall", "snapdragon"} {
		a := ask(t, s, "crop="+id+" stems=40 chance=70 from=2027-02-08 until=2027-04-25")
		p, err := plans.Successions(ctx, s, a, nil)
		if err != nil {
			t.Fatal(err)
		}
		ground, err := plans.GroundOf(s, a.Crop, "", "")
		if err != nil {
			t.Fatal(err)
		}
		var sowings []plan.Sowing
		for _, w := range p.Bloom.Sowings {
			sowings = append(sowings, w.Sowing)
		}
		want := plan.WeeklyWant(a.From, a.To, a.Stems, a.Chance)
		often := make([]float64, len(want.Stems))
		const others = 4
		for range others {
			ground.Farm.Seed += 9
			for w, o := range ground.Try(sowings, crop.Market, a.To.Add(21)).Outcome(p.Bloom.Sowings, want, plan.Limits{Hold: p.Hold}) {
				often[w] += o.Chance / others
			}
		}
		for w, o := range p.Bloom.Weeks {
			weeks++
			if o.Reachable {
				held++
			} else if o.Chance >= a.Chance {
				t.Errorf("%s: the week of %s has enough %.2f of the time and is not held", id, o.Monday, o.Chance)
			}
			off += math.Abs(o.Chance - often[w])
		}
	}
	if held < 15 || held == weeks {
		t.Errorf("%d of %d weeks are held", held, weeks)
	}
	if off /= float64(weeks); off > 0.032 {
		t.Errorf("weeks are %.3f more or less sure in other weathers", off)
	}
}

// In the south a season runs from July to June, a period may cross the new year, and sowings lie in its spring.
func TestPlansInTheSouth(t *testing.T) {
	f := winterFarm(t, "temperate-38s", "-38", "2027-07-10")
	s := snapshot(t, f)
	p, err := plans.Successions(ctx, s, ask(t, s, "crop=cosmos-single stems=30 from=2027-12-13 until=2028-02-13"), nil)
	if err != nil || len(p.Sowings) == 0 {
		t.Fatalf("no plan: %v", err)
	}
	held := 0
	for _, w := range p.Bloom.Weeks {
		if w.Chance > 0.85 {
			held++
		}
	}
	if first := p.Sowings[0].Started; first.Before(day.Must("2027-08-01")) || first.After(day.Must("2027-12-01")) || held < 6 {
		t.Errorf("first sown on %s, %d weeks held", first, held)
	}
	taken, _ := plans.PlantingsOf(s, p, "")
	if err := f.Add(ctx, "", taken...); err != nil {
		t.Fatal(err)
	}
	season, err := f.Season(snapshot(t, f), 2027)
	if err != nil || season.From != day.Must("2027-07-01") || season.Until != day.Must("2028-07-01") {
		t.Fatalf("season of %v to %v: %v", season.From, season.Until, err)
	}
	january := 0.0
	all := make([]int, len(season.Model.Plantings))
	for i := range all {
		all[i] = i
	}
	for _, w := range season.Stems(all) {
		if _, month, _ := w.Monday.Date(); month == time.January {
			january += w.Likely
		}
	}
	if january < 4*30 {
		t.Errorf("%.0f stems in January", january)
	}
	if last := season.Frosts.Last(0.1); !last.IsZero() && last.After(day.Must("2027-12-15")) {
		t.Errorf("the last frost of the southern spring on %s", last)
	}
}

// Without frost there is no last safe sowing, and weeks are counted from the beginning of the year.
func TestPlansWithoutFrost(t *testing.T) {
	f := winterFarm(t, "highland-5n", "5", "2027-01-10")
	s := snapshot(t, f)
	p, err := plans.Successions(ctx, s, ask(t, s, "crop=sunflower-single stems=20 from=2027-10-04 until=2027-12-12"), nil)
	if err != nil || len(p.Sowings) == 0 {
		t.Fatalf("no plan: %v", err)
	}
	if !p.LastSafe.IsZero() || p.NoneSafe || p.Week1 != day.Must("2027-01-01") {
		t.Errorf("last safe %s, none %v, weeks from %s", p.LastSafe, p.NoneSafe, p.Week1)
	}
	season, err := f.Season(snapshot(t, f), 2027)
	if err != nil || !season.Frosts.First(0.1).IsZero() {
		t.Errorf("frost in the tropics: %v", err)
	}
}

func TestAsksAreRefusedInPlainWords(t *testing.T) {
	s := snapshot(t, winterFarm(t, "foothills-47n", "47", "2027-01-10"))
	for given, want := range map[string]string{
		"stems=20 from=2027-07-01 until=2027-08-01":                                "choose a crop",
		"crop=peony stems=20 from=2027-07-01 until=2027-08-01":                     "successions make no sense",
		"crop=cosmos-single stems=lots from=2027-07-01 until=2027-08-01":           "whole number",
		"crop=cosmos-single stems=20 from=2027-08-01 until=2027-07-01":             "before it begins",
		"crop=cosmos-single stems=20 from=2026-05-01 until=2026-07-01":             "has passed",
		"crop=cosmos-single stems=20 from=2035-05-01 until=2035-07-01":             "too far ahead",
		"crop=cosmos-single method=bulb stems=20 from=2027-07-01 until=2027-08-01": "not started as bulb",
		"variety=Nobody stems=20 from=2027-07-01 until=2027-08-01":                 "no variety on record",
	} {
		fields := make(map[string]string)
		for _, f := range strings.Fields(given) {
			name, value, _ := strings.Cut(f, "=")
			fields[name] = value
		}
		f := book.NewFields(func(name string) string { return fields[name] })
		plans.ReadSuccessionAsk(s.Book, f, s.View.Today)
		if err := f.Faults(); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%s: %v, want %q", given, err, want)
		}
	}
}

// A sowing after its last safe date is allowed when the grower insists.
func TestALateSowingIsKept(t *testing.T) {
	f := winterFarm(t, "foothills-47n", "47", "2027-01-10")
	late := book.Planting{ID: "ZC1", Variety: "Zinnia coral", Bed: "A", Method: crop.Direct, StartedOn: day.Must("2027-09-10"), Plants: 40, Squares: "1-10"}
	if err := f.Add(ctx, "", late.Record()); err != nil {
		t.Fatal(err)
	}
	season, err := f.Season(snapshot(t, f), 2027)
	if err != nil || !season.Dates[season.Index("ZC1")].FirstCut.Likely.IsZero() {
		t.Errorf("zinnias sown in September are cut on %v, %v", season.Dates[0].FirstCut, err)
	}
	moved := late
	moved.StartedOn = day.Must("2027-05-20")
	sooner, err := season.With(moved)
	if err != nil || sooner.Dates[sooner.Index("ZC1")].FirstCut.Likely.IsZero() {
		t.Errorf("sown in May they are not cut: %v", err)
	}
	if season.Index("ZC1") < 0 || season.Book.Plantings[0].StartedOn != late.StartedOn {
		t.Error("looking at a move changed the season")
	}
	moved.Squares = "1-99"
	if _, err := season.With(moved); err == nil || !strings.Contains(err.Error(), "outside the bed") {
		t.Errorf("squares outside the bed: %v", err)
	}
}

func TestPlacingAndAppointments(t *testing.T) {
	f := winterFarm(t, "foothills-47n", "47", "2027-01-10")
	for i, p := range []book.Planting{
		{ID: "SN1", Bed: "A", Variety: "Snapdragon white", Method: crop.Tray, StartedOn: day.Must("2027-02-20"), PlantedOutOn: day.Must("2027-04-15"), Plants: 200, Tray: "72"},
		{ID: "ZC1", Bed: "A", Variety: "Zinnia coral", Method: crop.Direct, StartedOn: day.Must("2027-05-15"), Plants: 60},
		{ID: "ZC2", Bed: "A", Variety: "Zinnia coral", Method: crop.Direct, StartedOn: day.Must("2027-05-16"), Plants: 500},
	} {
		if err := f.Add(ctx, "", p.Record()); err != nil {
			t.Fatal(i, err)
		}
	}
	season, err := f.Season(snapshot(t, f), 2027)
	if err != nil {
		t.Fatal(err)
	}
	placed, without := plans.Placing(season, "")
	if len(placed) != 2 || !slices.Equal(without, []string{"ZC2"}) { // 132 squares hold 60 and, four on each, 200, but not 500
		t.Errorf("%d placed, without %v", len(placed), without)
	}
	var said []string
	for _, a := range work.Appointments(season) {
		said = append(said, a.On.String()+" "+a.What)
	}
	for _, want := range []string{"2027-02-20 Sow in trays SN1 Snapdragon white", "2027-04-15 Plant out SN1 Snapdragon white", "2027-05-15 Sow ZC1 Zinnia coral"} {
		if !slices.Contains(said, want) {
			t.Errorf("no %q among %q", want, said)
		}
	}
	lines := plans.Seeds(season)
	bench := plans.Bench(season, lines)
	if len(bench) < 6 {
		t.Errorf("trays stand in the nursery for %d weeks", len(bench))
	}
	for _, l := range lines {
		if l.Variety == "Snapdragon white" && (l.Sowings[0].Trays != plan.Holders(l.Sowings[0].Seeds, 72) || l.Sowings[0].Raising == nil) {
			t.Errorf("snapdragons: %+v", l.Sowings[0])
		}
	}
}

// A record that was superseded when there were fewer columns is still read.
func TestOldHistoryIsRead(t *testing.T) {
	past := book.Version{Kind: "plantings", Content: `[["ZC1","Zinnia coral","A","direct","2026-05-01","","","","60","",""]]`}
	r, err := past.Record()
	if err != nil || len(r.Lines[0]) != len(book.Plantings.Columns) || r.Field("plants") != "60" || r.Field("squares") != "" {
		t.Errorf("%v, %v", r, err)
	}
}

// In December the calendar has what January and the first half of February bring, and a season that is not the present one ends with itself.
func TestDecembersCalendarHasJanuarysSowings(t *testing.T) {
	f := winterFarm(t, "foothills-47n", "47", "2026-12-20")
	for i, started := range []string{"2027-01-25", "2027-03-20", "2028-01-10"} {
		p := book.Planting{ID: fmt.Sprintf("SN%d", i+1), Variety: "Snapdragon white", Method: crop.Tray, StartedOn: day.Must(started), Plants: 40}
		if err := f.Add(ctx, "", p.Record()); err != nil {
			t.Fatal(err)
		}
	}
	for year, want := range map[int][]string{2026: {"SN1"}, 2027: {"SN1", "SN2"}} {
		season, err := f.Season(snapshot(t, f), year)
		if err != nil {
			t.Fatal(err)
		}
		var got []string
		for _, a := range work.Appointments(season) {
			if id, ok := strings.CutPrefix(a.ID, "start "); ok {
				got = append(got, id)
			}
		}
		if !slices.Equal(got, want) {
			t.Errorf("the calendar of %d has the sowings of %v, want %v", year, got, want)
		}
	}
}
