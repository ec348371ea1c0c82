package evidence

import (
	"cmp"
	"math"
	"slices"

	"dewcount/core/growth"
)

// The traits in the order of the lattice's axes.
const (
	pace = iota
	stems
	regrow
	traits
)

// spreads are the standard deviations of a log trait: of a crop about the table, a variety about its crop, and a planting
// about its variety.
type spreads struct{ crop, variety, planting float64 }

func (s spreads) all() float64 {
	return math.Sqrt(s.crop*s.crop + s.variety*s.variety + s.planting*s.planting)
}

var spread = [traits]spreads{
	pace:   {0.070, 0.040, 0.045},
	stems:  {0.25, 0.10, 0.20},
	regrow: {0.22, 0.05, 0.15},
}

// The lattice's axes: points a trait, over so many standard deviations to either side.
var points = [traits]int{pace: 23, stems: 11, regrow: 7}

const reach = 2.6

// axis returns the log values of a trait on the lattice.
func axis(trait int) []float64 {
	n := points[trait]
	values := make([]float64, n)
	for i := range values {
		values[i] = reach * spread[trait].all() * (2*float64(i)/float64(n-1) - 1)
	}
	return values
}

// A lattice is how likely a planting's records are under each of its traits, up to a factor.
type lattice struct {
	axes       [traits][]float64
	likelihood []float64 // by pace, then stems, then regrow
	tempered   float64   // the power that the records were lowered to so that they leave a choice; 1 if none
	walks      []walk    // by pace
	best       int       // the pace that explains the records best
	misfit     float64   // of the traits that explain the records best: the mean square of how far off they are, by their scatter
}

// An item is one number on record beside what the model expects: first stems of the first flush for each unit of the stems
// trait, then those that recorded cuts set off for each unit of the regrow trait.
type item struct {
	first, regrown float64
	seen           float64
	size           float64 // of the negative binomial
	weight         float64
	atLeast        bool   // only a lower bound was seen
	who            string // counted it; nobody for a cut
}

// A walk is what a planting's records hold against one pace: the items, those with nothing grown again first, and the log likelihood of
// its dates.
type walk struct {
	items []item
	again int // from which on something has grown again
	dates float64
}

// newLattice weighs the traits by the planting's records.
func newLattice(p *Planting) *lattice {
	l := &lattice{}
	for t := range traits {
		l.axes[t] = axis(t)
	}
	story := p.story()
	for _, logPace := range l.axes[pace] {
		items, dates := p.expect(story, math.Exp(logPace))
		// Where nothing has grown again, no regrowth explains it better: those items are looked at once.
		slices.SortStableFunc(items, func(a, b item) int { return cmp.Compare(min(a.regrown, leastRegrown), min(b.regrown, leastRegrown)) })
		again := slices.IndexFunc(items, func(it item) bool { return it.regrown >= leastRegrown })
		if again < 0 {
			again = len(items)
		}
		l.walks = append(l.walks, walk{items, again, dates})
	}
	l.weigh()
	return l
}

// correct reads the counts of those anew whose eyes are biased by these log factors.
func (l *lattice) correct(biased map[string]float64) {
	found := false
	for _, w := range l.walks {
		for i := range w.items {
			if log, ok := biased[w.items[i].who]; ok {
				w.items[i].first *= math.Exp(log)
				w.items[i].regrown *= math.Exp(log)
				found = true
			}
		}
	}
	if found {
		l.weigh()
	}
}

func (l *lattice) weigh() {
	l.tempered = 1
	log := make([]float64, 0, points[pace]*points[stems]*points[regrow])
	best := math.Inf(-1)
	for a, w := range l.walks {
		for _, logStems := range l.axes[stems] {
			first := math.Exp(logStems)
			plain := w.dates + explains(w.items[:w.again], first, 1)
			for _, logRegrow := range l.axes[regrow] {
				regrown := math.Exp(logRegrow)
				fit := plain + explains(w.items[w.again:], first, regrown)
				if log = append(log, fit); fit > best {
					best, l.best, l.misfit = fit, a, misfit(w.items, first, regrown)
				}
			}
		}
	}
	l.take(log)
}

// leastRegrown is from how many stems on a number on record has something to say about regrowth.
const leastRegrown = 0.01

