package farm_test

import (
	"strings"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/plans"
)

func dateAsk(t *testing.T, s *look.Snapshot, fields string) (plans.DateAsk, error) {
	t.Helper()
	f := form(fields)
	a := plans.ReadDateAsk(s.Book, f, s.View.Today)
	return a, f.Faults()
}

// forDate works out what is asked for in fields that are right.
func forDate(t *testing.T, s *look.Snapshot, fields string) *plans.DateResult {
	t.Helper()
	a, err := dateAsk(t, s, fields)
	if err != nil {
		t.Fatal(err)
	}
	r, err := plans.ForDate(ctx, s, a, nil)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

func TestADateIsCutOnTheLastPickBefore(t *testing.T) {
	s := snapshot(t, winterFarm(t, "foothills-47n", "47", "2027-01-10"))
	for given, want := range map[string]string{
		"on=2027-07-17":                   "2027-07-16", // a Saturday after Friday's pick
		"on=2027-07-20":                   "2027-07-19", // a Tuesday: Friday is too long ago, so the day before
		"on=2027-07-19":                   "2027-07-16", // a Monday: Friday is three days before
		"on=2027-07-17 cut_on=2027-07-15": "2027-07-15",
	} {
		a, err := dateAsk(t, s, "crop=cosmos-single stems=40 "+given)
		if on := day.Must(want); err != nil || a.CutOn != on {
			t.Errorf("%s is cut on %s, want %s: %v", given, a.CutOn, want, err)
		}
		if a.Use != crop.Event || a.Method != "" || a.Chance != 0.9 {
			t.Errorf("%s: %+v", given, a)
		}
	}
	for given, want := range map[string]string{
		"crop=cosmos-single stems=40 on=2027-07-17 cut_on=2027-07-20": "after the event",
		"crop=cosmos-single stems=40 on=2026-07-17":                   "nothing can be sown",
		"crop=cosmos-single stems=40 on=2039-07-17":                   "too far ahead",
		"crop=cosmos-single stems=40 on=2027-07-17 use=salad":         "use",
		"crop=cosmos-single stems=-4 on=2027-07-17":                   "out of reason",
		"crop=sunflower-single stems=40 on=2027-07-17 method=tuber":   "not started as tuber",
	} {
		if _, err := dateAsk(t, s, given); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%s: %v, want %q", given, err, want)
		}
	}
}

func TestADateInTimeAndNever(t *testing.T) {
	winter := snapshot(t, winterFarm(t, "foothills-47n", "47", "2027-01-10"))
	r := forDate(t, winter, "crop=cosmos-single stems=30 on=2027-08-14 chance=80")
	if r.TooLate || r.Never || r.Answer.Of(plan.One) == nil || r.Answer.Of(plan.Half) == nil || r.Answer.Of(plan.Two) == nil {
		t.Fatalf("cosmos for August: %+v", r)
	}
	if start := r.Answer.Of(plan.One).Sowings[0].Started; start.Before(day.Must("2027-04-01")) || start.After(day.Must("2027-07-01")) {
		t.Errorf("cosmos for August are sown on %s", start)
	}
	if r := forDate(t, winter, "crop=cosmos-single stems=30 on=2027-12-18"); !r.Never || r.TooLate || len(r.Others) > 0 {
		t.Errorf("cosmos for Christmas: never %v, too late %v", r.Never, r.TooLate)
	}
}

// What frost may kill first says so, by how often: never in August, more and more often through October, rarely under a roof.
func TestFrostThatComesFirstIsKnown(t *testing.T) {
	s := snapshot(t, winterFarm(t, "foothills-47n", "47", "2027-01-10"))
	of := func(celsius float64, on string) float64 { return s.ColdBefore(celsius, day.Must(on)) }
	if r := forDate(t, s, "crop=cosmos-single stems=30 on=2027-08-14 chance=80"); r.Frosted != 0 {
		t.Errorf("cosmos for August freeze %v of the time", r.Frosted)
	}
	if r := forDate(t, s, "crop=cosmos-single stems=30 on=2027-10-09 chance=80"); r.Frosted != of(r.Profile.FrostKillC, r.CutOn.String()) {
		t.Errorf("cosmos for October freeze %v of the time, %s says %v", r.Frosted, r.CutOn, of(r.Profile.FrostKillC, r.CutOn.String()))
	}
	early, late, tunnel := of(-1, "2027-10-15"), of(-1, "2027-10-29"), of(-4, "2027-10-29")
	if early >= late || tunnel >= late || late < 0.2 {
		t.Errorf("frost by mid October %v, by its end %v, in a tunnel %v", early, late, tunnel)
	}
	if next := of(-1, "2028-10-29"); next != late {
		t.Errorf("a year on it is %v, not %v", next, late)
	}
}

