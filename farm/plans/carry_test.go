package plans

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// By hand: two zinnias of one bed go into the other, on the same weekday a year later; tulips stay in a bed in which none stood; a peony stays where it is; what the
// next year has already is not made twice; carried a second time nothing is left to do.
func TestAPlanIsCarriedOver(t *testing.T) {
	b := book.NewBook(nil)
	for key, value := range map[string]string{"name": "Meadow", "latitude": "46.9", "longitude": "7.2", "elevation_m": "400", "timezone": "Europe/Zurich", "pick_days": "tue fri"} {
		b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
	}
	ten, one := 10.0, 1.2
	b.Beds = []book.Bed{{ID: "A", LengthM: &ten, WidthM: &one}, {ID: "B", LengthM: &ten, WidthM: &one}, {ID: "T", LengthM: &ten, WidthM: &one, Cover: "tunnel"}}
	b.Varieties = []book.Variety{{Name: "Coral", Crop: "zinnia-tall"}, {Name: "Blush peony", Crop: "peony"}, {Name: "Blue", Crop: "cornflower"}}
	for _, p := range b.Crops() {
		if p.Life == crop.Perennial && p.HasStart(crop.Established) {
			b.Varieties[1].Crop = p.ID
			break
		}
	}
	pinched := day.Must("2026-06-12")
	b.Plantings = []book.Planting{{ID: "Z1", Variety: "Coral", Bed: "A", Method: crop.Direct, StartedOn: day.Must("2026-05-07"), PinchedOn: pinched, Plants: 60, Squares: "1-4"},
		{ID: "Z2", Variety: "Coral", Bed: "A", Method: crop.Direct, StartedOn: day.Must("2026-06-04"), Plants: 60, Succession: "s"},
		{ID: "P", Variety: "Blush peony", Bed: "B", Method: crop.Established, StartedOn: day.Must("2026-03-01"), Plants: 10},
		{ID: "C1", Variety: "Blue", Bed: "B", Method: crop.Direct, StartedOn: day.Must("2026-04-02"), Plants: 40}, {ID: "C9", Variety: "Blue", Bed: "B", Method: crop.Direct, StartedOn: day.Must("2027-04-03"), Plants: 40}}
	s, err := look.NewSnapshot(b, 0, look.Morning(day.Must("2026-11-10")), nil)
	if err != nil {
		t.Fatal(err)
	}
	all := CarryOver(s, 2026)
	if len(all) != 2 {
		t.Fatalf("%d are carried over: %+v", len(all), all)
	}
	first := all[0]
	if first.From.ID != "Z1" || first.To.StartedOn != day.Must("2027-05-06") || first.To.StartedOn.Weekday() != first.From.StartedOn.Weekday() || first.To.PinchedOn != pinched.Add(364) || first.To.Squares != "" || first.To.ID == "Z1" {
		t.Errorf("%+v", first)
	}
	for _, c := range all {
		if c.To.Bed != "B" || !c.Moved || c.Past || c.To.Succession != "" {
			t.Errorf("%s goes to %s: %+v", c.From.ID, c.To.Bed, c)
		}
	}
	if all[0].To.ID == all[1].To.ID {
		t.Error("two plantings have one name")
	}
	then := b.Own()
	for _, c := range all {
		if err := then.Apply(book.Change{Add: []book.Record{c.To.Record()}}, book.OfForm); err != nil {
			t.Errorf("%s: %v", c.To.ID, err)
		}
	}
	again, err := look.NewSnapshot(then, 1, s.View, nil)
	if err != nil {
		t.Fatal(err)
	}
	if more := CarryOver(again, 2026); len(more) != 0 {
		t.Errorf("carried over a second time: %+v", more)
	}
	b.Beds = b.Beds[:1]
	alone, err := look.NewSnapshot(b, 0, s.View, nil)
	if err != nil {
		t.Fatal(err)
	}
	if c := CarryOver(alone, 2026)[0]; c.To.Bed != "A" || !c.NoOther {
		t.Errorf("with one bed: %+v", c)
	}
}

// Of a plan of one zinnia row that a market wants more of than it can ever give, all possible years are short in every week; of one that wants two stems in July, few are;
// stems and hours add up.
func TestPossibleYears(t *testing.T) {
	for _, c := range []struct {
		stems       int
		least, most int // years that are short
	}{{5000, 20, 20}, {2, 0, 4}} {
		b := book.NewBook(nil)
		for key, value := range map[string]string{"name": "Meadow", "latitude": "46.9", "longitude": "7.2", "elevation_m": "400", "timezone": "Europe/Zurich", "pick_days": "tue fri", "stems_an_hour": "100"} {
			b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
		}
		b.Varieties = []book.Variety{{Name: "Coral", Crop: "zinnia-tall"}}
		b.Plantings = []book.Planting{{ID: "Z1", Variety: "Coral", Method: crop.Direct, StartedOn: day.Must("2027-04-29"), Plants: 120}}
		b.Orders = []book.Order{{ID: "M", Kind: "market", DueOn: day.Must("2027-08-07"), Repeats: "weekly", Until: day.Must("2027-08-28")}}
		b.OrderLines = []book.OrderLine{{Order: "M", Line: 1, Crop: "zinnia-tall", Stems: &c.stems}}
		s, err := look.NewSeason(b, day.Must("2027-01-10"), 2027, nil)
		if err != nil {
			t.Fatal(err)
		}
		p := PossibleYears(s)
		short := 0
		for i, y := range p.Years {
			if y.Short > 0 {
				short++
			}
			if y.Short > p.Wanted || i > 0 && y.Short > p.Years[i-1].Short || y.Stems <= 0 || y.Hours < y.Stems/100-1e-6 || y.Hours > y.Stems/100+1e-6 || y.Busiest > y.Hours {
				t.Errorf("year %d: %+v of %d weeks", i, y, p.Wanted)
			}
		}
		if len(p.Years) != 20 || p.Wanted != 4 || p.Dues != 4 || p.Years[0].Filled != 4-p.Years[0].Short || short < c.least || short > c.most {
			t.Errorf("of %d years %d are short of %d stems, in %d weeks", len(p.Years), short, c.stems, p.Wanted)
		}
		if c.stems == 5000 && (p.Years[0].Worst != "zinnia-tall" || p.Years[0].Short != 4) {
			t.Errorf("%+v", p.Years[0])
		}
	}
}
