package people

import (
	"fmt"
	"sync"
	"time"
)

// A Slowed is that too much was guessed: nothing is tried until After has passed.
type Slowed struct{ After time.Duration }

// Error says when to come back.
func (s *Slowed) Error() string {
	return fmt.Sprintf("too many tries: wait %s and try again", s.After.Round(time.Second))
}

// What a door bears: some tries are free, then the wait doubles from one second up to longestWait. A door that was quiet for so long is
// forgotten, and no more than mostDoors are remembered.
const (
	freeTries   = 5
	longestWait = 15 * time.Minute
	mostDoors   = 10_000
)

// A throttle slows guessing. A door is a place that tries come from, or a name that is tried.
type throttle struct {
	clock func() time.Time
	mutex sync.Mutex
	doors map[string]*door
}

type door struct {
	failures int
	closed   time.Time // until then
	last     time.Time
}

func newThrottle(clock func() time.Time) *throttle {
	return &throttle{clock: clock, doors: make(map[string]*door)}
}

// mayTry returns a *Slowed where one of the doors is closed.
func (t *throttle) mayTry(doors ...string) error {
	t.mutex.Lock()
	defer t.mutex.Unlock()
	now := t.clock()
	for _, name := range doors {
		if d := t.doors[name]; d != nil && now.Before(d.closed) {
			return &Slowed{After: d.closed.Sub(now)}
		}
	}
	return nil
}

func (t *throttle) failed(doors ...string) {
	t.mutex.Lock()
	defer t.mutex.Unlock()
	now := t.clock()
	if len(t.doors) >= mostDoors {
		t.forget(now)
	}
	for _, name := range doors {
		d := t.doors[name]
		if d == nil || now.Sub(d.last) > 2*longestWait {
			d = &door{}
			t.doors[name] = d
		}
		d.failures, d.last = d.failures+1, now
		if over := d.failures - freeTries; over >= 0 {
			wait := longestWait
			if over < 10 { // 2^10 s is beyond longestWait
				wait = min(longestWait, time.Second<<over)
			}
			d.closed = now.Add(wait)
		}
	}
}

// passed forgets the failures of a door that somebody came in by.
func (t *throttle) passed(doors ...string) {
	t.mutex.Lock()
	defer t.mutex.Unlock()
	for _, name := range doors {
		delete(t.doors, name)
	}
}

// forget makes room: of quiet doors first, of all that are open if that is not enough.
func (t *throttle) forget(now time.Time) {
	for name, d := range t.doors {
		if now.Sub(d.last) > 2*longestWait {
			delete(t.doors, name)
		}
	}
	if len(t.doors) < mostDoors {
		return
	}
	for name, d := range t.doors {
		if !now.Before(d.closed) {
			delete(t.doors, name)
		}
	}
}
