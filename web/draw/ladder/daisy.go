package ladder

import "dewcount/core/crop"

// singleDaisy: one row of rays about a disc. They lift from a tube, lie flat when open and fold back below the flower when over; the
// disc then stands high and sheds pollen.
func singleDaisy(p *pen, s pose) {
	heart := point{middle, 44}
	switch s.rung {
	case crop.Tight:
		p.stem(48)
		roundBud(p, point{middle, 38}, 13)
	case crop.Colour:
		p.stem(48)
		for _, deg := range fan(3, 20) {
			p.petal(leaf(heart, deg, 27, 8, 0.3))
		}
		roundBud(p, point{middle, 41}, 12)
	case crop.Spent:
		pointedHead(p, heart)
	default:
		p.stem(46)
		rays := fan(blendCount(3, 9, s.open), blend(4, 88, s.open))
		if s.rung == crop.Over {
			rays = []float64{-158, 158, -134, 134, -106, 106}
		}
		for _, deg := range rays {
			p.petal(leaf(heart.from(deg, 3, 0), deg, blend(30, 27, s.open)-4*s.droop, 8.5-2*s.droop, 0.6))
		}
		cup(p, heart, blend(8, 6, s.open))
		switch {
		case s.pollen:
			p.petal(disc(point{middle, heart.y - 6}, 12, 11))
			p.dots(1.6, point{25, 37}, point{30, 32}, point{36, 33}, point{39, 38}, point{31, 39}, point{24, 25}, point{33, 22}, point{42, 26})
		case s.rung == crop.Open:
			p.petal(disc(point{middle, heart.y - 4}, 11, 7))
			p.ink(disc(point{middle, heart.y - 5}, 4.5, 2.6))
		case s.rung == crop.Half:
			p.ink(disc(point{middle, heart.y - 4}, 10, 7))
		}
	}
}

// doubleDaisy: many rows. The outer ones lift first, the centre stays tight until it is open; over, the back folds down.
func doubleDaisy(p *pen, s pose) {
	heart := point{middle, 46}
	switch s.rung {
	case crop.Tight:
		p.stem(48)
		roundBud(p, point{middle, 38}, 13)
	case crop.Colour:
		p.stem(48)
		p.petal(disc(point{middle, 33}, 10, 10))
		p.stroke("M32 23V32M27 25.5 30 33M37 25.5 34 33", 1.6)
		roundBud(p, point{middle, 42}, 12.5)
	case crop.Spent:
		pointedHead(p, heart)
	case crop.Lifting:
		p.stem(48)
		for _, deg := range []float64{-26, 26} {
			p.petal(leaf(heart, deg, 29, 12, 0.5))
		}
		p.petal(leaf(heart, 0, 33, 20, 0.6))
		p.stroke("M28 20Q27 30 31 40M36 20Q37 30 33 40", 1.6)
		cup(p, heart, 9)
	default:
		p.stem(48)
		outer := fan(blendCount(3, 10, s.open), blend(18, 100, s.open))
		if s.rung == crop.Over {
			outer = []float64{-152, 152, -128, 128, -104, 104}
		}
		for _, deg := range outer {
			p.petal(leaf(heart, deg, 28-3*s.droop, 11, 0.75))
		}
		inner := func(n int, half, length float64, draw func(string)) {
			for _, deg := range fan(n, half) {
				draw(leaf(heart, deg, length, 10, 0.75))
			}
		}
		switch s.rung { // the middle stays tight, and ink, until it is open
		case crop.Third:
			inner(3, 16, 27, p.ink)
		case crop.Half:
			inner(6, 46, 28, p.petal)
			inner(3, 14, 24, p.ink)
		default:
			inner(7, 66, 27, p.petal)
			inner(5, 40, 25, p.petal)
			p.ink(disc(heart.from(0, 17, 0), 3.6, 3))
		}
		if s.pollen {
			p.petal(disc(point{middle, 30}, 10, 8))
			p.dots(1.6, point{26, 29}, point{32, 26}, point{38, 29}, point{29, 33}, point{35, 33})
		}
		cup(p, point{middle, 48}, blend(9, 6, s.open))
	}
}

