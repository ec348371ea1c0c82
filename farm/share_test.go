package farm_test

import (
	"errors"
	"fmt"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"dewcount/core/day"
	"dewcount/core/rounds"
	"dewcount/croptable"
	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/work"
	"dewcount/records"
)

// However many ask at once, one state is worked out, and its seasons, causes and what a record changed are too.
func TestAskersAtOnceShareOneComputation(t *testing.T) {
	f, _ := meadow(t)
	if err := f.Add(ctx, "", count("c", "2026-07-09", 60, 20, 10, 10, 10, 30).Record()); err != nil {
		t.Fatal(err)
	}
	type seen struct {
		snap, without *look.Snapshot
		season        *look.Season
		causes        *look.Causes
	}
	all := make([]seen, 8)
	var askers sync.WaitGroup
	for i := range all {
		askers.Go(func() {
			var s seen
			var errs [4]error
			s.snap, errs[0] = f.Snapshot(ctx)
			s.without, errs[1] = f.Without(s.snap, book.Counts, "c")
			s.season, errs[2] = f.Season(s.snap, 2026)
			s.causes, errs[3] = s.snap.Causes("zinnia-tall")
			if err := errors.Join(errs[:]...); err != nil {
				t.Error(err)
			}
			all[i] = s
		})
	}
	askers.Wait()
	for i, s := range all {
		if s != all[0] {
			t.Errorf("asker %d has another answer than the first: %+v, %+v", i, s, all[0])
		}
	}
}

// Records come in while pages are worked out, a new crop among them: nothing is lost, and the last state has them all.
func TestRecordsAndPagesAtOnce(t *testing.T) {
	f, _ := meadow(t)
	first := snapshot(t, f)
	const each, writers = 5, 4
	var crew sync.WaitGroup
	for w := range writers {
		crew.Go(func() {
			for i := range each {
				c := count(fmt.Sprintf("c-%d-%d", w, i), "2026-07-09", 60, 20, 10, 10, 10, 30)
				if err := f.Add(ctx, "", c.Record()); err != nil {
					t.Error(err)
				}
				if _, _, err := f.SnapshotWithin(ctx, time.Nanosecond); err != nil {
					t.Error(err)
				}
			}
		})
	}
	crew.Go(func() {
		e := croptable.Shipped()[0]
		e.ID = "other"
		if err := f.AddCrop(ctx, "", e); err != nil {
			t.Error(err)
		}
		if _, err := f.Season(snapshot(t, f), 2026); err != nil {
			t.Error(err)
		}
	})
	crew.Wait()
	last := snapshot(t, f)
	if n := len(last.Book.Counts); n != each*writers || last.Revision != first.Revision+each*writers+1 {
		t.Errorf("%d counts in revision %d, want %d in %d", n, last.Revision, each*writers, first.Revision+each*writers+1)
	}
}

func TestWhoDoesNotWaitSeesTheLastState(t *testing.T) {
	f, _ := meadow(t)
	first := snapshot(t, f)
	if err := f.Add(ctx, "", count("c", "2026-07-09", 60, 20).Record()); err != nil {
		t.Fatal(err)
	}
	s, fresh, err := f.SnapshotWithin(ctx, time.Nanosecond)
	if err != nil || fresh || s != first {
		t.Errorf("who cannot wait gets revision %d, fresh %v, %v; want revision %d as the last that was worked out", s.Revision, fresh, err, first.Revision)
	}
	if at := s.WorkedAt.String(); at != "2026-07-09T06:00" {
		t.Errorf("it says it was worked out at %s, want 06:00 in the farm's zone", at)
	}
	if s, fresh, err = f.SnapshotWithin(ctx, 0); err != nil || !fresh || s.Revision != first.Revision+1 {
		t.Errorf("who waits gets revision %d, fresh %v, %v", s.Revision, fresh, err)
	}
}

func TestTheSecondOfTwoEditorsIsTold(t *testing.T) {
	f, store := meadow(t)
	before, _ := snapshot(t, f).Book.Planting("ZC1")
	mark := before.Record().Mark()
	ada, ben := before, before
	ada.Plants, ben.Bed = 80, ""
	ben.Plants = 90
	if err := f.CorrectShown(ctx, "Ada", mark, ada.Record()); err != nil {
		t.Fatal(err)
	}
	changed, ok := errors.AsType[*book.Changed](f.CorrectShown(ctx, "Ben", mark, ben.Record()))
	if !ok || changed.By != "Ada" || changed.Now.Field("plants") != "80" {
		t.Fatalf("the second editor is told %+v", changed)
	}
	if _, ok := errors.AsType[*book.Changed](f.Withdraw(ctx, "Ben", mark, book.Plantings, "ZC1")); !ok {
		t.Error("what somebody has changed is withdrawn by who has not seen it")
	}
	if err := f.CorrectShown(ctx, "Ben", changed.Now.Mark(), ben.Record()); err != nil {
		t.Errorf("once he has seen both: %v", err)
	}
	book, _, _ := store.Load(ctx)
	if p, _ := book.Planting("ZC1"); p.Plants != 90 || len(book.History) != 2 {
		t.Errorf("%d plants stand, with %d versions before", p.Plants, len(book.History))
	}
}