// Where it is too late all other crops are tried beside each other, each for itself.
func TestWhatStillComesIsTriedAtOnce(t *testing.T) {
	summer := snapshot(t, winterFarm(t, "foothills-47n", "47", "2027-07-09"))
	late := forDate(t, summer, "crop=snapdragon stems=30 on=2027-09-04")
	if !late.TooLate || len(late.Others) == 0 {
		t.Fatalf("snapdragons in eight weeks: %+v", late)
	}
	for _, o := range late.Others {
		if o.Chance < 0.5 || o.Plants < 2 || o.Profile.ID == "snapdragon" || o.Profile.Lasts(o.Method) {
			t.Errorf("it could still come: %s, %d plants, %.2f", o.Profile.ID, o.Plants, o.Chance)
		}
	}
}

func TestASteeredCropHasItsProgramme(t *testing.T) {
	s := snapshot(t, winterFarm(t, "foothills-47n", "47", "2027-01-10"))
	a, err := dateAsk(t, s, "crop=chrysanthemum-controlled stems=60 on=2027-07-24")
	if err != nil {
		t.Fatal(err)
	}
	r, err := plans.ForDate(ctx, s, a, nil)
	if err != nil || r.Programme == nil {
		t.Fatalf("no programme: %+v, %v", r, err)
	}
	g := r.Programme
	if g.ShortFrom.Sub(g.Planted) != 18 || !g.ColourOn.After(g.ShortFrom) || !a.CutOn.After(g.ColourOn) {
		t.Errorf("planted %s, short days from %s, colour %s, cut %s", g.Planted, g.ShortFrom, g.ColourOn, a.CutOn)
	}
	if len(g.Days) != g.ColourOn.Sub(g.Planted) {
		t.Errorf("%d days are laid out, not every one", len(g.Days))
	}
	if other, err := dateAsk(t, s, "crop=cosmos-single stems=30 on=2027-08-14"); err == nil {
		if r, err := plans.ForDate(ctx, s, other, nil); err != nil || r.Programme != nil {
			t.Errorf("cosmos are not steered: %+v, %v", r.Programme, err)
		}
	}
}

// What would do for a role and a colour is set beside each other, and what the farm has goes before what would have to be started. What stands for years is answered
// from grown plants; a place without winter promises no tulips.
func TestADateInAnyWords(t *testing.T) {
	f := winterFarm(t, "foothills-47n", "47", "2027-01-10")
	for _, v := range []book.Variety{{Name: "Cosmos snow", Crop: "cosmos-single", Colour: "white", Role: "filler"}, {Name: "Ammi snow", Crop: "ammi", Colour: "white", Role: "filler"},
		{Name: "Zinnia red", Crop: "zinnia-tall", Colour: "red", Role: "focal"}} {
		if err := f.Add(ctx, "", v.Record()); err != nil {
			t.Fatal(err)
		}
	}
	winter := snapshot(t, f)
	white := forDate(t, winter, "what=white_filler stems=30 on=2027-08-14 chance=80")
	if len(white.Any) != 2 || white.Any[0].Answer.Best().Chance < 0.75 {
		t.Fatalf("white filler: %+v", white.Any)
	}
	for _, r := range white.Any {
		if r.Variety == "Zinnia red" || r.Answer.Best().Plants() > 4*30 {
			t.Errorf("%s with %d plants for 30 white fillers", r.Variety, r.Answer.Best().Plants())
		}
		for _, p := range r.Answer.Plans {
			for k, size := range p.Sizes {
				if size.Plants > 0 && k > 0 && p.Sizes[k-1].Plants > size.Plants {
					t.Errorf("%s: %+v", r.Variety, p.Sizes)
				}
			}
		}
	}
	if _, err := dateAsk(t, winter, "what=purple_unicorn stems=30 on=2027-08-14"); err == nil || !strings.Contains(err.Error(), "names nothing that the farm grows") {
		t.Errorf("unicorns: %v", err)
	}
	peony := forDate(t, winter, "what=peony stems=30 on=2027-06-05 chance=80")
	if !peony.Lasts || peony.First.IsZero() || !peony.First.Before(peony.Last) || peony.First.Before(day.Must("2027-04-20")) || peony.Last.After(day.Must("2027-07-05")) {
		t.Errorf("peonies flower from %s to %s", peony.First, peony.Last)
	}
	if best := peony.Answer.Best(); best == nil || best.Way != plan.Stand || best.Plants() > 120 {
		t.Errorf("peonies: %+v", best)
	}
	tropics := snapshot(t, winterFarm(t, "highland-5n", "5", "2027-01-10"))
	if tulip := forDate(t, tropics, "crop=tulip stems=30 on=2027-10-16"); !tulip.NoWinter || tulip.Answer.Best() != nil || !tulip.Never {
		t.Errorf("tulips where there is no winter: %+v", tulip)
	}
	if grown := forDate(t, tropics, "crop=peony stems=30 on=2027-06-05"); !grown.NoWinter || !grown.Lasts || grown.Answer.Best() != nil || peony.NoWinter {
		t.Errorf("peonies where there is no winter: %+v", grown)
	}
	cold := forDate(t, winter, "crop=tulip stems=30 on=2027-05-08")
	if cold.Answer.Best() != nil {
		t.Errorf("in January it is too late to set tulips for May: %+v", cold.Answer.Best().Sowings)
	}
}
