package ladder

import "dewcount/core/crop"

// ruffle: a ball of many soft petals that loosens from the outside; over, its middle gapes and its skirts fall.
func ruffle(p *pen, s pose) {
	switch s.rung {
	case crop.Tight:
		p.stem(50)
		p.ink(disc(point{middle, 40}, 12, 12))
		p.ink(leaf(point{25, 50}, -20, 20, 8, 0) + leaf(point{39, 50}, 20, 20, 8, 0))
		p.slit("M25 47Q29 39 32 29Q35 39 39 47")
	case crop.Colour:
		p.stem(52)
		p.petal(disc(point{middle, 34}, 12, 12))
		p.stroke("M26 28Q34 30 37 38", 1.6)
		p.ink("M19 36Q19 54 32 56Q45 54 45 36L37 45 32 34 27 45Z")
	case crop.Lifting:
		p.stem(54)
		p.petal(disc(point{middle, 36}, 15, 16))
		p.stroke("M32 22Q20 28 24 42M32 22Q44 28 40 42M27 30Q33 27 37 33", 1.6)
		p.petal(leaf(point{28, 54}, -32, 24, 12, 0.8))
		sepals(p, 54)
	case crop.Third:
		p.stem(56)
		p.petal(leaf(point{29, 55}, -48, 30, 15, 0.9))
		p.petal(leaf(point{35, 55}, 48, 30, 15, 0.9))
		p.petal("M17 36Q17 20 32 22Q47 20 47 36Q46 54 32 55Q18 54 17 36Z")
		p.stroke("M20 33Q32 42 44 33M25 28Q32 34 39 28M29 24Q32 27 35 24", 1.6)
		sepals(p, 56)
	case crop.Half:
		p.stem(56)
		for _, deg := range []float64{-72, 72, -44, 44} {
			p.petal(leaf(point{middle, 54}, deg, 30, 18, 0.95))
		}
		p.petal("M15 38Q14 24 24 24Q32 17 40 24Q50 24 49 38Q45 54 32 55Q19 54 15 38Z")
		p.stroke("M18 36Q32 48 46 36M22 31Q32 41 42 31M27 27Q32 33 37 27", 1.6)
		sepals(p, 57)
	case crop.Open:
		p.stem(54)
		for _, deg := range []float64{-92, 92, -66, 66, -40, 40} {
			p.petal(leaf(point{middle, 50}, deg, 31, 19, 1))
		}
		p.petal("M10 40Q6 30 14 26Q14 16 24 18Q32 10 40 18Q50 16 50 26Q58 30 54 40Q46 53 32 53Q18 53 10 40Z")
		p.stroke("M15 37Q32 51 49 37M19 30Q32 43 45 30M25 25Q32 35 39 25", 1.6)
		p.ink(disc(point{middle, 26}, 3, 2.4))
	case crop.Over:
		p.stem(44)
		for _, deg := range []float64{-150, 150, -122, 122, -98, 98} {
			p.petal(leaf(point{middle, 40}, deg, 27, 16, 0.9))
		}
		p.petal(disc(point{middle, 38}, 15, 8))
		for _, deg := range fan(7, 62) {
			at := point{middle, 40}
			p.stroke(path(at, at.from(deg, 15, 0)), 1.3)
			p.dots(1.9, at.from(deg, 16, 0))
		}
		p.petal(leaf(point{50, 72}, 70, 11, 7, 0.8))
	default:
		p.stem(44)
		p.ink(disc(point{middle, 36}, 8, 9) + leaf(point{middle, 32}, 0, 18, 6, 0))
		for _, deg := range []float64{-140, -112, 112, 140} {
			p.ink(leaf(point{middle, 44}, deg, 22, 5, 0))
		}
	}
}

func sepals(p *pen, y float64) {
	p.ink(leaf(point{middle, y + 3}, -62, 15, 6, 0) + leaf(point{middle, y + 3}, 62, 15, 6, 0))
	p.ink(disc(point{middle, y}, 7, 4.5))
}

