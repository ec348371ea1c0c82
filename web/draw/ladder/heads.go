package ladder

import (
	"math"

	"dewcount/core/crop"
)

// umbel: a flat head of many small florets on rays, opening from its rim; over, it closes to a nest.
func umbel(p *pen, s pose) {
	hub := point{middle, 58}
	p.stem(58)
	wide := map[crop.Rung]float64{crop.Tight: 6, crop.Colour: 9, crop.Lifting: 14, crop.Third: 19, crop.Half: 22, crop.Open: 25, crop.Over: 22, crop.Spent: 12}[s.rung]
	opened := map[crop.Rung]int{crop.Lifting: 2, crop.Third: 4, crop.Half: 6, crop.Open: 9, crop.Over: 2}[s.rung]
	for i, part := range fan(9, 1) { // a dome that flattens
		tip := point{middle + wide*part, hub.y - blend(20, 28, s.open) - blend(9, 2, s.open)*(1-part*part)}
		if s.rung == crop.Tight {
			tip.y += 3
		}
		switch s.rung {
		case crop.Spent:
			tip = point{middle + 9*part, 24}
			p.stroke("M"+hub.String()+"Q"+point{middle + 34*part, 44}.String()+" "+tip.String(), 1.8)
			p.ink(leaf(tip.from(180, 3, 0), 0, 9, 5, 0))
			continue
		case crop.Over:
			p.stroke("M"+hub.String()+"Q"+point{middle + 30*part, 46}.String()+" "+tip.String(), 1.6)
		default:
			p.stroke(path(hub, tip), 1.6)
		}
		switch {
		case s.rung == crop.Over && i >= opened:
			p.dots(2.8, tip)
			p.stroke(path(tip, tip.from(0, 5, 0)), 1.2)
		case i < opened:
			floret(p, tip, 6.5)
		case s.rung == crop.Colour && i < 4:
			p.petal(disc(tip, 3.6, 3.6))
		case s.rung == crop.Tight:
			p.dots(4, tip)
		default:
			p.dots(3.4, tip)
		}
	}
	for _, deg := range []float64{-75, 75} {
		p.ink(leaf(hub, deg, 12, 3, 0))
	}
}

// floret is a small flower of four round petals.
func floret(p *pen, at point, radius float64) {
	for _, deg := range []float64{45, 135, 225, 315} {
		p.petal(leaf(at, deg, radius, radius*0.9, 0.9))
	}
	p.dots(radius*0.22, at)
}

// globe: a ball of small florets or scales that swells and opens from below, then lengthens and lets go.
func globe(p *pen, s pose) {
	radius := map[crop.Rung]float64{crop.Tight: 8, crop.Colour: 11, crop.Lifting: 14, crop.Third: 17, crop.Half: 20, crop.Open: 23, crop.Over: 21, crop.Spent: 13}[s.rung]
	heart := point{middle, 36}
	tall := radius
	if s.rung == crop.Over {
		heart, tall = point{middle, 34}, 26
	}
	p.stem(heart.y)
	p.ink(leaf(point{middle, heart.y + radius + 1}, -78, 13, 4, 0) + leaf(point{middle, heart.y + radius + 1}, 78, 13, 4, 0))
	p.ink(disc(heart, radius*0.82, tall*0.82))
	opened := map[crop.Rung]float64{crop.Colour: 0.12, crop.Lifting: 0.32, crop.Third: 0.5, crop.Half: 0.72, crop.Open: 1, crop.Over: 1}[s.rung]
	const rows = 5
	for row := range rows {
		up := (float64(row) + 0.5) / rows // 0 at the foot of the ball
		y := heart.y + tall*(1-2*up)
		half := radius * math.Sqrt(math.Max(0, 1-(1-2*up)*(1-2*up)))
		n := max(2, int(half/3.6))
		for i := range n {
			x := middle + half*(2*(float64(i)+0.5)/float64(n)-1)
			deg := (x - middle) / radius * 58
			at := point{x, y + 3}
			switch {
			case s.rung == crop.Spent:
				if (row+i)%2 == 0 {
					p.stroke(path(at, at.from(deg*1.5, 10, 0)), 1.5)
				}
			case s.rung == crop.Over && row < 2:
				if i%2 == 0 {
					p.slit("M" + at.String() + "l0 -4")
				}
			case up <= opened:
				p.petal(leaf(at, deg, 10, 7, 0.2))
			case s.rung != crop.Tight:
				p.slit("M" + point{x - 2.5, y + 1}.String() + "l2.5 -3.5 2.5 3.5")
			}
		}
	}
	if s.rung == crop.Over {
		p.petal(leaf(point{12, 70}, 60, 9, 6, 0.2))
		p.petal(leaf(point{44, 72}, 100, 9, 6, 0.2))
		p.petal(leaf(point{20, 62}, 140, 8, 5, 0.2))
	}
	if s.rung == crop.Spent {
		p.dots(1.5, point{14, 72}, point{22, 74}, point{44, 73}, point{52, 70})
	}
}

