package people

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"net"
	"strings"
	"sync"
	"time"

	lru "github.com/hashicorp/golang-lru/v2"
)

// A Slowed is that too much was guessed: nothing is tried until After has passed.
type Slowed struct{ After time.Duration }

// Error says when to come back.
func (s *Slowed) Error() string {
	return fmt.Sprintf("too many tries: wait %s and try again", s.After.Round(time.Second))
}

// What a limit bears: some tries are free, then the wait doubles from one second up to longestWait. A limit that was quiet for twice so long
// is forgotten, and no more than mostLimits are remembered.
const (
	fewTries    = 5  // of one name from one place, or of a secret
	placeTries  = 12 // of any names from one place: a crew comes in together
	nameTries   = 40 // of one name from all places together, but those it has come in from before
	longestWait = 15 * time.Minute
	mostLimits  = 10_000
)

// A limit is what tries come by: its name is bounded, however long what was typed is.
type limit struct {
	name string
	free int // tries
}

func limitOf(free int, parts ...string) limit {
	sum := sha256.Sum256([]byte(strings.Join(parts, "\x00")))
	return limit{hex.EncodeToString(sum[:12]), free}
}

// placeOf returns what of an address tells one place from another: a network of IPv6 gives one machine any number of addresses.
func placeOf(from string) string {
	if ip := net.ParseIP(from); ip != nil && ip.To4() == nil {
		return ip.Mask(net.CIDRMask(64, 128)).String()
	}
	return from
}

// signInLimits are the limits by which somebody signs in by name. A place that the name has come in from before is not held up by others'
// tries of that name.
func (t *throttle) signInLimits(name, from string) []limit {
	name, from = strings.ToLower(strings.TrimSpace(name)), placeOf(from)
	limits := []limit{limitOf(fewTries, "name at place", name, from), limitOf(placeTries, "place", from)}
	if !t.homes.Contains(limits[0].name) {
		limits = append(limits, limitOf(nameTries, "name", name))
	}
	return limits
}

// secretLimits are the limits by which a secret of a kind is tried: an old calendar that a phone still asks for must not shut the sign-in.
func (t *throttle) secretLimits(kind, from string) []limit {
	return []limit{limitOf(fewTries, kind, placeOf(from))}
}

// A throttle slows guessing.
type throttle struct {
	clock func() time.Time

	mutex sync.Mutex
	tried *lru.Cache[string, tries] // by limit
	homes *lru.Cache[string, bool]  // limits of a name at a place by which it has come in
}

// tries are what was tried at a limit in vain.
type tries struct {
	failures int
	closed   time.Time // until then
	last     time.Time
}

func newThrottle(clock func() time.Time) *throttle {
	t := &throttle{clock: clock}
	t.tried, _ = lru.New[string, tries](mostLimits) // an error is of a size below one
	t.homes, _ = lru.New[string, bool](mostLimits)
	return t
}

// enter counts a try at each limit, before anything is compared: any number of tries at once are as many. It returns a *Slowed, and counts
// nothing, where one of the limits is reached.
func (t *throttle) enter(limits ...limit) error {
	t.mutex.Lock()
	defer t.mutex.Unlock()
	now := t.clock()
	for _, d := range limits {
		if at, ok := t.tried.Peek(d.name); ok && now.Before(at.closed) {
			return &Slowed{After: at.closed.Sub(now)}
		}
	}
	for _, d := range limits {
		at, _ := t.tried.Get(d.name)
		if now.Sub(at.last) > 2*longestWait {
			at = tries{}
		}
		at.failures, at.last = at.failures+1, now
		if over := at.failures - d.free; over >= 0 {
			wait := longestWait
			if over < 10 { // 2^10 s is beyond longestWait
				wait = min(longestWait, time.Second<<over)
			}
			at.closed = now.Add(wait)
		}
		t.tried.Add(d.name, at)
	}
	return nil
}

// passed forgets the try of who came in: at the limits of others by one, at its own first limit altogether.
func (t *throttle) passed(limits ...limit) {
	t.mutex.Lock()
	defer t.mutex.Unlock()
	for i, d := range limits {
		at, ok := t.tried.Get(d.name)
		switch {
		case i == 0:
			t.tried.Remove(d.name)
		case ok:
			at.failures--
			if at.failures < d.free {
				at.closed = time.Time{}
			}
			t.tried.Add(d.name, at)
		}
	}
}

// atHome remembers that a name has come in at a place.
func (t *throttle) atHome(own limit) { t.homes.Add(own.name, true) }
