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
	"dewcount/say"

	lru "github.com/hashicorp/golang-lru/v2"
	"github.com/labstack/echo/v5"
)

// A job is a computation that takes longer than a page may: it goes on while the page shows how far it is, as long as somebody asks for it.
type job struct {
	key     string
	asker   string
	ctx     context.Context
	stop    context.CancelFunc
	done    chan struct{}
	begun   atomic.Bool   // false while it waits for another to end
	share   atomic.Uint64 // bits of a float64, 0 to 1
	asked   atomic.Int64  // when somebody last asked for it, in nanoseconds
	rivaled atomic.Bool   // its asker has asked something else since

	result any
	err    error
}

// jobs are the questions that are worked out, one after the other, and the answers of the last ones. Who asks another question has most likely given up the
// one before: unless a page goes on asking for that, it ends soon.
type jobs struct {
	slot chan struct{}

	mu      sync.Mutex
	running map[string]*job // by key
	answers *lru.Cache[string, *job]
}

const (
	// mostAnswers is how many answers are kept: a plan weighs up to a megabyte.
	mostAnswers = 12
	// soon is how long a page waits for its answer before it shows how far it is.
	soon = 350 * time.Millisecond
	// bored is how long after it was last asked for a question is given up: many times the second after which a page that waits asks again. On a slow
	// machine or with a weak signal it may be long on its way, and a question that is given up meanwhile would be begun anew for ever. rivalBored is the same
	// where its asker has asked something else since: some times that second.
	bored      = time.Minute
	rivalBored = 5 * time.Second
)

func newJobs() *jobs {
	j := &jobs{slot: make(chan struct{}, 1), running: make(map[string]*job)}
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
			other.rivaled.Store(true)
		}
	}
	if here == nil || here.ctx.Err() != nil {
		ctx, stop := context.WithCancel(context.Background())
		here = &job{key: key, ctx: ctx, stop: stop, done: make(chan struct{})}
		j.running[key] = here
		go j.run(here, do)
		go here.giveUp()
	}
	here.asker = asker
	here.asked.Store(time.Now().UnixNano())
	return here
}

// errGivenUp is that nobody asked any more.
var errGivenUp = errors.New("it was left before it was worked out: ask again")

// run works a job out when it is its turn.
func (j *jobs) run(here *job, do Does) {
	defer close(here.done)
	defer here.stop()
	defer func() {
		if fault := recover(); fault != nil {
			here.err = fmt.Errorf("the computation failed: %v", fault)
		}
		j.mu.Lock()
		defer j.mu.Unlock()
		if j.running[here.key] == here {
			delete(j.running, here.key)
		}
		if here.err == nil {
			j.answers.Add(here.key, here)
		}
	}()
	select {
	case j.slot <- struct{}{}:
		defer func() { <-j.slot }()
	case <-here.ctx.Done():
		here.err = errGivenUp
		return
	}
	here.begun.Store(true)
	here.result, here.err = do(here.ctx, func(share float64) { here.share.Store(math.Float64bits(share)) })
	if here.ctx.Err() != nil {
		here.result, here.err = nil, errGivenUp
	}
}

// giveUp stops a job that nobody asks for any more.
func (here *job) giveUp() {
	tick := time.NewTicker(rivalBored / 8)
	defer tick.Stop()
	for {
		select {
		case <-here.ctx.Done():
			return
		case <-tick.C:
			patience := bored
			if here.rivaled.Load() {
				patience = rivalBored
			}
			if time.Now().UnixNano()-here.asked.Load() > int64(patience) {
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
			switch given := errors.Is(started.err, errGivenUp); {
			case given && c.Request().Method == http.MethodGet:
				return nil, false, s.working(c, snap, here, workingView{heading, 0, true}) // it is asked for after all, and begun anew
			case given:
				return nil, true, echo.NewHTTPError(http.StatusConflict, errGivenUp.Error())
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
