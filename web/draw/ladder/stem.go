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