// goblet: few broad petals. Closed it is an egg; the tips part, it becomes a bowl, and at last falls flat and drops.
func goblet(p *pen, s pose) {
	base := point{middle, 54}
	p.stem(52)
	switch s.rung {
	case crop.Tight:
		p.ink(leaf(base, 0, 38, 17, 0.25))
		p.slit("M32 24Q28 36 30 48")
	case crop.Colour:
		p.petal(leaf(base, 0, 42, 20, 0.25))
		p.ink("M23.5 37Q21 50 32 55Q43 50 40.5 37Q36 47 32 34Q28 47 23.5 37Z")
	case crop.Lifting:
		p.petal(leaf(base, -7, 42, 18, 0.3))
		p.petal(leaf(base, 7, 42, 18, 0.3))
		p.petal(leaf(base, 0, 40, 20, 0.3))
	case crop.Over:
		for _, deg := range []float64{-104, 104, -70, 70} {
			p.petal(leaf(base, deg, 30, 15, 0.6))
		}
		p.ink(leaf(point{middle, 56}, 0, 26, 9, 0.6))
		for _, deg := range fan(4, 46) {
			p.stroke(path(base, base.from(deg, 19, 0)), 1.4)
			p.dots(2, base.from(deg, 20, 0))
		}
		p.petal(leaf(point{8, 73}, 60, 15, 9, 0.6))
	case crop.Spent:
		p.ink(leaf(point{middle, 56}, 0, 36, 12, 0.4))
		p.ink(disc(point{middle, 19}, 6, 2.6))
		p.ink(leaf(point{6, 74}, 75, 15, 7, 0.3) + leaf(point{58, 74}, -75, 15, 7, 0.3))
	default:
		spread := blend(-6, 66, s.open)
		for _, deg := range fan(3, 0.5*spread) {
			p.petal(leaf(base, deg, 40-4*s.open, 17, 0.35))
		}
		if s.open > 0.9 {
			p.ink(leaf(base, 0, 28, 6, 0.7))
			for _, deg := range fan(4, 26) {
				p.dots(1.8, base.from(deg, 28, 0))
			}
		}
		p.petal(leaf(base, -spread, 38-3*s.open, 19, 0.4))
		p.petal(leaf(base, spread, 38-3*s.open, 19, 0.4))
		if s.open < 0.9 {
			p.petal(leaf(base, 0, blend(36, 24, s.open), 18, 0.4))
		} else {
			p.petal(leaf(base, -20, 20, 17, 0.5))
			p.petal(leaf(base, 20, 20, 17, 0.5))
		}
	}
}

