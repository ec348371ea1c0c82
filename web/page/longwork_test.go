package page

import (
	"context"
	"errors"
	"testing"
	"testing/synctest"
	"time"
)

// ended waits for a job, on the clock of the test, and tells how long it took.
func ended(t *testing.T, j *job) time.Duration {
	t.Helper()
	began := time.Now()
	select {
	case <-j.done:
	case <-time.After(time.Hour):
		t.Fatal("a job never ended")
	}
	return time.Since(began)
}

// soonAfter tells whether what had to wait so long went on then, and not much later.
func soonAfter(took, patience time.Duration) bool {
	return took > patience && took < patience+2*time.Second
}

// until is a work that goes on until it is released or given up.
func until(release chan struct{}) Does {
	return func(ctx context.Context, progress func(float64)) (any, error) {
		progress(0.5)
		select {
		case <-release:
		case <-ctx.Done():
		}
		return 7, nil
	}
}

// What takes long goes on without its page, is worked out once for all who ask, and an error in it is told and is no crash.
func TestAQuestionIsWorkedOutOnce(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		all, release := newJobs(), make(chan struct{})
		one, two := all.Ask("a", "Tam", until(release)), all.Ask("a", "Ilka", until(release))
		close(release)
		ended(t, one)
		if one != two || one.result != 7 {
			t.Errorf("two who ask the same have jobs %p and %p, result %v", one, two, one.result)
		}
		if later := all.Ask("a", "Tam", until(nil)); later != one {
			t.Error("an answer is not kept")
		}
		failing := all.Ask("b", "Tam", func(context.Context, func(float64)) (any, error) { panic("out of order") })
		ended(t, failing)
		if failing.err == nil {
			t.Error("a job that failed tells nothing")
		}
		if again := all.Ask("b", "Tam", until(release)); again == failing {
			t.Error("a failure is kept as an answer")
		}
	})
}

func TestOneQuestionIsWorkedOutAtATime(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		all, release := newJobs(), make(chan struct{})
		first := all.Ask("a", "Tam", until(release))
		second := all.Ask("b", "Ilka", until(release))
		synctest.Wait()
		if first.begun.Load() == second.begun.Load() {
			t.Error("of two questions not just one is worked out")
		}
		close(release)
		ended(t, second)
		if second.result != 7 {
			t.Errorf("the second answer is %v, %v", second.result, second.err)
		}
	})
}

func TestWhoAsksAnotherQuestionHasGivenUpTheOneBefore(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		all, release := newJobs(), make(chan struct{})
		first := all.Ask("a", "Tam", until(release))
		second := all.Ask("b", "Tam", until(release))
		if took := ended(t, first); !errors.Is(first.err, errGivenUp) || !soonAfter(took, rivalBored) {
			t.Errorf("the first question ends after %v with %v, want errGivenUp after %v", took, first.err, rivalBored)
		}
		close(release)
		ended(t, second)
		if again := all.Ask("a", "Tam", until(release)); again == first {
			t.Error("a question that was given up cannot be asked again")
		}
	})
}

// Two pages of one person that both wait both get their answers.
func TestAQuestionThatIsStillAskedForStays(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		all, release := newJobs(), make(chan struct{})
		first := all.Ask("a", "Tam", until(release))
		second := all.Ask("b", "Tam", until(release))
		for range 30 {
			if all.Ask("a", "Tam", until(release)) != first || all.Ask("b", "Tam", until(release)) != second {
				t.Fatal("a question is begun anew while it is asked for")
			}
			time.Sleep(time.Second)
		}
		close(release)
		ended(t, first)
		ended(t, second)
		if first.result != 7 || second.result != 7 {
			t.Errorf("the answers are %v, %v and %v, %v", first.result, first.err, second.result, second.err)
		}
	})
}

func TestWhatNobodyAsksForIsGivenUp(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		all := newJobs()
		left := all.Ask("a", "Tam", until(nil))
		if took := ended(t, left); !errors.Is(left.err, errGivenUp) || !soonAfter(took, bored) {
			t.Errorf("it ends after %v with %v, want errGivenUp after %v", took, left.err, bored)
		}
	})
}

// What is asked for just after it was given up is begun anew, not told to have failed: its work may take a while to end.
func TestWhatWasJustGivenUpIsBegunAnew(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		all, release := newJobs(), make(chan struct{})
		slow := func(context.Context, func(float64)) (any, error) { <-release; return 7, nil }
		first := all.Ask("a", "Tam", slow)
		first.stop()
		second := all.Ask("a", "Tam", slow)
		close(release)
		ended(t, first)
		ended(t, second)
		if second == first || second.result != 7 || all.Ask("a", "Tam", slow) != second {
			t.Errorf("asked again it answers %v, %v", second.result, second.err)
		}
	})
}