// papery: stiff pointed bracts in rows, with a hidden centre that shows when it is too late for fresh use.
func papery(p *pen, s pose) {
	heart := point{middle, 48}
	p.stem(46)
	if s.rung == crop.Tight {
		p.ink(leaf(point{middle, 52}, 0, 30, 22, 0.5))
		p.slit("M24 40 32 34 40 40M24 47 32 41 40 47")
		return
	}
	if s.rung == crop.Spent {
		for _, deg := range fan(5, 70) {
			p.stroke(path(heart, heart.from(deg, 24, 0)), 1.2)
			p.dots(1.6, heart.from(deg, 26, 0))
		}
		for _, deg := range []float64{-128, -105, 105, 128} {
			p.ink(leaf(heart, deg, 16, 6, 0))
		}
		p.ink(disc(heart, 6, 4))
		return
	}
	outer := blend(20, 90, s.open) + 50*s.droop
	if s.rung == crop.Colour {
		p.ink(leaf(point{middle, 53}, 0, 28, 24, 0.5))
		p.petal(leaf(point{middle, 44}, 0, 24, 15, 0.1))
		p.slit("M24 45 32 50 40 45")
		return
	}
	for i, part := range []float64{1, 0.66, 0.36} {
		for _, deg := range fan(7-2*i+blendCount(0, 2, s.open), outer*part) {
			p.petal(leaf(heart, deg, 29-1.5*float64(i), 8, 0.05))
		}
	}
	switch {
	case s.pollen:
		p.petal(disc(point{middle, 38}, 12, 9))
		p.dots(1.5, point{25, 37}, point{29, 34}, point{34, 33}, point{39, 37}, point{32, 38}, point{28, 41}, point{36, 41})
	case s.rung == crop.Open:
		p.ink(disc(point{middle, 38}, 6, 4))
	default:
		p.petal(leaf(heart, 0, 28, 9, 0.05))
	}
	cup(p, point{middle, 50}, 7)
}

// tuft: a green urn with a brush of small florets; the ring opens first, then the middle rises.
func tuft(p *pen, s pose) {
	rim := point{middle, 42}
	p.stem(56)
	urn := "M22 42Q20 56 32 59Q44 56 42 42Q32 38 22 42Z"
	if s.rung == crop.Tight {
		p.ink("M24 34Q18 54 32 59Q46 54 40 34Q32 24 24 34Z")
		p.slit("M26 42 32 37 38 42M25 50 32 45 39 50")
		return
	}
	if s.rung == crop.Spent {
		p.ink("M25 30Q16 54 32 60Q48 54 39 30L35 37 32 27 29 37Z")
		p.slit("M24 47 32 42 40 47")
		return
	}
	if s.rung == crop.Colour {
		p.petal(leaf(point{middle, 44}, 0, 20, 14, 0.2))
		p.stroke("M32 26V38", 1.6)
		p.ink(urn)
		return
	}
	half := blend(2, 90, s.open) + 30*s.droop
	n := blendCount(2, 9, s.open)
	for i, deg := range fan(n, half) {
		if s.gone > 0 && i%4 > 1 {
			p.stroke(path(rim, rim.from(deg, 13, 0)), 1.6)
			continue
		}
		frill(p, rim, deg, blend(25, 27, s.open)-4*s.droop)
	}
	if s.open > 0.9 {
		for _, deg := range fan(5, 34) {
			p.stroke(path(rim, rim.from(deg, 17+6*s.droop, 0)), 1.8)
			p.dots(1.9, rim.from(deg, 18+6*s.droop, 0))
		}
	}
	p.ink(urn)
	p.slit("M27 49 32 45 37 49")
}

// frill is a floret that widens to three teeth.
func frill(p *pen, base point, deg, length float64) {
	at := func(ahead, aside float64) point { return base.from(deg, ahead*length, aside) }
	p.petal(path(at(0, -1), at(0.8, -4.5), at(1, -5), at(0.86, -1.7), at(1.06, 0), at(0.86, 1.7), at(1, 5), at(0.8, 4.5), at(0, 1)) + "Z")
}

// roundBud is a hard green bud: rounded, flat on top, clasped by sepals.
func roundBud(p *pen, at point, radius float64) {
	p.ink(disc(at, radius, radius*0.86))
	base := at.from(180, radius*0.9, 0)
	p.slit("M" + base.from(-42, radius*1.35, 0).String() + "Q" + base.from(-8, radius*0.7, 0).String() + " " + base.from(0, radius*1.45, 0).String() +
		"Q" + base.from(8, radius*0.7, 0).String() + " " + base.from(42, radius*1.35, 0).String())
}

// pointedHead is a spent head: it runs to a point, with shrivelled petals below.
func pointedHead(p *pen, heart point) {
	p.stem(46)
	for _, deg := range []float64{-150, -122, 122, 150} {
		p.ink(leaf(heart, deg, 20, 4.5, 0))
	}
	p.ink("M21 47Q24 34 32 12Q40 34 43 47Q32 53 21 47Z")
	p.slit("M32 24V40")
}

// cup is the green calyx below a flower.
func cup(p *pen, at point, width float64) {
	p.ink("M" + point{at.x - width, at.y - 2}.String() + "Q" + point{at.x - width*0.7, at.y + 7}.String() + " " + point{at.x, at.y + 7}.String() +
		"Q" + point{at.x + width*0.7, at.y + 7}.String() + " " + point{at.x + width, at.y - 2}.String() + "Q" + point{at.x, at.y + 2.5}.String() + " " +
		point{at.x - width, at.y - 2}.String() + "Z")
}

// blendCount is blend for numbers of petals, rounded.
func blendCount(a, b int, part float64) int { return int(blend(float64(a), float64(b), part) + 0.5) }
