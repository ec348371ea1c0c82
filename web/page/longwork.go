package page

import (
	"context"
	"errors"
	"fmt"
	"math"
	"net/http"
	"sync"
	"sync/atomic"
	"time"

	"dewcount/farm/look"
	"dewcount/fault"
	"dewcount/say"

	lru "github.com/hashicorp/golang-lru/v2"
	"github.com/labstack/echo/v5"
)

// A job is a computation that takes longer than a page may: it goes on while the page shows how far it is, as long as somebody asks for it.
type job struct {
	key   string
	asker string
	stop  context.CancelFunc
	done  chan struct{}
	begun atomic.Bool   // false while it waits for another to end
	share atomic.Uint64 // bits of a float64, 0 to 1
	asked atomic.Int64  // when somebody last asked for it, in nanoseconds

	result any
	err    error
}

// jobs are the questions that are worked out, one after the other, and the answers of the last ones. Each person has one question: who asks
// another has given up the one before.
type jobs struct {
	slot chan struct{}

	mu      sync.Mutex
	running map[string]*job // by key
	answers *lru.Cache[string, *job]
	bored   time.Duration // after which a question that nobody asks for is given up
}

const (
	// mostAnswers is how many answers are kept: a plan weighs up to a megabyte.
	mostAnswers = 12
	// soon is how long a page waits for its answer before it shows how far it is.
	soon = 350 * time.Millisecond
	// usuallyBored is some times the second after which a page that waits asks again.
	usuallyBored = 8 * time.Second
)

func newJobs() *jobs {
	j := &jobs{slot: make(chan struct{}, 1), running: make(map[string]*job), bored: usuallyBored}
	j.answers, _ = lru.New[string, *job](mostAnswers) // an error is of a size below one
	return j
}

// A Does answers a question; it ends early, with any result, when its context does.
type Does func(ctx context.Context, progress func(float64)) (any, error)

// Ask begins the work of a question under its key, or returns the job that runs or has ended there.
func (j *jobs) Ask(key, asker string, do Does) *job {
	j.mu.Lock()
	defer j.mu.Unlock()
	if here, ok := j.answers.Get(key); ok {
		return here
	}
	here := j.running[key]
	for _, other := range j.running {
		if other != here && other.asker == asker {
			other.stop()
		}
	}
	if here == nil {
		ctx, stop := context.WithCancel(context.Background())
		here = &job{key: key, stop: stop, done: make(chan struct{})}
		j.running[key] = here
		go j.run(ctx, here, do)
		go j.giveUp(ctx, here)
	}
	here.asker = asker
	here.asked.Store(time.Now().UnixNano())
	return here
}

// errGivenUp is that nobody asked any more, or the asker asked something else.
var errGivenUp = errors.New("another question was asked meanwhile: ask this one again")

// run works a job out when it is its turn.
func (j *jobs) run(ctx context.Context, here *job, do Does) {
	defer close(here.done)
	defer here.stop()
	defer func() {
		if fault := recover(); fault != nil {
			here.err = fmt.Errorf("the computation failed: %v", fault)
		}
		j.mu.Lock()
		defer j.mu.Unlock()
		delete(j.running, here.key)
		if here.err == nil {
			j.answers.Add(here.key, here)
		}
	}()
	select {
	case j.slot <- struct{}{}:
		defer func() { <-j.slot }()
	case <-ctx.Done():
		here.err = errGivenUp
		return
	}
	here.begun.Store(true)
	here.result, here.err = do(ctx, func(share float64) { here.share.Store(math.Float64bits(share)) })
	if ctx.Err() != nil {
		here.result, here.err = nil, errGivenUp
	}
}

// giveUp stops a job that nobody asks for any more.
func (j *jobs) giveUp(ctx context.Context, here *job) {
	tick := time.NewTicker(j.bored / 8)
	defer tick.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case now := <-tick.C:
			if now.UnixNano()-here.asked.Load() > int64(j.bored) {
				here.stop()
			}
		}
	}
}

// A workingView says how far a job is.
type workingView struct {
	Heading string
	Percent int
	Waits   bool // for another question
}

// asker is who asks: a person, or whoever sits at this machine.
func asker(c *echo.Context) string { return Who(c).ID }

// Answer waits a little for what a page asks; where that takes longer it shows how far it is, and ok is false. question is what was asked as
// the program understood it: the same question in other words is the same job. A form that was sent waits for as long as it takes.
func (s *Site) Answer(c *echo.Context, snap *say.Snapshot, here, heading string, question any, do Does) (result any, ok bool, err error) {
	key := fmt.Sprintf("%d %s %T %+v", snap.Revision, snap.View.Today, question, question)
	started := s.Jobs.Ask(key, asker(c), do)
	tooLong := tooLongFor(c)
	for {
		select {
		case <-started.done:
			if errors.Is(started.err, errGivenUp) {
				return nil, true, &fault.Advice{Words: errGivenUp.Error(), Err: errGivenUp}
			}
			return started.result, true, started.err
		case <-tooLong:
			percent := int(100 * math.Float64frombits(started.share.Load()))
			return nil, false, s.working(c, snap, here, workingView{heading, percent, !started.begun.Load()})
		case <-time.After(time.Second): // it is still asked for
			started.asked.Store(time.Now().UnixNano())
		case <-c.Request().Context().Done():
			return nil, true, c.Request().Context().Err()
		}
	}
}

// tooLongFor tells when a page has waited long enough; a form that was sent waits for as long as it takes.
func tooLongFor(c *echo.Context) <-chan time.Time {
	if c.Request().Method == http.MethodGet {
		return time.After(soon)
	}
	return nil
}

// working shows that a page is worked out, and has it asked for again.
func (s *Site) working(c *echo.Context, snap *say.Snapshot, here string, v workingView) error {
	c.Response().Header().Set("Refresh", "1")
	return s.Show(c, http.StatusOK, "working", here, v.Heading, snap, v)
}

// SeasonOf waits a little for a growing year, as Soon does.
func (s *Site) SeasonOf(c *echo.Context, snap *say.Snapshot, here, heading string, year int) (*say.Season, bool, error) {
	season, ok, err := Soon(s, c, snap, here, heading, func() (*look.Season, error) { return s.Farm.Season(snap.Snapshot, year) })
	return &say.Season{Season: season, Locale: snap.Locale}, ok, err
}

// Soon waits a little for what a page needs, which is worked out once for all who ask; where it takes longer the page shows that it is worked out,
// and ok is false. A form that was sent waits for as long as it takes.
func Soon[T any](s *Site, c *echo.Context, snap *say.Snapshot, here, heading string, work func() (T, error)) (result T, ok bool, err error) {
	type answer struct {
		result T
		err    error
	}
	done := make(chan answer, 1)
	go func() {
		result, err := work()
		done <- answer{result, err}
	}()
	select {
	case a := <-done:
		return a.result, a.err == nil, a.err
	case <-tooLongFor(c):
		return result, false, s.working(c, snap, here, workingView{Heading: heading})
	}
}
