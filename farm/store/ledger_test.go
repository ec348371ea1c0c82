package store

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
)

var thursday = day.Must("2026-07-09")

// aFarm has a row of ball dahlias and one of tall zinnias, a fridge at 4 °C, a cool room at 12 °C and a drying loft.
func aFarm(t *testing.T) *book.Book {
	t.Helper()
	b := book.NewBook(nil)
	read := func(k *book.Kind, rows ...[]string) {
		for _, row := range rows {
			if _, err := b.Read(k, [][]string{row}); err != nil {
				t.Fatal(err)
			}
		}
	}
	read(book.Varieties, book.Variety{Name: "Ball wine", Crop: "dahlia-ball", Colour: "wine", Role: "focal"}.Record().Lines[0], book.Variety{Name: "Zinnia coral", Crop: "zinnia-tall", Colour: "coral", Role: "focal"}.Record().Lines[0])
	started := day.Of(2026, 5, 7)
	read(book.Plantings, book.Planting{ID: "DW1", Variety: "Ball wine", Method: crop.Tuber, StartedOn: started, Plants: 60}.Record().Lines[0],
		book.Planting{ID: "ZC1", Variety: "Zinnia coral", Method: crop.Direct, StartedOn: started, Plants: 90}.Record().Lines[0])
	read(book.Places, []string{"fridge", "fridge", "4", "6", "2026-07-01"}, []string{"cellar", "room", "12", "", "2026-07-01"}, []string{"loft", "loft", "22", "", "2026-07-01"})
	return b
}

func cut(id, planting string, stems int, at day.Moment) book.Record {
	return book.Cut{ID: id, Planting: planting, Stems: stems, CutAt: at}.Record()
}

func apply(t *testing.T, b *book.Book, c book.Change) {
	t.Helper()
	if err := b.Apply(c, book.OfForm); err != nil {
		t.Fatal(err)
	}
}

// Worked by hand. Thirty dahlias are cut on Thursday at 8; at noon twenty go into the fridge and on Friday at 8 five of these are sold; two of the ten
// that stayed in the shade are composted. A sixth of a day at 18 °C costs 2.6^-0.2 / 6 = 0.1377 days, 5/6 of one at 4 °C 2.6^-1.6 × 5/6 = 0.1806.
func TestALotByHand(t *testing.T) {
	b := aFarm(t)
	friday := thursday.Add(1)
	apply(t, b, book.Change{Add: []book.Record{cut("c1", "DW1", 30, day.At(thursday, 8, 0)),
		book.Move{ID: "m3", Lot: "c1", At: day.At(friday, 7, 0), What: book.Composted, Stems: 2, Note: "bruised"}.Record(),
		book.Move{ID: "m1", Lot: "c1", At: day.At(thursday, 12, 0), What: book.ToPlace, Stems: 20, Place: "fridge"}.Record(),
		book.Move{ID: "m2", Lot: "c1", At: day.At(friday, 8, 0), What: book.Sold, Stems: 5, From: "fridge", Order: "Market"}.Record()}})
	l := Of(b, day.At(friday, 8, 0))
	if len(l.Heaps) != 2 || len(l.Accounts) != 1 {
		t.Fatalf("%+v", l)
	}
	a := l.Accounts[0]
	if a.Cut != 30 || a.There != 23 || a.Sold != 5 || a.Composted != 2 || a.In() != a.Out() {
		t.Errorf("%+v", a)
	}
	shade, fridge := l.Heaps[0], l.Heaps[1] // what stood warm goes first
	if shade.Place != "" || fridge.Place != "fridge" || shade.Stems+fridge.Stems != 23 || fridge.Stems != 15-2 && fridge.Stems != 15 {
		t.Errorf("%+v", l.Heaps)
	}
	if want := 7.5 - 0.1377 - 0.1806; math.Abs(fridge.Now.Left[1]-want) > 0.001 {
		t.Errorf("in the fridge %.4f days are left, want %.4f", fridge.Now.Left[1], want)
	}
	if want := 7.5 - math.Pow(2.6, -0.2); math.Abs(shade.Now.Left[1]-want) > 0.001 {
		t.Errorf("in the shade %.4f days are left, want %.4f", shade.Now.Left[1], want)
	}

	// What was cut is corrected only as far as nothing sold is denied, and cannot be withdrawn under what became of it.
	if err := b.Check(cut("c1", "DW1", 6, day.At(thursday, 8, 0)), book.OfForm); err == nil {
		t.Error("a cut is made smaller than what was sold and composted of it")
	}
	if err := b.Check(cut("c1", "DW1", 7, day.At(thursday, 8, 0)), book.OfForm); err != nil {
		t.Error(err)
	}
	if err := b.Check(book.Move{ID: "m9", Lot: "c1", At: day.At(friday, 9, 0), What: book.Given, Stems: 24}.Record(), book.OfForm); err == nil {
		t.Error("more is given away than there is")
	}
	if err := b.Check(book.Move{ID: "m9", Lot: "c1", At: day.At(friday, 9, 0), What: book.Returned, Stems: 8}.Record(), book.OfForm); err == nil {
		t.Error("more comes back than left")
	}

	// Nobody spoke of the rest: two months later they are gone, and the account still adds up.
	l = Of(b, day.At(friday.Add(60), 8, 0))
	if a := l.Accounts[0]; len(l.Heaps) != 0 || a.Forgone != 23 || a.In() != a.Out() {
		t.Errorf("after two months %+v", l)
	}
}