// expect walks through the planting's story at one pace and returns the items on record, and the log likelihood of its dates.
func (p *Planting) expect(story []episode, pace float64) ([]item, float64) {
	first := p.Course.NewRun(p.Clock, growth.Traits{Pace: pace, Stems: 1, Regrow: 1})
	regrown := p.Course.NewRun(p.Clock, growth.Traits{Pace: pace, Stems: 0, Regrow: 1})
	window := p.Course.Planting().Market
	plants := p.Course.Planting().Plants
	var items []item
	dates := 0.0
	if p.FirstBud > 0 {
		const seenWithinDays = 3
		expected, _ := first.FirstBud()
		off := (expected - p.FirstBud) / seenWithinDays
		dates = -math.Min(off*off/2, 8)
	}
	counted := math.Inf(-1)
	for _, e := range story {
		first.To(e.at)
		regrown.To(e.at)
		switch {
		case e.count != nil:
			share := float64(e.count.Plants) / float64(plants)
			weight := min(1, (e.at-counted)/repeatDays)
			a, b := blurred(first.Rungs()), blurred(regrown.Rungs())
			for k, n := range e.count.Stems {
				items = append(items, item{first: a[k] * share, regrown: b[k] * share, seen: float64(n),
					size: size(e.count.Plants, rungCV2), weight: weight, who: e.count.Counter})
			}
			counted = e.at
			if e.count.Tried > 0 {
				first.Hold(e.count.soft())
				regrown.Hold(e.count.soft())
			}
		case e.cut != nil:
			a, b := first.Ready(window, e.cut.Ahead), regrown.Ready(window, e.cut.Ahead)
			share := e.cut.share(a + b)
			items = append(items, item{first: a, regrown: b, seen: float64(e.cut.Taken + max(0, e.cut.Left)),
				size: size(plants, cutCV2), weight: 1, atLeast: e.cut.Left == LeftUnknown, who: nobody})
			first.Take(window, share, e.cut.Ahead)
			regrown.Take(window, share, e.cut.Ahead)
			regrown.Regrow(float64(e.cut.Taken))
		default:
			first.Regrow(first.Take(window, 1, e.pick.Ahead))
			regrown.Regrow(regrown.Take(window, 1, e.pick.Ahead))
		}
	}
	return items, dates
}

// soft returns the share of the necks tried that failed, drawn a little towards none.
func (c *Count) soft() float64 { return float64(c.Tried-c.Firm) / float64(c.Tried+1) }

// repeatDays is how long the same stems stand where they can be counted again: a count so many days after another is news,
// a sooner one is so in part.
const repeatDays = 8

// share returns which part of the ready stems a cut took, where the model expected so many.
func (c *Cut) share(ready float64) float64 {
	switch {
	case c.Left == LeftNone:
		return 1
	case c.Left > 0:
		return float64(c.Taken) / float64(c.Taken+c.Left)
	case ready <= float64(c.Taken):
		return 1
	default:
		return float64(c.Taken) / ready
	}
}

// leastExpected keeps one stem where none was expected from ruling out all else: rows are mixed up and buds come out of turn.
const leastExpected = 0.3

// explains returns the log likelihood of the items, up to a constant, for traits given as multipliers.
func explains(items []item, first, regrow float64) float64 {
	sum := 0.0
	for i := range items {
		it := &items[i]
		mean := it.first*first + it.regrown*regrow + leastExpected
		if it.atLeast && mean > it.seen {
			mean = it.seen + leastExpected // as good as it can be: more than was taken may have stood there
		}
		fit := -(it.seen + it.size) * math.Log(mean+it.size)
		if it.seen > 0 {
			fit += it.seen * math.Log(mean)
		}
		sum += it.weight * fit
	}
	return sum
}

// misfit returns the weighted mean of the squares of how far the items lie from what traits expect, each by its variance.
func misfit(items []item, first, regrow float64) float64 {
	sum, weight := 0.0, 0.0
	for _, it := range items {
		mean := it.first*first + it.regrown*regrow + leastExpected
		if it.atLeast && mean > it.seen {
			continue
		}
		off := it.seen - mean
		sum += it.weight * off * off / (mean + mean*mean/it.size)
		weight += it.weight
	}
	return sum / max(1, weight)
}

// leastChoice is how many lattice points, counted by their weights (Kish 1965), the records must leave open.
const leastChoice = 6

