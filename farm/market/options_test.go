package market_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// julyFarm is a farm of two snapdragons, a white and a red, and white cosmos, counted this morning, in the middle of July; a wedding and a market want more white
// than there is.
func julyFarm(t *testing.T) *look.Snapshot {
	t.Helper()
	b := book.NewBook(nil)
	for key, value := range map[string]string{"name": "Meadow", "latitude": "46.9", "longitude": "7.2", "elevation_m": "400", "timezone": "Europe/Zurich", "pick_days": "tue fri"} {
		b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
	}
	today := day.Must("2026-07-16")
	for d := day.Must("2026-03-01"); d.Before(today); d = d.Add(1) {
		b.Weather = append(b.Weather, book.WeatherDay{Date: d, TminC: 11, TmaxC: 23})
	}
	for id, v := range map[string]book.Variety{"SW": {Name: "Snap white", Crop: "snapdragon", Colour: "white", Role: "spike"}, "SR": {Name: "Snap red", Crop: "snapdragon", Colour: "red", Role: "spike"},
		"DW": {Name: "Delphinium white", Crop: "delphinium", Colour: "white", Role: "spike"}} {
		b.Varieties = append(b.Varieties, v)
		p := book.Planting{ID: id, Variety: v.Name, Method: crop.Tray, StartedOn: day.Must("2026-03-10"), PlantedOutOn: day.Must("2026-05-05"), Plants: 60}
		if v.Crop == "delphinium" {
			p.Method, p.StartedOn, p.PlantedOutOn = crop.Established, day.Must("2025-09-01"), day.Day{}
		}
		b.Plantings = append(b.Plantings, p)
		b.Counts = append(b.Counts, book.Count{ID: id, CountedAt: day.At(today, 6, 0), Planting: id, PlantsCount: 60, Stems: [crop.Rungs]int{10, 8, 10, 14, 12, 4, 1, 0}})
	}
	forty, thirty, ten := 60, 30, 10
	b.Orders = []book.Order{{ID: "Wedding", Kind: "event", DueOn: day.Must("2026-07-18")}, {ID: "Market", Kind: "market", DueOn: day.Must("2026-07-18")}, {ID: "Stall", Kind: "market", DueOn: day.Must("2026-07-22")}}
	b.OrderLines = []book.OrderLine{{Order: "Wedding", Line: 1, Crop: "snapdragon", Colour: "white", Stems: &forty, Use: "event"}, {Order: "Market", Line: 1, Crop: "snapdragon", Stems: &thirty, Use: "market"},
		{Order: "Stall", Line: 1, Role: "spike", Stems: &ten, Use: "market"}}
	s, err := look.NewSnapshot(b, 0, look.Morning(today), nil)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

// What an option is said to do is what comes of doing it.
func TestOptionsDoWhatTheySay(t *testing.T) {
	s := julyFarm(t)
	due := market.Dues(s)[1]
	if due.Order.ID != "Wedding" || due.ShortLines() != 1 {
		t.Fatalf("the wedding is not short: %+v", due)
	}
	options := market.OptionsFor(s, "Wedding", due.On)
	kinds := make(map[market.Kind]bool)
	for _, o := range options {
		kinds[o.Kind] = true
		b := s.Book.Own()
		if err := b.Apply(o.Change, book.OfForm); err != nil {
			t.Errorf("%s: %v", o.Kind, err)
			continue
		}
		then, err := look.NewSnapshot(b, 1, s.View, nil)
		if err != nil {
			t.Fatal(err)
		}
		for _, d := range market.Dues(then) {
			if d.Order.ID == "Wedding" && math.Abs(d.Chance-o.Chance) > 0.02 {
				t.Errorf("%s: all of it was to be filled %.2f of the time and is %.2f", o.Kind, o.Chance, d.Chance)
			}
		}
		if o.Chance < due.Chance && o.Short >= o.Before {
			t.Errorf("%s makes it worse", o.Kind)
		}
	}
	for _, k := range []market.Kind{market.Looser, market.Buy, market.Fewer, market.ExtraPick} {
		if !kinds[k] {
			t.Errorf("nobody offers to %s; offered is %v", k, kinds)
		}
	}
	if market.OptionsFor(s, "Nobody", due.On) != nil {
		t.Error("an order that is none has options")
	}
}

// Lines that leave the colour open are of their order's palette, those that name one or a variety are not; several colours are any of them.
func TestAnOrdersPalette(t *testing.T) {
	farm := julyFarm(t)
	given := func(palette string, line book.OrderLine) map[string]bool {
		b := farm.Book.Own()
		thirty := 30
		line.Order, line.Line, line.Stems = "Stall", 1, &thirty
		b.Orders, b.OrderLines = []book.Order{{ID: "Stall", Kind: "market", DueOn: day.Must("2026-07-22"), Palette: palette}}, []book.OrderLine{line}
		from := make(map[string]bool)
		for _, d := range market.Dues(farm.With(b)) {
			for _, w := range d.Lines {
				for _, g := range w.From {
					from[g.Variety] = true
				}
			}
		}
		return from
	}
	spike := book.OrderLine{Role: "spike"}
	if from := given("red", spike); !from["Snap red"] || from["Snap white"] || from["Delphinium white"] {
		t.Errorf("in red: %v", from)
	}
	if from := given("pink / white", spike); from["Snap red"] || !from["Snap white"] && !from["Delphinium white"] {
		t.Errorf("in pink or white: %v", from)
	}
	if from := given("white", book.OrderLine{Variety: "Snap red"}); !from["Snap red"] {
		t.Errorf("a variety that is named: %v", from)
	}
	if share := (book.Variety{Colour: "white:0.4;red:0.5;pink:0.1"}).ColourShare("white / red"); math.Abs(share-0.9) > 1e-9 {
		t.Errorf("of a mix %.2f are white or red", share)
	}
	if share := (book.Variety{Colour: "white/rose"}).ColourShare("White/Rose"); share != 1 {
		t.Errorf("a colour with a stroke in its name: %.2f", share)
	}
}

// Whatever is ordered, in whatever words and with whatever lots: as things usually go no row's pick gives more than it likely has, no lot more than lies there, nobody is
// given more than was wanted, and what is free is what nobody was given.
func TestNoStemIsPromisedTwice(t *testing.T) {
	farm := julyFarm(t)
	for seed := range uint64(25) {
		random := rand.New(rand.NewPCG(seed, 3))
		b := farm.Book.Own()
		b.Orders, b.OrderLines = nil, nil
		b.Bought = []book.Bought{{ID: "lot", Variety: "Snap white", Stems: 1 + random.IntN(40), At: day.At(farm.View.Today, 6, 0), Rung: crop.Half}}
		if random.IntN(2) == 0 {
			b.StorePlaces = []book.StorePlace{{ID: "fridge", Kind: "fridge", Celsius: 4, Since: day.Must("2026-07-01")}}
			if random.IntN(2) == 0 { // somebody keeps some of the lot for one of them
				b.Moves = []book.Move{{ID: "kept", Lot: "lot", What: book.Kept, Stems: 1 + random.IntN(b.Bought[0].Stems), At: day.At(farm.View.Today, 6, 30), Order: "0"}}
			}
		}
		b.RecipeLines = []book.RecipeLine{{Recipe: "posy", Role: "spike", Colour: "white", Stems: 2}, {Recipe: "posy", Crop: "snapdragon", Stems: 1}}
		for n := range 1 + random.IntN(6) {
			o := book.Order{ID: fmt.Sprint(n), Kind: []string{"event", "standing", "market"}[random.IntN(3)], DueOn: farm.View.Today.Add(random.IntN(20))}
			b.Orders = append(b.Orders, o)
			for l := range 1 + random.IntN(3) {
				stems, quantity := random.IntN(80), random.IntN(12)
				line := book.OrderLine{Order: o.ID, Line: l + 1, Stems: &stems}
				switch random.IntN(5) {
				case 0:
					line.Recipe, line.Quantity, line.Stems = "posy", &quantity, nil
				case 1:
					line.Variety = "Snap red"
				case 2:
					line.Role = "spike"
				case 3:
					line.Crop, line.Colour = "snapdragon", "white"
				default:
					line.Colour = "white"
				}
				if long := 50.0; random.IntN(3) == 0 {
					line.MinLengthCM = &long
				}
				b.OrderLines = append(b.OrderLines, line)
			}
		}
		s := farm.With(b)
		given, lots := make(map[int]map[day.Day]int), 0
		for _, d := range market.Dues(s) {
			all := 1.0
			for _, w := range d.Lines {
				sum := 0
				for _, g := range w.From {
					sum += g.Stems
					switch {
					case g.KeptFor != "" && g.KeptFor != d.Order.ID:
						t.Fatalf("seed %d: %d stems that are kept for %s go to %s", seed, g.Stems, g.KeptFor, d.Order.ID)
					case g.Lot != "":
						lots += g.Stems
					case !g.Early && !g.Late:
						if given[g.Planting] == nil {
							given[g.Planting] = make(map[day.Day]int)
						}
						given[g.Planting][g.Pick] += g.Stems
					}
				}
				if sum > w.Wanted || w.Filled.AtBest() > w.Wanted || w.Chance < d.Chance-1e-9 {
					t.Fatalf("seed %d: %d of %d %s, at best %d; the line is filled %.2f and all of it %.2f", seed, sum, w.Wanted, w.What, w.Filled.AtBest(), w.Chance, d.Chance)
				}
				all = min(all, w.Chance)
			}
			if len(d.Lines) > 0 && d.Chance > all+1e-9 {
				t.Fatalf("seed %d: all of %s is filled %.2f, its least sure line %.2f", seed, d.Order.ID, d.Chance, all)
			}
		}
		if len(b.StorePlaces) > 0 && lots > b.Bought[0].Stems {
			t.Fatalf("seed %d: %d of a lot of %d", seed, lots, b.Bought[0].Stems)
		}
		for i, picks := range given {
			for d, n := range picks {
				at := slices.Index(s.Forecast.PickDays, d)
				if likely := s.Forecast.Plantings[i].ByPick[at][crop.Market].Likely(); n > likely {
					t.Fatalf("seed %d: %d of the %d that %s likely gives on %s", seed, n, likely, s.Model.Plantings[i].ID, d)
				}
			}
		}
		for _, f := range market.FreeStems(s, s.View.To) {
			at := slices.Index(s.Forecast.PickDays, f.Pick)
			if all := s.Forecast.Varieties[f.Variety.Name].ByPick[at][crop.Market]; f.Stems.Sure() > all.Sure()+1 {
				t.Fatalf("seed %d: %d %s are free on %s, %d are sure", seed, f.Stems.Sure(), f.Variety.Name, f.Pick, all.Sure())
			}
		}
	}
}

// A promise asked for takes nothing from anybody, whatever it wants.
func TestAskingTakesNothingFromOthers(t *testing.T) {
	s := julyFarm(t)
	before := market.Dues(s)
	for _, a := range []market.Ask{{Line: book.OrderLine{Crop: "snapdragon"}, Stems: 500, On: day.Must("2026-07-18"), Kind: "event"}, {Line: book.OrderLine{Role: "spike"}, Stems: 5, On: day.Must("2026-07-22"), Kind: "event"}} {
		answer := a.Answer(s, a.On)
		if !answer.Want.Known || answer.Want.Wanted != a.Stems {
			t.Errorf("%+v", answer)
		}
		if a.Stems == 500 && answer.Want.Chance > 0 {
			t.Error("500 snapdragons are promised")
		}
		for i, d := range market.Dues(s) {
			if d.Chance != before[i].Chance {
				t.Errorf("%s loses by somebody asking", d.Order.ID)
			}
		}
	}
	if others := (market.Ask{Line: book.OrderLine{Crop: "snapdragon"}, Stems: 500, On: day.Must("2026-07-18"), Kind: "event"}).Others(s, 3); others != nil {
		t.Errorf("500 snapdragons are sure on %+v", others)
	}
}

// Nobody is served by the alphabet: of two events on one day neither goes first for its name, and the grower can put a market before a wedding.
func TestImportanceIsTheGrowers(t *testing.T) {
	s := julyFarm(t)
	filled := func(s *look.Snapshot, order string) int {
		for _, d := range market.Dues(s) {
			if d.Order.ID == order {
				return d.Lines[0].Filled.Likely()
			}
		}
		return -1
	}
	if filled(s, "Wedding") == 0 || filled(s, "Market") == 0 {
		t.Fatalf("the wedding has %d and the market %d", filled(s, "Wedding"), filled(s, "Market"))
	}
	b := s.Book.Own()
	last := 9
	for i := range b.Orders {
		if b.Orders[i].ID == "Wedding" {
			b.Orders[i].Importance = &last
		}
	}
	later := s.With(b)
	if was, is := filled(s, "Market"), filled(later, "Market"); is < was {
		t.Errorf("a market that goes before the wedding has %d, after it %d", is, was)
	}
	b = s.Book.Own()
	for i := range b.Orders {
		if b.Orders[i].ID == "Wedding" {
			b.Orders[i].CancelledOn = s.View.Today
		}
	}
	for _, d := range market.Dues(s.With(b)) {
		if d.Order.ID == "Wedding" {
			t.Error("a wedding that was cancelled is served")
		}
	}
}

// What can be done to a row is offered where it helps: fleece before its stems come, shade and a pinch where they would come too soon. Each does what it says.
func TestRowsAreCoveredAndPinchedForAnOrder(t *testing.T) {
	b := book.NewBook(nil)
	for key, value := range map[string]string{"name": "Meadow", "latitude": "46.9", "longitude": "7.2", "elevation_m": "400", "timezone": "Europe/Zurich", "pick_days": "tue fri"} {
		b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
	}
	today := day.Must("2026-05-20")
	for d := day.Must("2025-09-01"); d.Before(today); d = d.Add(1) {
		b.Weather = append(b.Weather, book.WeatherDay{Date: d, TminC: 7, TmaxC: 17})
	}
	b.Varieties = []book.Variety{{Name: "Cornflower blue", Crop: "cornflower", Colour: "blue", Role: "filler"}, {Name: "Snap white", Crop: "snapdragon", Colour: "white", Role: "spike"}, {Name: "Sunflower gold", Crop: "sunflower-single", Colour: "gold", Role: "focal"}}
	b.Plantings = []book.Planting{{ID: "SU", Variety: "Sunflower gold", Method: crop.Tray, StartedOn: day.Must("2026-03-04"), PlantedOutOn: day.Must("2026-04-02"), Plants: 80}, {ID: "CO", Variety: "Cornflower blue", Method: crop.Direct, StartedOn: day.Must("2026-03-20"), Plants: 80},
		{ID: "SN", Variety: "Snap white", Method: crop.Tray, StartedOn: day.Must("2026-03-10"), PlantedOutOn: day.Must("2026-05-04"), Plants: 60}}
	offered := make(map[market.Kind]bool)
	for _, in := range []int{8, 14, 20, 26, 33} {
		stems := 60
		own := b.Own()
		own.Orders = []book.Order{{ID: "Wedding", Kind: "event", DueOn: today.Add(in)}}
		own.OrderLines = []book.OrderLine{{Order: "Wedding", Line: 1, Colour: "blue", Stems: &stems, Use: "event"}, {Order: "Wedding", Line: 2, Role: "spike", Stems: &stems, Use: "event"},
			{Order: "Wedding", Line: 3, Role: "focal", Stems: &stems, Use: "event"}}
		s, err := look.NewSnapshot(own, 0, look.Morning(today), nil)
		if err != nil {
			t.Fatal(err)
		}
		for _, o := range market.OptionsFor(s, "Wedding", today.Add(in)) {
			if o.Row == "" {
				continue
			}
			offered[o.Kind] = true
			then := own.Own()
			if err := then.Apply(o.Change, book.OfForm); err != nil {
				t.Fatalf("%s %s: %v", o.Kind, o.Row, err)
			}
			after, err := look.NewSnapshot(then, 1, s.View, nil)
			if err != nil {
				t.Fatal(err)
			}
			if d := market.Dues(after)[0]; math.Abs(d.Chance-o.Chance) > 0.02 {
				t.Errorf("%s %s: %.2f was said, %.2f came", o.Kind, o.Row, o.Chance, d.Chance)
			}
		}
	}
	if !offered[market.Fleece] || !offered[market.Shade] && !offered[market.Pinch] {
		t.Errorf("offered is %v", offered)
	}
}
