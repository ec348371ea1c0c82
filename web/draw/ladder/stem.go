package ladder

import (
	"fmt"
	"math"

	"dewcount/core/crop"
)

// nearNext is how far towards the neighbouring rung a stem at the very border of its own is drawn: it is nearer to its own still.
const nearNext = 0.42

// Stem returns the elements of a stem that is so far on its rung: 0 where it has just come on it, a half in its middle, 1 just before the next.
func Stem(form string, k crop.Rung, part float64) string {
	draw, ok := routines[Known(form)]
	if !ok {
		return Drawing(form, k)
	}
	pose := poses[k]
	to, by := k, 0.0
	switch {
	case part > 0.5 && k < crop.Over: // what is over has no half-way to what is spent
		to, by = k+1, 2*(part-0.5)*nearNext
	case part < 0.5 && k > crop.Tight && k < crop.Over:
		to, by = k-1, 2*(0.5-part)*nearNext
	}
	next := poses[to]
	pose.shown, pose.open = blend(pose.shown, next.shown, by), blend(pose.open, next.open, by)
	pose.droop, pose.gone = blend(pose.droop, next.droop, by), blend(pose.gone, next.gone, by)
	var p pen
	draw(&p, pose)
	return p.text.String()
}

// A closer look is laid out on Look by Look units.
const Look = 64

// Back returns a flower seen from behind: firm and round, or limp, its petals narrow and folded.
func Back(soft bool) string {
	var p pen
	c := point{Look / 2, Look / 2}
	const petals = 9
	for i := range petals {
		deg := 360 * float64(i) / petals
		if soft {
			p.petal(leaf(c, deg+float64(i%3)*7-7, 21-float64(i%2)*6, 8, 0.1))
			p.stroke(path(c.from(deg, 8, 0), c.from(deg, 17, 2)), 1.2)
			continue
		}
		p.petal(leaf(c, deg, 27, 17, 0.9))
	}
	for i := range 5 {
		p.ink(leaf(c, 36+72*float64(i), 12, 8, 0.2))
	}
	p.ink(disc(c, 5, 5))
	return p.text.String()
}

// Centre returns a look into the middle of a flower: tight and even, or gaping; with pollen or without.
func Centre(gapes, pollen bool) string {
	var p pen
	c := point{Look / 2, Look / 2}
	p.petal(disc(c, 29, 29))
	for ring, n := range []int{6, 12, 18} {
		radius := 7 + 7.5*float64(ring)
		if gapes {
			radius = 12 + 6.5*float64(ring)
		}
		for i := range n {
			deg := 360*float64(i)/float64(n) + float64(ring)*9
			if gapes && (i+ring)%3 == 0 {
				continue // some have let go
			}
			if gapes {
				p.petal(leaf(c.from(deg, radius-3, 0), deg, 8, 5, 0.2))
			} else {
				p.petal(disc(c.from(deg, radius-1, 0), 3.4, 3.4))
			}
		}
	}
	if gapes {
		p.ink(disc(c, 6, 6))
	} else {
		p.petal(disc(c, 3.6, 3.6))
	}
	if pollen {
		for i := range 26 {
			p.dots(1.3, c.from(float64(i)*137.5, 4+math.Mod(float64(i)*5.3, 22), 0))
		}
	}
	return p.text.String()
}

// Neck returns a stem that is wagged: stiff, its head follows the hand, or soft, its head hangs behind.
func Neck(soft bool) string {
	var p pen
	head := func(at point, deg float64) {
		for _, d := range []float64{-60, -30, 0, 30, 60} {
			p.petal(leaf(at, deg+d, 15, 9, 0.7))
		}
		p.ink(disc(at, 5, 4))
	}
	if soft {
		p.stroke("M26 64L30 34C31 20 40 14 48 22", stalk)
		head(point{49, 24}, 140)
		p.stroke("M14 40q-5 -8 0 -16", 1.4)
	} else {
		p.stroke("M26 64L38 22", stalk)
		head(point{38, 22}, 16)
		p.stroke("M22 36q-6 -8 -2 -16", 1.4)
		p.stroke("M52 40q5 -8 2 -16", 1.4)
	}
	return p.text.String()
}

// Shaken returns what lies under a stem that was shaken: nothing, or petals.
func Shaken(sheds bool) string {
	var p pen
	p.stroke("M32 44V30", stalk)
	for _, d := range []float64{-70, -35, 0, 35, 70} {
		if sheds && (d == -35 || d == 70) {
			continue
		}
		p.petal(leaf(point{32, 30}, d, 18, 11, 0.7))
	}
	p.ink(disc(point{32, 30}, 6, 5))
	p.stroke("M6 60H58", 1.6)
	if sheds {
		for i, at := range []point{{14, 57}, {24, 58}, {44, 56}, {52, 58}} {
			p.petal(leaf(at, 70+40*float64(i), 11, 7, 0.7))
		}
	}
	return p.text.String()
}

// Squeezed returns a head between finger and thumb: a new bud, round and flat on top, or a spent one that runs to a point.
func Squeezed(spent bool) string {
	var p pen
	p.stroke("M32 64V44", stalk)
	if spent {
		p.ink("M32 8C37 22 43 30 41 38C39 46 25 46 23 38C21 30 27 22 32 8Z")
		p.slit("M32 20V40")
		p.slit("M27 30L30 42")
		p.stroke("M20 44q-4 6 -3 10M44 44q3 5 2 9", 1.6) // what runs out
	} else {
		p.ink("M18 34C18 22 24 18 32 18C40 18 46 22 46 34C46 43 40 46 32 46C24 46 18 43 18 34Z")
		p.slit("M24 26C28 23 36 23 40 26")
	}
	p.stroke("M6 26C12 30 14 34 14 40", 3.2)
	p.stroke("M58 26C52 30 50 34 50 40", 3.2)
	return p.text.String()
}

// Branch returns a branch with so many shoots that can be cut, each with one leading head, and further buds below the place of the cut.
func Branch(shoots, heads int) string {
	var p pen
	p.stroke("M32 76V58", stalk)
	tips := make([]point, shoots)
	for i := range shoots {
		x := 32 + 40*(float64(i)-float64(shoots-1)/2)/2
		tips[i] = point{x, 22 + 5*math.Abs(float64(i)-float64(shoots-1)/2)}
		p.stroke(fmt.Sprintf("M32 60C32 46 %s 44 %v", number(x), tips[i]), 2.6)
	}
	for i := range heads - shoots { // side buds sit close under their leading head
		tip := tips[i%shoots]
		side := float64(1 - 2*(i/shoots%2))
		at := point{tip.x + side*6.5, tip.y + 11 + 5*float64(i/shoots/2)}
		p.stroke(path(point{tip.x * 0.96, tip.y + 17 + 4*float64(i/shoots/2)}, at), 1.6)
		p.ink(disc(at, 2.6, 3))
	}
	for _, tip := range tips {
		for _, d := range []float64{-70, -35, 35, 70, 0} {
			p.petal(leaf(point{tip.x, tip.y + 4}, d, 13, 8, 0.7))
		}
		p.ink(disc(point{tip.x, tip.y + 5}, 4, 3))
	}
	return p.text.String()
}
