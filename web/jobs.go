package web

import (
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
	started := s.jobs.run(jobKey(c, snap), work)
	select {
	case <-started.done:
		return started.result, true, started.err
	case <-time.After(soon):
	}
	c.Response().Header().Set("Refresh", "1")
	percent := int(100 * math.Float64frombits(started.share.Load()))
	return nil, false, s.show(c, http.StatusOK, "working", here, heading, snap, workingView{heading, percent})
}
