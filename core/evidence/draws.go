package evidence

import (
	"hash/fnv"
	"math"
	"math/rand/v2"
	"runtime"
	"sync"
	"sync/atomic"

	"dewcount/core/crop"
	"dewcount/core/growth"

	"gonum.org/v1/gonum/stat/distuv"
)

// Known is what the records leave of a planting: by draw its traits, and a run that stands at its Until.
type Known struct {
	Traits   []growth.Traits
	Runs     []*growth.Run
	Strained bool // its records contradict each other, or all that is thought possible
}

// Standing returns, for each planting in the order given, what its records leave: draws of traits that explain them and agree with what
// is known of its variety and crop, and the planting under each at its Until, corrected by its counts. Draw i of all plantings is
// joint. Sowing the same seed gives the same draws, and a planting more leaves those of the others alone.
func Standing(plantings []Planting, draws int, seed uint64) []Known {
	known, _ := StandingOf(plantings, func(int) bool { return true }, nil, draws, seed)
	return known
}

// StandingOf is Standing for some of the plantings, by their place; of the others only the records teach, and those that are long over do so
// by their lessons. later returns what is left of any of them, for who asks after all; it can be called at any time, also at once.
func StandingOf(plantings []Planting, wanted func(int) bool, lessons *Lessons, draws int, seed uint64) (known []Known, later func(i int) Known) {
	tree := newTree(plantings, lessons)
	above, ofCrop := tree.above(plantings, draws, seed)
	left := func(i int, l *lattice, eyes map[string]float64) Known {
		p := &plantings[i]
		k := Known{Traits: make([]growth.Traits, draws), Runs: make([]*growth.Run, draws), Strained: l != nil && l.misfit() > strained}
		prior, of := priorOf(p.Course.Planting().Profile), ofCrop[p.cropID()]
		for d, log := range prior.drawPlanting(l, above[p.Variety], of, stream(seed, "planting", p.ID)) {
			for t := range traits {
				log[t] = min(prior.most[t], max(prior.least[t], log[t]))
			}
			k.Traits[d] = growth.Traits{Pace: math.Exp(log[pace]), Stems: math.Exp(log[stems]), Regrow: math.Exp(log[regrow]), Fade: log[fade],
				Spread: kinds[of[d]].spread, Answer: kinds[of[d]].answer}
		}
		story, random := p.story(), stream(seed, "standing", p.ID)
		for d := range draws {
			k.Runs[d] = p.replay(story, k.Traits[d], eyes, random)
		}
		return k
	}
	known = make([]Known, len(plantings))
	sideBySide(len(plantings), func(i int) {
		if wanted(i) {
			known[i] = left(i, tree.lattices[i], tree.eyes[plantings[i].cropID()])
		}
	})
	past := tree.past
	return known, func(i int) Known {
		p := &plantings[i]
		eyes := past[p.cropID()]
		var l *lattice
		if p.hasRecords() {
			l = newLattice(p)
			l.correct(eyes)
		}
		return left(i, l, eyes)
	}
}

// sideBySide does n things on all processors.
func sideBySide(n int, do func(i int)) {
	var workers sync.WaitGroup
	var next atomic.Int64
	for range runtime.GOMAXPROCS(0) {
		workers.Go(func() {
			for i := int(next.Add(1)) - 1; i < n; i = int(next.Add(1)) - 1 {
				do(i)
			}
		})
	}
	workers.Wait()
}

// strained is from which misfit on records cannot all be true of one planting: numbers that lie more than two and a half times as far
// off as they scatter.
const strained = 6

// above returns the joint draws of all varieties' log traits, and those of all crops' kinds.
func (t *tree) above(plantings []Planting, draws int, seed uint64) (varieties map[string][][traits]float64, kind map[string][]int) {
	crops := make(map[string][][traits]float64)
	varieties, kind = make(map[string][][traits]float64), make(map[string][]int)
	for i := range plantings {
		p := &plantings[i]
		cropID := p.cropID()
		if crops[cropID] == nil {
			kind[cropID] = drawKinds(t.fit[cropID], draws, stream(seed, "kind", cropID))
			table := make([][traits]float64, draws)
			for d := range table {
				table[d] = priorOf(p.Course.Planting().Profile).middle
			}
			crops[cropID] = t.crops[cropID].draw(table, kind[cropID], stream(seed, "crop", cropID))
		}
		if varieties[p.Variety] == nil {
			varieties[p.Variety] = t.varieties[p.Variety].draw(crops[cropID], kind[cropID], stream(seed, "variety", p.Variety))
		}
	}
	return varieties, kind
}

// stream returns the random numbers of one purpose.
func stream(seed uint64, purpose, name string) *rand.Rand {
	h := fnv.New64a()
	h.Write([]byte(purpose + "\x00" + name))
	return rand.New(rand.NewPCG(seed, h.Sum64()))
}

