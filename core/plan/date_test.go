package plan

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// The search by weeks and then by days finds what looking at every single day finds.
func TestSowForLikeEveryDay(t *testing.T) {
	p := profile(t, "sunflower-single")
	g := meadow(t, p, "foothills-47n", day.Must("2027-02-01"), 11)
	starts := startsOf(g, crop.Direct)
	want := DateWant{CutOn: day.Must("2027-07-23"), Use: crop.Event, Stems: 40, Chance: 0.8}
	answer := g.SowFor(t.Context(), starts, want, nil)
	every := g.tryDate(starts.Between(want.CutOn, want.CutOn, 1), want).single(want)
	if answer.Of(One) == nil || every == nil {
		t.Fatalf("no answer: %+v", answer)
	}
	both := []Sowing{every.Sowings[0].Sowing, answer.Of(One).Sowings[0].Sowing}
	unseen := g.Unseen().tryDate(both, want) // in the same weathers, which neither was chosen by
	one := answer.Of(One)
	(&DateAnswer{Plans: []*DatePlan{every, one}}).judge(unseen, want)
	if a, b := one, every; a.Chance < b.Chance-0.05 || float64(a.Plants()) > 1.1*float64(b.Plants()) {
		t.Errorf("%d plants on %s at %.2f; looking at every day %d on %s at %.2f", a.Plants(), a.Sowings[0].Started, a.Chance,
			b.Plants(), b.Sowings[0].Started, b.Chance)
	}
	if lead := want.CutOn.Sub(answer.Of(One).Sowings[0].Started); lead < p.TypicalDays[0]-10 || lead > p.TypicalDays[1]+25 {
		t.Errorf("sown %d days before, where %v are usual", lead, p.TypicalDays)
	}
	if two := answer.Of(Two); two == nil || two.Chance < answer.Of(One).Chance-0.05 && 4*two.Plants() > 3*answer.Of(One).Plants() {
		t.Errorf("two batches are less sure than one and not much smaller: %+v and %+v", two, answer.Of(One))
	}
	later := g.SowFor(t.Context(), starts, DateWant{CutOn: want.CutOn.Add(21), Use: want.Use, Stems: want.Stems, Chance: want.Chance}, nil)
	if !later.Of(One).Sowings[0].Started.After(answer.Of(One).Sowings[0].Started) {
		t.Errorf("for a later day it is sown on %s, not later than %s", later.Of(One).Sowings[0].Started, answer.Of(One).Sowings[0].Started)
	}
	if half := g.SowFor(t.Context(), starts, DateWant{CutOn: want.CutOn, Use: want.Use, Stems: 20, Chance: want.Chance}, nil); half.Of(One).Plants() > answer.Of(One).Plants() {
		t.Errorf("%d plants for half of the stems, %d for all", half.Of(One).Plants(), answer.Of(One).Plants())
	}
	if late := g.SowFor(t.Context(), starts, DateWant{CutOn: day.Must("2027-02-20"), Use: want.Use, Stems: 40, Chance: 0.9}, nil); late.Of(One) != nil {
		t.Errorf("sunflowers sown in February for February: %+v", late.Of(One))
	}
}

func TestHalfPinchedOfWhatMayBePinched(t *testing.T) {
	g := meadow(t, profile(t, "zinnia-tall"), "mediterranean-39n", day.Must("2027-02-01"), 11)
	want := DateWant{CutOn: day.Must("2027-07-09"), Use: crop.Event, Stems: 50, Chance: 0.9}
	answer := g.SowFor(t.Context(), startsOf(g, crop.Direct), want, nil)
	if answer.Of(Half) == nil || len(answer.Of(Half).Sowings) != 2 || answer.Of(Half).Sowings[0].Pinched == answer.Of(Half).Sowings[1].Pinched {
		t.Fatalf("half pinched: %+v", answer.Of(Half))
	}
	if len(answer.ByDate) < 10 {
		t.Errorf("%d days around the best", len(answer.ByDate))
	}
	never := meadow(t, profile(t, "sunflower-single"), "mediterranean-39n", day.Must("2027-02-01"), 11)
	if answer := never.SowFor(t.Context(), startsOf(never, crop.Direct), want, nil); answer.Of(Half) != nil {
		t.Errorf("a crop that is never pinched: %+v", answer.Of(Half))
	}
}

// In a country without frost a crop can be sown for any month; with frost there is a last day.
func TestLastSafe(t *testing.T) {
	try := func(id, region, today string) (day.Day, bool, bool) {
		p := profile(t, id)
		now := day.Must(today)
		g := meadow(t, p, region, now, 11)
		starts := startsOf(g, crop.Direct)
		var sowings []Sowing
		for d := now.Add(90); d.Before(now.Add(300)); d = d.Add(7) {
			for _, s := range starts.On(d) {
				if !s.Pinched {
					sowings = append(sowings, s)
				}
			}
		}
		return g.Try(sowings, crop.Market, now.Add(540)).LastSafe()
	}
	last, ok, bounded := try("zinnia-tall", "foothills-47n", "2027-01-10")
	if !ok || !bounded || last.Before(day.Must("2027-05-20")) || last.After(day.Must("2027-07-25")) {
		t.Errorf("at the foothills the last safe sowing of zinnias is %s, %v, %v", last, ok, bounded)
	}
	if _, ok, bounded := try("sunflower-single", "highland-5n", "2027-01-10"); !ok || bounded {
		t.Errorf("without frost there is a last day: %v, %v", ok, bounded)
	}
	if south, ok, bounded := try("zinnia-tall", "oceanic-43s", "2027-07-10"); ok && (!bounded || south.Before(day.Must("2027-10-15"))) {
		t.Errorf("in the south the last safe sowing is %s", south)
	}
}

// Where the day cannot be had as surely as wanted, nobody grows four times the plants for the last hundredth: of 100 weathers 60 give a stem a plant, one a
// quarter, the rest none. Ten stems take ten plants in 60 of them, forty in 61, and forty is the most that is reasonable.
func TestMorePlantsThanPayAreNotGrown(t *testing.T) {
	cut, sowing := day.Must("2027-07-23"), Sowing{Method: crop.Direct, Started: day.Must("2027-05-10")}
	each := make([]float32, 100)
	for k := range 60 {
		each[k] = 1
	}
	each[60] = 0.25
	unseen := &Try{Picks: []day.Day{cut}, Samples: len(each), Trials: []Trial{{Sowing: sowing, ByPick: [][]float32{each}}}}
	for chance, plants := range map[float64]int{0.9: 10, 0.5: 10} {
		answer := DateAnswer{Plans: []*DatePlan{{Way: One, Sowings: Evenly([]Sowing{sowing}, 1)}}}
		answer.judge(unseen, DateWant{CutOn: cut, Stems: 10, Chance: chance})
		if p := answer.Best(); p.Plants() != plants || p.Chance != 0.6 || p.Most != 40 || p.Ceiling < 0.609 || p.Ceiling > 0.611 {
			t.Errorf("for %v: %d plants of at most %d, %v sure of at most %v", chance, p.Plants(), p.Most, p.Chance, p.Ceiling)
		}
	}
}
