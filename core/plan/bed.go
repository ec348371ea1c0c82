package plan

import (
	"fmt"
	"math"

	"dewcount/core/day"
)

// A Grid is a bed in squares of the grower's own size.
type Grid struct {
	Along, Across int     // squares, 1 or more
	SideCM        float64 // of a square
}

// GridOf returns the squares of a bed of so many metres; what is left over at its edges is no square, but a bed has one at least.
func GridOf(lengthM, widthM, sideCM float64) Grid {
	squares := func(metres float64) int { return max(1, int(100*metres/sideCM+roundUp)) }
	return Grid{squares(lengthM), squares(widthM), sideCM}
}

// Squares returns how many there are.
func (g Grid) Squares() int { return g.Along * g.Across }

// A Patch is a rectangle of squares, counted from 1 along and across the bed, both ends included. The zero Patch is no place.
type Patch struct{ From, To, Left, Right int }

// ParsePatch reads a patch as squares along and across, "3-14x1-4", or along alone, "3-14", for the whole width of a grid.
func ParsePatch(s string, g Grid) (Patch, error) {
	p := Patch{Left: 1, Right: g.Across}
	var tail string
	if n, _ := fmt.Sscanf(s, "%d-%dx%d-%d%s", &p.From, &p.To, &p.Left, &p.Right, &tail); n != 4 {
		p.Left, p.Right = 1, g.Across
		if n, _ := fmt.Sscanf(s, "%d-%d%s", &p.From, &p.To, &tail); n != 2 {
			return Patch{}, fmt.Errorf("%q are no squares: write them along and across, such as 3-14x1-4, or along alone, such as 3-14", s)
		}
	}
	switch {
	case p.From < 1 || p.To < p.From || p.Left < 1 || p.Right < p.Left:
		return Patch{}, fmt.Errorf("%q are no squares: count from 1, the smaller number first", s)
	case p.To > g.Along || p.Right > g.Across:
		return Patch{}, fmt.Errorf("%q lie outside the bed, which is %d squares long and %d wide", s, g.Along, g.Across)
	}
	return p, nil
}

// String writes the patch as ParsePatch reads it.
func (p Patch) String() string {
	if p == (Patch{}) {
		return ""
	}
	return fmt.Sprintf("%d-%dx%d-%d", p.From, p.To, p.Left, p.Right)
}

// Squares returns how many the patch has.
func (p Patch) Squares() int {
	if p == (Patch{}) {
		return 0
	}
	return (p.To - p.From + 1) * (p.Right - p.Left + 1)
}

// Overlaps tells whether two patches share a square.
func (p Patch) Overlaps(q Patch) bool {
	return p != (Patch{}) && q != (Patch{}) && p.From <= q.To && q.From <= p.To && p.Left <= q.Right && q.Left <= p.Right
}

// Pattern returns how a spacing in cm fills squares: so many plants on one, or one plant on so many by so many. A crop wider than a
// square takes ceil(spacing ÷ side)² of them.
func (g Grid) Pattern(spacingCM float64) (plantsASquare, sideSquares int) {
	if spacingCM > g.SideCM+roundUp {
		return 1, up(spacingCM / g.SideCM)
	}
	side := int(g.SideCM/spacingCM + roundUp)
	return side * side, 1
}

// Plants returns how many plants of a spacing in cm stand on a patch.
func (g Grid) Plants(p Patch, spacingCM float64) int {
	each, side := g.Pattern(spacingCM)
	if p == (Patch{}) {
		return 0
	}
	return each * ((p.To - p.From + 1) / side) * ((p.Right - p.Left + 1) / side)
}

// A Stay is a planting on its squares for a time.
type Stay struct {
	Planting    string
	Patch       Patch
	From, Until day.Day // in its bed from From to before Until; Until is zero where it stays
}