// panicle: a cone of small florets that open from its foot.
func panicle(p *pen, s pose) {
	p.stem(20)
	const rows = 6
	wide := map[crop.Rung]float64{crop.Tight: 9, crop.Colour: 12, crop.Lifting: 16, crop.Third: 20, crop.Half: 23, crop.Open: 25, crop.Over: 25, crop.Spent: 18}[s.rung]
	opened := map[crop.Rung]int{crop.Lifting: 1, crop.Third: 2, crop.Half: 4, crop.Open: 6, crop.Over: 6}[s.rung]
	for row := range rows {
		row := rows - 1 - row
		up := float64(row) / (rows - 1)
		y := 60 - 46*up
		half := wide * (1 - 0.85*up)
		n := max(1, blendCount(4, 1, up))
		for i := range n {
			x := float64(middle)
			if n > 1 {
				x += half * (2*float64(i)/float64(n-1) - 1)
			}
			at := point{x, y + 4*math.Abs(x-middle)/25}
			p.stroke(path(point{middle, y + 10}, at), 1.4)
			switch {
			case s.rung == crop.Spent:
				p.ink(leaf(at.from(180, 3, 0), (x-middle)*2, 8, 4, 0))
			case s.rung == crop.Over && (row+i)%2 == 0:
				p.ink(disc(at, 3, 2.2))
			case row < opened:
				floret(p, at, blend(7.6, 5, up))
			case s.rung == crop.Colour && row < 2:
				p.petal(disc(at, 3.6, 3.6))
			default:
				p.dots(blend(4.2, 3, up), at)
			}
		}
	}
	if s.rung == crop.Over {
		p.dots(1.6, point{10, 70}, point{18, 74}, point{46, 73}, point{54, 69})
	}
}

