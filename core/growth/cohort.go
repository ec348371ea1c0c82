package growth

import (
	"math"

	"dewcount/core/crop"
)

// A cohort is the stems of a planting that have budded, in boxes by the warmth at which their bud was tight. Stems differ in
// how much warmth a rung takes them; three speeds stand for that (the nodes of Gauss and Hermite for a normal spread),
// and each has its own train of boxes.
type cohort struct {
	firstCd float64 // the warmth at which the first box begins
	boxCd   float64
	train   [speeds][]float64
	reached [speeds][crop.Rungs]float64 // warmth from the tight bud to each rung

	// Below these places nothing stands on the rungs of a window that was emptied by the last cut.
	emptied   crop.Window
	emptiedTo [speeds]float64
}

const speeds = 3

// speedShare and speedNode are the three-point rule of Gauss and Hermite (Abramowitz & Stegun 1964, table 25.10).
var (
	speedShare = [speeds]float64{1. / 6, 2. / 3, 1. / 6}
	speedNode  = [speeds]float64{-math.Sqrt(3), 0, math.Sqrt(3)}
)

func newCohort(p *crop.Profile, firstCd, boxCd float64, t Traits) cohort {
	c := cohort{firstCd: firstCd, boxCd: boxCd}
	c.refill()
	for v := range speeds {
		for k, cd := range t.Spread.of(p).reached(p, speedNode[v]) {
			c.reached[v][k] = cd * t.Pace
		}
	}
	return c
}

// copyFrom makes c the same as o without sharing its boxes, reusing those that c has, and leaves out what was spent before
// the warmth cd.
func (c *cohort) copyFrom(o *cohort, cd float64) {
	boxes := c.train
	*c = *o
	gone := max(0, int((cd-o.reached[speeds-1][crop.Spent]-o.firstCd)/o.boxCd))
	c.firstCd += float64(gone) * o.boxCd
	for v := range speeds {
		c.train[v] = append(boxes[v][:0], o.train[v][min(gone, len(o.train[v])):]...)
	}
}

// bud adds stems whose buds became tight evenly between two warmths, from ≤ to, none before the first box.
func (c *cohort) bud(from, to, stems float64) {
	if stems == 0 {
		return
	}
	from = max(from, c.firstCd)
	to = max(to, from)
	a, b := (from-c.firstCd)/c.boxCd, (to-c.firstCd)/c.boxCd
	last := int(b)
	for len(c.train[0]) <= last {
		for v := range speeds {
			c.train[v] = append(c.train[v], 0)
		}
	}
	i, j := int(a), last
	if i == j {
		c.put(i, stems)
		return
	}
	dense := stems / (b - a)
	c.put(i, dense*(float64(i+1)-a))
	for k := i + 1; k < j; k++ {
		c.put(k, dense)
	}
	c.put(j, dense*(b-float64(j)))
}

func (c *cohort) put(box int, stems float64) {
	c.train[0][box] += stems * speedShare[0]
	c.train[1][box] += stems * speedShare[1]
	c.train[2][box] += stems * speedShare[2]
}

// sum returns the stems of one speed between two places.
func (c *cohort) sum(v int, fromCd, toCd float64) float64 {
	train := c.train[v]
	a, b := max(0, (fromCd-c.firstCd)/c.boxCd), min(float64(len(train)), (toCd-c.firstCd)/c.boxCd)
	if !(a < b) {
		return 0
	}
	i, j := int(a), int(b)
	if i == j {
		return train[i] * (b - a)
	}
	stems := train[i] * (float64(i+1) - a)
	for k := i + 1; k < j; k++ {
		stems += train[k]
	}
	if j < len(train) {
		stems += train[j] * (b - float64(j))
	}
	return stems
}

// place returns where on the train the stems of a speed stand that are on the rungs of a window when the warmth is cd.
func (c *cohort) place(v int, w crop.Window, cd float64) (fromCd, toCd float64) {
	fromCd = math.Inf(-1)
	if int(w.To)+1 < crop.Rungs {
		fromCd = cd - c.reached[v][w.To+1]
	}
	return fromCd, cd - c.reached[v][w.From]
}

// bare tells whether nothing has budded yet when the warmth is cd.
func (c *cohort) bare(cd float64) bool { return len(c.train[0]) == 0 || cd <= c.firstCd }

// A reach is how a cutting window is stretched: stems that came into it less than heldCd ago are left to firm up, and those that
// will have gone past it when the warmth is aheadCd are taken as well; both 0 for the window alone.
type reach struct{ heldCd, aheadCd float64 }

// cuttable is place for what is cut.
func (c *cohort) cuttable(v int, w crop.Window, cd float64, by reach) (fromCd, toCd float64) {
	fromCd, toCd = c.place(v, w, cd)
	toCd -= by.heldCd
	if by.aheadCd > cd && int(w.To)+1 < crop.Rungs {
		toCd = min(cd, max(toCd, by.aheadCd-c.reached[v][w.To+1]))
	}
	return fromCd, toCd
}

