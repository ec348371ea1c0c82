package evidence

import (
	"math"

	"dewcount/core/crop"
	"dewcount/core/growth"

	"gonum.org/v1/gonum/stat/distuv"
)

// The traits in order.
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

// A prior is what is thought of a crop's log traits before anything is on record: what they are in the middle, how they spread, and beyond
// what they are not believed whatever the records say. Stems and regrowth would else make up for what the model gets wrong elsewhere, by
// several times, and every flush would multiply it.
type prior struct {
	middle      [traits]float64
	spread      [traits]spreads
	least, most [traits]float64
}

var usualPrior = prior{
	spread: [traits]spreads{
		pace:   {0.070, 0.040, 0.045},
		stems:  {0.25, 0.10, 0.20},
		regrow: {0.16, 0.05, 0.10},
	},
	least: [traits]float64{pace: -1, stems: -0.85, regrow: -0.4},
	most:  [traits]float64{pace: 1, stems: 0.85, regrow: 0.4},
}

// oneStemPrior is that of a crop of one stem a plant: all that can vary is how many plants are lost. Of those that come up in its bed a farm
// loses one in twenty, more or less (a guess).
var oneStemPrior = prior{
	middle: [traits]float64{stems: -0.05},
	spread: [traits]spreads{pace: usualPrior.spread[pace], stems: {0.03, 0.02, 0.05}, regrow: usualPrior.spread[regrow]},
	least:  [traits]float64{pace: -1, stems: -3, regrow: usualPrior.least[regrow]},
	most:   [traits]float64{pace: 1, stems: 0, regrow: usualPrior.most[regrow]},
}

func priorOf(p *crop.Profile) *prior {
	if p.OneStem() {
		return &oneStemPrior
	}
	return &usualPrior
}

// paces is how many paces are tried, over pacesReach standard deviations to either side.
const (
	paces      = 19
	pacesReach = 3.3
)

// logPace returns the log of a pace that is tried.
func (p *prior) logPace(i int) float64 {
	return pacesReach * p.spread[pace].all() * (2*float64(i)/(paces-1) - 1)
}

// A lattice is how likely a planting's records are under each of its traits, up to a factor: for each spread and pace the likelihood of log
// stems and log regrow as a normal distribution about its mode (Laplace's method, as in Gelman et al. 2013, ch. 4).
type lattice struct {
	prior  *prior
	walks  [len(growth.Spreads)][paces]walk
	normal [len(growth.Spreads)][paces]normal
	best   *walk   // that which explains the records best
	misfit float64 // of the traits that explain the records best: the mean square of how far off they are, by their scatter
}

// A normal is a likelihood of log stems and log regrow, exp(peak - x'Λx/2 + η'x).
type normal struct {
	peak      float64
	precision [3]float64 // Λ: of stems, of both, of regrow
	pull      [2]float64 // η
}

// newLattice weighs the traits by the planting's records.
func newLattice(p *Planting) *lattice {
	l := &lattice{prior: priorOf(p.Course.Planting().Profile)}
	story := p.story()
	for s, spread := range growth.Spreads {
		for i := range paces {
			items, dates := p.expect(story, growth.Traits{Pace: math.Exp(l.prior.logPace(i)), Spread: spread})
			l.walks[s][i] = walk{items, dates}
		}
	}
	l.weigh()
	return l
}

// correct reads the counts of those anew whose eyes are biased by these log factors.
func (l *lattice) correct(biased map[string]float64) {
	found := false
	for s := range l.walks {
		for _, w := range l.walks[s] {
			for i := range w.items {
				if log, ok := biased[w.items[i].who]; ok {
					w.items[i].first *= math.Exp(log)
					w.items[i].regrown *= math.Exp(log)
					found = true
				}
			}
		}
	}
	if found {
		l.weigh()
	}
}

func (l *lattice) weigh() {
	best := math.Inf(-1)
	for s := range l.walks {
		for i := range l.walks[s] {
			w := &l.walks[s][i]
			n, mode, fit := likelihood(w.items, l.prior, func(*item) bool { return true })
			n.peak += w.dates
			l.normal[s][i] = n
			z := l.prior.logPace(i) / l.prior.spread[pace].all()
			if fit += w.dates - z*z/2; fit > best {
				best, l.best = fit, w
				l.misfit = misfit(w.items, math.Exp(mode[0]), math.Exp(mode[1]))
			}
		}
	}
}

