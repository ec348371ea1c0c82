package demo

import (
	"bytes"
	"context"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/croptable"
	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/notebook"
	"dewcount/records"
	"dewcount/standin"
)

// decade is the demo farm as it would stand after ten years: the sowings of each year from 2017 on, with their weather, counts and cuts, up to
// the demo's day. It is grown once for all benchmarks.
var decade = sync.OnceValue(func() *book.Book {
	const years = 10
	b := book.NewBook([]croptable.Entry(nil))
	lay(b)
	now := b.Plantings
	b.Plantings = nil
	first := FirstDay.Add(-365 * years)
	weather := standin.NewWeather(standin.Valley, seed, first)
	for d := first; d.Before(FirstDay); d = d.Add(1) {
		b.Weather = append(b.Weather, observed(weather, d))
	}
	for d := first; d.Before(FirstDay); d = d.Add(1) {
		b.Weather = append(b.Weather, issued(weather, d)...)
	}
	for back := years - 1; back >= 0; back-- {
		year := *b
		year.Plantings, year.Counts, year.Cuts, year.Events = nil, nil, nil, nil
		for _, p := range now {
			if back > 0 && (p.Method == crop.Established || len(year.Plantings) >= 40) {
				continue
			}
			if back > 0 {
				p.ID = fmt.Sprintf("%s-%d", p.ID, 2026-back)
			}
			for _, d := range []*day.Day{&p.StartedOn, &p.PlantedOutOn, &p.PinchedOn} {
				if !d.IsZero() {
					*d = d.Add(-365 * back)
				}
			}
			if back > 0 {
				p.Squares = ""
			}
			year.Plantings = append(year.Plantings, p)
		}
		passes(&year, weather, FirstDay.Add(-365*back), back > 0)
		b.Plantings, b.Counts = append(b.Plantings, year.Plantings...), append(b.Counts, year.Counts...)
		b.Cuts, b.Events = append(b.Cuts, year.Cuts...), append(b.Events, year.Events...)
	}
	return b
})

// passes lets a year's plantings grow, counted and cut by the crew: up to a day, or until the winter after it.
func passes(year *book.Book, weather *standin.Weather, upto day.Day, whole bool) {
	place, err := year.Place()
	if err != nil {
		panic(err)
	}
	first := slices.MinFunc(year.Plantings, func(a, b book.Planting) int { return a.StartedOn.Compare(b.StartedOn) }).StartedOn
	field := standin.NewField(seed, weather, place.Latitude, rows(year), nil, first)
	if whole {
		upto = upto.Add(150)
	}
	for d := first; d.Before(upto); d = d.Add(1) {
		work := usualCrew.morning(year, field, place, d)
		work.enter(year)
		field.Step(work.taken())
	}
	for i := range year.Plantings {
		if p := &year.Plantings[i]; whole && p.EndedOn.IsZero() {
			p.EndedOn = upto
			if p.StartedOn.After(upto) {
				p.EndedOn = p.StartedOn
			}
		}
	}
}

// tenYears is the decade in a database.
func tenYears(tb testing.TB) *records.Records {
	tb.Helper()
	store, err := records.Open(context.Background(), filepath.Join(tb.TempDir(), "farm.db"))
	if err != nil {
		tb.Fatal(err)
	}
	tb.Cleanup(func() { store.Close() })
	change := book.Change{Stamp: FirstDay.String() + "T04:00:00Z"}
	for _, k := range book.Kinds() {
		change.Add = append(change.Add, decade().Records(k)...)
	}
	if err := store.Apply(context.Background(), change); err != nil {
		tb.Fatal(err)
	}
	return store
}

// BenchmarkTenYearsImport is a notebook of ten years, more than 100,000 rows, read into an empty farm.
func BenchmarkTenYearsImport(b *testing.B) {
	ctx, folder, rows := context.Background(), fstest.MapFS{}, 0
	files, err := notebook.Files(decade())
	if err != nil {
		b.Fatal(err)
	}
	for _, f := range files {
		folder[f.Name] = &fstest.MapFile{Data: f.Text}
		rows += bytes.Count(f.Text, []byte("\n"))
		if dir := os.Getenv("DECADE"); dir != "" {
			os.WriteFile(filepath.Join(dir, f.Name), f.Text, 0o644)
		}
	}
	b.Logf("%d rows", rows)
	for b.Loop() {
		store, err := records.Open(ctx, filepath.Join(b.TempDir(), "farm.db"))
		if err != nil {
			b.Fatal(err)
		}
		if err := store.Change(ctx, func() (book.Change, error) {
			_, change, err := notebook.Read(folder, book.NewBook(nil))
			return change, err
		}); err != nil {
			b.Fatal(err)
		}
		store.Close()
	}
}

// BenchmarkTenYearsMorning is the first morning of a farm with ten years on record: the book read and its state worked out from nothing.
func BenchmarkTenYearsMorning(b *testing.B) {
	ctx, store := context.Background(), tenYears(b)
	b.Logf("%d plantings, %d counts, %d cuts", len(decade().Plantings), len(decade().Counts), len(decade().Cuts))
	for b.Loop() {
		if _, err := farm.New(store, time.Now).Snapshot(ctx); err != nil {
			b.Fatal(err)
		}
	}
}

// BenchmarkTenYearsRecord is one count kept there, and the forecast after it.
func BenchmarkTenYearsRecord(b *testing.B) {
	ctx := context.Background()
	f := farm.New(tenYears(b), time.Now)
	if _, err := f.Snapshot(ctx); err != nil {
		b.Fatal(err)
	}
	var keeping, forecasting time.Duration
	n := 0
	for b.Loop() {
		n++
		c := book.Count{ID: fmt.Sprint("new", n), CountedAt: day.At(FirstDay, 6, n%60), Planting: "CO1", PlantsCount: 30, Stems: [crop.Rungs]int{60, 10, 5, 5}}
		begun := time.Now()
		if err := f.Add(ctx, "Ada", c.Record()); err != nil {
			b.Fatal(err)
		}
		kept := time.Now()
		if _, err := f.Snapshot(ctx); err != nil {
			b.Fatal(err)
		}
		keeping, forecasting = keeping+kept.Sub(begun), forecasting+time.Since(kept)
	}
	b.ReportMetric(float64(keeping.Milliseconds())/float64(n), "ms/record")
	b.ReportMetric(float64(forecasting.Milliseconds())/float64(n), "ms/forecast")
}

// BenchmarkTenYearsSeason is the growing year of that farm, drawn from nothing.
func BenchmarkTenYearsSeason(b *testing.B) {
	for b.Loop() {
		if _, err := look.NewSeason(decade(), FirstDay, 2026, nil); err != nil {
			b.Fatal(err)
		}
	}
}