// Overlaps tells whether two stays want a square on the same day.
func (s Stay) Overlaps(o Stay) bool {
	return s.Patch.Overlaps(o.Patch) && (o.Until.IsZero() || s.From.Before(o.Until)) && (s.Until.IsZero() || o.From.Before(s.Until))
}

// On tells whether the stay holds its squares on a day.
func (s Stay) On(d day.Day) bool {
	return !d.Before(s.From) && (s.Until.IsZero() || d.Before(s.Until))
}

// A Clash is two stays that want the same squares.
type Clash struct {
	A, B        Stay
	From, Until day.Day // days on which both want them; Until is zero where it does not end
}

// Clashes returns all pairs of stays in one bed that want the same squares, in the order given.
func Clashes(stays []Stay) []Clash {
	var clashes []Clash
	for i, a := range stays {
		for _, b := range stays[i+1:] {
			if !a.Overlaps(b) {
				continue
			}
			c := Clash{A: a, B: b, From: a.From, Until: a.Until}
			if b.From.After(c.From) {
				c.From = b.From
			}
			if c.Until.IsZero() || !b.Until.IsZero() && b.Until.Before(c.Until) {
				c.Until = b.Until
			}
			clashes = append(clashes, c)
		}
	}
	return clashes
}

// Place returns the first patch, as wide as the bed, that is free for plants of a spacing in cm over a time beside other stays, and
// whether there is one.
func (g Grid) Place(plants int, spacingCM float64, from, until day.Day, stays []Stay) (Patch, bool) {
	long, ok := g.long(plants, spacingCM)
	if !ok {
		return Patch{}, false
	}
	for start := 1; start+long-1 <= g.Along; {
		wanted := Stay{Patch: Patch{start, start + long - 1, 1, g.Across}, From: from, Until: until}
		next := 0
		for _, s := range stays {
			if wanted.Overlaps(s) {
				next = max(next, s.Patch.To+1)
			}
		}
		if next == 0 {
			return wanted.Patch, true
		}
		start = next
	}
	return Patch{}, false
}

// long returns over how many squares along the bed's whole width plants of a spacing stand, and whether they fit its length.
func (g Grid) long(plants int, spacingCM float64) (int, bool) {
	each, side := g.Pattern(spacingCM)
	abreast := each * (g.Across / side)
	if abreast == 0 {
		return 0, false
	}
	rows := side * ((plants + abreast - 1) / abreast)
	return rows, rows <= g.Along
}

// Room returns the most plants of a spacing in cm that one free strip of the bed's whole width holds over a time beside other stays.
func (g Grid) Room(spacingCM float64, from, until day.Day, stays []Stay) int {
	most, free := 0, 0
	for a := 1; a <= g.Along+1; a++ {
		taken := a > g.Along
		for _, s := range stays {
			taken = taken || (Stay{Patch: Patch{a, a, 1, g.Across}, From: from, Until: until}).Overlaps(s)
		}
		if !taken {
			free++
			continue
		}
		if free > 0 {
			most = max(most, g.Plants(Patch{1, free, 1, g.Across}, spacingCM))
		}
		free = 0
	}
	return most
}

// Used returns how many squares of the bed are taken on a day; squares that two stays want count once.
func (g Grid) Used(d day.Day, stays []Stay) int {
	taken, n := make([]bool, g.Squares()), 0
	for _, s := range stays {
		if !s.On(d) || s.Patch == (Patch{}) {
			continue
		}
		for a := s.Patch.From; a <= min(s.Patch.To, g.Along); a++ {
			for c := s.Patch.Left; c <= min(s.Patch.Right, g.Across); c++ {
				if square := &taken[(a-1)*g.Across+c-1]; !*square {
					*square = true
					n++
				}
			}
		}
	}
	return n
}

// An Idle time is squares along a bed that nobody uses from one day to before another.
type Idle struct {
	Patch       Patch
	From, Until day.Day
}

// leastIdleDays is from how many days on an empty strip is worth a thought.
const leastIdleDays = 21