// trumpet: a long bud whose tip splits, flares and at last rolls back from its stamens.
func trumpet(p *pen, s pose) {
	base := point{middle, 66}
	p.stem(62)
	switch s.rung {
	case crop.Tight:
		p.ink(leaf(base, 0, 46, 13, 0.3))
		p.slit("M32 28V58")
	case crop.Colour:
		p.petal(leaf(base, 0, 56, 16, 0.35))
		p.ink("M25.6 42Q27 60 32 66Q37 60 38.4 42L35 52 32 40 29 52Z")
		p.stroke("M32 16V34", 1.6)
	case crop.Lifting:
		p.petal("M32 67Q21 44 25 12Q30 15 32 22Q34 15 39 12Q43 44 32 67Z")
		p.stroke("M32 22V56", 1.6)
	case crop.Spent:
		p.ink(leaf(point{middle, 66}, 0, 34, 15, 0.6))
		p.slit("M32 38V60M28 42V56M36 42V56")
		p.stroke("M32 34V18", 2)
		p.dots(2.6, point{32, 17})
		p.ink(leaf(point{middle, 64}, 128, 20, 5, 0) + leaf(point{middle, 64}, -128, 20, 5, 0))
	case crop.Over:
		for _, deg := range fan(5, 16) {
			p.stroke(path(point{middle, 46}, point{middle, 46}.from(deg*1.8, 32, 0)), 1.4)
			p.dots(2.1, point{middle, 46}.from(deg*1.8, 33, 0))
		}
		p.petal("M32 66Q24 54 24 40Q18 26 7 34Q3 42 9 46Q12 40 16 44Q22 52 32 66Z")
		p.petal("M32 66Q40 54 40 40Q46 26 57 34Q61 42 55 46Q52 40 48 44Q42 52 32 66Z")
		p.petal("M32 67Q25 52 26 40Q32 34 38 40Q39 52 32 67Z")
		p.dots(1.6, point{16, 20}, point{48, 18}, point{22, 66}, point{46, 64}, point{52, 58})
	default:
		w, lip := blend(2, 29, s.open), blend(12, 20, s.open) // half the width of the mouth, and its height
		if s.open > 0.9 {
			for _, x := range []float64{-8, 0, 8} {
				p.stroke(path(point{middle, 42}, point{middle + x, 9}), 1.5)
				p.ink(disc(point{middle + x, 8}, 3.4, 1.8))
			}
		}
		for _, side := range []float64{-1, 1} { // behind
			p.petal(leaf(base, side*blend(2, 17, s.open), blend(54, 48, s.open), 13, 0.3))
		}
		for _, side := range []float64{-1, 1} { // the lips that roll out
			x := func(part float64) float64 { return middle + side*part }
			p.petal("M32 67C" + point{x(5), 52}.String() + " " + point{x(0.35 * w), lip + 12}.String() + " " + point{x(w), lip}.String() +
				"C" + point{x(1.05 * w), lip + 10}.String() + " " + point{x(0.62*w + 3), lip + 22}.String() + " 32 67Z")
		}
		p.petal(leaf(base, 0, blend(44, 32, s.open), 13, 0.4))
	}
}

// pea: a few winged flowers up one side of a stalk, the lowest first.
func pea(p *pen, s pose) {
	p.stroke("M32 76V19", stalk-0.8)
	const flowers = 4
	opened := map[crop.Rung]int{crop.Third: 1, crop.Half: 2, crop.Open: 4, crop.Over: 4}[s.rung]
	for i := range flowers {
		at := point{middle, 60 - 13*float64(i)}
		side := 1.0
		if i%2 == 1 {
			side = -1
		}
		switch {
		case s.rung == crop.Spent:
			p.ink(leaf(at, side*118, 24, 7, 0.1))
		case s.rung == crop.Over && i < 2:
			p.ink(leaf(at, side*140, 15, 6, 0.2))
			if i == 0 {
				p.petal(leaf(point{46, 74}, 100, 12, 7, 0.8))
			}
		case i < opened:
			p.petal(disc(point{at.x + side*13, at.y - 5}, 9.5, 8.5))
			p.petal(leaf(point{at.x + side*3, at.y + 1}, side*78, 16, 9, 0.8))
			p.ink(disc(point{at.x + side*3, at.y + 1}, 3, 3))
		case s.rung == crop.Tight:
			p.ink(leaf(at, side*50, 11, 6, 0.5))
		case s.rung == crop.Lifting && i == 0: // it loosens
			p.petal(disc(point{at.x + side*11, at.y - 4}, 6.5, 6))
			p.petal(leaf(at, side*74, 15, 8, 0.8))
			p.ink(leaf(at, side*62, 8, 6, 0.5))
		case s.rung == crop.Colour && i < 2 || s.rung == crop.Lifting && i < 3:
			p.petal(leaf(at, side*52, 14, 7.5, 0.6))
			p.ink(leaf(at, side*52, 7, 5.5, 0.5))
		case i == opened && s.rung > crop.Lifting:
			p.petal(leaf(at, side*62, 19, 11, 0.7))
			p.ink(leaf(at, side*62, 9, 7, 0.5))
		default:
			p.ink(leaf(at, side*45, 12, 6.5, 0.5))
		}
	}
}