func TestSettingsSchoolsAndCropsTellTheSecondEditorToo(t *testing.T) {
	f, _ := meadow(t)
	b := snapshot(t, f).Book
	settings, entry := b.SettingsMark(), croptable.Shipped()[0]
	crop := book.CropMark(entry)
	changes := map[string]func(who string) error{
		"settings": func(who string) error { return f.Set(ctx, who, settings, []book.Setting{{Key: "name", Value: who}}) },
		"school":   func(who string) error { return f.ChooseSchool(ctx, who, "zinnia-tall", "feed", "", "spring") },
		"crop": func(who string) error {
			e := entry
			e.Name = who
			return f.SetCrop(ctx, who, crop, e)
		},
		"job": func(who string) error {
			return f.SetJobs(ctx, who, book.JobSet{JobRecord: book.JobRecord{Job: "ZC1 net", Planting: "ZC1", Task: rounds.Net, State: book.JobDone, On: day.Must("2026-07-09"), Person: who}})
		},
	}
	for what, change := range changes {
		if err := change("Ada"); err != nil {
			t.Errorf("%s: the first editor: %v", what, err)
		}
		if _, ok := errors.AsType[*book.Changed](change("Ben")); !ok {
			t.Errorf("%s: the second editor is told nothing", what)
		}
	}
}

// A round is ticked off and taken back as one: what is wrong with one job keeps all of them from being written down.
func TestARoundIsKeptWhole(t *testing.T) {
	f, store := meadow(t)
	job := func(id, planting string, task rounds.Task) book.JobSet {
		return book.JobSet{JobRecord: book.JobRecord{Job: id, Planting: planting, Task: task, State: book.JobDone, On: day.Must("2026-07-09")}}
	}
	if err := f.SetJobs(ctx, "Tam", job("a", "ZC1", rounds.Pinch), job("b", "nowhere", rounds.Net)); err == nil {
		t.Error("a job of no planting was written down")
	}
	if book, revision, _ := store.Load(ctx); len(book.Jobs) != 0 || len(book.Events) != 0 || revision != 1 {
		t.Errorf("of a round that was refused %d jobs and %d dates are kept", len(book.Jobs), len(book.Events))
	}
	before, _, _ := store.Load(ctx)
	if err := f.SetJobs(ctx, "Tam", job("a", "ZC1", rounds.Pinch), job("b", "ZC1", rounds.PullOut), job("c", "SU1", rounds.Net)); err != nil {
		t.Fatal(err)
	}
	if book, revision, _ := store.Load(ctx); len(book.Jobs) != 3 || revision != 2 {
		t.Errorf("%d jobs in revision %d, want 3 in 2", len(book.Jobs), revision)
	}
	if err := f.Undo(ctx, "Tam", book.Jobs, "a", "b", "never"); !errors.Is(err, book.ErrNoSuchRecord) {
		t.Errorf("undo of what never was: %v", err)
	}
	if err := f.Undo(ctx, "Tam", book.Jobs, "c", "b", "a"); err != nil {
		t.Fatal(err)
	}
	b, revision, _ := store.Load(ctx)
	was, _ := before.Planting("ZC1")
	if now, _ := b.Planting("ZC1"); now.Record().Content() != was.Record().Content() || len(b.Jobs) != 0 || revision != 3 {
		t.Errorf("undone, the planting is %v with %d jobs in revision %d", now.Record().Lines, len(b.Jobs), revision)
	}
	if err := f.Undo(ctx, "Tam", book.Jobs, make([]string, farm.MostUndone+1)...); err == nil {
		t.Error("undo has no bound")
	}
}