// Idles returns the times within a period for which strips of the bed's whole width lie empty between, before and after stays, longest
// strips first joined along the bed.
func (g Grid) Idles(from, until day.Day, stays []Stay) []Idle {
	type gap struct{ from, until day.Day }
	gapsOf := func(a int) []gap {
		var gaps []gap
		start := from
		for d := from; ; d = d.Add(1) {
			taken := !d.Before(until)
			for _, s := range stays {
				taken = taken || s.On(d) && s.Patch.From <= a && a <= s.Patch.To
			}
			if taken {
				if d.Sub(start) >= leastIdleDays {
					gaps = append(gaps, gap{start, d})
				}
				start = d.Add(1)
			}
			if !d.Before(until) {
				return gaps
			}
		}
	}
	var idles []Idle
	open := make(map[gap]int) // index of the idle that goes on along the bed
	for a := 1; a <= g.Along; a++ {
		going := make(map[gap]int)
		for _, w := range gapsOf(a) {
			i, ok := open[w]
			if !ok {
				i = len(idles)
				idles = append(idles, Idle{Patch{a, a, 1, g.Across}, w.from, w.until})
			}
			idles[i].Patch.To = a
			going[w] = i
		}
		open = going
	}
	return idles
}

// SunDeg returns the compass direction in degrees from which the sun shines at noon: 180, south, north of the equator; 0 south of it.
func SunDeg(latitude float64) float64 {
	if latitude < 0 {
		return 0
	}
	return 180
}

// NoonDeg returns how high the sun stands at noon on a day of the year, in degrees above the horizon, by the declination of Cooper (1969),
// Solar Energy 12:333-346.
func NoonDeg(latitude float64, yearDay int) float64 {
	declination := 23.45 * math.Sin(2*math.Pi*float64(284+yearDay)/365)
	return 90 - math.Abs(latitude-declination)
}

// ShadeCM returns how far a plant of a height in cm throws its shade at noon, in cm; twice its height at the most, since beyond that the
// sun is too low to matter.
func ShadeCM(heightCM, latitude float64, yearDay int) float64 {
	noon := NoonDeg(latitude, yearDay)
	if noon <= 0 {
		return 2 * heightCM
	}
	return min(2*heightCM, heightCM/math.Tan(noon*math.Pi/180))
}

// Shades tells whether a tall patch throws its noon shade onto a short one in the same bed, which runs in a compass direction, on a day of the
// year: at least half a square of it, by what the tall ones stand above the short.
func (g Grid) Shades(tall, short Patch, tallCM, shortCM, bearingDeg, latitude float64, yearDay int) bool {
	const clearlyTaller = 30 // cm, and not merely as plants differ
	if tallCM < shortCM+clearlyTaller {
		return false
	}
	length := ShadeCM(tallCM-shortCM, latitude, yearDay)
	turn := (SunDeg(latitude) + 180 - bearingDeg) * math.Pi / 180
	// The shade is the tall patch moved along the sun's rays. For some part of the way its middle must come so near to the short one's that the two
	// overlap, along the bed and across it at the same time.
	from, to := 0.0, 1.0
	slab := func(apart, way, reach float64) {
		if math.Abs(way) < roundUp {
			if math.Abs(apart) >= reach {
				from, to = 1, 0
			}
			return
		}
		near, far := (apart-reach)/way, (apart+reach)/way
		from, to = max(from, min(near, far)), min(to, max(near, far))
	}
	half := g.SideCM / 2
	along := half * float64(short.From+short.To-tall.From-tall.To)
	across := half * float64(short.Left+short.Right-tall.Left-tall.Right)
	slab(along, length*math.Cos(turn), half*float64(tall.To-tall.From+1+short.To-short.From+1)-half)
	slab(across, length*math.Sin(turn), half*float64(tall.Right-tall.Left+1+short.Right-short.Left+1)-half)
	return from < to
}