// foliage: leaves that unroll and firm, pair by pair from below; over, it shoots up to flower.
func foliage(p *pen, s pose) {
	const pairs = 4
	unrolled := map[crop.Rung]int{crop.Lifting: 1, crop.Third: 2, crop.Half: 3, crop.Open: 4, crop.Over: 4, crop.Spent: 4}[s.rung]
	top := map[crop.Rung]float64{crop.Tight: 46, crop.Colour: 40, crop.Lifting: 34, crop.Third: 28, crop.Half: 22, crop.Open: 18, crop.Over: 6, crop.Spent: 6}[s.rung]
	p.stroke(path(point{middle, ground}, point{middle, top}), stalk-0.6)
	for i := range pairs {
		at := point{middle, 68 - 13*float64(i)}
		if at.y < top-1 && s.rung < crop.Over {
			continue
		}
		for _, side := range []float64{-1, 1} {
			size := blend(1, 0.7, float64(i)/pairs)
			switch {
			case s.rung == crop.Spent:
				p.ink(leaf(at, side*132, 16*size, 9*size, 0.2))
				if i < 2 {
					p.slit(path(at.from(side*140, 8, 2), at.from(side*140, 13, 2)))
				}
			case s.rung == crop.Over: // gone to flower, the leaves age
				p.petal(leaf(at, side*112, 24*size, 9*size, 0.3))
				p.stroke(path(at, at.from(side*112, 20*size, 0)), 2.2)
			case i < unrolled:
				p.petal(leaf(at, side*72, 27*size, 15*size, 0.5))
				p.stroke(path(at, at.from(side*72, 18*size, 0)), 1.3)
			default:
				p.ink(leaf(at, side*34, 20*size, 8*size, 0.2))
			}
		}
	}
	switch s.rung {
	case crop.Over, crop.Spent:
		for i := range 5 {
			at := point{middle, 22 - 4*float64(i)}
			for _, side := range []float64{-1, 1} {
				if s.rung == crop.Over {
					p.petal(leaf(at, side*62, 8, 5, 0.7))
				} else {
					p.ink(leaf(at, side*50, 6, 4, 0))
				}
			}
		}
	case crop.Open:
		for _, deg := range []float64{-34, 34, 0} {
			p.petal(leaf(point{middle, top + 10}, deg, 24, 11, 0.4))
		}
	case crop.Colour:
		p.petal(leaf(point{middle, top + 6}, 0, 18, 9, 0.2))
	default:
		p.ink(leaf(point{middle, top + 6}, 0, 18, 9, 0.2))
	}
}

// grass: a plume that leaves its sheath, spreads silky, then fluffs and falls bare.
func grass(p *pen, s pose) {
	p.stroke("M32 76V30", stalk-0.8)
	p.ink(leaf(point{middle, 74}, -34, 30, 5, 0) + leaf(point{middle, 76}, 30, 24, 5, 0))
	foot := point{middle, 46}
	sheath := "M29 62Q25 44 32 30Q39 44 35 62Z"
	emerged := map[crop.Rung]float64{crop.Colour: 9, crop.Lifting: 30, crop.Third: 28, crop.Half: 34, crop.Open: 40, crop.Over: 40}[s.rung]
	spread := map[crop.Rung]float64{crop.Colour: 4, crop.Lifting: 7, crop.Third: 13, crop.Half: 22, crop.Open: 36, crop.Over: 62}[s.rung]
	switch s.rung {
	case crop.Tight:
		p.ink(leaf(point{middle, 66}, 0, 36, 8, 0))
		return
	case crop.Spent:
		p.stroke("M32 46V6", 1.8)
		for i := range 6 {
			at := point{middle, 42 - 6*float64(i)}
			side := float64(1 - 2*(i%2))
			p.stroke(path(at, at.from(side*44, 9, 0)), 1.4)
		}
		p.dots(1.4, point{12, 70}, point{20, 73}, point{46, 72}, point{54, 74})
		return
	case crop.Colour, crop.Lifting:
		p.petal(leaf(point{middle, 42}, 0, emerged+4, 8+spread/2, 0.3))
		p.ink(sheath)
		return
	}
	for i := range 4 {
		at := point{middle, foot.y - float64(i)*emerged*0.17}
		for j, deg := range fan(5, spread*blend(1.3, 0.7, float64(i)/3)) {
			if s.rung == crop.Over && (i+j)%2 == 0 {
				p.dots(1.5, at.from(deg*1.2, 20, 0))
				p.stroke(path(at, at.from(deg*1.2, 16, 0)), 1.2)
				continue
			}
			p.petal(leaf(at, deg, emerged*0.52, 5.5, 0.3))
		}
	}
	if s.rung == crop.Over {
		p.dots(1.4, point{8, 62}, point{56, 60}, point{14, 72}, point{50, 73})
	}
	if s.rung == crop.Third {
		p.ink("M29 64Q26 52 32 44Q38 52 35 64Z")
	}
}
