package play

import (
	"context"
	"math"
	"reflect"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/demo"
	"dewcount/farm/book"
	"dewcount/farm/store"
)

// planted is a season's farm with a plan that a beginner could make.
func planted(t *testing.T, seed uint64) *book.Book {
	t.Helper()
	b, err := begin(seed)
	if err != nil {
		t.Fatal(err)
	}
	add := func(id, variety string, method crop.Method, start, out string, plants int) {
		p := book.Planting{ID: id, Variety: variety, Method: method, StartedOn: day.Must(start), Plants: plants}
		if out != "" {
			p.PlantedOutOn = day.Must(out)
		}
		b.Plantings = append(b.Plantings, p)
	}
	add("Z1", "Zinnia rose", crop.Direct, "2027-05-16", "", 40)
	add("Z2", "Zinnia rose", crop.Direct, "2027-06-12", "", 30)
	add("C1", "Cosmos pearl", crop.Direct, "2027-05-14", "", 40)
	add("S1", "Sunflower amber", crop.Direct, "2027-05-12", "", 60)
	add("S2", "Sunflower amber", crop.Direct, "2027-06-05", "", 60)
	add("N1", "Snapdragon lemon", crop.Tray, "2027-03-12", "2027-05-13", 60)
	add("D1", "Dahlia plum", crop.Tuber, "2027-05-14", "", 20)
	add("A1", "Ammi cloud", crop.Direct, "2027-04-20", "", 40)
	return b
}

func setDay(b *book.Book, d day.Day) {
	for i := range b.Settings {
		if b.Settings[i].Key == "demo_day" {
			b.Settings[i].Value = d.String()
		}
	}
}

// played lets a season pass to its end, and takes an offer in three.
func played(t *testing.T, seed uint64, days int) *book.Book {
	t.Helper()
	b := planted(t, seed)
	place, err := b.Place()
	if err != nil {
		t.Fatal(err)
	}
	for i, o := range Offers(seed) {
		if i%3 == 0 {
			s := o.sale()
			b.Orders, b.OrderLines = append(b.Orders, s.order), append(b.OrderLines, linesOf(s)...)
		}
	}
	for !Over(place) {
		c, _, err := run(b, days)
		if err != nil {
			t.Fatal(err)
		}
		for _, r := range c.Correct {
			if r.Kind == book.Settings {
				setDay(b, day.Must(r.Field("value")))
			}
		}
		if place, err = b.Place(); err != nil {
			t.Fatal(err)
		}
	}
	return b
}

// However the days are passed, the same seed and decisions give the same season; another seed gives another. No stem that was cut is lost or sold twice.
func TestASeasonIsTheSameAgain(t *testing.T) {
	one, other := played(t, 3, 1), played(t, 3, 28)
	if !reflect.DeepEqual(one.Cuts, other.Cuts) || !reflect.DeepEqual(one.Counts, other.Counts) || !reflect.DeepEqual(one.Moves, other.Moves) {
		t.Error("day by day the season is not the one that runs on")
	}
	if reflect.DeepEqual(one.Cuts, played(t, 4, 28).Cuts) {
		t.Error("another seed gives the same season")
	}
	if c, why, err := run(one, 28); err != nil || !c.IsEmpty() || why.What != Ended {
		t.Errorf("after its end a season leaves %+v, %v, %v", c, why, err)
	}
	cut, sold := 0, 0
	for _, c := range one.Cuts {
		cut += c.Stems
	}
	in, out := 0, 0
	for _, a := range store.Of(one, day.At(Last.Add(1), 5, 0)).Accounts {
		in, out = in+a.Cut, out+a.Out()
		sold += a.Sold
	}
	place, _ := one.Place()
	if a := Until(one, place, Last.Add(1)); in != cut || out != cut || a.Stems != sold || a.Cut != cut || sold == 0 {
		t.Errorf("%d stems were cut, %d came in and %d went out, %d sold; the account has %d cut and %d sold", cut, in, out, sold, a.Cut, a.Stems)
	}
}

// The costs add up to the difference from a season that knew everything, and to know more is never worse: stems given out as well as can be, and offers chosen by somebody who knows,
// are worth no less.
func TestTheCostsAddUp(t *testing.T) {
	b := played(t, 3, 28)
	r, err := Reckon(context.Background(), b, func(float64) {})
	if err != nil {
		t.Fatal(err)
	}
	stems, money := 0, 0.0
	for _, c := range r.Costs() {
		stems, money = stems+c.Stems, money+c.Money
		if c.Of == OfCutting && (c.Stems != 0 || math.Abs(c.Money) > 1e-6) { // the crew cut all that was ready
			t.Errorf("cutting all cost %d stems and %.2f", c.Stems, c.Money)
		}
	}
	if stems != r.Best.Stems-r.Played.Stems || math.Abs(money-(r.Best.Money()-r.Played.Money())) > 1e-6 {
		t.Errorf("the costs add up to %d stems and %.2f, the season is %d and %.2f below the best", stems, money, r.Best.Stems-r.Played.Stems, r.Best.Money()-r.Played.Money())
	}
	if r.Given.Money() < r.Played.Money()-1e-9 || r.Knowing.Money() < r.Given.Money()-1e-9 || r.Best.Money() < r.Planned.Money() || r.Best.Money() < r.Cut.Money() {
		t.Errorf("somebody who knew more came to less: %+v", r)
	}
	for _, c := range r.Costs() {
		t.Logf("%-9s %6d stems %8.2f", c.Of, c.Stems, c.Money)
	}
	t.Logf("played %+v %.2f", r.Played, r.Played.Money())
	t.Logf("planned %+v %.2f", r.Planned, r.Planned.Money())
	t.Logf("best   %+v %.2f", r.Best, r.Best.Money())
}

