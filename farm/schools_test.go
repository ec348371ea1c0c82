package farm_test

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/plans"
	"dewcount/farm/work"
)

// A school that can be chosen changes what it is said to go into: spacing, how a row is cut and regrows, jobs, and for which weeks is sown.
func TestSchoolsDoWhatTheySay(t *testing.T) {
	f := winterFarm(t, "foothills-47n", "47", "2027-07-20")
	stems := 80
	for _, r := range []book.Record{book.Variety{Name: "Dahlia wine", Crop: "dahlia-dinnerplate", Colour: "wine"}.Record(),
		book.Planting{ID: "DW", Variety: "Dahlia wine", Bed: "A", Method: crop.Tuber, StartedOn: day.Must("2027-04-20"), Plants: 20}.Record(),
		book.Planting{ID: "ZC", Variety: "Zinnia coral", Bed: "A", Method: crop.Direct, StartedOn: day.Must("2027-05-20"), Plants: 20}.Record(),
		book.Order{ID: "Fete", Kind: "event", DueOn: day.Must("2027-09-18")}.Record(), book.OrderLine{Order: "Fete", Line: 1, Crop: "cosmos-single", Stems: &stems}.Record()} {
		if err := f.Add(ctx, "", r); err != nil {
			t.Fatal(err)
		}
	}
	with := func(crop, question, school string) *look.Snapshot {
		t.Helper()
		b := snapshot(t, f).Book.Own()
		b.Schools = append(b.Schools, book.School{Crop: crop, Question: question, School: school})
		s, err := look.NewSnapshot(b, 0, look.Morning(day.Must("2027-07-20")), nil)
		if err != nil {
			t.Fatal(err)
		}
		return s
	}
	zinnia := snapshot(t, f).Book.Crop("zinnia-tall")
	table := zinnia.SpacingCM
	if close, wide := with("zinnia-tall", "density", "close").Book.SpacingCM("Zinnia coral", zinnia), with("zinnia-tall", "density", "wide").Book.SpacingCM("Zinnia coral", zinnia); close != 0.75*table || wide != 1.25*table {
		t.Errorf("close %v, wide %v, in the table %v cm", close, wide, table)
	}
	row := func(s *look.Snapshot, id string) *struct{ Keep, Disbudded bool } {
		g := s.Model.Plantings[s.Index(id)].Growth
		return &struct{ Keep, Disbudded bool }{g.KeepBuds, g.Disbudded}
	}
	if usual, kept := row(snapshot(t, f), "ZC"), row(with("zinnia-tall", "side-buds", "keep-buds"), "ZC"); usual.Keep || !kept.Keep {
		t.Errorf("side buds are kept: usually %v, where it is chosen %v", usual.Keep, kept.Keep)
	}
	fed := with("zinnia-tall", "additive", "food")
	if usual, longer := zinnia.Vase.Days[0], fed.Model.Plantings[fed.Index("ZC")].Growth.Profile.Vase.Days[0]; longer <= usual {
		t.Errorf("with flower food %v days, without %v", longer, usual)
	}
	place, err := fed.Book.Place()
	if err != nil {
		t.Fatal(err)
	}
	place.StemsAnHour = 200 // 18 s a stem; two more are 180 an hour
	if got := with("zinnia-tall", "strip", "all").Book.StemsAnHour(place, zinnia); got != 180 {
		t.Errorf("stripped bare %v stems an hour", got)
	}
	season := func(crop, question, school string) *look.Season {
		t.Helper()
		s, err := look.NewSeason(with(crop, question, school).Book, day.Must("2027-07-20"), 2027, nil)
		if err != nil {
			t.Fatal(err)
		}
		return s
	}
	disbuds := func(s *look.Season) int {
		n := 0
		for _, a := range work.Appointments(s) {
			if len(a.What) > 6 && a.What[:6] == "Disbud" {
				n++
			}
		}
		return n
	}
	if usual, always := disbuds(season("dahlia-dinnerplate", "disbud", "events")), disbuds(season("dahlia-dinnerplate", "disbud", "always")); usual != 0 || always == 0 {
		t.Errorf("disbudding: %d jobs for events, of which none wants them, %d always", usual, always)
	}
	if !row(with("dahlia-dinnerplate", "disbud", "always"), "DW").Disbudded || row(snapshot(t, f), "DW").Disbudded {
		t.Error("a row that is disbudded all season grows like any")
	}
	s := snapshot(t, f)
	a := ask(t, s, "crop=cosmos-single stems=60 from=2027-09-06 until=2027-09-26 chance=70 by=dates existing=1")
	p, err := plans.Successions(ctx, s, a, nil)
	if err != nil {
		t.Fatal(err)
	}
	for _, w := range p.Bloom.Weeks {
		want := 0.0
		if w.Monday == day.Must("2027-09-13") {
			want = 80
		}
		if w.Want != want {
			t.Errorf("in the week of %s %v stems are wanted, the orders want %v", w.Monday, w.Want, want)
		}
	}
}

// Every question says what goes by it.
func TestEveryQuestionSaysWhereItActs(t *testing.T) {
	for _, p := range snapshot(t, winterFarm(t, "foothills-47n", "47", "2027-07-20")).Book.Crops() {
		for _, q := range p.Questions() {
			if q.Acts == "" {
				t.Errorf("%s: nobody says what goes by %q", p.ID, q.ID)
			}
		}
	}
}
