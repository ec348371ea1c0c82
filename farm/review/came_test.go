package review

import (
	"context"
	"math"
	"path/filepath"
	"slices"
	"testing"

	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/croptable"
	"dewcount/demo"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/records"
)

// demoBook is the demo farm as it is on its first day.
func demoBook(t *testing.T) *book.Book {
	t.Helper()
	store, err := records.Open(context.Background(), filepath.Join(t.TempDir(), "farm.db"))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { store.Close() })
	if err := demo.Fill(context.Background(), store); err != nil {
		t.Fatal(err)
	}
	b, _, err := store.Load(context.Background())
	if err != nil {
		t.Fatal(err)
	}
	return b
}

// What came is what is on record, to the stem: of all, of each crop and planting, and of what was thrown away; what became of stems is what the ledger has. What was expected
// has its bounds in order, and knows nothing of the year: with other counts and cuts it is the same.
func TestTheReviewAgreesWithTheBooks(t *testing.T) {
	b := demoBook(t)
	some := 7
	b.Cuts = slices.Clone(b.Cuts)
	b.Cuts[len(b.Cuts)-1].Left = &some
	l, err := CameOf(morning(t, b, nil), 2026, func(float64) {})
	if err != nil {
		t.Fatal(err)
	}
	stems, thrown, left := 0, 0, 0
	byPlanting := make(map[string]int)
	for _, c := range b.Cuts {
		stems, thrown, left = stems+c.Stems, thrown+book.OrZero(c.Culled), left+book.OrZero(c.Left)
		byPlanting[c.Planting] += c.Stems
	}
	inCrops, inRows := Came{}, Came{}
	for _, c := range l.Crops {
		inCrops.Stems, inCrops.Plants = inCrops.Stems+c.Stems, inCrops.Plants+c.Thrown()
	}
	for _, p := range l.Plantings {
		inRows.Stems, inRows.Plants = inRows.Stems+p.Stems, inRows.Plants+p.Thrown()
		if p.Stems != byPlanting[p.Planting] {
			t.Errorf("%s: %d stems came, %d are on record", p.Planting, p.Stems, byPlanting[p.Planting])
		}
		if !slices.IsSorted(p.Expected[:]) {
			t.Errorf("%s: its bounds are %v", p.Planting, p.Expected)
		}
	}
	if l.All.Left != left || left != some {
		t.Errorf("%d stems were left standing, the year has %d", left, l.All.Left)
	}
	if l.All.Stems != stems || inCrops.Stems != stems || inRows.Stems != stems || l.All.Thrown() != thrown || inCrops.Plants != thrown || inRows.Plants != thrown || stems == 0 || thrown == 0 {
		t.Errorf("%d stems and %d thrown away are on record; the year has %d and %d, its crops %d and %d, its rows %d and %d", stems, thrown, l.All.Stems, l.All.Thrown(), inCrops.Stems, inCrops.Plants, inRows.Stems, inRows.Plants)
	}
	years := Years(b, demo.FirstDay)
	year := years[slices.IndexFunc(years, func(y Year) bool { return y.Year == 2026 })]
	if l.All.Untold()+l.All.Fates.Of() != l.All.Stems || l.All.Untold() == 0 {
		t.Errorf("of %d stems %d are accounted for and %d not", l.All.Stems, l.All.Fates.Of(), l.All.Untold())
	}
	if f := l.All.Fates; f.Sold != year.Sold || f.MadeUp != year.MadeUp || f.Lost != year.Lost || f.Back != year.Back || f.Sold == 0 {
		t.Errorf("what became of it is %+v here and %+v in year against year", f, year)
	}
	other := b.Own()
	newYear := day.Of(2026, 1, 1)
	other.Counts = slices.DeleteFunc(slices.Clone(b.Counts), func(c book.Count) bool { return !c.CountedAt.Day().Before(newYear) })
	other.Events = slices.DeleteFunc(slices.Clone(b.Events), func(e book.Event) bool { return !e.On.Before(newYear) })
	other.Cuts = slices.Clone(b.Cuts)
	for i := range other.Cuts {
		other.Cuts[i].Stems *= 3
	}
	again, err := CameOf(morning(t, other, nil), 2026, func(float64) {})
	if err != nil {
		t.Fatal(err)
	}
	if again.All.Expected != l.All.Expected || again.All.Stems != 3*stems {
		t.Errorf("%v were expected before anybody counted, and %v with other counts", l.All.Expected, again.All.Expected)
	}
}

// A farm that begins to write its cuts down in the middle of the year is not told that nothing came before.
func TestTheReviewBeginsWithTheRecords(t *testing.T) {
	b := demoBook(t)
	whole, err := CameOf(morning(t, b, nil), 2026, func(float64) {})
	if err != nil {
		t.Fatal(err)
	}
	if whole.Since != day.Of(2026, 1, 1) {
		t.Errorf("compared since %s", whole.Since)
	}
	begins := day.Of(2026, 7, 4)
	late := b.Own()
	late.Cuts = slices.DeleteFunc(slices.Clone(b.Cuts), func(c book.Cut) bool { return c.CutAt.Day().Before(begins) })
	l, err := CameOf(morning(t, late, nil), 2026, func(float64) {})
	if err != nil {
		t.Fatal(err)
	}
	if l.Since.Before(begins) || l.Since.After(begins.Add(3)) {
		t.Errorf("cuts are on record from %s on, compared since %s", begins, l.Since)
	}
	if l.All.Expected[2] > whole.All.Expected[2]/2 || l.All.Expected[2] == 0 {
		t.Errorf("%v stems were expected since then, %v in the whole year", l.All.Expected, whole.All.Expected)
	}
	for _, p := range l.Plantings {
		if !p.FirstCut.Likely.IsZero() && p.FirstCut.Likely.Before(l.Since) {
			t.Errorf("%s was to be cut first on %s, before anything is on record", p.Planting, p.FirstCut.Likely)
		}
	}
}

