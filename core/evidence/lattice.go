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
	fade
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

var usualStems = spreads{0.25, 0.10, 0.20}

var usualPrior = prior{
	// The table's stems are what plants give on the mean, and the mean of a lognormal number lies above its middle by half its variance.
	middle: [traits]float64{stems: -usualStems.all() * usualStems.all() / 2},
	spread: [traits]spreads{
		pace:   {0.055, 0.040, 0.045},
		stems:  usualStems,
		regrow: {0.15, 0.05, 0.10},
		fade:   {0.25, 0.05, 0.10},
	},
	least: [traits]float64{pace: -1, stems: -0.85, regrow: -0.4, fade: -1},
	most:  [traits]float64{pace: 1, stems: 0.85, regrow: 0.4, fade: 1},
}

// oneStemPrior is that of a crop of one stem a plant: all that can vary is how many plants are lost. Of those that come up in its bed a farm
// loses one in twenty, more or less (a guess).
var oneStemPrior = prior{
	middle: [traits]float64{stems: -0.05},
	spread: [traits]spreads{pace: usualPrior.spread[pace], stems: {0.03, 0.02, 0.05}, regrow: usualPrior.spread[regrow], fade: usualPrior.spread[fade]},
	least:  [traits]float64{pace: -1, stems: -3, regrow: usualPrior.least[regrow], fade: usualPrior.least[fade]},
	most:   [traits]float64{pace: 1, stems: 0, regrow: usualPrior.most[regrow], fade: usualPrior.most[fade]},
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

// A lattice is how likely a planting's records are under each of its traits, up to a factor.
type lattice struct {
	prior *prior
	cells [len(kinds)][paces]*cell // nil where the kind's other paces explain the records so much better that nobody needs it
	best  *cell                    // that which explains the records best
}

// A cell is one kind and pace of a lattice: what the records hold against it, and the likelihood of the gentle traits there as a normal
// distribution about their mode (Laplace's method, as in Gelman et al. 2013, ch. 4).
type cell struct {
	walk
	normal
	mode vector
	fit  float64 // how well the mode explains the records and agrees with the prior, as a log
}

// newLattice weighs the traits by the planting's records. With the usual kind all paces are tried, with the others those about their best.
func newLattice(p *Planting) *lattice {
	l := &lattice{prior: priorOf(p.Course.Planting().Profile)}
	story := p.story()
	from, best := 0, math.Inf(-1)
	for i := range paces {
		if fit := l.try(p, story, usualKind, i); fit > best {
			from, best = i, fit
		}
	}
	for k := range kinds {
		if k != usualKind {
			climb(from, func(i int) float64 { return l.try(p, story, k, i) })
		}
	}
	return l
}

// try walks through the planting's story with a kind and a pace, and returns how well its best traits explain the records, as a log.
func (l *lattice) try(p *Planting, story []episode, k, i int) float64 {
	items, dates := p.expect(story, growth.Traits{Pace: math.Exp(l.prior.logPace(i)), Spread: kinds[k].spread, Answer: kinds[k].answer})
	l.cells[k][i] = &cell{walk: walk{items, dates}}
	l.weigh(k, i)
	return l.cells[k][i].fit
}

// climb tries paces to either side of one as long as they are not hopeless beside the best so far.
func climb(from int, try func(i int) float64) {
	const hopeless = 10 // twenty thousand times less likely
	best := try(from)
	for _, step := range [...]int{-1, 1} {
		for i := from + step; i >= 0 && i < paces; i += step {
			fit := try(i)
			if best = max(best, fit); fit < best-hopeless {
				break
			}
		}
	}
}

// correct reads the counts of those anew whose eyes are biased by these log factors.
func (l *lattice) correct(biased map[string]float64) {
	if len(biased) == 0 {
		return
	}
	l.best = nil
	for k := range l.cells {
		for i, c := range l.cells[k] {
			if c == nil {
				continue
			}
			for at := range c.items {
				if log, ok := biased[c.items[at].who]; ok {
					for source := range c.items[at].of {
						c.items[at].of[source] *= math.Exp(log)
					}
				}
			}
			l.weigh(k, i)
		}
	}
}

// weigh finds what a cell's records say of the gentle traits.
func (l *lattice) weigh(k, i int) {
	c := l.cells[k][i]
	c.normal, c.mode, c.fit = likelihood(c.items, l.prior, func(*item) bool { return true })
	c.peak += c.dates
	z := l.prior.logPace(i) / l.prior.spread[pace].all()
	c.fit += c.dates - z*z/2
	if l.best == nil || c.fit > l.best.fit {
		l.best = c
	}
}

// misfit returns how far off the traits that explain the records best leave them: the mean square, by their scatter.
func (l *lattice) misfit() float64 { return misfit(l.best.items, multipliers(l.best.mode)) }

// message returns what the records alone speak for, for each kind.
func (l *lattice) message() message {
	var said message
	middle, sd := l.prior.gentle()
	for k := range l.cells {
		var log [paces]float64
		var means, variances [paces]vector
		for i := range paces {
			log[i] = math.Inf(-1)
			if l.cells[k][i] == nil {
				continue
			}
			mean, covariance, fit := l.cells[k][i].under(middle, sd)
			means[i], variances[i] = mean, covariance.diagonal()
			z := l.prior.logPace(i) / l.prior.spread[pace].all()
			log[i] = fit - z*z/2
		}
		weights, total := weigh(log[:])
		said.fit[k] = total
		var first, second [traits]float64
		for i, w := range weights {
			x, v := means[i].with(l.prior.logPace(i)), variances[i].with(0)
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
			said.precision[k][t] = precision
			if precision > 0 {
				said.mean[k][t] = (first[t]/variance - own*l.prior.middle[t]) / precision
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

// draw returns log traits of a planting with the likelihood of the records, for a kind, and a normal prior; u are numbers in (0, 1).
func (l *lattice) draw(kind int, middle, sd, u [traits]float64) [traits]float64 {
	var log, running [paces]float64
	var means [paces]vector
	var covariances [paces]matrix
	for i := range paces {
		log[i] = math.Inf(-1)
		if l.cells[kind][i] == nil {
			continue
		}
		var fit float64
		means[i], covariances[i], fit = l.cells[kind][i].under(gentleOf(middle), gentleOf(sd))
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
	z := gentleOf(u)
	for k := range z {
		z[k] = distuv.UnitNormal.Quantile(z[k])
	}
	off := covariances[i].root(z)
	for k := range off {
		off[k] += means[i][k]
	}
	return off.with(l.prior.logPace(i) + (within-0.5)*step)
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
