package evidence

import (
	"fmt"
	"math"
	"reflect"
	"slices"
	"strings"
	"sync"
)

// Lessons keep what plantings have taught that are long over, so that a farm's tenth year costs little more than its first. They can be used
// at the same time. A lesson holds as long as nothing has changed that it rests on.
type Lessons struct {
	mu    sync.Mutex
	known map[string]*lesson // by the planting's ID
}

// NewLessons returns lessons of which nothing is known.
func NewLessons() *Lessons { return &Lessons{known: make(map[string]*lesson)} }

// A lesson is what a planting's records say: of the eyes that counted it, and of the traits, as they read with those eyes.
type lesson struct {
	from    Planting
	glances map[string]glance

	mu    sync.Mutex
	grid  *lattice // until it is first read: it weighs a hundred times what it says
	reads map[string]message
}

// A message is what a planting's records alone speak for, for each kind: the mean and the precision of each log trait, and the log of how
// well it explains them.
type message struct {
	mean, precision [len(kinds)][traits]float64
	fit             [len(kinds)]float64
}

// of returns the lesson of a planting, worked out if it is new or rests on other things than before. Nil lessons know nothing.
func (l *Lessons) of(p *Planting) *lesson {
	if l != nil {
		l.mu.Lock()
		known := l.known[p.ID]
		l.mu.Unlock()
		if known != nil && known.isOf(p) {
			return known
		}
	}
	grid := newLattice(p)
	fresh := &lesson{from: *p, glances: grid.glances(), grid: grid}
	if l != nil {
		l.mu.Lock()
		l.known[p.ID] = fresh
		l.mu.Unlock()
	}
	return fresh
}

// isOf tells whether the lesson rests on the same as a planting, whose weather it goes by from then on: that of another day is not kept.
func (l *lesson) isOf(p *Planting) bool {
	l.mu.Lock()
	defer l.mu.Unlock()
	same := l.from.isSame(p)
	if same {
		l.from = *p
	}
	return same
}

// isSame tells whether all that two plantings teach rests on the same.
func (p *Planting) isSame(o *Planting) bool {
	return p.FirstBud == o.FirstBud && p.Unwritten == o.Unwritten && slices.Equal(p.Counts, o.Counts) && slices.Equal(p.Cuts, o.Cuts) && slices.Equal(p.Picks, o.Picks) &&
		reflect.DeepEqual(p.Over, o.Over) && reflect.DeepEqual(p.Course.Planting(), o.Course.Planting())
}

// read returns what the lesson says where these eyes have counted. Only those of its own counters matter.
func (l *lesson) read(biased map[string]float64) message {
	l.mu.Lock()
	defer l.mu.Unlock()
	var key strings.Builder
	for _, c := range l.from.Counts {
		if log, ok := biased[c.Counter]; ok && !strings.Contains(key.String(), c.Counter+"\x00") {
			fmt.Fprintf(&key, "%s\x00%g\x00", c.Counter, log)
		}
	}
	said, ok := l.reads[key.String()]
	if !ok {
		grid := l.grid
		if grid == nil {
			grid = newLattice(&l.from)
		}
		grid.correct(biased)
		said, l.grid = grid.message(), nil
		l.reads = map[string]message{key.String(): said} // what other eyes read is not asked for again
	}
	return said
}

// eyesStep is how finely the eyes are told apart by which what is long over is read: a finer difference would be worked out anew every day.
const eyesStep = 0.02

// coarsely returns log factors in steps.
func coarsely(eyes map[string]float64) map[string]float64 {
	coarse := make(map[string]float64)
	for who, log := range eyes {
		if log = math.Round(log/eyesStep) * eyesStep; log != 0 {
			coarse[who] = log
		}
	}
	return coarse
}