// A fridge that fails overnight costs what its thermometer shows, for half a day beyond its last reading.
func TestAFridgeThatFailed(t *testing.T) {
	b := aFarm(t)
	apply(t, b, book.Change{Add: []book.Record{cut("c1", "DW1", 30, day.At(thursday, 8, 0)),
		book.Move{ID: "m1", Lot: "c1", At: day.At(thursday, 8, 0), What: book.ToPlace, Stems: 30, Place: "fridge"}.Record(),
		book.Reading{ID: "r2", Place: "fridge", At: day.At(thursday.Add(1), 4, 0), Celsius: 18}.Record(),
		book.Reading{ID: "r1", Place: "fridge", At: day.At(thursday, 22, 0), Celsius: 14}.Record(),
	}})
	l := Of(b, day.At(thursday.Add(2), 8, 0))
	rate := func(c float64) float64 { return math.Pow(2.6, (c-20)/10) }
	lost := 0.25*(rate(14)-rate(4)) + 0.5*(rate(18)-rate(4))
	if got := l.Heaps[0].Lost; math.Abs(got-lost) > 1e-9 {
		t.Errorf("it cost %.4f days, want %.4f", got, lost)
	}
	if want, got := 7.5-2*rate(4)-lost, l.Heaps[0].Now.Left[1]; math.Abs(got-want) > 1e-9 {
		t.Errorf("%.4f days are left, want %.4f", got, want)
	}
}

func TestAFarmWithoutPlacesKeepsNoLedger(t *testing.T) {
	b := aFarm(t)
	apply(t, b, book.Change{Add: []book.Record{cut("c1", "DW1", 30, day.At(day.Must("2026-06-30"), 8, 0)), cut("c2", "ZC1", 20, day.At(thursday, 8, 0))}})
	if l := Of(b, day.At(thursday, 9, 0)); len(l.Heaps) != 1 || l.Heaps[0].Lot != "c2" {
		t.Errorf("cut before there was a store: %+v", l)
	}
	b.StorePlaces = nil
	if l := Of(b, day.At(thursday, 9, 0)); len(l.Heaps)+len(l.Accounts) != 0 {
		t.Errorf("without places: %+v", l)
	}
}

// Whatever happens to stems, in whatever order it is told, corrected and taken back: none is lost and none is made.
func TestTheLedgerAlwaysAddsUp(t *testing.T) {
	for seed := range uint64(40) {
		random := rand.New(rand.NewPCG(seed, 5))
		b := aFarm(t)
		var lots, made []string
		kept := 0
		for n := range 120 {
			at := day.At(thursday.Add(random.IntN(6)), random.IntN(24), random.IntN(60))
			var c book.Change
			switch k := random.IntN(10); {
			case k < 2 || len(lots) == 0:
				id := fmt.Sprintf("c%d", n)
				c.Add = []book.Record{cut(id, []string{"DW1", "ZC1"}[random.IntN(2)], 1+random.IntN(60), at)}
				lots = append(lots, id)
			case k == 2:
				id := lots[random.IntN(len(lots))]
				if old, ok := b.Cut(id); ok {
					old.Stems = random.IntN(70)
					c.Correct = []book.Record{old.Record()}
				}
			case k == 3 && len(made) > 0:
				if r, ok := b.Record(book.Moves, made[random.IntN(len(made))]); ok {
					if err := b.MayGo(r); err != nil {
						continue
					}
					c.Withdraw = []book.Record{r}
				}
			default:
				id := fmt.Sprintf("m%d", n)
				places := []string{"", "fridge", "cellar", "loft"}
				m := book.Move{ID: id, Lot: lots[random.IntN(len(lots))], At: at, Stems: 1 + random.IntN(40), From: places[random.IntN(4)],
					What: []string{book.ToPlace, book.MadeUp, book.Sold, book.Returned, book.Given, book.Composted, book.Tinted, book.Kept, book.Unsold}[random.IntN(9)]}
				if m.What == book.Kept || m.What == book.Unsold {
					m.Order = "a wedding"
				}
				if m.What == book.ToPlace || m.What == book.Returned {
					m.Place = places[1+random.IntN(3)]
				}
				if m.What == book.Tinted {
					m.Colour = "blue"
				}
				c.Add = []book.Record{m.Record()}
				made = append(made, id)
			}
			trial := b.Own()
			if err := trial.Apply(c, book.OfForm); err != nil {
				continue // refused, as a phone would be
			}
			b = trial
			kept++
			l := Of(b, day.At(thursday.Add(random.IntN(12)), 12, 0))
			there := make(map[string]int)
			for _, h := range l.Heaps {
				if h.Stems <= 0 || h.Crop == nil {
					t.Fatalf("seed %d: %+v", seed, h)
				}
				there[h.Lot] += h.Stems
			}
			for _, a := range l.Accounts {
				stems, _, _ := b.LotOf(a.Lot)
				if a.In() != a.Out() || a.There != there[a.Lot] || a.Cut != stems || min(a.There, a.MadeUp, a.Sold, a.Given, a.Composted, a.Forgone) < 0 {
					t.Fatalf("seed %d after %d: %+v, %d there", seed, n, a, there[a.Lot])
				}
			}
		}
		if kept < 40 {
			t.Fatalf("seed %d: only %d records were kept", seed, kept)
		}
	}
}