// By hand: which year says what for the next.
func TestNextYearByHand(t *testing.T) {
	expects := func(stems int, expected ...float64) Came {
		c := Came{Crop: "zinnia-tall", Stems: stems}
		copy(c.Expected[:], expected)
		return c
	}
	few, culled, lost, unsold, usual := expects(60, 90, 100, 120, 140, 160), expects(100, 80, 90, 100, 110, 120), expects(100, 80, 90, 100, 110, 120), expects(100, 80, 90, 100, 110, 120), expects(100, 80, 90, 100, 110, 120)
	culled.Culled = map[string]int{"chewed petals": 20, "short": 3}
	lost.Fates, unsold.Fates = Fates{Sold: 50, Lost: 50}, Fates{Sold: 5, Lost: 90, There: 5}
	usual.Culled, usual.Fates = map[string]int{"short": 4}, Fates{Sold: 90, Lost: 10}
	for _, c := range []struct {
		of   Came
		over bool
		want []Change
	}{{few, true, []Change{MorePlants}}, {few, false, nil}, {culled, true, []Change{LessCulled}}, {lost, true, []Change{FewerPlants}}, {unsold, false, []Change{DropIt}}, {usual, true, nil}} {
		l := Looked{Over: c.over, Crops: []Came{c.of}}
		var got []Change
		for _, a := range l.Next() {
			got = append(got, a.Change)
		}
		if !slices.Equal(got, c.want) {
			t.Errorf("%+v: %v, want %v", c.of, got, c.want)
		}
	}
	late := Came{Planting: "A", Crop: "peony", Stems: 50, FirstCut: forecast.When{Early: day.Must("2026-06-05"), Likely: day.Must("2026-06-10"), Late: day.Must("2026-06-15")}, First: day.Must("2026-06-30")}
	lasting := late
	lasting.Lasts = true // nobody sows it again
	if a := (&Looked{Plantings: []Came{late, lasting}}).Next(); len(a) != 1 || a[0].Change != SowEarlier || a[0].Days != 20 {
		t.Errorf("of two rows that were twenty days late, one of them for years: %+v", a)
	}
	l := Looked{Over: true, Crops: []Came{few}}
	if a := l.Next()[0]; a.Part != mostPart { // 60 of 120 would be twice as many: a year says no more than half as many again
		t.Errorf("%v times the plants", a.Part)
	}
}

// What the records propose is taken into the farm's own card; from then on it is proposed no more, and the forecast of what is counted hardly changes. What was left is not asked again in the
// year, and a card is not changed by it.
func TestValuesAreTakenOrLeft(t *testing.T) {
	b := demoBook(t)
	s := morning(t, b, nil)
	all := Proposals(s, "zinnia-tall")
	i := slices.IndexFunc(all, func(p Proposal) bool { return p.Value == Warmth })
	if i < 0 {
		t.Fatalf("three rows of zinnias that came weeks too soon propose %+v", all)
	}
	p := all[i]
	e, _, _ := b.Entry("zinnia-tall")
	took := Take(e, p)
	if math.Abs(took.Thermal.BudCd-p.Factor*e.Thermal.BudCd) > 0.5 || took.Thermal.BudCd >= e.Thermal.BudCd || e.Thermal.BudCd != 450 || took.Yield.FirstStems != e.Yield.FirstStems {
		t.Errorf("%v of %v °Cd is taken as %v", p.Factor, e.Thermal.BudCd, took.Thermal.BudCd)
	}
	then := b.WithCrops([]croptable.Entry{took})
	for _, p := range Proposals(morning(t, then, s), "zinnia-tall") {
		if p.Value == Warmth {
			t.Errorf("once taken it is proposed again: %+v", p)
		}
	}
	left := b.Own()
	left.Notes = append(left.Notes, book.Note{On: demo.FirstDay, About: book.AboutCrop, Subject: "zinnia-tall", Words: Answer(p, 2026, false, "as it was")})
	if slices.ContainsFunc(Proposals(morning(t, left, s), "zinnia-tall"), func(q Proposal) bool { return q.Value == Warmth }) {
		t.Error("once left it is proposed again in the same year")
	}
	left.Notes[len(left.Notes)-1].Words = Answer(p, 2025, false, "as it was")
	if !slices.ContainsFunc(Proposals(morning(t, left, s), "zinnia-tall"), func(q Proposal) bool { return q.Value == Warmth }) {
		t.Error("what was left a year ago is not proposed by new records")
	}
}

// morning works a book out; what is the same as before, which may be nil, is taken from there.
func morning(t *testing.T, b *book.Book, before *look.Snapshot) *look.Snapshot {
	t.Helper()
	s, err := look.NewSnapshot(b, 0, look.Morning(demo.FirstDay), before)
	if err != nil {
		t.Fatal(err)
	}
	return s
}