// Who writes down more stems than stand there has those that stood there, and as many spoilt as there were; what was moved on already stays.
func TestCutsAreWhatStoodThere(t *testing.T) {
	b := planted(t, 5)
	setDay(b, day.Must("2027-08-12"))
	place, err := b.Place()
	if err != nil {
		t.Fatal(err)
	}
	field := demo.FieldOf(b, place, demo.WeatherOf(place), place.DemoDay)
	there := demo.Seen(field, "Z1")
	if there.Ready < 10 {
		t.Fatalf("only %d zinnias are ready", there.Ready)
	}
	b.Cuts = []book.Cut{{ID: "much", CutAt: day.At(place.DemoDay, 8, 0), Planting: "Z1", Stems: 5000}}
	if corrected := trueCuts(b, field, place.DemoDay); len(corrected) != 1 {
		t.Fatalf("%d cuts are corrected", len(corrected))
	}
	standing := 0
	for _, n := range field.Rungs("Z1") {
		standing += n
	}
	if c := b.Cuts[0]; c.Taken() > standing || c.Taken() < there.Ready || book.OrZero(c.Culled) != there.Culled {
		t.Errorf("of %d stems of which %d are ready and %d spoilt, %d were cut, %d of them spoilt", standing, there.Ready, there.Culled, c.Taken(), book.OrZero(c.Culled))
	}
	b.Cuts = []book.Cut{{ID: "few", CutAt: day.At(place.DemoDay, 8, 0), Planting: "Z1", Stems: 3}}
	if corrected := trueCuts(b, field, place.DemoDay); len(corrected) != 0 || b.Cuts[0].Stems != 3 {
		t.Errorf("three stems of %d are corrected to %+v", there.Ready, b.Cuts[0])
	}
}

// A season that is begun anew is as one that nobody has played, and the same again.
func TestASeasonIsBegunAnew(t *testing.T) {
	b := played(t, 3, 28)
	c, err := again(b, 9)
	if err != nil {
		t.Fatal(err)
	}
	if err := b.Apply(c, book.OfNotebook); err != nil {
		t.Fatal(err)
	}
	fresh, err := begin(9)
	if err != nil {
		t.Fatal(err)
	}
	for _, k := range book.Kinds() {
		if k == book.Authors {
			continue
		}
		now, want := b.Records(k), fresh.Records(k)
		if len(now) != len(want) {
			t.Errorf("%s: %d records, want %d", k.Name, len(now), len(want))
			continue
		}
		for _, r := range want {
			if is, ok := b.Record(k, r.ID()); !ok || !is.Equal(r) {
				t.Errorf("%s %s is not as on the first morning", k.Name, r.ID())
			}
		}
	}
}

// Offers are the same for all who play a season, none is for a day on which it can no longer be met, and what is asked can be had: at most a few dozen stems.
func TestOffers(t *testing.T) {
	for seed := range uint64(200) {
		all := Offers(seed)
		if !reflect.DeepEqual(all, Offers(seed)) || len(all) < 8 {
			t.Fatalf("season %d has %d offers, or others each time", seed, len(all))
		}
		seen := make(map[string]bool)
		for _, o := range all {
			if seen[o.ID] || o.On.Sub(o.Until) < 5 || o.Stems < 20 || o.Stems > 50 || o.Price <= usual[o.Crop] || o.On.After(stallEnds) || o.Asked.Before(First) {
				t.Errorf("season %d: %+v", seed, o)
			}
			seen[o.ID] = true
		}
	}
}

// An offer that was taken is given back for nothing a week before its day, and stays a promise after that: what is missing costs half of its price.
func TestAnOfferIsGivenBackInTime(t *testing.T) {
	b := planted(t, 6)
	place, err := b.Place()
	if err != nil {
		t.Fatal(err)
	}
	o := Offers(6)[0]
	s := o.sale()
	b.Orders, b.OrderLines = append(b.Orders, s.order), append(b.OrderLines, linesOf(s)...)
	sales := func(cancelled day.Day) float64 {
		b.Orders[len(b.Orders)-1].CancelledOn = cancelled
		return Until(b, place, o.On.Add(1)).Sales
	}
	never := sales(o.On.Add(-inTime))
	if late := sales(o.On.Add(1 - inTime)); math.Abs(never-late-aMissing*o.Price*float64(o.Stems)) > 1e-9 || sales(day.Day{}) != late {
		t.Errorf("%d stems at %.2f that never came cost %.2f when they are given back too late", o.Stems, o.Price, never-late)
	}
}
