package farm_test

import (
	"testing"

	"dewcount/core/day"
	"dewcount/core/rounds"
	"dewcount/farm/book"
)

// Done by a slip of the thumb and undone: the planting is as it was, and the date seen is gone.
func TestUndoingAJobTakesBackWhatItWroteDown(t *testing.T) {
	f, store := meadow(t)
	for _, task := range []rounds.Task{rounds.PullOut, rounds.Pinch, rounds.Net} {
		before, _, err := store.Load(ctx)
		if err != nil {
			t.Fatal(err)
		}
		p := before.Plantings[0]
		j := book.JobRecord{Job: p.ID + " " + string(task), Planting: p.ID, Task: task, State: book.JobDone, On: p.StartedOn.Add(30)}
		for range 2 { // pressed twice
			if err := f.SetJobs(ctx, "Tam", book.JobSet{JobRecord: j}); err != nil {
				t.Fatalf("%s: %v", task, err)
			}
		}
		done, _, _ := store.Load(ctx)
		if now, _ := done.Planting(p.ID); task != rounds.Net && now == p {
			t.Errorf("%s done leaves the planting as it was", task)
		}
		if err := f.Undo(ctx, "Tam", book.Jobs, j.Job); err != nil {
			t.Fatalf("undo %s: %v", task, err)
		}
		after, _, _ := store.Load(ctx)
		if now, _ := after.Planting(p.ID); now.Record().Content() != p.Record().Content() || len(after.Events) != len(before.Events) || len(after.Jobs) != len(before.Jobs) {
			t.Errorf("%s undone: %v with %d dates and %d jobs, want %v with %d and %d", task, now.Record().Lines, len(after.Events), len(after.Jobs), p.Record().Lines, len(before.Events), len(before.Jobs))
		}
	}
}

func TestAJobThatIsGivenStaysWhereItWasMovedTo(t *testing.T) {
	f, store := meadow(t)
	job := book.JobRecord{Job: "ZC1 net", Planting: "ZC1", Task: rounds.Net, State: book.JobMoved, On: day.Must("2026-07-12")}
	if err := f.SetJobs(ctx, "Tam", book.JobSet{JobRecord: job}); err != nil {
		t.Fatal(err)
	}
	mark := job.Record().Mark()
	job.State, job.On, job.Person = book.JobGiven, day.Day{}, "Ilka"
	if err := f.SetJobs(ctx, "Tam", book.JobSet{JobRecord: job, Shown: mark}); err != nil {
		t.Fatal(err)
	}
	b, _, err := store.Load(ctx)
	if err != nil {
		t.Fatal(err)
	}
	if got := b.Jobs[0]; got.State != book.JobMoved || got.On != day.Must("2026-07-12") || got.Person != "Ilka" {
		t.Errorf("given away it is %+v, want moved to 12 July and Ilka's", got)
	}
	if made, ok := b.AuthorOf(book.Jobs, "ZC1 net"); !ok || made.By != "Tam" {
		t.Errorf("it was written down by %q, want Tam", made.By)
	}
}
