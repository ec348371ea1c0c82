package demo

import (
	"context"
	"math"
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

// What the count page says a sample will narrow is held against what such a count does: the mean over the rows of the demo in which
// enough stems are due.
func TestASampleNarrowsTheForecastAboutAsFarAsIsSaid(t *testing.T) {
	store, err := records.Open(context.Background(), filepath.Join(t.TempDir(), "farm.db"))
	if err != nil {
		t.Fatal(err)
	}
	defer store.Close()
	if err := Fill(context.Background(), store); err != nil {
		t.Fatal(err)
	}
	now, err := farm.New(store, time.Now).Snapshot(context.Background())
	if err != nil {
		t.Fatal(err)
	}
	for _, times := range []int{1, 3, 100} {
		said, did := narrowed(t, now, times)
		t.Logf("%d times the sample is said to leave %.2f of the width and leaves %.2f", times, said, did)
		if math.Abs(said-did) > 0.07 {
			t.Errorf("%d times the sample is said to leave %.2f of the width and leaves %.2f", times, said, did)
		}
	}
}

// narrowed returns what counts of so many times the samples advised, at most all plants, are said to leave of the spread of the next pick, and
// what they leave, on the mean of the rows with enough stems.
func narrowed(t *testing.T, now *look.Snapshot, times int) (said, did float64) {
	t.Helper()
	rows := 0.0
	for i, p := range now.Model.Plantings {
		sample := now.Sample(i)
		if next := now.Forecast.Plantings[i].ByPick[0][crop.Market]; sample.Few || next.Mean() < 15 {
			continue
		}
		plants := min(times*sample.Plants, p.Growth.Plants)
		count := book.Count{ID: "sample", CountedAt: day.At(now.View.Today, 6, 0), Planting: p.ID, PlantsCount: plants, Counter: crewName}
		for k, stems := range now.Stand.Standing(i).Rungs {
			count.Stems[k] = int(math.Round(stems * float64(plants) / float64(p.Growth.Plants)))
		}
		book := *now.Book
		book.Counts = append(book.Counts[:len(book.Counts):len(book.Counts)], count)
		after, err := look.NewSnapshot(&book, now.Revision+1, now.View, now)
		if err != nil {
			t.Fatal(err)
		}
		next := after.Forecast.Plantings[i].ByPick[0][crop.Market]
		promised := sample.After(plants)
		width := sample.Now[1] - sample.Now[0]
		said += (promised[1] - promised[0]) / width
		did += (next.Bound(0.9) - next.Bound(0.1)) / next.Mean() * now.Forecast.Plantings[i].ByPick[0][crop.Market].Mean() / width // as a share: rounding moves the middle
		rows++
	}
	if rows < 5 {
		t.Fatalf("%v rows have enough stems, want 5 or more", rows)
	}
	return said / rows, did / rows
}