// take turns log likelihoods into likelihoods, lowering them to a power below 1 as far as is needed to leave a choice.
func (l *lattice) take(log []float64) {
	best := math.Inf(-1)
	for _, v := range log {
		best = max(best, v)
	}
	l.likelihood = make([]float64, len(log))
	for {
		sum, squares := 0.0, 0.0
		prior := l.priors([traits]float64{}, [traits]float64{spread[pace].all(), spread[stems].all(), spread[regrow].all()})
		for i, v := range log {
			l.likelihood[i] = math.Exp(l.tempered * (v - best))
			a, b, c := l.split(i)
			w := l.likelihood[i] * prior[pace][a] * prior[stems][b] * prior[regrow][c]
			sum, squares = sum+w, squares+w*w
		}
		if sum*sum >= leastChoice*squares || l.tempered < 0.02 {
			return
		}
		l.tempered *= 0.75
	}
}

// split returns the places on the axes of a lattice point.
func (l *lattice) split(i int) (a, b, c int) {
	c = i % points[regrow]
	i /= points[regrow]
	return i / points[stems], i % points[stems], c
}

// priors returns normal densities, up to a factor, along each axis.
func (l *lattice) priors(mean, sd [traits]float64) [traits][]float64 {
	var prior [traits][]float64
	for t := range traits {
		prior[t] = make([]float64, points[t])
		for i, v := range l.axes[t] {
			z := (v - mean[t]) / sd[t]
			prior[t][i] = math.Exp(-z * z / 2)
		}
	}
	return prior
}

// message returns, for each trait, the mean and the precision that the records alone speak for.
func (l *lattice) message() message {
	var mean, precision [traits]float64
	var sd [traits]float64
	for t := range traits {
		sd[t] = spread[t].all()
	}
	prior := l.priors([traits]float64{}, sd)
	var sum float64
	var first, second [traits]float64
	for i, v := range l.likelihood {
		at := [traits]int{}
		at[pace], at[stems], at[regrow] = l.split(i)
		w := v * prior[pace][at[pace]] * prior[stems][at[stems]] * prior[regrow][at[regrow]]
		sum += w
		for t := range traits {
			x := l.axes[t][at[t]]
			first[t] += w * x
			second[t] += w * x * x
		}
	}
	for t := range traits {
		m := first[t] / sum
		variance := second[t]/sum - m*m
		step := l.axes[t][1] - l.axes[t][0]
		variance = max(variance, step*step/12) // the lattice knows no finer
		of := 1 / (sd[t] * sd[t])
		precision[t] = max(0, 1/variance-of)
		if precision[t] > 0 {
			mean[t] = m / variance / precision[t]
		}
	}
	return message{mean, precision}
}

// draw returns log traits with the likelihood of the records and a normal prior; u are three numbers in [0, 1).
func (l *lattice) draw(mean, sd [traits]float64, u [traits]float64) [traits]float64 {
	prior := l.priors(mean, sd)
	nb, nc := points[stems], points[regrow]
	sum := 0.0
	running := make([]float64, points[pace]*nb)
	for a, pa := range prior[pace] {
		for b, pb := range prior[stems] {
			row := l.likelihood[(a*nb+b)*nc : (a*nb+b+1)*nc]
			inner := 0.0
			for c, pc := range prior[regrow] {
				inner += row[c] * pc
			}
			sum += pa * pb * inner
			running[a*nb+b] = sum
		}
	}
	if !(sum > 0) {
		return mean // the records rule out all that the prior leaves: keep to the prior
	}
	ab, restAB := pick(running, u[0]*sum)
	row := l.likelihood[ab*nc : (ab+1)*nc]
	inner := 0.0
	third := make([]float64, nc)
	for c, pc := range prior[regrow] {
		inner += row[c] * pc
		third[c] = inner
	}
	c, restC := pick(third, u[2]*inner)
	cell := func(t, i int, within float64) float64 {
		step := l.axes[t][1] - l.axes[t][0]
		return l.axes[t][i] + (within-0.5)*step
	}
	return [traits]float64{
		pace:   cell(pace, ab/nb, restAB),
		stems:  cell(stems, ab%nb, u[1]),
		regrow: cell(regrow, c, restC),
	}
}

// pick returns the first place whose running sum exceeds value, and how far into it value lies, 0 to 1.
func pick(running []float64, value float64) (int, float64) {
	before := 0.0
	for i, sum := range running {
		if value < sum {
			return i, (value - before) / (sum - before)
		}
		before = sum
	}
	return len(running) - 1, 0.5
}
