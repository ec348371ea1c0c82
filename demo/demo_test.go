package demo

import (
	"context"
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/records"
)

func filled(tb testing.TB) *records.Records {
	tb.Helper()
	store, err := records.Open(context.Background(), filepath.Join(tb.TempDir(), "demo.db"))
	if err != nil {
		tb.Fatal(err)
	}
	tb.Cleanup(func() { store.Close() })
	if err := Fill(context.Background(), store); err != nil {
		tb.Fatal(err)
	}
	return store
}

func load(tb testing.TB, store farm.Store) *book.Book {
	tb.Helper()
	book, _, err := store.Load(context.Background())
	if err != nil {
		tb.Fatal(err)
	}
	return book
}

func TestDemoIsAFarm(t *testing.T) {
	b := load(t, filled(t))
	crops := make(map[string]bool)
	for _, p := range b.Plantings {
		crops[b.ProfileOf(p).ID] = true
	}
	if len(b.Plantings) < 38 || len(crops) < 12 {
		t.Errorf("%d plantings of %d crops, want about forty of twelve or more", len(b.Plantings), len(crops))
	}
	if len(b.Counts) < 50 || len(b.Cuts) < 50 {
		t.Errorf("%d counts and %d cuts of a spring", len(b.Counts), len(b.Cuts))
	}
	for _, k := range book.Kinds() {
		for _, r := range b.Records(k) {
			if err := b.Check(r, book.OfForm); err != nil {
				t.Errorf("%s %s: %v", k.Name, r.ID(), err)
			}
		}
	}
}

// The demo's forecast is tested by what then happens: the field grows by a model of its own, and the bounds given on the first
// morning are held against what the crew cuts in the four weeks after it.
func TestFieldTestsTheForecast(t *testing.T) {
	store := filled(t)
	ctx := context.Background()
	now, err := look.NewSnapshot(load(t, store), 0, look.Morning(FirstDay), nil)
	if err != nil {
		t.Fatal(err)
	}
	const days = 28
	for range days {
		if err := Step(ctx, store); err != nil {
			t.Fatal(err)
		}
	}
	after := load(t, store)
	if place, _ := after.Place(); place.DemoDay != FirstDay.Add(days) {
		t.Fatalf("the clock stands on %v after %d steps from %v", place.DemoDay, days, FirstDay)
	}
	cut := make(map[string]map[day.Day]int)
	for _, c := range after.Cuts {
		if cut[c.Planting] == nil {
			cut[c.Planting] = make(map[day.Day]int)
		}
		cut[c.Planting][c.CutAt.Day()] += c.Stems
	}
	var rows, within, expected, came float64
	for i, p := range now.Model.Plantings {
		for j, d := range now.Forecast.PickDays {
			if !d.Before(FirstDay.Add(days)) {
				continue
			}
			s := now.Forecast.Plantings[i].ByPick[j][crop.Market]
			n := float64(cut[p.ID][d])
			if s.Bound(0.9) < 1 && n < 1 {
				continue
			}
			rows++
			if s.Bound(0.1) <= n && n <= s.Bound(0.9) {
				within++
			}
			expected, came = expected+s.Mean(), came+n
		}
	}
	t.Logf("%.0f rows, %.0f %% within the 80 %% band, %.0f stems expected, %.0f cut", rows, 100*within/rows, expected, came)
	if share := within / rows; share < 0.6 || share > 0.97 {
		t.Errorf("%.0f %% of %v outcomes lie within the 80 %% band", 100*share, rows)
	}
	if ratio := came / expected; ratio < 0.75 || ratio > 1.33 {
		t.Errorf("%.0f stems were cut where %.0f were expected", came, expected)
	}
}

func TestSteppingReplaysTheSameField(t *testing.T) {
	one, two := filled(t), filled(t)
	for range 3 {
		for _, store := range []*records.Records{one, two} {
			if err := Step(context.Background(), store); err != nil {
				t.Fatal(err)
			}
		}
	}
	a, b := load(t, one), load(t, two)
	for _, k := range book.Kinds() {
		x, y := a.Records(k), b.Records(k)
		if len(x) != len(y) {
			t.Fatalf("%s: %d records and %d", k.Name, len(x), len(y))
		}
		for i := range x {
			if !x[i].Equal(y[i]) {
				t.Fatalf("%s: %v and %v", k.Name, x[i], y[i])
			}
		}
	}
}

func BenchmarkWholeFarmForecast(b *testing.B) {
	book := load(b, filled(b))
	for b.Loop() {
		if _, err := look.NewSnapshot(book, 0, look.Morning(FirstDay), nil); err != nil {
			b.Fatal(err)
		}
	}
}

func BenchmarkAllMilestones(b *testing.B) {
	book := load(b, filled(b))
	for b.Loop() {
		b.StopTimer()
		s, err := look.NewSnapshot(book, 0, look.Morning(FirstDay), nil)
		if err != nil {
			b.Fatal(err)
		}
		b.StartTimer()
		for i := range s.Model.Plantings {
			s.Milestones(i)
		}
	}
}

func BenchmarkFill(b *testing.B) {
	for b.Loop() {
		filled(b)
	}
}

// What the visitor has counted and cut, the crew leaves alone; the rest it does.
func TestCrewLeavesWhatTheVisitorDid(t *testing.T) {
	ctx := context.Background()
	store := filled(t)
	if err := Step(ctx, store); err != nil { // to the pick day
		t.Fatal(err)
	}
	pick := FirstDay.Add(1)
	mine := book.Cut{ID: "mine", CutAt: day.At(pick, 7, 30), Planting: "CO1", Stems: 5}
	if err := store.Apply(ctx, book.Change{Add: []book.Record{mine.Record()}}); err != nil {
		t.Fatal(err)
	}
	if err := Step(ctx, store); err != nil {
		t.Fatal(err)
	}
	book := load(t, store)
	cuts := make(map[string]int)
	for _, c := range book.Cuts {
		if c.CutAt.Day() == pick {
			cuts[c.Planting]++
		}
	}
	if cuts["CO1"] != 1 || len(cuts) < 10 {
		t.Errorf("%d cuts of CO1, %d rows cut in all", cuts["CO1"], len(cuts))
	}
	issued, seen := 0, false
	for _, w := range book.Weather {
		if w.IssuedOn == pick {
			issued++
		}
		seen = seen || w.Date == pick && w.IssuedOn.IsZero()
	}
	if issued != 7 || !seen {
		t.Errorf("%d days were forecast on the evening of the pick, observed: %v", issued, seen)
	}
}

func BenchmarkAfterOneCount(b *testing.B) {
	ctx := context.Background()
	store := filled(b)
	f := farm.New(store, time.Now)
	if _, err := f.Snapshot(ctx); err != nil {
		b.Fatal(err)
	}
	i := 0
	for b.Loop() {
		i++
		c := book.Count{ID: fmt.Sprint(i), CountedAt: day.At(FirstDay, 6, i%60), Planting: "CO1", PlantsCount: 30, Stems: [crop.Rungs]int{60, 10, 5, 5}}
		if err := f.Add(ctx, "", c.Record()); err != nil {
			b.Fatal(err)
		}
		if _, err := f.Snapshot(ctx); err != nil {
			b.Fatal(err)
		}
	}
}