// A tree holds what the records say of plantings, varieties and crops.
type tree struct {
	lattices         []*lattice // by planting; nil where nothing is on record, and for what is long over
	says             []message  // by planting, where something is on record
	varieties, crops map[string]*branch
	fit              map[string][len(kinds)]float64 // by crop: how well each kind explains its records, as a log
	eyes             map[string]map[string]float64  // by crop, then by who counted: log factors
	past             map[string]map[string]float64  // the same as what is long over is read by
}

// A branch gathers what its members say of it, for each kind: means weighted by precisions.
type branch struct {
	weighted, precision [len(kinds)][traits]float64
	own                 [traits]float64 // its standard deviation about what is above it
}

func newTree(plantings []Planting, lessons *Lessons) *tree {
	t := &tree{make([]*lattice, len(plantings)), make([]message, len(plantings)), make(map[string]*branch), make(map[string]*branch),
		make(map[string][len(kinds)]float64), make(map[string]map[string]float64), make(map[string]map[string]float64)}
	t.read(plantings, lessons)
	of := make(map[string]*Planting)
	var varieties []string // in a fixed order, for sums in a fixed order
	for i := range plantings {
		p := &plantings[i]
		cropID, prior := p.cropID(), priorOf(p.Course.Planting().Profile)
		if t.varieties[p.Variety] == nil {
			varieties = append(varieties, p.Variety)
			of[p.Variety] = p
			t.varieties[p.Variety] = prior.newBranch(func(s spreads) float64 { return s.variety })
		}
		if t.crops[cropID] == nil {
			t.crops[cropID] = prior.newBranch(func(s spreads) float64 { return s.crop })
		}
		if p.hasRecords() {
			fit := t.fit[cropID]
			for k := range fit {
				fit[k] += t.says[i].fit[k]
				for trait := range traits {
					t.varieties[p.Variety].learn(k, trait, t.says[i].mean[k][trait], t.says[i].precision[k][trait], prior.spread[trait].planting)
				}
			}
			t.fit[cropID] = fit
		}
	}
	for _, v := range varieties {
		b, prior := t.varieties[v], priorOf(of[v].Course.Planting().Profile)
		for k := range kinds {
			for trait := range traits {
				if b.precision[k][trait] > 0 {
					t.crops[of[v].cropID()].learn(k, trait, b.weighted[k][trait]/b.precision[k][trait], b.precision[k][trait], prior.spread[trait].variety)
				}
			}
		}
	}
	return t
}

// read weighs every planting's own records, and reads the counts of biased eyes anew. What is long over is read by the eyes that it shows
// itself: a count of today changes nothing in it.
func (t *tree) read(plantings []Planting, lessons *Lessons) {
	glances, over := make([]map[string]glance, len(plantings)), make([]*lesson, len(plantings))
	sideBySide(len(plantings), func(i int) {
		p := &plantings[i]
		switch {
		case !p.hasRecords():
		case p.Over != nil:
			over[i] = lessons.of(p)
			glances[i] = over[i].glances
		default:
			t.lattices[i] = newLattice(p)
			glances[i] = t.lattices[i].glances()
		}
	})
	all, past := make(map[string][]map[string]glance), make(map[string][]map[string]glance)
	for i := range plantings {
		id := plantings[i].cropID()
		all[id] = append(all[id], glances[i])
		if over[i] != nil {
			past[id] = append(past[id], glances[i])
		}
	}
	for id := range all {
		t.eyes[id], t.past[id] = eyes(all[id]), coarsely(eyes(past[id]))
	}
	sideBySide(len(plantings), func(i int) {
		id := plantings[i].cropID()
		switch {
		case over[i] != nil:
			t.says[i] = over[i].read(t.past[id])
		case t.lattices[i] != nil:
			t.lattices[i].correct(t.eyes[id])
			t.says[i] = t.lattices[i].message()
		}
	})
}

// cropID returns the id of the planting's crop.
func (p *Planting) cropID() string { return p.Course.Planting().Profile.ID }

func (p *prior) newBranch(own func(spreads) float64) *branch {
	b := new(branch)
	for t := range traits {
		b.own[t] = own(p.spread[t])
	}
	return b
}

// learn adds what a member says for a kind, whose own standard deviation about the branch is sd.
func (b *branch) learn(kind, trait int, mean, precision, sd float64) {
	if precision <= 0 {
		return
	}
	precision = 1 / (1/precision + sd*sd)
	b.precision[kind][trait] += precision
	b.weighted[kind][trait] += precision * mean
}

// draw returns draws of the branch's log traits, given those of what is above it and the kind of each draw.
func (b *branch) draw(above [][traits]float64, of []int, random *rand.Rand) [][traits]float64 {
	drawn := make([][traits]float64, len(above))
	for t := range traits {
		z := strata(len(above), random)
		for d := range drawn {
			own := 1 / (b.own[t] * b.own[t])
			precision := own + b.precision[of[d]][t]
			drawn[d][t] = (above[d][t]*own+b.weighted[of[d]][t])/precision + distuv.UnitNormal.Quantile(z[d])/math.Sqrt(precision)
		}
	}
	return drawn
}

