package farm_test

import (
	"context"
	"errors"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/market"
	"dewcount/fault"
	"dewcount/records"
	"dewcount/say"
)

var ctx = context.Background()

// morning is when the tests' clock stands: six in the farm's zone.
func morning() time.Time { return time.Date(2026, 7, 9, 4, 0, 0, 0, time.UTC) }

// meadow is a farm with a row of zinnias in bloom, a row of sunflowers and a Saturday market.
func meadow(t *testing.T) (*farm.Farm, farm.Store) {
	t.Helper()
	store, err := records.Open(ctx, filepath.Join(t.TempDir(), "farm.db"))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { store.Close() })
	sixty := 60
	change := book.Change{Add: []book.Record{
		book.Variety{Name: "Zinnia coral", Crop: "zinnia-tall"}.Record(),
		book.Variety{Name: "Sunflower gold", Crop: "sunflower-single"}.Record(),
		book.Planting{ID: "ZC1", Variety: "Zinnia coral", Method: crop.Direct, StartedOn: day.Must("2026-04-26"), Plants: 60}.Record(),
		book.Planting{ID: "SU1", Variety: "Sunflower gold", Method: crop.Direct, StartedOn: day.Must("2026-05-01"), Plants: 100}.Record(),
		book.Order{ID: "Market", Kind: "market", DueOn: day.Must("2026-07-11"), Repeats: "weekly"}.Record(),
		book.OrderLine{Order: "Market", Line: 1, Variety: "Zinnia coral", Stems: &sixty, Use: "market"}.Record(),
		book.OrderLine{Order: "Market", Line: 2, Crop: "zinnia-tall", Stems: &sixty, Use: "market"}.Record(),
	}}
	for key, value := range map[string]string{"name": "Meadow", "latitude": "46.9", "longitude": "7.2", "elevation_m": "100",
		"timezone": "Europe/Zurich", "pick_days": "tue fri"} {
		change.Add = append(change.Add, book.Setting{Key: key, Value: value}.Record())
	}
	if err := store.Apply(ctx, change); err != nil {
		t.Fatal(err)
	}
	return farm.New(store, morning), store
}