// Two programs on one database: what a change is planned on still stands when it is kept, for nobody else gets in between.
func TestChangesAtOnceRestOnWhatStands(t *testing.T) {
	path := filepath.Join(t.TempDir(), "farm.db")
	one, err := records.Open(ctx, path)
	if err != nil {
		t.Fatal(err)
	}
	defer one.Close()
	two, err := records.Open(ctx, path)
	if err != nil {
		t.Fatal(err)
	}
	defer two.Close()
	defer two.Close()
	setting := func(key string) book.Change {
		return book.Change{Add: []book.Record{book.Setting{Key: key, Value: "x"}.Record()}}
	}
	began, kept := make(chan bool), make(chan error)
	go func() {
		<-began
		kept <- two.Apply(ctx, setting("soil"))
	}()
	err = one.Change(ctx, func() (book.Change, error) {
		close(began)
		time.Sleep(50 * time.Millisecond) // long enough for a write that nothing holds back
		book, _, err := one.Load(ctx)
		if len(book.Settings) != 0 {
			t.Errorf("while a change is planned, another one was kept: %v", book.Settings)
		}
		return setting("name"), err
	})
	if err := errors.Join(err, <-kept); err != nil {
		t.Fatal(err)
	}
	if err := one.Change(ctx, func() (book.Change, error) { return book.Change{}, nil }); err != nil {
		t.Errorf("nothing to keep: %v", err)
	}
	if book, revision, err := one.Load(ctx); err != nil || len(book.Settings) != 2 || revision != 2 {
		t.Errorf("%d settings in revision %d (%v), want 2 in 2", len(book.Settings), revision, err)
	}
	farms := []*farm.Farm{farm.New(one, morning), farm.New(two, morning)}
	var writers sync.WaitGroup
	for i, f := range farms {
		writers.Go(func() {
			for n := range 5 {
				if err := f.Add(ctx, "", book.Variety{Name: fmt.Sprintf("V%d-%d", i, n), Crop: "zinnia-tall"}.Record()); err != nil {
					t.Error(err)
				}
			}
		})
	}
	writers.Wait()
	if book, _, _ := one.Load(ctx); len(book.Varieties) != 10 {
		t.Errorf("%d of 10 varieties are kept", len(book.Varieties))
	}
}

// Frost dates are the same on every day and page of a growing year, and what the farm has written down goes before the weather.
func TestFrostDatesAreTheSameEveryDay(t *testing.T) {
	_, store := meadow(t)
	now := time.Date(2026, 1, 20, 5, 0, 0, 0, time.UTC)
	f := farm.New(store, func() time.Time { return now })
	first := snapshot(t, f).FrostDates(day.Must("2026-06-01"))
	if first.Last.Before(day.Must("2026-04-01")) || first.Last.After(day.Must("2026-06-10")) || first.First.Before(day.Must("2026-09-15")) || first.First.After(day.Must("2026-11-15")) {
		t.Fatalf("frost ends on %s and begins on %s at 46.9° N and 400 m", first.Last, first.First)
	}
	for _, today := range []time.Time{now.AddDate(0, 3, 0), now.AddDate(0, 6, 3), now.AddDate(0, 10, 0)} {
		now = today
		if err := f.Add(ctx, "", book.WeatherDay{Date: day.Of(today.AddDate(0, 0, -1).Date()), TminC: -4, TmaxC: 2}.Record()); err != nil {
			t.Fatal(err)
		}
		s := snapshot(t, f)
		season, err := f.Season(s, 2026)
		if err != nil {
			t.Fatal(err)
		}
		if a, b := s.FrostDates(day.Must("2026-06-01")), season.FrostDates(); a != first || b != first || s.Week1(day.Must("2026-07-01")) != first.Last {
			t.Errorf("on %s the frost dates are %v and %v in the season, in January %v", today.Format(time.DateOnly), a, b, first)
		}
	}
	if err := f.Set(ctx, "", "", []book.Setting{{Key: "last_frost", Value: "05-20"}}); err != nil {
		t.Fatal(err)
	}
	s := snapshot(t, f)
	if d := s.FrostDates(day.Must("2026-06-01")); d.Last != day.Must("2026-05-20") || d.First != first.First {
		t.Errorf("with 20 May written down frost ends on %s and begins on %s", d.Last, d.First)
	}
}

// What nobody waits for need not be counted, however unsure it is; a farm without orders waits for all.
func TestWorthCountingIsWhatSomebodyWaitsFor(t *testing.T) {
	f, _ := meadow(t)
	s := snapshot(t, f)
	zinnia, sunflower := s.Index("ZC1"), s.Index("SU1")
	if d := work.CountFor(s, zinnia); d != day.Must("2026-07-10") {
		t.Errorf("zinnias, which the market wants, are worth a count before %v, want Friday's pick", d)
	}
	if d := work.CountFor(s, sunflower); !d.IsZero() {
		t.Errorf("sunflowers, which nobody wants, are worth a count before %v", d)
	}
	if err := f.Withdraw(ctx, "", "", book.OrderLines, "Market|1"); err != nil {
		t.Fatal(err)
	}
	if err := f.Withdraw(ctx, "", "", book.OrderLines, "Market|2"); err != nil {
		t.Fatal(err)
	}
	if err := f.Withdraw(ctx, "", "", book.Orders, "Market"); err != nil {
		t.Fatal(err)
	}
	if s := snapshot(t, f); work.CountFor(s, zinnia).IsZero() {
		t.Error("on a farm without orders nothing is worth a count")
	}
	if err := f.Add(ctx, "", count("c", "2026-07-09", 60, 20, 10, 10, 10, 30).Record()); err != nil {
		t.Fatal(err)
	}
	if d := work.CountFor(snapshot(t, f), zinnia); d == day.Must("2026-07-10") {
		t.Error("what was counted this morning is worth another count before tomorrow's pick")
	}
}
