package ladder

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// A pen writes the elements of a drawing, the last on top.
type pen struct {
	text strings.Builder
	bare bool    // without the stalk
	neck float64 // where the stalk ends
}

// A point is a place on the drawing, y downwards.
type point struct{ x, y float64 }

// from returns the point that lies ahead and aside of p, seen along a direction in degrees: 0 is up, 90 to the right.
func (p point) from(deg, ahead, aside float64) point {
	s, c := math.Sincos(deg * math.Pi / 180)
	return point{p.x + ahead*s + aside*c, p.y - ahead*c + aside*s}
}

func (p point) String() string { return number(p.x) + " " + number(p.y) }

func number(v float64) string { return strconv.FormatFloat(math.Round(v*10)/10, 'f', -1, 64) }

// line widths, in units of the drawing: what shows at half a pixel a unit.
const (
	outline = 2
	stalk   = 3.2
)

// ink fills a path with ink: what is green or dry.
func (p *pen) ink(path string) { fmt.Fprintf(&p.text, `<path d="%s" fill="currentColor"/>`, path) }

// petal outlines a path: what shows colour.
func (p *pen) petal(path string) {
	fmt.Fprintf(&p.text, `<path d="%s" fill="var(--petal,#fff)" stroke="currentColor" stroke-width="%d"/>`, path, outline)
}

// stroke draws a path as a line of a width.
func (p *pen) stroke(path string, width float64) {
	fmt.Fprintf(&p.text, `<path d="%s" fill="none" stroke="currentColor" stroke-width="%s"/>`, path, number(width))
}

// slit draws a light line on ink.
func (p *pen) slit(path string) {
	fmt.Fprintf(&p.text, `<path d="%s" fill="none" stroke="var(--petal,#fff)" stroke-width="%d"/>`, path, outline)
}

// leaf is the outline of a petal from its base along a direction, of a length and greatest width; round is how blunt its tip is, 0 to 1.
func leaf(base point, deg, length, width, round float64) string {
	at := func(ahead, aside float64) point { return base.from(deg, ahead, aside) }
	w := width * 0.66 // a curve reaches three quarters of its handles
	return fmt.Sprintf("M%vC%v %v %vC%v %v %vZ", base,
		at(length*0.2, w), at(length*(0.72+0.28*round), w*(0.45+0.75*round)), at(length, 0),
		at(length*(0.72+0.28*round), -w*(0.45+0.75*round)), at(length*0.2, -w), base)
}

// disc is an ellipse.
func disc(at point, rx, ry float64) string {
	return fmt.Sprintf("M%va%s %s 0 1 0 %s 0a%s %s 0 1 0 %s 0Z", point{at.x - rx, at.y}, number(rx), number(ry), number(2*rx),
		number(rx), number(ry), number(-2*rx))
}

// path joins points with straight lines.
func path(points ...point) string {
	var text strings.Builder
	for i, p := range points {
		if i == 0 {
			text.WriteByte('M')
		} else {
			text.WriteByte('L')
		}
		text.WriteString(p.String())
	}
	return text.String()
}

// dots are small discs of ink.
func (p *pen) dots(radius float64, at ...point) {
	for _, a := range at {
		p.ink(disc(a, radius, radius))
	}
}

// stem draws the stalk from the ground up to a height.
func (p *pen) stem(to float64) {
	if p.neck = to; !p.bare {
		p.stroke(path(point{middle, ground}, point{middle, to}), stalk)
	}
}

// fan returns n directions evenly spread from -half to half degrees, the outermost first, so that inner petals lie on top.
func fan(n int, half float64) []float64 {
	degs := make([]float64, 0, n)
	for i := range n {
		step := i / 2
		side := 1.0
		if i%2 == 1 {
			side = -1
		}
		if n%2 == 1 && i == n-1 {
			side, step = 0, 0
		}
		degs = append(degs, side*half*(1-float64(2*step)/float64(n-1)))
	}
	return degs
}

// blend returns the value a part of the way from a to b.
func blend(a, b, part float64) float64 { return a + (b-a)*part }
