package ladder

import (
	"math"

	"dewcount/core/crop"
)

// spike: florets up a long axis that open from below; when it is over the lowest have dropped while the tip still blooms.
func spike(p *pen, s pose) { spikeFrom(p, s, false) }

// spikeDown: a spike that opens from its top, as gayfeather does.
func spikeDown(p *pen, s pose) { spikeFrom(p, s, true) }

// spikeFrom draws the florets level by level, of which the first opens first.
func spikeFrom(p *pen, s pose, fromTop bool) {
	p.stroke("M32 76V6", stalk-0.4)
	const levels = 8
	for i := range levels {
		up := float64(i) / (levels - 1)
		size := blend(1, 0.5, up)
		if fromTop { // a bottlebrush, as thick above as below
			up, size = 1-up, 1
		}
		y := 64 - 54*up
		if fromTop {
			y = 66 - 48*up
		}
		if fromTop && i == 0 {
			size = 0.8 // the tip's florets would stick out of the drawing
		}
		for _, side := range []float64{-1, 1} {
			at := point{middle, y - 2*side}
			bell := func() {
				p.petal(leaf(at, side*blend(86, 48, up), 19*size+3, 14*size, 0.9))
				p.ink(leaf(at, side*blend(80, 48, up), 7, 5, 0.3))
			}
			hard := func() { p.ink(leaf(at, side*blend(52, 26, up), 10*size+2, 7*size+1, 0.6)) }
			coloured := func() { p.petal(leaf(at, side*60, 13*size+1, 8*size+1, 0.6)) }
			switch s.rung {
			case crop.Tight:
				p.ink(leaf(at, side*34, 8*size+2, 5*size+1, 0.5))
			case crop.Colour:
				if i < 2 || i < 3 && !fromTop {
					coloured()
				} else {
					hard()
				}
			case crop.Spent:
				p.ink(leaf(at, side*38, 12*size+1, 8*size, 0))
				if i < 4 {
					p.stroke(path(at.from(side*38, 12*size, 0), at.from(side*38, 12*size+5, 0)), 1.2)
				}
			case crop.Over:
				switch {
				case i < 3 || fromTop && i < 5:
					p.ink(leaf(at, side*60, 7, 5, 0))
				default:
					bell()
				}
			default:
				opened := map[crop.Rung]int{crop.Lifting: 1, crop.Third: 3, crop.Half: 5, crop.Open: levels}[s.rung]
				if fromTop && s.rung != crop.Open {
					opened++
				}
				switch {
				case i < opened:
					bell()
				case i < opened+1 && !(fromTop && s.rung == crop.Half):
					coloured()
				default:
					hard()
				}
			}
		}
	}
	if s.rung == crop.Over && !fromTop {
		p.petal(leaf(point{12, 72}, 80, 10, 7, 0.8))
		p.petal(leaf(point{44, 74}, 100, 10, 7, 0.8))
	}
}

// spear: one slim spear of scales that colours and forms from below; too old it sheds seed from its foot.
func spear(p *pen, s pose) {
	p.stem(66)
	length, width := blend(26, 58, math.Max(s.open, 0.3*s.shown)), blend(9, 15, s.open)
	foot := point{middle, 66}
	if s.rung == crop.Spent {
		length, width = 58, 10
	}
	spearhead := leaf(foot, 0, length, width, 0.3)
	p.ink(spearhead)
	formed := map[crop.Rung]float64{crop.Colour: 0.14, crop.Lifting: 0.3, crop.Third: 0.46, crop.Half: 0.7, crop.Open: 1, crop.Over: 1}[s.rung]
	steps := 9
	for i := range steps {
		up := (float64(i) + 0.5) / float64(steps)
		y := foot.y - up*length
		wide := width * 0.62 * math.Sin(math.Pi*math.Min(1, 0.12+0.8*up))
		switch {
		case s.rung == crop.Over && i < 3 || s.rung == crop.Spent && i < 6:
			p.dots(1.5, point{middle - wide - 4, y + 4}, point{middle + wide + 4, y + 2})
		case up < formed:
			for _, side := range []float64{-1, 1} {
				p.petal(leaf(point{middle, y + 3}, side*48, wide+5, 5.5, 0.5))
			}
		}
	}
	if s.rung == crop.Over || s.rung == crop.Spent {
		p.dots(1.4, point{14, 72}, point{20, 69}, point{45, 73}, point{51, 70})
	}
}

// plume: a flame of many feathers that fills from below and turns ragged when its seed falls.
func plume(p *pen, s pose) {
	p.stem(64)
	grown := map[crop.Rung]float64{crop.Tight: 0.36, crop.Colour: 0.46, crop.Lifting: 0.6, crop.Third: 0.74, crop.Half: 0.88, crop.Open: 1, crop.Over: 1, crop.Spent: 0.95}[s.rung]
	coloured := map[crop.Rung]int{crop.Colour: 1, crop.Lifting: 2, crop.Third: 3, crop.Half: 4, crop.Open: 6, crop.Over: 6}[s.rung]
	const tiers = 6
	for i := range tiers {
		up := float64(i) / (tiers - 1)
		y := 66 - 38*grown*up
		reach := blend(24, 14, up) * grown
		for _, deg := range fan(blendCount(5, 3, up), blend(66, 22, up)) {
			feather := leaf(point{middle, y}, deg, reach+4*grown, 8*grown, 0.15)
			switch {
			case s.rung == crop.Spent:
				if int(deg)%2 == 0 || i == tiers-1 {
					p.ink(leaf(point{middle, y}, deg*1.2, reach, 4, 0))
				}
			case s.rung == crop.Over && i < 2:
				p.ink(leaf(point{middle, y}, deg*1.25, reach, 4.5, 0))
			case i < coloured:
				p.petal(feather)
			default:
				p.ink(feather)
			}
		}
	}
	if s.rung == crop.Over {
		p.dots(1.6, point{10, 68}, point{16, 73}, point{50, 71}, point{55, 65}, point{44, 74})
	}
	if s.rung == crop.Spent {
		p.dots(1.6, point{12, 73}, point{22, 75}, point{42, 74}, point{53, 72})
	}
}

