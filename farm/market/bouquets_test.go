package market_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// withPosies is the july farm with a wedding of posies instead: of so many, four white snapdragons and one red in each; once or every week.
func withPosies(t *testing.T, posies int, repeats string) *look.Snapshot {
	t.Helper()
	s := julyFarm(t)
	b := s.Book.Own()
	b.RecipeLines = []book.RecipeLine{{Recipe: "Posy", Crop: "snapdragon", Colour: "white", Stems: 4}, {Recipe: "Posy", Crop: "snapdragon", Colour: "red", Stems: 1}}
	b.Orders = []book.Order{{ID: "Wedding", Kind: "event", DueOn: day.Must("2026-07-18"), Repeats: repeats}}
	b.OrderLines = []book.OrderLine{{Order: "Wedding", Line: 1, Recipe: "Posy", Quantity: &posies, Use: "event"}}
	posy, err := look.NewSnapshot(b, 1, s.View, nil)
	if err != nil {
		t.Fatal(err)
	}
	return posy
}

// done returns what is due on a day after an option was chosen.
func done(t *testing.T, s *look.Snapshot, o market.Option, on day.Day) (market.Due, *look.Snapshot) {
	t.Helper()
	b := s.Book.Own()
	if err := b.Apply(o.Change, book.OfForm); err != nil {
		t.Fatalf("%s: %v", o.Kind, err)
	}
	then, err := look.NewSnapshot(b, 1, s.View, nil)
	if err != nil {
		t.Fatal(err)
	}
	for _, d := range market.Dues(then) {
		if d.On == on && d.Order.ID == "Wedding" {
			return d, then
		}
	}
	t.Fatalf("%s: nothing is due", o.Kind)
	return market.Due{}, nil
}

// Bouquets that lack an ingredient are made with fewer stems of it, with those of another crop, or there are fewer of them; each does what it says. Of what comes
// every week one day alone is changed.
func TestBouquetsThatLackAnIngredient(t *testing.T) {
	saturday := day.Must("2026-07-18")
	for _, c := range []struct {
		posies  int
		repeats string
		kinds   []market.Kind
	}{{6, "", []market.Kind{market.Slimmer, market.Smaller}}, {6, "weekly", []market.Kind{market.Slimmer, market.Smaller}}, {8, "weekly", []market.Kind{market.Looser, market.Smaller, market.Buy}}} {
		s := withPosies(t, c.posies, c.repeats)
		kinds := make(map[market.Kind]market.Option)
		for _, o := range market.OptionsFor(s, "Wedding", saturday) {
			then, after := done(t, s, o, saturday)
			if math.Abs(then.Chance-o.Chance) > 0.02 {
				t.Errorf("%s: all of it was to be filled %.2f of the time and is %.2f", o.Kind, o.Chance, then.Chance)
			}
			stems := 0
			for _, w := range then.Lines {
				stems += w.Wanted
			}
			switch o.Kind {
			case market.Slimmer:
				if o.N < 4 || stems != c.posies*o.N {
					t.Errorf("%d posies of %d stems are %d", c.posies, o.N, stems)
				}
			case market.Smaller:
				if stems != 5*o.N {
					t.Errorf("%d posies of 5 are %d stems", o.N, stems)
				}
			}
			if next := saturday.Add(7); c.repeats != "" && (o.Kind == market.Slimmer || o.Kind == market.Smaller) {
				for _, d := range market.Dues(after) {
					usual := 0
					for _, w := range d.Lines {
						usual += w.Wanted
					}
					if d.On == next && usual != c.posies*5 {
						t.Errorf("%s: a week later %d stems are wanted", o.Kind, usual)
					}
				}
			}
			kinds[o.Kind] = o
		}
		for _, k := range c.kinds {
			if _, ok := kinds[k]; !ok {
				t.Errorf("%d: nobody offers to %s", c.posies, k)
			}
		}
		if o, ok := kinds[market.Looser]; ok && o.What != "Delphinium" || !strings.Contains(o.For, "snapdragon") && !strings.Contains(o.For, "Snapdragon") {
			t.Errorf("offered is %q for %q", o.What, o.For)
		}
	}
}

// A substitute is taken for what is short and for nothing else: twelve white snapdragons there are, and as long as they do no delphinium goes.
func TestSubstitutesComeSecond(t *testing.T) {
	s := julyFarm(t)
	for _, c := range []struct {
		stems  int
		others bool
	}{{12, false}, {60, true}} {
		b := s.Book.Own()
		b.Orders = b.Orders[:1]
		b.OrderLines = []book.OrderLine{{Order: "Wedding", Line: 1, Crop: "snapdragon", Colour: "white", Stems: &c.stems, Use: "event", Substitutes: "delphinium"}}
		then, err := look.NewSnapshot(b, 1, s.View, nil)
		if err != nil {
			t.Fatal(err)
		}
		var of []string
		for _, g := range market.Dues(then)[0].Lines[0].From {
			of = append(of, g.Variety)
		}
		if !slices.Contains(of, "Snap white") || slices.Contains(of, "Snap red") || slices.Contains(of, "Delphinium white") != c.others {
			t.Errorf("%d are given of %v", c.stems, of)
		}
	}
	b := s.Book.Own()
	if err := b.Apply(book.Change{Add: []book.Record{book.RecipeLine{Recipe: "Posy", Crop: "snapdragon", Stems: 1, Substitutes: "delphinium / moonflower"}.Record()}}, book.OfForm); err == nil || !strings.Contains(err.Error(), "moonflower") {
		t.Errorf("a crop that is none stands in for another: %v", err)
	}
}

// A row that is to be pulled out before a wedding can be left standing, and one in its second flush that is cut with its side buds gives longer stems without them.
func TestRowsStandLongerAndAreCutLonger(t *testing.T) {
	saturday := day.Must("2026-07-18")
	long, sixty := 50.0, 60
	for _, c := range []struct {
		kind market.Kind
		with func(b *book.Book, p *book.Planting)
	}{
		{market.Leave, func(_ *book.Book, p *book.Planting) { p.EndedOn = saturday.Add(-1) }},
		{market.Long, func(b *book.Book, p *book.Planting) {
			p.CutStyle = "keep-buds"
			b.Cuts = append(b.Cuts, book.Cut{ID: "first", Planting: p.ID, CutAt: day.At(saturday.Add(-12), 7, 0), Stems: 150})
		}},
	} {
		s := julyFarm(t)
		b := s.Book.Own()
		b.Orders = b.Orders[:1]
		b.OrderLines = []book.OrderLine{{Order: "Wedding", Line: 1, Crop: "snapdragon", Colour: "white", Stems: &sixty, Use: "event", MinLengthCM: &long}}
		at := slices.IndexFunc(b.Plantings, func(p book.Planting) bool { return p.ID == "SW" })
		c.with(b, &b.Plantings[at])
		before, err := look.NewSnapshot(b, 1, s.View, nil)
		if err != nil {
			t.Fatal(err)
		}
		offered := false
		for _, o := range market.OptionsFor(before, "Wedding", saturday) {
			if got, _ := done(t, before, o, saturday); math.Abs(got.Chance-o.Chance) > 0.02 {
				t.Errorf("%s: %.2f was said, %.2f comes of it", o.Kind, o.Chance, got.Chance)
			}
			if o.Kind == c.kind {
				offered = o.Row == "SW" && o.Short < o.Before
			}
		}
		if !offered {
			t.Errorf("nobody offers to %s", c.kind)
		}
	}
}