// likelihood returns the likelihood of some of the items about where it and the prior are highest, that place, and how high they are there.
// The place is found by Fisher's scoring (McCullagh & Nelder 1989, ch. 2), which needs no logarithms on its way.
func likelihood(items []item, p *prior, which func(*item) bool) (n normal, at [2]float64, fit float64) {
	middle := [2]float64{p.middle[stems], p.middle[regrow]}
	var own [2]float64
	for k, t := range [2]int{stems, regrow} {
		sd := p.spread[t].all()
		own[k] = 1 / (sd * sd)
	}
	at = middle
	const steps, farthest = 12, 0.5
	for range steps {
		first, regrown := math.Exp(at[0]), math.Exp(at[1])
		n.precision = [3]float64{}
		slope := [2]float64{-own[0] * (at[0] - middle[0]), -own[1] * (at[1] - middle[1])}
		for i := range items {
			it := &items[i]
			a, b := it.first*first, it.regrown*regrown
			mean := a + b + leastExpected
			if !which(it) || it.atLeast && mean > it.seen {
				continue // as good as it can be: more than was taken may have stood there
			}
			weight := it.weight / (mean + mean*mean/it.size)
			off := weight * (it.seen - mean)
			slope[0] += off * a
			slope[1] += off * b
			n.precision[0] += weight * a * a
			n.precision[1] += weight * a * b
			n.precision[2] += weight * b * b
		}
		step := solve([3]float64{n.precision[0] + own[0], n.precision[1], n.precision[2] + own[1]}, slope)
		moved := 0.0
		for k := range at {
			step[k] = min(farthest, max(-farthest, step[k]))
			at[k] += step[k]
			moved = max(moved, math.Abs(step[k]))
		}
		const near = 1e-3
		if moved < near {
			break
		}
	}
	// at the top of both the slope of the likelihood is the prior's, turned about
	x := at
	lx := [2]float64{n.precision[0]*x[0] + n.precision[1]*x[1], n.precision[1]*x[0] + n.precision[2]*x[1]}
	for k := range x {
		n.pull[k] = lx[k] + own[k]*(x[k]-middle[k])
	}
	fit = explains(items, math.Exp(x[0]), math.Exp(x[1]), which)
	n.peak = fit + (x[0]*lx[0]+x[1]*lx[1])/2 - n.pull[0]*x[0] - n.pull[1]*x[1]
	for k := range x {
		fit -= own[k] * (x[k] - middle[k]) * (x[k] - middle[k]) / 2
	}
	return n, at, fit
}

// solve returns x of Ax = b for a symmetric A, given as its first, its mixed and its last element.
func solve(a [3]float64, b [2]float64) [2]float64 {
	det := a[0]*a[2] - a[1]*a[1]
	return [2]float64{(a[2]*b[0] - a[1]*b[1]) / det, (a[0]*b[1] - a[1]*b[0]) / det}
}

// leastExpected keeps one stem where none was expected from ruling out all else: rows are mixed up and buds come out of turn.
const leastExpected = 0.3

// explains returns the log likelihood of some of the items, up to a constant, for traits given as multipliers.
func explains(items []item, first, regrow float64, which func(*item) bool) float64 {
	sum := 0.0
	for i := range items {
		it := &items[i]
		if !which(it) {
			continue
		}
		mean := it.first*first + it.regrown*regrow + leastExpected
		if it.atLeast && mean > it.seen {
			mean = it.seen + leastExpected
		}
		fit := -(it.seen + it.size) * math.Log(mean+it.size)
		if it.seen > 0 {
			fit += it.seen * math.Log(mean)
		}
		sum += it.weight * fit
	}
	return sum
}

