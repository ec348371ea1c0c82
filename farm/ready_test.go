package farm_test

import (
	"context"
	"sync/atomic"
	"testing"
	"time"

	"dewcount/core/day"
	"dewcount/farm"
	"dewcount/farm/look"
)

// Nobody asks for anything here: the farm is worked out at its start, and again when its night is over.
func TestAFarmIsReadyBeforeAnybodyAsks(t *testing.T) {
	_, store := meadow(t)
	var hours atomic.Int64
	f := farm.New(store, func() time.Time { return morning().Add(time.Duration(hours.Load()) * time.Hour) })
	days := make(chan day.Day)
	f.Warm = func(s *look.Snapshot) { days <- s.View.Today }
	ready, leave := context.WithCancel(ctx)
	left := make(chan struct{})
	go func() { f.KeepReady(ready, time.Millisecond); close(left) }()
	if got := <-days; got != day.Must("2026-07-09") {
		t.Errorf("at its start the farm is worked out for %v", got)
	}
	hours.Store(18) // midnight
	if got := <-days; got != day.Must("2026-07-10") {
		t.Errorf("after midnight the farm is worked out for %v", got)
	}
	leave()
	<-left
}
