package growth

import (
	"math"

	"dewcount/core/crop"
)

// A cohort is the stems of a planting that have budded, in boxes by the warmth at which their bud was tight. Stems differ in
// how much warmth a rung takes them; three speeds stand for that (the nodes of Gauss and Hermite for a normal spread),
// and each has its own part of a box.
type cohort struct {
	firstCd float64 // the warmth at which the first box begins
	boxCd   float64
	boxes   [][speeds]float64
	reached [speeds][crop.Rungs]float64 // warmth from the tight bud to each rung

	// In the boxes before these nothing stands on the rungs of a window that was emptied by the last cut.
	emptied   crop.Window
	emptiedTo [speeds]int
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
	boxes := c.boxes
	*c = *o
	gone := max(0, int((cd-o.reached[speeds-1][crop.Spent]-o.firstCd)/o.boxCd))
	c.firstCd += float64(gone) * o.boxCd
	for v := range speeds {
		c.emptiedTo[v] = max(0, o.emptiedTo[v]-gone)
	}
	c.boxes = append(boxes[:0], o.boxes[min(gone, len(o.boxes)):]...)
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
	for len(c.boxes) <= last {
		c.boxes = append(c.boxes, [speeds]float64{})
	}
	i := int(a)
	if i == last {
		put(&c.boxes[i], stems)
		return
	}
	dense := stems / (b - a)
	put(&c.boxes[i], dense*(float64(i+1)-a))
	whole := c.boxes[i+1 : last]
	for k := range whole {
		put(&whole[k], dense)
	}
	put(&c.boxes[last], dense*(b-float64(last)))
}

func put(box *[speeds]float64, stems float64) {
	box[0] += stems * speedShare[0]
	box[1] += stems * speedShare[1]
	box[2] += stems * speedShare[2]
}

// between returns two places in boxes.
func (c *cohort) between(fromCd, toCd float64) (a, b float64) {
	each := 1 / c.boxCd
	return max(0, (fromCd-c.firstCd)*each), min(float64(len(c.boxes)), (toCd-c.firstCd)*each)
}

// sum returns the stems of one speed between two places.
func (c *cohort) sum(v int, fromCd, toCd float64) float64 {
	a, b := c.between(fromCd, toCd)
	if !(a < b) {
		return 0
	}
	i, j := int(a), int(b)
	if i == j {
		return c.boxes[i][v] * (b - a)
	}
	stems := c.boxes[i][v] * (float64(i+1) - a)
	whole := c.boxes[i+1 : j]
	for k := range whole {
		stems += whole[k][v]
	}
	if j < len(c.boxes) {
		stems += c.boxes[j][v] * (b - float64(j))
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
func (c *cohort) bare(cd float64) bool { return len(c.boxes) == 0 || cd <= c.firstCd }

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
		a, b := c.between(from, to)
		if a = max(a, float64(c.emptiedTo[v])); !(a < b) {
			continue
		}
		i, j := int(a), int(b)
		if share == 1 {
			c.emptiedTo[v] = j // what is left of the last box is spread over all of it
		}
		if i == j {
			taken += take(&c.boxes[i][v], share*(b-a))
			continue
		}
		taken += take(&c.boxes[i][v], share*(float64(i+1)-a))
		whole := c.boxes[i+1 : j]
		for k := range whole {
			taken += take(&whole[k][v], share)
		}
		if j < len(c.boxes) {
			taken += take(&c.boxes[j][v], share*(b-float64(j)))
		}
	}
	c.emptied = w
	return taken
}

// refill forgets that a window was emptied.
func (c *cohort) refill() {
	c.emptiedTo = [speeds]int{}
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
		for i := range c.boxes {
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
			c.boxes[i][v] *= factor + max(0, rest)
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
	for _, box := range c.boxes {
		stems += box[0] + box[1] + box[2]
	}
	return stems
}