// crest: a comb that widens and folds; its lower sides carry the seed that falls when it is over.
func crest(p *pen, s pose) {
	p.stem(60)
	wide := map[crop.Rung]float64{crop.Tight: 8, crop.Colour: 11, crop.Lifting: 15, crop.Third: 19, crop.Half: 24, crop.Open: 29, crop.Over: 29, crop.Spent: 24}[s.rung]
	top := blend(44, 20, (wide-8)/21)
	body := "M28 64L" + point{middle - wide, top + 4}.String()
	lobes := max(2, int(wide/4))
	for i := range lobes {
		x0, x1 := middle-wide+2*wide*float64(i)/float64(lobes), middle-wide+2*wide*float64(i+1)/float64(lobes)
		lift := top - 8*math.Sin(math.Pi*(float64(i)+0.5)/float64(lobes))
		body += "Q" + point{(x0 + x1) / 2, lift - 8}.String() + " " + point{x1, blend(top+4, lift+4, 0.5)}.String()
	}
	body += "L36 64Z"
	if s.rung == crop.Tight || s.rung == crop.Spent {
		p.ink(body)
		if s.rung == crop.Spent {
			p.slit("M20 40L28 56M32 34V54M44 40L36 56")
			p.dots(1.5, point{16, 62}, point{22, 68}, point{44, 68}, point{50, 62}, point{12, 73}, point{52, 74})
		}
		return
	}
	p.petal(body)
	if s.rung != crop.Over {
		p.ink("M28 64L" + point{middle - wide*0.62, blend(60, 46, s.open)}.String() + "Q" + point{middle, blend(52, 56, s.open)}.String() + " " +
			point{middle + wide*0.62, blend(60, 46, s.open)}.String() + "L36 64Z")
	}
	folds := map[crop.Rung]int{crop.Lifting: 1, crop.Third: 2, crop.Half: 3, crop.Open: 5, crop.Over: 5}[s.rung]
	for i := range folds {
		x := middle + wide*1.3*((float64(i)+0.5)/float64(folds)-0.5)
		p.stroke("M"+point{x, top + 5}.String()+"q4 4 0 7t0 7", 1.6)
	}
	if s.rung == crop.Over {
		p.dots(1.8, point{22, 52}, point{27, 56}, point{37, 56}, point{42, 52}, point{18, 64}, point{46, 66}, point{12, 70}, point{52, 72})
	}
}

// coil: florets along a rolled tip that unrolls as they open, from its outer end.
func coil(p *pen, s pose) {
	unrolled := map[crop.Rung]float64{crop.Tight: 0, crop.Colour: 0.12, crop.Lifting: 0.25, crop.Third: 0.42, crop.Half: 0.62, crop.Open: 0.85, crop.Over: 1, crop.Spent: 1}[s.rung]
	const buds = 11
	turn := blend(600, 60, unrolled) // degrees that the tip has rolled up
	step := blend(5.4, 4.9, unrolled)
	at, deg := point{middle - 6, 60}, blend(-30, -8, unrolled)
	if s.rung == crop.Spent {
		turn = 24
	}
	p.stroke("M32 76Q30 68 26 60", stalk)
	line := []point{at}
	var places []point
	var outward []float64
	for i := range buds {
		tight := 0.35 + 1.3*float64(i)/buds // it rolls tighter towards its tip
		deg += turn / buds * tight
		at = at.from(deg, step*blend(1, 1.25-float64(i)/buds, 1-unrolled), 0)
		line = append(line, at)
		places = append(places, at)
		outward = append(outward, deg-90)
	}
	p.stroke(path(line...), 2.4)
	if s.rung == crop.Tight {
		p.ink(disc(places[buds-3], 11, 11))
	}
	opened := map[crop.Rung]int{crop.Lifting: 1, crop.Third: 3, crop.Half: 6, crop.Open: 9, crop.Over: 11}[s.rung]
	for i := range places {
		i := buds - 1 - i
		a, d := places[i], outward[i]
		switch {
		case s.rung == crop.Spent || s.rung == crop.Over && i < 7:
			p.ink(leaf(a, d, 8, 5, 0))
		case i < opened:
			p.petal(leaf(a, d-30, 11, 7, 0.9))
			p.petal(leaf(a, d+30, 11, 7, 0.9))
			p.stroke(path(a, a.from(d, 14, 0)), 1.2)
		case s.rung == crop.Colour && i > 2 || i == opened && s.rung != crop.Tight:
			p.petal(leaf(a, d, 10, 7, 0.7))
		default:
			p.ink(leaf(a, d, 6, 5, 0.6))
		}
	}
}
