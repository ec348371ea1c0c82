package farm_test

import (
	"testing"
	"time"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// A filler is any of the three rows, white is one row and a part of the mix, and what one line was given another does not have.
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
	from := func(w market.Want) map[string]int {
		stems := make(map[string]int)
		for _, g := range w.From {
			stems[g.Variety] += g.Stems
		}
		return stems
	}
	if got := from(wants[0]); got["blood"] != 0 || got["snow"]+got["mixed"] != 20 {
		t.Errorf("twenty white stems are %v", got)
	}
	if got := from(wants[2]); got["snow"]+got["mixed"] > 0 || got["blood"] > 10 {
		t.Errorf("long red zinnias are %v", got)
	}
	given := make(map[string]int) // of each row's pick: no stem goes to two
	for _, w := range wants {
		for _, g := range w.From {
			given[g.Variety+" "+g.Pick.String()] += g.Stems
			if !g.Early && g.Pick.Before(s.View.From) {
				t.Errorf("%+v is past", g)
			}
		}
	}
	for i, p := range s.Model.Plantings {
		for j, d := range s.Forecast.PickDays {
			if likely := s.Forecast.Plantings[i].ByPick[j][crop.Market].Likely(); given[p.Variety+" "+d.String()] > likely+30 {
				t.Errorf("%d %s of %s are given away, %d are likely", given[p.Variety+" "+d.String()], p.Variety, d, likely)
			}
		}
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

// Stems that were cut and can be held serve as well as those of the next pick, the oldest first; what a cut before them went to is not theirs any more.
func TestStemsAlreadyCutServe(t *testing.T) {
	f, store := meadow(t)
	fromLots := func(w market.Want) (lots []string, stems int) {
		for _, g := range w.From {
			if g.Lot != "" {
				lots, stems = append(lots, g.Lot), stems+g.Stems
			}
		}
		return lots, stems
	}
	if lots, _ := fromLots(market.Dues(snapshot(t, f))[0].Lines[0]); lots != nil {
		t.Errorf("nothing is cut, and lots serve: %v", lots)
	}
	if err := f.Add(ctx, "", book.Cut{ID: "cut", CutAt: day.At(day.Must("2026-07-09"), 8, 0), Planting: "ZC1", Stems: 7}.Record()); err != nil {
		t.Fatal(err)
	}
	f = farm.New(store, func() time.Time { return morning().AddDate(0, 0, 1) })
	if err := f.Add(ctx, "", book.Cut{ID: "friday", CutAt: day.At(day.Must("2026-07-10"), 8, 0), Planting: "ZC1", Stems: 13}.Record()); err != nil {
		t.Fatal(err)
	}
	lines := market.Dues(snapshot(t, f))[0].Lines
	all := 0
	var order []string
	for _, w := range lines {
		lots, n := fromLots(w)
		order, all = append(order, lots...), all+n
	}
	if all != 20 || order[0] != "cut" || order[len(order)-1] != "friday" {
		t.Errorf("of twenty stems that are cut %d serve Saturday, in the order %v", all, order)
	}
}
