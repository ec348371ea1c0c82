package page

import (
	"context"
	"errors"
	"testing"
	"time"
)

// ended waits for a job.
func ended(t *testing.T, j *job) {
	t.Helper()
	select {
	case <-j.done:
	case <-time.After(10 * time.Second):
		t.Fatal("a job never ended")
	}
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
}

func TestOneQuestionIsWorkedOutAtATime(t *testing.T) {
	all, release := newJobs(), make(chan struct{})
	first := all.Ask("a", "Tam", until(release))
	for !first.begun.Load() {
		time.Sleep(time.Millisecond)
	}
	second := all.Ask("b", "Ilka", until(release))
	time.Sleep(20 * time.Millisecond)
	if second.begun.Load() {
		t.Error("two questions are worked out at once")
	}
	close(release)
	ended(t, second)
	if second.result != 7 {
		t.Errorf("the second answer is %v, %v", second.result, second.err)
	}
}

func TestWhoAsksAnotherQuestionHasGivenUpTheOneBefore(t *testing.T) {
	all, release := newJobs(), make(chan struct{})
	first := all.Ask("a", "Tam", until(release))
	second := all.Ask("b", "Tam", until(release))
	ended(t, first)
	if !errors.Is(first.err, errGivenUp) {
		t.Errorf("the first question ends with %v, want errGivenUp", first.err)
	}
	close(release)
	ended(t, second)
	if again := all.Ask("a", "Tam", until(release)); again == first {
		t.Error("a question that was given up cannot be asked again")
	}
}

func TestWhatNobodyAsksForIsGivenUp(t *testing.T) {
	all := newJobs()
	all.bored = 40 * time.Millisecond
	left := all.Ask("a", "Tam", until(nil))
	ended(t, left)
	if !errors.Is(left.err, errGivenUp) {
		t.Errorf("it ends with %v, want errGivenUp", left.err)
	}
}
