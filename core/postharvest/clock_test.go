package postharvest

import (
	"math"
	"math/rand/v2"
	"testing"

	"dewcount/core/crop"
	"dewcount/croptable"
)

func profile(t *testing.T, id string) *crop.Profile {
	t.Helper()
	for _, e := range croptable.Shipped() {
		if e.ID == id {
			return e.Profile()
		}
	}
	t.Fatalf("no crop %s", id)
	return nil
}

func near(a, b float64) bool { return math.Abs(a-b) < 0.005 }

// Worked by hand. A ball dahlia has 5 to 10 days at 20 °C and a q10 of 2.6: at 4 °C a day costs 2.6^-1.6 = 0.2168 days, so that two days there and
// half a day in a van at 25 °C (2.6^0.5 = 1.6125) take 0.4336 + 0.8062 = 1.24 of them.
func TestADahliaInTheFridgeByHand(t *testing.T) {
	p := profile(t, "dahlia-ball")
	s := After(p, crop.Half, History{{2, 4}, {0.5, 25}})
	for i, want := range [3]float64{5 - 1.24, 7.5 - 1.24, 10 - 1.24} {
		if !near(s.Left[i], want) {
			t.Errorf("%.3f days left, want %.3f", s.Left[i], want)
		}
	}
	if s.Rung != crop.Half || s.Opened != 0 || s.Hurt != 0 {
		t.Errorf("a dahlia does not open in water: %+v", s)
	}
	if got := Ages(p, 20); got != 1 {
		t.Errorf("a day at 20 °C costs %v", got)
	}
	if got := Ages(p, 14) / Ages(p, 4); !near(got, 2.6) {
		t.Errorf("ten degrees make %v, q10 is 2.6", got)
	}
}

// Worked by hand. A tall zinnia is hurt below 7 °C: with a q10 of 2 a day at 7 costs 2^-1.3 = 0.4061, one at 4 °C three tenths more for each of three degrees,
// 1.3061: more than a day in the room.
func TestColdThatHurtsCostsMoreThanItSaves(t *testing.T) {
	p := profile(t, "zinnia-tall")
	if p.Vase.Q10 != 2 || p.Store.ChillBelowC != 7 {
		t.Fatalf("the crop table has changed: %+v %+v", p.Vase, p.Store)
	}
	for celsius, want := range map[float64]float64{20: 1, 7: 0.4061, 6: 0.7061, 4: 1.3061} {
		if got := Ages(p, celsius); !near(got, want) {
			t.Errorf("a day at %v °C costs %.4f, want %.4f", celsius, got, want)
		}
	}
	if s := After(p, crop.Open, History{{1.5, 4}, {1, 18}}); s.Hurt != 1.5 {
		t.Errorf("hurt for %v days", s.Hurt)
	}
	if best, _ := Coolest(p, 4, 18, 12); best != 12 {
		t.Errorf("it is kept at %v", best)
	}
	if best, _ := Coolest(p, 4, 5); best != 5 {
		t.Errorf("where all is too cold it is kept at %v", best)
	}
}

// Worked by hand. A tulip opens a rung in so many days at 20 °C, and by its q10 more slowly at 4 °C; what opens a little goes half as far; nothing opens
// beyond its last rung.
func TestOpeningInWaterByHand(t *testing.T) {
	p := profile(t, "tulip")
	if p.InWater.Opens != "yes" {
		t.Fatal("the crop table has changed")
	}
	each := p.InWater.DaysPerRung
	for _, c := range []struct {
		h      History
		rung   crop.Rung
		opened float64
	}{
		{nil, crop.Colour, 0}, {History{{each, 20}}, crop.Lifting, 1}, {History{{0.9 * each, 20}}, crop.Colour, 0.9},
		{History{{each, 20}, {each, 10}}, crop.Lifting, 1 + 1/p.Vase.Q10}, {History{{100, 20}}, p.InWater.To, float64(p.InWater.To - crop.Colour)},
	} {
		if s := After(p, crop.Colour, c.h); s.Rung != c.rung || !near(s.Opened, c.opened) {
			t.Errorf("after %v it stands on %s, %.3f rungs on; want %s, %.3f", c.h, s.Rung, s.Opened, c.rung, c.opened)
		}
	}
	if days, ok := Until(p, crop.Colour, crop.Third, 20); !ok || !near(days, 2*each) {
		t.Errorf("a third open after %v days", days)
	}
	if _, ok := Until(p, crop.Colour, crop.Spent, 20); ok {
		t.Error("it opens beyond its last rung")
	}
	q := profile(t, "dahlia-ball")
	if _, ok := Until(q, crop.Third, crop.Half, 20); ok {
		t.Error("a dahlia opens in water")
	}
}

// Worked by hand. Single cosmos is cut to half open at the latest and lasts 4 to 6 days then. From half to open it takes 18 °Cd on the plant; with a base of 5, an
// optimum of 25 and a ceiling of 38, 20 °C are 14.50 of them a day, so that a stem cut open has spent 18 / 14.50 = 1.24 days. Going over it has none.
func TestLateStemsHaveLessLeft(t *testing.T) {
	p := profile(t, "cosmos-single")
	if Fresh(p) != crop.Half {
		t.Fatal("the crop table has changed")
	}
	for cut, want := range map[crop.Rung]float64{crop.Colour: 5, crop.Half: 5, crop.Open: 5 - 1.2415, crop.Over: 0, crop.Spent: 0} {
		if got := After(p, cut, nil).Left[1]; !near(got, want) {
			t.Errorf("cut on %s it has %.4f days, want %.4f", cut, got, want)
		}
	}
}

// Of every crop, rung and history: it never closes, never opens beyond its last rung, never lives longer by staying longer, a history that is parted
// is the same, and colder never costs more where cold does no harm.
func TestClocksKeepTheirLaws(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 2))
	for _, e := range croptable.Shipped() {
		p := e.Profile()
		for range 60 {
			cut := crop.Rung(random.IntN(crop.Rungs))
			stay := Stay{4 * random.Float64(), 30 * random.Float64()}
			h := History{{2 * random.Float64(), 25 * random.Float64()}, stay}
			a, b := After(p, cut, h[:1]), After(p, cut, h)
			if b.Rung < a.Rung || b.Rung > max(cut, p.InWater.To) || b.Left[1] > a.Left[1] || b.Left[0] > b.Left[1] || b.Left[1] > b.Left[2] || b.Left[0] < 0 {
				t.Fatalf("%s cut on %s: %+v, then %+v", p.ID, cut, a, b)
			}
			parted := After(p, cut, History{h[0], {stay.Days / 3, stay.Celsius}, {2 * stay.Days / 3, stay.Celsius}})
			if math.Abs(parted.Left[1]-b.Left[1]) > 1e-9 || math.Abs(parted.Opened-b.Opened) > 1e-9 {
				t.Fatalf("%s: parted %+v, whole %+v", p.ID, parted, b)
			}
			cooler := max(p.Store.ChillBelowC, stay.Celsius-3)
			if stay.Celsius >= p.Store.ChillBelowC && Ages(p, cooler) > Ages(p, stay.Celsius) || Ages(p, stay.Celsius) <= 0 {
				t.Fatalf("%s ages by %v at %v °C", p.ID, Ages(p, stay.Celsius), stay.Celsius)
			}
		}
	}
}