// under returns the likelihood joined with a normal prior about a middle: its middle, its precision, and the log of its weight.
func (n *normal) under(middle, sd [2]float64) (mean [2]float64, precision [3]float64, log float64) {
	precision = n.precision
	pull := n.pull
	log = n.peak
	for k := range 2 {
		own := 1 / (sd[k] * sd[k])
		precision[2*k] += own
		pull[k] += own * middle[k]
		log -= own*middle[k]*middle[k]/2 + math.Log(sd[k])
	}
	mean = solve(precision, pull)
	log += (mean[0]*pull[0]+mean[1]*pull[1])/2 - math.Log(precision[0]*precision[2]-precision[1]*precision[1])/2
	return mean, precision, log
}

// message returns what the records alone speak for, for each spread.
func (l *lattice) message() message {
	var said message
	sd := [2]float64{l.prior.spread[stems].all(), l.prior.spread[regrow].all()}
	middle := [2]float64{l.prior.middle[stems], l.prior.middle[regrow]}
	for s := range l.normal {
		var log [paces]float64
		var means [paces][2]float64
		var variances [paces][2]float64
		for i := range paces {
			mean, h, fit := l.normal[s][i].under(middle, sd)
			det := h[0]*h[2] - h[1]*h[1]
			means[i], variances[i] = mean, [2]float64{h[2] / det, h[0] / det}
			z := l.prior.logPace(i) / l.prior.spread[pace].all()
			log[i] = fit - z*z/2
		}
		weights, total := weigh(log[:])
		said.fit[s] = total
		var first, second [traits]float64
		for i, w := range weights {
			x := [traits]float64{l.prior.logPace(i), means[i][0], means[i][1]}
			v := [traits]float64{0, variances[i][0], variances[i][1]}
			for t := range traits {
				first[t] += w * x[t]
				second[t] += w * (v[t] + x[t]*x[t])
			}
		}
		step := l.prior.logPace(1) - l.prior.logPace(0)
		for t := range traits {
			variance := second[t] - first[t]*first[t]
			if t == pace {
				variance = max(variance, step*step/12) // the lattice knows no finer
			}
			own := 1 / (l.prior.spread[t].all() * l.prior.spread[t].all())
			precision := max(0, 1/variance-own)
			said.precision[s][t] = precision
			if precision > 0 {
				said.mean[s][t] = (first[t]/variance - own*l.prior.middle[t]) / precision
			}
		}
	}
	return said
}

// weigh turns log weights into weights with a sum of 1, and returns the log of their sum.
func weigh(log []float64) ([]float64, float64) {
	best := math.Inf(-1)
	for _, v := range log {
		best = max(best, v)
	}
	weights, sum := make([]float64, len(log)), 0.0
	for i, v := range log {
		weights[i] = math.Exp(v - best)
		sum += weights[i]
	}
	for i := range weights {
		weights[i] /= sum
	}
	return weights, best + math.Log(sum)
}

// draw returns log traits of a planting with the likelihood of the records, for a spread, and a normal prior; u are three numbers in (0, 1).
func (l *lattice) draw(spread growth.Spread, middle, sd [traits]float64, u [traits]float64) [traits]float64 {
	var log, running [paces]float64
	var means [paces][2]float64
	var precisions [paces][3]float64
	at := spread - growth.Spreads[0]
	for i := range paces {
		var fit float64
		means[i], precisions[i], fit = l.normal[at][i].under([2]float64{middle[stems], middle[regrow]}, [2]float64{sd[stems], sd[regrow]})
		z := (l.prior.logPace(i) - middle[pace]) / sd[pace]
		log[i] = fit - z*z/2
	}
	weights, _ := weigh(log[:])
	sum := 0.0
	for i, w := range weights {
		sum += w
		running[i] = sum
	}
	i, within := pick(running[:], u[pace]*sum)
	step := l.prior.logPace(1) - l.prior.logPace(0)
	h := precisions[i]
	x, y := distuv.UnitNormal.Quantile(u[stems]), distuv.UnitNormal.Quantile(u[regrow])
	// The Cholesky factor of the covariance, with regrow last.
	det := h[0]*h[2] - h[1]*h[1]
	sdStems := math.Sqrt(h[2] / det)
	return [traits]float64{
		pace:   l.prior.logPace(i) + (within-0.5)*step,
		stems:  means[i][0] + sdStems*x,
		regrow: means[i][1] - h[1]/det/sdStems*x + y/math.Sqrt(h[2]),
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