func snapshot(t *testing.T, f *farm.Farm) *look.Snapshot {
	t.Helper()
	s, err := f.Snapshot(ctx)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

func count(id, at string, stems ...int) book.Count {
	m, err := day.ParseMoment(at)
	if err != nil {
		panic(err)
	}
	c := book.Count{ID: id, CountedAt: m, Planting: "ZC1", PlantsCount: 30}
	copy(c.Stems[:], stems)
	return c
}

func TestFormsRefuseWhatCannotBe(t *testing.T) {
	f, store := meadow(t)
	absurd, wrongRow := count("c", "2026-07-09", 40_000), count("c", "2026-07-09", 5)
	wrongRow.Planting = "ZZ9"
	early, many := count("c", "2026-04-01", 5), count("c", "2026-07-09", 5)
	many.PlantsCount = 61
	cut := book.Cut{ID: "x", CutAt: day.At(day.Must("2026-07-09"), 8, 0), Planting: "SU1", Stems: 130}
	for _, c := range []struct {
		record        book.Record
		field, advice string
	}{
		{absurd.Record(), "stems", "cannot stand"},
		{wrongRow.Record(), "planting", "no planting"},
		{early.Record(), "counted_at", "before ZC1 was started"},
		{many.Record(), "plants_counted", "ZC1 has 60"},
		{cut.Record(), "stems", "cannot have stood"},
		{book.Planting{ID: "N", Variety: "Tulip red", Method: crop.Tray, StartedOn: day.Must("2026-05-01"), Plants: 5}.Record(), "variety", "no variety"},
		{book.Planting{ID: "N", Variety: "Zinnia coral", Method: crop.Tuber, StartedOn: day.Must("2026-05-01"), Plants: 5}.Record(), "method", "not started as"},
		{book.Planting{ID: "N", Variety: "Zinnia coral", Method: crop.Direct, StartedOn: day.Must("2026-05-01"), Plants: 5, EndedOn: day.Must("2026-04-01")}.Record(), "ended_on", "before its start"},
		{book.Variety{Name: "Lilac", Crop: "lilac-tree"}.Record(), "crop", "no crop"},
		{book.School{Crop: "zinnia-tall", Question: "cut", School: "early"}.Record(), "school", "no school"},
	} {
		err := f.Add(ctx, "", c.record)
		faults, ok := errors.AsType[fault.List](err)
		if !ok || faults[0].Field != c.field || !strings.Contains(faults[0].Advice, c.advice) {
			t.Errorf("%s %v: %v, want %s … %s", c.record.Kind.Name, c.record.Lines[0], err, c.field, c.advice)
		}
	}
	if revision, _ := store.Revision(ctx); revision != 1 {
		t.Errorf("refused records raised the revision to %d", revision)
	}
}

func TestUndoGoesBackAndForth(t *testing.T) {
	f, store := meadow(t)
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	total := func() int {
		book, _, err := store.Load(ctx)
		must(err)
		c, ok := book.Count("c")
		if !ok {
			return -1
		}
		return c.Total()
	}
	must(f.Add(ctx, "", count("c", "2026-07-09", 20).Record()))
	must(f.Correct(ctx, "", count("c", "2026-07-09", 25).Record()))
	must(f.Undo(ctx, "", book.Counts, "c"))
	if total() != 20 {
		t.Errorf("undoing a correction leaves %d stems, want 20", total())
	}
	must(f.Withdraw(ctx, "", "", book.Counts, "c"))
	if total() != -1 {
		t.Error("a withdrawn count still stands")
	}
	must(f.Undo(ctx, "", book.Counts, "c"))
	if total() != 20 {
		t.Errorf("undoing a withdrawal leaves %d stems, want 20", total())
	}
	must(f.Add(ctx, "", count("d", "2026-07-09", 3).Record()))
	must(f.Undo(ctx, "", book.Counts, "d"))
	if book, _, _ := store.Load(ctx); len(book.Counts) != 1 {
		t.Errorf("undoing a new count leaves %d counts", len(book.Counts))
	}
	if err := f.Withdraw(ctx, "", "", book.Plantings, "ZC1"); err == nil {
		t.Error("a planting with a count was withdrawn")
	}
	if err := f.Undo(ctx, "", book.Counts, "never"); !errors.Is(err, book.ErrNoSuchRecord) {
		t.Errorf("undoing what never was: %v", err)
	}
}

func TestSnapshotIsKeptUntilSomethingChanges(t *testing.T) {
	f, _ := meadow(t)
	first := snapshot(t, f)
	if snapshot(t, f) != first {
		t.Error("the same revision was computed twice")
	}
	if err := f.Add(ctx, "", count("c", "2026-07-09", 60, 20, 10, 10, 10, 30).Record()); err != nil {
		t.Fatal(err)
	}
	now := snapshot(t, f)
	if now == first {
		t.Fatal("a count changed nothing")
	}
	before, err := f.Without(snapshot(t, f), book.Counts, "c")
	if err != nil {
		t.Fatal(err)
	}
	i := now.Index("ZC1")
	a, b := first.Forecast.Plantings[i].ByPick[0][crop.Market], before.Forecast.Plantings[i].ByPick[0][crop.Market]
	if a.Mean() != b.Mean() {
		t.Errorf("without the count %v stems are expected, %v before it was made", b.Mean(), a.Mean())
	}
}

func TestCutTakesItsStems(t *testing.T) {
	f, _ := meadow(t)
	if err := f.Add(ctx, "", count("c", "2026-07-09T06:00", 60, 20, 10, 10, 10, 30).Record()); err != nil {
		t.Fatal(err)
	}
	before := snapshot(t, f)
	i := before.Index("ZC1")
	cut := book.Cut{ID: "x", CutAt: day.At(day.Must("2026-07-09"), 8, 0), Planting: "ZC1", Stems: 50}
	if err := f.Add(ctx, "", cut.Record()); err != nil {
		t.Fatal(err)
	}
	after := snapshot(t, f)
	a, b := before.Forecast.Plantings[i].ByPick[0][crop.Market], after.Forecast.Plantings[i].ByPick[0][crop.Market]
	if b.Likely() > a.Likely()-30 {
		t.Errorf("%d likely on Friday before 50 were cut on Thursday, %d after", a.Likely(), b.Likely())
	}
}

// What is dated after the evening of the view is not known in it, and hindsight does not empty a forecast.
func TestEveningKnowsNothingLater(t *testing.T) {
	f, store := meadow(t)
	if err := f.Add(ctx, "", count("c", "2026-07-08", 60, 20, 10, 10, 10, 30).Record()); err != nil {
		t.Fatal(err)
	}
	b, _, err := store.Load(ctx)
	if err != nil {
		t.Fatal(err)
	}
	asOf, today := day.Must("2026-07-01"), day.Must("2026-07-09")
	view := look.Evening(asOf, today, asOf.Add(35))
	mean := func() float64 {
		s, err := look.NewSnapshot(b, 0, view, nil)
		if err != nil {
			t.Fatal(err)
		}
		sum := 0.0
		for _, pick := range s.Forecast.Plantings[s.Index("ZC1")].ByPick {
			sum += pick[crop.Market].Mean()
		}
		return sum
	}
	with := mean()
	for i := range b.Plantings {
		b.Plantings[i].EndedOn = day.Must("2026-07-07")
	}
	b.Counts = nil
	b.Weather = append(b.Weather, book.WeatherDay{Date: day.Must("2026-07-05"), TminC: 25, TmaxC: 38})
	if without := mean(); with != without {
		t.Errorf("%v stems with what came later, %v without", with, without)
	}
	view = look.Evening(day.Must("2026-07-08"), today, asOf.Add(35))
	if got := mean(); got != 0 {
		t.Errorf("%v stems from a row that was pulled out the day before", got)
	}
}

func TestDueSharesOneSupply(t *testing.T) {
	f, _ := meadow(t)
	if err := f.Add(ctx, "", count("c", "2026-07-09T06:00", 60, 20, 10, 10, 10, 45).Record()); err != nil {
		t.Fatal(err)
	}
	dues := market.Dues(snapshot(t, f))
	if len(dues) == 0 || dues[0].PickOn != day.Must("2026-07-10") || len(dues[0].Lines) != 2 {
		t.Fatalf("due: %+v", dues)
	}
	first, second := dues[0].Lines[0], dues[0].Lines[1]
	if there := snapshot(t, f).Forecast.Plantings[0].ByPick[0][crop.Market].AtBest(); first.Wanted+second.Wanted > there && first.Chance > 0.1 && second.Chance > 0.1 {
		t.Errorf("%d and %d of at best %d stems, and both lines are filled %.2f and %.2f of the time", first.Wanted, second.Wanted, there, first.Chance, second.Chance)
	}
	for _, w := range dues[0].Lines {
		if w.Short()+w.Filled.Likely() != max(w.Wanted, w.Filled.Likely()) {
			t.Errorf("%d short with %d likely of %d", w.Short(), w.Filled.Likely(), w.Wanted)
		}
	}
}

func TestRowsOfOneCutAreOneCut(t *testing.T) {
	// A further reason for culling is a further row of the same cut.
	f, store := meadow(t)
	at := day.At(day.Must("2026-07-07"), 8, 0)
	two, three := 2, 3
	for i, c := range []book.Cut{{Stems: 20, Culled: &two, CullReason: "bent"}, {Culled: &three, CullReason: "earwigs"}} {
		c.ID, c.CutAt, c.Planting = string(rune('a'+i)), at, "ZC1"
		if err := f.Add(ctx, "", c.Record()); err != nil {
			t.Fatal(err)
		}
	}
	book, _, err := store.Load(ctx)
	if err != nil {
		t.Fatal(err)
	}
	model, err := look.ModelOf(book, look.Morning(day.Must("2026-07-09")))
	if err != nil {
		t.Fatal(err)
	}
	for _, p := range model.Plantings {
		if p.ID == "ZC1" && (len(p.Cuts) != 1 || p.Cuts[0].Taken != 25) {
			t.Errorf("cuts are %+v, want one of 25", p.Cuts)
		}
	}
}

func TestOrdersRepeat(t *testing.T) {
	weekly := book.Order{DueOn: day.Must("2026-07-11"), Repeats: "weekly", Until: day.Must("2026-07-31")}
	once := book.Order{DueOn: day.Must("2026-07-11")}
	for _, c := range []struct {
		order       book.Order
		first, last string
		want        int
	}{{weekly, "2026-07-01", "2026-07-25", 3}, {weekly, "2026-07-12", "2026-12-25", 2}, {weekly, "2026-08-01", "2026-09-01", 0},
		{once, "2026-07-01", "2026-12-01", 1}, {once, "2026-07-12", "2026-12-01", 0}} {
		if got := c.order.Between(day.Must(c.first), day.Must(c.last)); len(got) != c.want {
			t.Errorf("due on %v between %s and %s, want %d days", got, c.first, c.last, c.want)
		}
	}
}

func TestASchoolMovesTheWindow(t *testing.T) {
	f, store := meadow(t)
	if err := f.Add(ctx, "", book.Variety{Name: "Dahlia wine", Crop: "dahlia-ball"}.Record(),
		book.Planting{ID: "DW1", Variety: "Dahlia wine", Method: crop.Tuber, StartedOn: day.Must("2026-05-05"), Plants: 30}.Record(),
		book.School{Crop: "dahlia-ball", Question: "cut", School: "third"}.Record()); err != nil {
		t.Fatal(err)
	}
	book, _, err := store.Load(ctx)
	if err != nil {
		t.Fatal(err)
	}
	model, err := look.ModelOf(book, look.Morning(day.Must("2026-07-09")))
	if err != nil {
		t.Fatal(err)
	}
	for _, p := range model.Plantings {
		if want := (crop.Window{From: crop.Third, To: crop.Half}); p.ID == "DW1" && p.Growth.Market != want {
			t.Errorf("cut on %v, want %v", p.Growth.Market, want)
		}
	}
}

// Nothing a person can type makes a reader panic, and what is taken is written as it reads.
func FuzzReadCut(f *testing.F) {
	f.Add("2026-07-10T08:00", "12", "2", "45.5")
	f.Add("", "-1", "x", "1e309")
	f.Fuzz(func(t *testing.T, at, stems, culled, length string) {
		typed := map[string]string{"cut_at": at, "planting": "ZC1", "stems": stems, "culled": culled, "length_cm": length}
		fields := book.NewFields(func(name string) string { return typed[name] })
		cut := book.ReadCut(fields)
		if fields.Faults() != nil {
			return
		}
		record := cut.Record()
		again := book.ReadCut(book.NewFields(func(name string) string { return record.Field(name) }))
		if !again.Record().Equal(record) {
			t.Errorf("%v reads back as %v", record, again.Record())
		}
	})
}

// A correction of a planting must agree with what was counted and cut on it.
func TestACorrectedPlantingAgreesWithItsRecords(t *testing.T) {
	f, _ := meadow(t)
	if err := f.Add(ctx, "", count("c", "2026-07-09", 5).Record()); err != nil {
		t.Fatal(err)
	}
	p := book.Planting{ID: "ZC1", Variety: "Zinnia coral", Method: crop.Direct, StartedOn: day.Must("2026-04-26"), Plants: 60}
	few, late := p, p
	few.Plants, late.StartedOn = 10, day.Must("2026-07-12")
	for field, wrong := range map[string]book.Planting{"plants": few, "started_on": late} {
		faults, ok := errors.AsType[fault.List](f.Correct(ctx, "", wrong.Record()))
		if !ok || faults[0].Field != field {
			t.Errorf("%+v: %v, want a fault of %s", wrong, faults, field)
		}
	}
	p.Plants = 40
	if err := f.Correct(ctx, "", p.Record()); err != nil {
		t.Errorf("a sound correction: %v", err)
	}
}

// What moved a forecast since yesterday adds up: the stems expected then and all that each cause moved are the stems expected now.
func TestCausesAddUp(t *testing.T) {
	f, _ := meadow(t)
	sixteen := 16
	for _, r := range []book.Record{
		count("c1", "2026-07-08T06:00", 40, 20, 10, 6, 8, 12, 3, 0).Record(),
		count("c2", "2026-07-09T06:00", 80, 30, 12, 9, 8, 12, 3, 0).Record(),
		book.Cut{ID: "k1", CutAt: day.At(day.Must("2026-07-08"), 8, 0), Planting: "ZC1", Stems: sixteen}.Record(),
		book.WeatherDay{Date: day.Must("2026-07-08"), TminC: 19, TmaxC: 33}.Record(),
	} {
		if err := f.Add(ctx, "", r); err != nil {
			t.Fatal(err)
		}
	}
	s := snapshot(t, f)
	causes, err := s.Causes("zinnia-tall")
	if err != nil {
		t.Fatal(err)
	}
	var words []string
	for _, m := range causes.Moves {
		words = append(words, (say.Locale{}).Cause(m))
	}
	all := strings.Join(words, "; ")
	if len(words) != 4 || !strings.Contains(all, "warmer than expected") || !strings.Contains(all, "Wednesday's count of ZC1; Wednesday's cut of 16 from ZC1; Thursday's count") {
		t.Errorf("the causes are %q", words)
	}
	for j := range s.Forecast.PickDays {
		sum := causes.Before[j]
		for _, m := range causes.Moves {
			sum += m.Moved[j]
		}
		if now := float64(s.Forecast.Crops["zinnia-tall"].ByPick[j][crop.Market].Likely()); sum != now {
			t.Errorf("%v: %v stems add up where %v are likely", s.Forecast.PickDays[j], sum, now)
		}
	}
}