// ready returns the stems that would be cut of a window when the warmth is cd.
func (c *cohort) ready(w crop.Window, cd float64, by reach) float64 {
	if c.bare(cd) {
		return 0
	}
	stems := 0.0
	for v := range speeds {
		from, to := c.cuttable(v, w, cd, by)
		stems += c.sum(v, from, to)
	}
	return stems
}

// on returns the stems on the rungs of a window when the warmth is cd.
func (c *cohort) on(w crop.Window, cd float64) float64 {
	if c.bare(cd) {
		return 0
	}
	stems := 0.0
	for v := range speeds {
		from, to := c.place(v, w, cd)
		stems += c.sum(v, from, to)
	}
	return stems
}

// cut takes a share of the stems that are ready of a window when the warmth is cd, and returns how many.
func (c *cohort) cut(w crop.Window, cd, share float64, by reach) float64 {
	if c.bare(cd) {
		return 0
	}
	if w != c.emptied {
		c.refill()
	}
	taken := 0.0
	for v := range speeds {
		from, to := c.cuttable(v, w, cd, by)
		from = max(from, c.emptiedTo[v])
		if share == 1 { // what is left of the last box is spread over all of it
			c.emptiedTo[v] = max(from, c.firstCd+math.Floor((to-c.firstCd)/c.boxCd)*c.boxCd)
		}
		train := c.train[v]
		a, b := max(0, (from-c.firstCd)/c.boxCd), min(float64(len(train)), (to-c.firstCd)/c.boxCd)
		if !(a < b) {
			continue
		}
		i, j := int(a), int(b)
		if i == j {
			taken += take(&train[i], share*(b-a))
			continue
		}
		taken += take(&train[i], share*(float64(i+1)-a))
		for k := i + 1; k < j; k++ {
			taken += take(&train[k], share)
		}
		if j < len(train) {
			taken += take(&train[j], share*(b-float64(j)))
		}
	}
	c.emptied = w
	return taken
}

// refill forgets that a window was emptied.
func (c *cohort) refill() {
	for v := range speeds {
		c.emptiedTo[v] = math.Inf(-1)
	}
}

func take(box *float64, share float64) float64 {
	stems := *box * share
	*box -= stems
	return stems
}

// correct makes the stems on each rung, when the warmth is cd, as many as given: those that stand there are scaled, and where
// none do they are spread evenly over the rung. A box that lies across two rungs takes its share of both.
func (c *cohort) correct(to [crop.Rungs]float64, cd float64) {
	c.refill()
	var by [crop.Rungs]float64
	for k := range by {
		standing := c.on(crop.Window{From: crop.Rung(k), To: crop.Rung(k)}, cd)
		by[k] = 1
		if standing > leastStems {
			by[k] = to[k] / standing
		} else if to[k] > 0 {
			defer c.spread(crop.Rung(k), to[k], cd)
		}
	}
	for v := range speeds {
		k := crop.Spent // the oldest boxes come first
		from, to := c.place(v, crop.Window{From: k, To: k}, cd)
		for i := range c.train[v] {
			low := c.firstCd + float64(i)*c.boxCd
			high := low + c.boxCd
			factor, rest := 0.0, 1.0
			for {
				if part := (min(high, to) - max(low, from)) / c.boxCd; part > 0 {
					factor += part * by[k]
					rest -= part
				}
				if high <= to || k == crop.Tight {
					break
				}
				k--
				from, to = c.place(v, crop.Window{From: k, To: k}, cd)
			}
			c.train[v][i] *= factor + max(0, rest)
			if low >= to {
				break // what is still to bud
			}
		}
	}
}

// leastStems is what a rung must hold to be scaled: below it the shape of what stands there is only rounding.
const leastStems = 1e-3

// stretch makes every way that is still to go, when the warmth is cd, longer by a factor: stems stay on their rungs.
func (c *cohort) stretch(factor, cd float64) {
	c.firstCd = cd - (cd-c.firstCd)*factor
	c.boxCd *= factor
	for v := range speeds {
		for k := range c.reached[v] {
			c.reached[v][k] *= factor
		}
	}
	c.refill()
}

// spread adds stems evenly over a rung when the warmth is cd.
func (c *cohort) spread(k crop.Rung, stems, cd float64) {
	const middle = 1
	from, to := c.place(middle, crop.Window{From: k, To: k}, cd)
	from, to = max(from, c.firstCd), max(to, c.firstCd)
	if to-from > 0 {
		c.bud(from, to, stems)
	}
}

// total returns all stems, on the ladder and to come.
func (c *cohort) total() float64 {
	stems := 0.0
	for v := range speeds {
		for _, box := range c.train[v] {
			stems += box
		}
	}
	return stems
}
