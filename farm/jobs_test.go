package farm_test

import (
	"testing"

	"dewcount/core/day"
	"dewcount/core/rounds"
	"dewcount/farm"
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
		j := farm.JobRecord{Job: p.ID + " " + string(task), Planting: p.ID, Task: task, State: farm.JobDone, On: p.StartedOn.Add(30)}
		for range 2 { // pressed twice
			if err := f.SetJobs(ctx, "Tam", farm.JobSet{JobRecord: j}); err != nil {
				t.Fatalf("%s: %v", task, err)
			}
		}
		done, _, _ := store.Load(ctx)
		if now, _ := done.Planting(p.ID); task != rounds.Net && now == p {
			t.Errorf("%s done leaves the planting as it was", task)
		}
		if err := f.Undo(ctx, "Tam", farm.Jobs, j.Job); err != nil {
			t.Fatalf("undo %s: %v", task, err)
		}
		after, _, _ := store.Load(ctx)
		if now, _ := after.Planting(p.ID); now.Record().Content() != p.Record().Content() || len(after.Events) != len(before.Events) || len(after.Jobs) != len(before.Jobs) {
			t.Errorf("%s undone: %v with %d dates and %d jobs, want %v with %d and %d", task, now.Record().Rows, len(after.Events), len(after.Jobs), p.Record().Rows, len(before.Events), len(before.Jobs))
		}
	}
}

func TestAJobThatIsGivenStaysWhereItWasMovedTo(t *testing.T) {
	f, store := meadow(t)
	job := farm.JobRecord{Job: "ZC1 net", Planting: "ZC1", Task: rounds.Net, State: farm.JobMoved, On: day.Must("2026-07-12")}
	if err := f.SetJobs(ctx, "Tam", farm.JobSet{JobRecord: job}); err != nil {
		t.Fatal(err)
	}
	mark := job.Record().Mark()
	job.State, job.On, job.Person = farm.JobGiven, day.Day{}, "Ilka"
	if err := f.SetJobs(ctx, "Tam", farm.JobSet{JobRecord: job, Shown: mark}); err != nil {
		t.Fatal(err)
	}
	book, _, err := store.Load(ctx)
	if err != nil {
		t.Fatal(err)
	}
	if got := book.Jobs[0]; got.State != farm.JobMoved || got.On != day.Must("2026-07-12") || got.Person != "Ilka" {
		t.Errorf("given away it is %+v, want moved to 12 July and Ilka's", got)
	}
	if made, ok := book.Maker(farm.Jobs, "ZC1 net"); !ok || made.By != "Tam" {
		t.Errorf("it was written down by %q, want Tam", made.By)
	}
}
