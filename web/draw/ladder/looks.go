package ladder

import (
	"fmt"
	"math"

	"dewcount/core/crop"
)

// A closer look is laid out on Look by Look units.
const Look = 64

// Back returns a flower of a form seen from behind: firm and round, or limp, its petals narrow and folded.
func Back(form string, soft bool) string {
	var p pen
	c := point{Look / 2, Look / 2}
	if Known(form) == "panicle" { // a head of many small flowers
		for i := range 12 {
			at := c.from(30*float64(i), 13+9*float64(i%2), 0)
			for k := range 4 {
				if soft {
					p.petal(leaf(at, 90*float64(k)+15*float64(i%3), 6, 3, 0.1))
				} else {
					p.petal(leaf(at, 90*float64(k), 8, 7, 0.9))
				}
			}
		}
		p.ink(disc(c, 4, 4))
		return p.text.String()
	}
	rings, petals := 1, 9
	if Known(form) == "double-daisy" {
		rings, petals = 2, 14
	}
	for ring := range rings {
		for i := range petals {
			deg := 360 * (float64(i) + 0.5*float64(ring)) / float64(petals)
			long, wide := 27-7*float64(ring), 17*9/float64(petals)+2*float64(ring)
			if soft {
				p.petal(leaf(c, deg+float64(i%3)*7-7, long-6-float64(i%2)*6, wide/2, 0.1))
				if ring == rings-1 {
					p.stroke(path(c.from(deg, 8, 0), c.from(deg, 15, 2)), 1.2)
				}
				continue
			}
			p.petal(leaf(c, deg, long, wide, 0.9))
		}
	}
	for i := range 5 {
		p.ink(leaf(c, 36+72*float64(i), 12, 8, 0.2))
	}
	p.ink(disc(c, 5, 5))
	return p.text.String()
}

// Centre returns a look into the middle of a flower of a form: tight and even, or gaping; with pollen or without.
func Centre(form string, gapes, pollen bool) string {
	var p pen
	c := point{Look / 2, Look / 2}
	switch Known(form) {
	case "goblet":
		cupCentre(&p, c, gapes)
	case "single-daisy":
		for i := range 12 {
			p.petal(leaf(c, 30*float64(i), 31, 13, 0.8))
		}
		p.petal(disc(c, 15, 15))
		rings(&p, c, gapes, 3.5, 4.6, func(at point, _ float64) string { return disc(at, 1.9, 1.9) })
	case "ruffle":
		p.petal(disc(c, 29, 29))
		rings(&p, c, gapes, 7, 7.5, func(at point, deg float64) string { return leaf(at, deg+80, 13, 5, 0.6) })
	case "tuft":
		p.petal(disc(c, 29, 29))
		rings(&p, c, gapes, 7, 7.5, func(at point, deg float64) string { return leaf(at, deg, 8, 2.4, 0.1) })
	case "papery":
		p.petal(disc(c, 29, 29))
		rings(&p, c, gapes, 7, 7.5, func(at point, deg float64) string { return leaf(at, deg, 8, 6.5, 0.1) })
	default:
		p.petal(disc(c, 29, 29))
		rings(&p, c, gapes, 7, 7.5, func(at point, _ float64) string { return disc(at, 3.4, 3.4) })
	}
	if pollen {
		for i := range 26 {
			p.dots(1.8, c.from(float64(i)*137.5, 4+math.Mod(float64(i)*5.3, 22), 0))
		}
	}
	return p.text.String()
}

// rings draws what fills a centre, ring by ring: of one that gapes a third has let go, and what is left has moved outwards.
func rings(p *pen, c point, gapes bool, first, apart float64, one func(at point, deg float64) string) {
	for ring, n := range []int{6, 12, 18} {
		radius := first + apart*float64(ring)
		for i := range n {
			deg := 360*float64(i)/float64(n) + float64(ring)*9
			if gapes && (i+ring)%3 == 0 {
				continue
			}
			if gapes {
				radius = first + 0.7*apart + 0.87*apart*float64(ring)
			}
			p.petal(one(c.from(deg, radius-1, 0), deg))
		}
	}
	if gapes {
		p.ink(disc(c, first*0.6, first*0.6))
	}
}

// cupCentre draws a look down into a cup: six petals, a pistil, and stamens about it.
func cupCentre(p *pen, c point, gapes bool) {
	for i := range 6 {
		long := 25.0
		if gapes {
			long = 31
		}
		p.petal(leaf(c, 60*float64(i), long, 22, 0.9))
	}
	for i := range 6 {
		p.stroke(path(c.from(30+60*float64(i), 4, 0), c.from(30+60*float64(i), 12, 0)), 1.4)
		p.ink(disc(c.from(30+60*float64(i), 13, 0), 1.7, 2.6))
	}
	p.ink(disc(c, 3.4, 3.4))
}

// held draws the head of a form, without its stalk, so that where it sits on the stalk lies on a point, turned by some degrees and smaller.
func (p *pen) held(form string, pose pose, at point, deg, scale float64) {
	own := pen{bare: true, neck: 52}
	if draw, ok := routines[Known(form)]; ok {
		draw(&own, pose)
	} else {
		anyBud(&own, pose.rung)
	}
	const highest = 40 // a stalk that runs on through its head ends where the head begins
	if own.neck < highest {
		own.neck = 62
	}
	fmt.Fprintf(&p.text, `<g transform="translate(%v) rotate(%s) scale(%.2f) translate(-32 %s)">%s</g>`, at, number(deg), scale, number(-own.neck), own.text.String())
}

// Neck returns a stem of a form on a rung that is wagged: stiff, its head follows the hand, or soft, its head hangs behind.
func Neck(form string, k crop.Rung, soft bool) string {
	var p pen
	if soft {
		p.stroke("M22 64L25 36C26 22 36 15 43 23", stalk)
		p.stroke("M10 42q-5 -8 0 -16", 1.4)
		p.held(form, poses[k], point{43, 24}, 145, 0.62)
		return p.text.String()
	}
	p.stroke("M26 64L36 34", stalk)
	p.stroke("M16 40q-6 -8 -2 -16", 1.4)
	p.stroke("M56 46q5 -8 2 -16", 1.4)
	p.held(form, poses[k], point{36, 34}, 17, 0.62)
	return p.text.String()
}

// Shaken returns a stem of a form on a rung with what lies under it once it was shaken: nothing, or petals.
func Shaken(form string, k crop.Rung, sheds bool) string {
	var p pen
	p.stroke("M32 60V38", stalk)
	pose := poses[k]
	if sheds {
		pose.gone = math.Max(pose.gone, 0.45)
	}
	p.held(form, pose, point{32, 40}, 0, 0.66)
	p.stroke("M6 60H58", 1.6)
	if sheds {
		for i, at := range []point{{12, 57}, {22, 58}, {44, 56}, {53, 58}} {
			p.petal(leaf(at, 70+40*float64(i), 11, 7, 0.7))
		}
	}
	return p.text.String()
}