// drawPlanting returns draws of a planting's log traits, given those of its variety and the kind of each draw.
func (p *prior) drawPlanting(l *lattice, variety [][traits]float64, of []int, random *rand.Rand) [][traits]float64 {
	drawn := make([][traits]float64, len(variety))
	var u [traits][]float64
	var sd [traits]float64
	for t := range traits {
		u[t] = strata(len(variety), random)
		sd[t] = p.spread[t].planting
	}
	for d, mean := range variety {
		if l != nil {
			drawn[d] = l.draw(of[d], mean, sd, [traits]float64{u[pace][d], u[stems][d], u[regrow][d], u[fade][d]})
			continue
		}
		for t := range traits {
			drawn[d][t] = mean[t] + sd[t]*distuv.UnitNormal.Quantile(u[t][d])
		}
	}
	return drawn
}

// strata returns count numbers in (0, 1), one from each of count equal parts, shuffled (McKay et al. 1979).
func strata(count int, random *rand.Rand) []float64 {
	u := make([]float64, count)
	for i, place := range random.Perm(count) {
		u[i] = (float64(place) + 0.01 + 0.98*random.Float64()) / float64(count)
	}
	return u
}

// replay walks through the planting's story under one draw and returns it at Until.
func (p *Planting) replay(story []episode, traits growth.Traits, eyes map[string]float64, random *rand.Rand) *growth.Run {
	run := p.Course.NewRun(p.Clock, traits)
	window := p.Course.Planting().Market
	for _, e := range story {
		run.To(e.at)
		switch {
		case e.count != nil:
			run.Correct(p.standing(run.Rungs(), e.count, math.Exp(eyes[e.count.Counter]), random))
			if e.count.Tried > 0 {
				run.Hold(e.count.soft())
			}
		case e.cut != nil:
			run.Take(window, e.cut.share(run.Ready(window, e.cut.Ahead)), e.cut.Ahead)
			run.Regrow(float64(e.cut.Taken))
		default:
			if p.Unwritten {
				run.Cut(window, 1)
			} else {
				run.Regrow(run.Take(window, 1, e.pick.Ahead))
			}
		}
	}
	run.To(p.Until)
	run.Drift(math.Exp(-paceReverts*math.Log(traits.Pace) + paceDrifts*random.NormFloat64()))
	return run
}

// What a planting did so far was seen under the weather of so far, which the response to temperature gets somewhat wrong: from here on
// its log pace goes back a little towards the table's, and is uncertain by a standard deviation of its own.
const (
	paceReverts = 0.15
	paceDrifts  = 0.04
)

// standing returns the stems that a draw has on each rung once a count is known. What the crew would call a rung is gamma about what the draw
// expected of it, and what was seen of it is a Poisson share: it is drawn about the mean of the conjugate posterior (Gelman et al. 2013,
// ch. 2). Of its variance the draw scatters by what the count brings in: as much as the count is believed, for what it does not tell is in
// the draws already, and by the plants that were not looked at, for the others' stems are known (finite population correction, Cochran 1977).
// By how many times more or fewer were called a rung than were expected to be, goes back to the rungs on which they may stand (one step of
// Richardson 1972 and Lucy 1974): a few buds that are called too open are no crowd on the next rung. sees is the factor by which the
// counter's eyes are off.
func (p *Planting) standing(expected [crop.Rungs]float64, c *Count, sees float64, random *rand.Rand) [crop.Rungs]float64 {
	share := sees * float64(c.Plants) / float64(p.Course.Planting().Plants)
	few := p.Course.FirstFlush() * fewStems
	unseen := max(leastUnseen, 1-float64(c.Plants)/float64(p.Course.Planting().Plants))
	for k, n := range c.Stems {
		if n > 0 { // where nobody saw any, a few each time would be stems that no plant bears
			expected[k] += few
		}
	}
	var factor [crop.Rungs]float64
	for k, called := range c.Eye.Sees(expected) {
		if called < leastCalled {
			continue
		}
		seen := share * called
		news := 1 / (1 + seen*rungPlantCV*rungPlantCV/float64(c.Plants)) // plants that differ tell less than their stems' number
		sure := 1 / (standingCV2 + standingFew/called)
		part := news * seen / (sure + news*seen) * unseen * unseen
		scatter := distuv.Gamma{Alpha: (sure + news*float64(c.Stems[k])) / part, Beta: (sure + news*seen) / part, Src: random}
		factor[k] = scatter.Rand()
	}
	for k, by := range c.Eye.back(factor) {
		expected[k] *= by
	}
	return expected
}

// leastUnseen is the share of the plants whose stems are unknown even where all were counted: some are overlooked.
const leastUnseen = 0.02

// fewStems is the share of the first flush that a draw must think possible on a rung on which some were seen, so that a count which no
// draw foresaw still counts.
const fewStems = 0.004

// leastCalled is how many stems, called a rung, are as good as none.
const leastCalled = 1e-6
