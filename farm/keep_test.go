package farm_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
)

// The book that a farm goes on with after a change is the one that the store has: records, history and who made them, in any order of adding,
// correcting, withdrawing, ticking off and taking back.
func TestTheBookGoesOnAsTheStoreHasIt(t *testing.T) {
	f, store := meadow(t)
	random := rand.New(rand.NewPCG(5, 7))
	at := func() day.Moment { return day.At(day.Must("2026-07-01").Add(random.IntN(8)), 6, random.IntN(60)) }
	made := func(i int) book.Record {
		switch id := fmt.Sprint("r", random.IntN(12)); random.IntN(4) {
		case 0:
			return count(id, at().String(), 5+i%20, 3).Record()
		case 1:
			return book.Cut{ID: id, CutAt: at(), Planting: "ZC1", Stems: random.IntN(9)}.Record()
		case 2:
			return book.Event{ID: id, Planting: "ZC1", Event: "emerged", On: at().Day()}.Record()
		default:
			length := 4.5 + float64(random.IntN(9))/4
			return book.Bed{ID: id, LengthM: &length, WidthM: &length}.Record()
		}
	}
	kept := 0
	for i := range 300 {
		who := []string{"", "Ada", "Tam"}[random.IntN(3)]
		var err error
		switch r := made(i); random.IntN(5) {
		case 0:
			err = f.Withdraw(ctx, who, "", r.Kind, r.ID())
		case 1:
			err = f.Undo(ctx, who, r.Kind, r.ID())
		case 2:
			job := book.JobRecord{Job: fmt.Sprint("j", random.IntN(3)), Planting: "ZC1", Task: "pinch", State: book.JobDone, On: day.Must("2026-07-02").Add(i % 5)}
			err = f.SetJobs(ctx, who, book.JobSet{JobRecord: job})
		case 3:
			err = f.AddAndCorrect(ctx, who, nil, []book.Record{r})
		default:
			err = f.Add(ctx, who, r)
		}
		if err == nil {
			kept++
		}
		mine, err := f.Load(ctx)
		if err != nil {
			t.Fatal(err)
		}
		theirs, revision, err := store.Load(ctx)
		if err != nil {
			t.Fatal(err)
		}
		if now, _ := f.Revision(ctx); now != revision {
			t.Fatalf("step %d: revision %d of the farm, %d of the store", i, now, revision)
		}
		sameBook(t, i, mine, theirs)
	}
	if kept < 100 {
		t.Errorf("only %d of 300 changes were kept: nothing is tested", kept)
	}
}

func sameBook(t *testing.T, step int, mine, theirs *book.Book) {
	t.Helper()
	for _, k := range book.Kinds() {
		if !slices.EqualFunc(mine.Records(k), theirs.Records(k), book.Record.Equal) {
			t.Fatalf("step %d: %s are %v in the farm and %v in the store", step, k.Name, mine.Records(k), theirs.Records(k))
		}
	}
	if !slices.Equal(mine.History, theirs.History) {
		t.Fatalf("step %d: the history is\n%v in the farm and\n%v in the store", step, mine.History, theirs.History)
	}
	inOrder := func(b *book.Book) (ids []string) {
		for _, c := range b.Counts {
			ids = append(ids, c.ID)
		}
		return ids
	}
	if !slices.Equal(inOrder(mine), inOrder(theirs)) {
		t.Fatalf("step %d: counts are in the order %v in the farm and %v in the store", step, inOrder(mine), inOrder(theirs))
	}
}

// Sixty chrysanthemums of the steered kind bear sixty stems, or two and a half times that where they are pinched: what can have been cut is taken.
func TestPinchedPlantsMayGiveMoreThanOneStem(t *testing.T) {
	f, _ := meadow(t)
	struck := day.Must("2026-04-01")
	row := book.Planting{ID: "plain", Variety: "Spray", Method: crop.Cutting, StartedOn: struck, Plants: 60}
	pinched := row
	pinched.ID, pinched.PinchedOn = "pinched", struck.Add(18)
	if err := f.Add(ctx, "", book.Variety{Name: "Spray", Crop: "chrysanthemum-controlled"}.Record(), row.Record(), pinched.Record()); err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		planting string
		stems    int
		taken    bool
	}{{"plain", 70, true}, {"plain", 130, false}, {"pinched", 130, true}, {"pinched", 800, false}} {
		err := f.Add(ctx, "", book.Cut{ID: fmt.Sprint(c.planting, c.stems), CutAt: day.At(day.Must("2026-07-09"), 8, 0), Planting: c.planting, Stems: c.stems}.Record())
		if (err == nil) != c.taken {
			t.Errorf("%d stems cut of sixty plants, %s: %v", c.stems, c.planting, err)
		}
	}
}
