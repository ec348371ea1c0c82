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
	perCd   float64 // 1 ÷ boxCd: a division takes longer than all else of a look
	boxes   [][speeds]float64
	upto    [speeds][crop.Rungs]float64 // way from the tight bud to each rung, in boxes

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
	c := cohort{firstCd: firstCd, boxCd: boxCd, perCd: 1 / boxCd}
	c.refill()
	for v := range speeds {
		for k, cd := range t.Spread.of(p).reached(p, speedNode[v]) {
			c.upto[v][k] = cd * t.Pace / boxCd
		}
	}
	return c
}

// copyFrom makes c the same as o without sharing its boxes, reusing those that c has, and leaves out what was spent before
// the warmth cd.
func (c *cohort) copyFrom(o *cohort, cd float64) {
	boxes := c.boxes
	*c = *o
	gone := max(0, int(o.place(cd)-o.upto[speeds-1][crop.Spent]))
	c.firstCd += float64(gone) * o.boxCd
	for v := range speeds {
		c.emptiedTo[v] = max(0, o.emptiedTo[v]-gone)
	}
	c.boxes = append(boxes[:0], o.boxes[min(gone, len(o.boxes)):]...)
}

// place returns where on the train of boxes a warmth lies, in boxes from its beginning.
func (c *cohort) place(cd float64) float64 { return (cd - c.firstCd) * c.perCd }

// reached returns the warmth from the tight bud to a rung at one speed.
func (c *cohort) reached(v int, k crop.Rung) float64 { return c.upto[v][k] * c.boxCd }

// bud adds stems whose buds became tight evenly between two warmths, from ≤ to, none before the first box.
func (c *cohort) bud(from, to, stems float64) {
	if stems != 0 {
		c.fill(c.place(from), c.place(to), stems)
	}
}

// fill adds stems evenly between two places, none before the first box.
func (c *cohort) fill(a, b, stems float64) {
	a = max(a, 0)
	b = max(b, a)
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
	quick, usual, slow := dense*speedShare[0], dense*speedShare[1], dense*speedShare[2]
	whole := c.boxes[i+1 : last]
	for k := range whole {
		box := &whole[k]
		box[0] += quick
		box[1] += usual
		box[2] += slow
	}
	put(&c.boxes[last], dense*(b-float64(last)))
}

func put(box *[speeds]float64, stems float64) {
	box[0] += stems * speedShare[0]
	box[1] += stems * speedShare[1]
	box[2] += stems * speedShare[2]
}

// window returns between which places the stems of a speed stand that are on the rungs of a window where the present is at a place.
func (c *cohort) window(v int, w crop.Window, now float64) (a, b float64) {
	upto := &c.upto[v]
	if next := int(w.To) + 1; next < crop.Rungs {
		a = now - upto[next]
	}
	return a, now - upto[w.From]
}

// sum returns the stems of one speed between two places.
func (c *cohort) sum(v int, a, b float64) float64 {
	if a < 0 {
		a = 0
	}
	if all := float64(len(c.boxes)); b > all {
		b = all
	}
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

// bare tells whether nothing has budded yet when the warmth is cd.
func (c *cohort) bare(cd float64) bool { return len(c.boxes) == 0 || cd <= c.firstCd }

// A reach is how a cutting window is stretched: stems that came into it less than heldCd ago are left to firm up, and those that
// will have gone past it when the warmth is aheadCd are taken as well; both 0 for the window alone.
type reach struct{ heldCd, aheadCd float64 }

// stretched, which hardly any look needs and which is no part of the window for that, returns up to which place stems are cut where the present is at a place and the window ends at b.
func (c *cohort) stretched(by reach, v int, w crop.Window, now, b float64) float64 {
	b -= by.heldCd * c.perCd
	if ahead := c.place(by.aheadCd); ahead > now && int(w.To)+1 < crop.Rungs {
		b = min(now, max(b, ahead-c.upto[v][w.To+1]))
	}
	return b
}

// ready returns the stems that would be cut of a window when the warmth is cd.
func (c *cohort) ready(w crop.Window, cd float64, by reach) float64 {
	if c.bare(cd) {
		return 0
	}
	now, stems := c.place(cd), 0.0
	for v := range speeds {
		a, b := c.window(v, w, now)
		if by != (reach{}) {
			b = c.stretched(by, v, w, now, b)
		}
		stems += c.sum(v, a, b)
	}
	return stems
}

// on returns the stems on the rungs of a window when the warmth is cd.
func (c *cohort) on(w crop.Window, cd float64) float64 { return c.ready(w, cd, reach{}) }

// cut takes a share of the stems that are ready of a window when the warmth is cd, and returns how many.
func (c *cohort) cut(w crop.Window, cd, share float64, by reach) float64 {
	if c.bare(cd) {
		return 0
	}
	if w != c.emptied {
		c.refill()
	}
	now, taken := c.place(cd), 0.0
	for v := range speeds {
		a, b := c.window(v, w, now)
		if by != (reach{}) {
			b = c.stretched(by, v, w, now, b)
		}
		if emptied := float64(c.emptiedTo[v]); a < emptied {
			a = emptied
		}
		if all := float64(len(c.boxes)); b > all {
			b = all
		}
		if !(a < b) {
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
		got := take(&c.boxes[i][v], share*(float64(i+1)-a))
		whole := c.boxes[i+1 : j]
		if share == 1 {
			for k := range whole {
				got += whole[k][v]
				whole[k][v] = 0
			}
		} else {
			for k := range whole {
				got += take(&whole[k][v], share)
			}
		}
		if j < len(c.boxes) {
			got += take(&c.boxes[j][v], share*(b-float64(j)))
		}
		taken += got
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
	now := c.place(cd)
	for v := range speeds {
		k := crop.Spent // the oldest boxes come first
		a, b := c.window(v, crop.Window{From: k, To: k}, now)
		for i := range c.boxes {
			low, high := float64(i), float64(i+1)
			factor, rest := 0.0, 1.0
			for {
				if part := min(high, b) - max(low, a); part > 0 {
					factor += part * by[k]
					rest -= part
				}
				if high <= b || k == crop.Tight {
					break
				}
				k--
				a, b = c.window(v, crop.Window{From: k, To: k}, now)
			}
			c.boxes[i][v] *= factor + max(0, rest)
			if low >= b {
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
	c.perCd = 1 / c.boxCd
	c.refill()
}

// spread adds stems evenly over a rung when the warmth is cd.
func (c *cohort) spread(k crop.Rung, stems, cd float64) {
	const middle = 1
	if a, b := c.window(middle, crop.Window{From: k, To: k}, c.place(cd)); b > max(0, a) {
		c.fill(a, b, stems)
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
