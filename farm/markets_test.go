package farm_test

import (
	"math"
	"slices"
	"testing"
	"time"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// Worked by hand: a filler is any of the three rows, white is one row and four tenths of the mix, and what a colour was promised is no
// longer there for the role.
func TestWantsByRoleColourAndLength(t *testing.T) {
	b := book.NewBook(nil)
	for key, value := range map[string]string{"name": "Meadow", "latitude": "46.9", "longitude": "7.2", "elevation_m": "400",
		"timezone": "Europe/Zurich", "pick_days": "tue fri"} {
		b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
	}
	b.Varieties = []book.Variety{{Name: "snow", Crop: "cosmos-single", Colour: "white", Role: "filler"},
		{Name: "mixed", Crop: "cosmos-double", Colour: "white:0.4;pink:0.6", Role: "filler"},
		{Name: "blood", Crop: "zinnia-tall", Colour: "red", Role: "filler"}}
	for _, v := range b.Varieties {
		b.Plantings = append(b.Plantings, book.Planting{ID: v.Name, Variety: v.Name, Method: crop.Direct, StartedOn: day.Must("2026-04-20"), Plants: 60})
	}
	twenty, ten, long := 20, 10, 60.0
	b.Orders = []book.Order{{ID: "fete", Kind: "market", DueOn: day.Must("2026-07-18")}}
	b.OrderLines = []book.OrderLine{{Order: "fete", Line: 1, Colour: "white", Stems: &twenty}, {Order: "fete", Line: 2, Role: "filler", Stems: &ten},
		{Order: "fete", Line: 3, Variety: "blood", Stems: &ten, MinLengthCM: &long}, {Order: "fete", Line: 4, Colour: "blue", Stems: &ten},
		{Order: "fete", Line: 5, Recipe: "jar", Quantity: &ten}}
	b.RecipeLines = []book.RecipeLine{{Recipe: "jar", Role: "filler", Stems: 3}, {Recipe: "jar", Crop: "zinnia-tall", Stems: 1}}
	s, err := look.NewSnapshot(b, 0, look.Morning(day.Must("2026-07-12")), nil)
	if err != nil {
		t.Fatal(err)
	}
	wants := market.Dues(s)[0].Lines
	pick := slices.Index(s.Forecast.PickDays, market.Dues(s)[0].PickOn)
	mean := func(i int) float64 { return s.Forecast.Plantings[i].ByPick[pick][crop.Market].Mean() }
	if got, want := wants[0].Spread.Mean(), mean(0)+0.4*mean(1); math.Abs(got-want) > 1e-6*want {
		t.Errorf("%v white stems, want %v", got, want)
	}
	if got, want := wants[1].Spread.Mean(), mean(0)+mean(1)+mean(2); math.Abs(got-want) > 1e-6*want || wants[1].Before != 20 {
		t.Errorf("%v fillers after %d promised, want %v after 20", got, wants[1].Before, want)
	}
	if w := wants[2]; w.Long <= 0 || w.Long >= 1 || w.Needed() <= 10 {
		t.Errorf("%v of the stems are long enough, so %d are needed for 10", w.Long, w.Needed())
	}
	if wants[3].Known || wants[3].Short() != 10 {
		t.Errorf("nothing blue grows here, but of 10 wanted %d are short", wants[3].Short())
	}
	if len(wants) != 6 || wants[4].Wanted != 30 || wants[5].Wanted != 10 {
		t.Errorf("ten jars want %d lines, %d and %d stems", len(wants)-4, wants[4].Wanted, wants[5].Wanted)
	}
}

// In July a peony's bloom is over: its dates are those of the next year, though this year's are on record. A hydrangea's are of this year.
func TestDatesOfWhatLastsAreOfOneSeason(t *testing.T) {
	b := book.NewBook(nil)
	for key, value := range map[string]string{"name": "Meadow", "latitude": "46.9", "longitude": "7.2", "elevation_m": "400",
		"timezone": "Europe/Zurich", "pick_days": "tue fri"} {
		b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
	}
	for _, id := range []string{"peony", "hydrangea"} {
		b.Varieties = append(b.Varieties, book.Variety{Name: id, Crop: id})
		b.Plantings = append(b.Plantings, book.Planting{ID: id, Variety: id, Method: crop.Established, StartedOn: day.Must("2025-10-01"), Plants: 30})
		b.Events = append(b.Events, book.Event{ID: id, Planting: id, Event: book.Emerged, On: day.Must("2026-03-20")})
		b.Cuts = append(b.Cuts, book.Cut{ID: id, CutAt: day.At(day.Must("2026-05-26"), 8, 0), Planting: id, Stems: 9})
	}
	s, err := look.NewSnapshot(b, 0, look.Morning(day.Must("2026-07-20")), nil)
	if err != nil {
		t.Fatal(err)
	}
	next, this := s.Milestones(0), s.Milestones(1)
	if year, _, _ := next.FirstCut.Likely.Date(); year != 2027 || !next.Emerged.Likely.After(day.Must("2026-12-01")) || !next.LastCut.Likely.After(next.FirstCut.Likely) {
		t.Errorf("the peony's next season: %+v", next)
	}
	if this.Emerged.Likely != day.Must("2026-03-20") || this.FirstCut.Likely != day.Must("2026-05-26") {
		t.Errorf("the hydrangea's season on record: %+v", this)
	}
}

// Stems that were cut for a day need not be cut again: they count towards what is wanted, once, and in the order of the promises.
func TestStemsAlreadyCutCount(t *testing.T) {
	f, store := meadow(t)
	before := market.Dues(snapshot(t, f))[0].Lines
	if err := f.Add(ctx, "", book.Cut{ID: "cut", CutAt: day.At(day.Must("2026-07-09"), 8, 0), Planting: "ZC1", Stems: 7}.Record()); err != nil {
		t.Fatal(err)
	}
	if lines := market.Dues(snapshot(t, f))[0].Lines; lines[0].Have != 0 {
		t.Errorf("stems of another day's cut are counted as Friday's: %d", lines[0].Have)
	}
	f = farm.New(store, func() time.Time { return morning().AddDate(0, 0, 1) })
	if err := f.Add(ctx, "", book.Cut{ID: "friday", CutAt: day.At(day.Must("2026-07-10"), 8, 0), Planting: "ZC1", Stems: 13}.Record()); err != nil {
		t.Fatal(err)
	}
	lines := market.Dues(snapshot(t, f))[0].Lines
	if lines[0].Have != 13 || lines[0].Needed() != 60-13 || lines[1].Needed() != 60+60-13 {
		t.Errorf("13 are cut: %d are there, %d and %d still needed; want 47 and 107", lines[0].Have, lines[0].Needed(), lines[1].Needed())
	}
	if before[0].Needed() != 60 || before[1].Needed() != 120 {
		t.Errorf("before, %d and %d are needed, want 60 and 120", before[0].Needed(), before[1].Needed())
	}
}
