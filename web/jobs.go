package web

import (
	"context"
	"fmt"
	"math"
	"net/http"
	"sync"
	"sync/atomic"
	"time"

	"dewcount/farm"

	"github.com/labstack/echo/v5"
)

// A job is a computation that takes longer than a page may: it goes on while the page shows how far it is.
type job struct {
	done   chan struct{}
	share  atomic.Uint64 // bits of a float64, 0 to 1
	result any
	err    error
}

// jobs are kept by what they answer, so that a page that is loaded again finds its own.
type jobs struct {
	mu  sync.Mutex
	all map[string]*job
}

// mostJobs is how many answers are kept at a time.
const mostJobs = 24

// soon is how long a page waits for its answer before it shows how far it is.
const soon = 350 * time.Millisecond

// run starts a job under a key, or returns the one that runs or has ended there.
func (j *jobs) run(key string, work func(progress func(float64)) (any, error)) *job {
	j.mu.Lock()
	defer j.mu.Unlock()
	if here := j.all[key]; here != nil {
		return here
	}
	if j.all == nil || len(j.all) >= mostJobs {
		j.all = make(map[string]*job)
	}
	started := &job{done: make(chan struct{})}
	j.all[key] = started
	go func() {
		defer close(started.done)
		defer func() {
			if fault := recover(); fault != nil {
				started.err = fmt.Errorf("the computation failed: %v", fault)
			}
		}()
		started.result, started.err = work(func(share float64) { started.share.Store(math.Float64bits(share)) })
	}()
	return started
}

// jobKey is what tells one question from another: the farm's state, its day, and the address that asks.
func jobKey(c *echo.Context, snap *farm.Snapshot) string {
	return fmt.Sprintf("%d %s %s", snap.Revision, snap.View.Today, c.Request().URL.RequestURI())
}

// A workingView says how far a job is.
type workingView struct {
	Heading string
	Percent int
}

// answer waits a little for what a page's address asks for; where that takes longer it shows how far it is, and ok is false.
func (s *server) answer(c *echo.Context, snap *farm.Snapshot, here, heading string, work func(progress func(float64)) (any, error)) (result any, ok bool, err error) {
	return s.await(c, snap, here, heading, s.jobs.run(jobKey(c, snap), work))
}

// seasonOf waits a little for a growing year; where it takes longer the page shows that it is worked out, and ok is false. A form that was
// sent waits for as long as it takes.
func (s *server) seasonOf(c *echo.Context, snap *farm.Snapshot, here, heading string, year int) (season *farm.Season, ok bool, err error) {
	started, forget := s.startSeason(c, snap, year)
	if c.Request().Method == http.MethodPost {
		<-started.done
	}
	result, ok, err := s.await(c, snap, here, heading, started)
	if !ok {
		return nil, false, err
	}
	forget() // the farm keeps it
	if err != nil {
		return nil, false, err
	}
	return result.(*farm.Season), true, nil
}

// startSeason has a growing year worked out; it goes on when the page that asked has gone.
func (s *server) startSeason(c *echo.Context, snap *farm.Snapshot, year int) (started *job, forget func()) {
	ctx := context.WithoutCancel(c.Request().Context())
	key := fmt.Sprintf("season %d %d %s", year, snap.Revision, snap.View.Today)
	return s.jobs.run(key, func(func(float64)) (any, error) { return s.farm.Season(ctx, year) }), func() { s.jobs.forget(key) }
}

// forget drops a job that has ended.
func (j *jobs) forget(key string) {
	j.mu.Lock()
	defer j.mu.Unlock()
	delete(j.all, key)
}

// await waits a little for a job, or shows how far it is.
func (s *server) await(c *echo.Context, snap *farm.Snapshot, here, heading string, started *job) (result any, ok bool, err error) {
	select {
	case <-started.done:
		return started.result, true, started.err
	case <-time.After(soon):
	}
	c.Response().Header().Set("Refresh", "1")
	percent := int(100 * math.Float64frombits(started.share.Load()))
	return nil, false, s.show(c, http.StatusOK, "working", here, heading, snap, workingView{heading, percent})
}
