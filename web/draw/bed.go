package draw

import (
	"fmt"
	"math"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/plans"
	"dewcount/say"
)

// A BedView is one bed drawn, with its year and what to think of.
type BedView struct {
	ID, About     string
	HasGrid       bool
	Width, Height int
	Box           string
	Grid          string // lines of the squares
	Patches       []patchView
	Shades        []shadeView
	Used          string
	Strip         []stripView
	StripNow      string
	Notes         []string
	Idles         []idleView
	Unplaced      []unplacedView
	Arrow         string // turns the arrow to the sun
	Title         string
	At            int // how far down it stands in a file of its own
}

// IdleWords says how many idle times there are.
func (v BedView) IdleWords() string { return say.Number(len(v.Idles), "idle time") }

// SvgH is how high the bed's plan is in a file of its own.
func (v BedView) SvgH() int { return v.Height + 24 }

// A patchView is a planting on its squares; Now tells whether it stands there on the date.
type patchView struct {
	ID, Label, Title, Href string
	X, Y, W, H             int
	TextX, TextY           int
	From, Until            string
	Now, Tall              bool
	Clash                  bool
}

type shadeView struct {
	Points      string
	From, Until string
	Now         bool
}

type idleView struct{ Words, Do, Href, Sow string }

type unplacedView struct{ ID, Words string }

// cellPX returns how wide a square of a bed is drawn: so that most beds fit a desk's width.
func cellPX(g plan.Grid) int {
	const widest, narrowest, desk = 12, 6, 1040
	return min(widest, max(narrowest, desk/g.Along))
}

func NewBedView(s *say.Season, b plans.BedYear, date day.Day, place book.Place) BedView {
	v := BedView{ID: b.Bed.ID, About: bedAbout(s.Locale, b), HasGrid: b.HasGrid}
	for _, u := range b.Unplaced {
		v.Unplaced = append(v.Unplaced, unplacedView{u.Planting, unplacedWords(s, b, u)})
	}
	v.Notes = bedNotes(s.Locale, b)
	if !b.HasGrid {
		return v
	}
	cell := cellPX(b.Grid)
	v.Width, v.Height = b.Grid.Along*cell+4, b.Grid.Across*cell+4
	v.Box = fmt.Sprintf("-2 -2 %d %d", v.Width, v.Height)
	v.Grid = gridLines(b.Grid)
	clashing := make(map[string]bool)
	for _, c := range b.Clashes {
		clashing[c.A.Planting], clashing[c.B.Planting] = true, true
	}
	bearing := 0.0
	if b.Bed.BearingDeg != nil {
		bearing = *b.Bed.BearingDeg
	}
	v.Arrow = fmt.Sprintf("rotate(%.0f 12 12)", plan.SunDeg(place.Latitude)-bearing+90)
	now := 0
	for _, stay := range b.Stays {
		if stay.Patch == (plan.Patch{}) {
			continue
		}
		p := newPatch(s.Locale, stay, date, cell)
		p.Clash = clashing[stay.Planting]
		v.Patches = append(v.Patches, p)
		v.Shades = append(v.Shades, shadeView{shadePoints(b.Grid, stay, bearing, place.Latitude, date), p.From, p.Until, p.Now})
		if p.Now {
			now++
		}
	}
	used := b.Grid.Used(date, look.PatchesOf(b.Stays))
	v.Used = fmt.Sprintf("%d of %d squares", used, b.Grid.Squares())
	v.Title = fmt.Sprintf("%s: %s taken on %s", b.Bed.ID, v.Used, s.Date(date))
	x := Scale{0, float64(s.Until.Sub(s.From)), 0, stripPX}
	for _, w := range s.Weeks() {
		at := w.Monday.Add(3)
		if at.Before(s.From) || !at.Before(s.Until) {
			continue
		}
		share := float64(b.Grid.Used(at, look.PatchesOf(b.Stays))) / float64(b.Grid.Squares())
		v.Strip = append(v.Strip, stripView{Place1(x.At(float64(at.Sub(s.From)) - 3)), Place1(22 - 20*share), Place1(20 * share)})
	}
	v.StripNow = Place1(x.At(float64(date.Sub(s.From))))
	for _, i := range b.Idles {
		if i.Until.After(s.View.Today) {
			v.Idles = append(v.Idles, newIdle(s, b, i))
		}
	}
	return v
}

func Place1(n float64) string { return strconv.FormatFloat(n, 'f', 1, 64) }

func bedAbout(locale say.Locale, b plans.BedYear) string {
	var parts []string
	if b.HasGrid {
		parts = append(parts, fmt.Sprintf("%s by %s, %d by %d squares", locale.Number(say.Metre, *b.Bed.LengthM), locale.Exact(say.Metre, *b.Bed.WidthM), b.Grid.Along, b.Grid.Across))
	} else {
		parts = append(parts, "length and width are not written down")
	}
	if b.Bed.BearingDeg != nil {
		parts = append(parts, "runs "+say.Compass(*b.Bed.BearingDeg))
	}
	for _, word := range []string{b.Bed.Cover, b.Bed.Exposure} {
		if word != "" && word != "open" {
			parts = append(parts, word)
		}
	}
	if b.Bed.Zone != "" {
		parts = append(parts, "water line "+b.Bed.Zone)
	}
	if b.Bed.SunH != nil {
		parts = append(parts, book.Decimal(*b.Bed.SunH)+" h of sun")
	}
	return strings.Join(parts, ", ")
}

func gridLines(g plan.Grid) string {
	var path strings.Builder
	cell := cellPX(g)
	for a := 0; a <= g.Along; a++ {
		fmt.Fprintf(&path, "M%d 0V%d", a*cell, g.Across*cell)
	}
	for c := 0; c <= g.Across; c++ {
		fmt.Fprintf(&path, "M0 %dH%d", c*cell, g.Along*cell)
	}
	return path.String()
}

func newPatch(locale say.Locale, stay look.BedStay, date day.Day, cell int) patchView {
	q := stay.Patch
	p := patchView{ID: stay.Planting, X: (q.From - 1) * cell, Y: (q.Left - 1) * cell, W: (q.To - q.From + 1) * cell, H: (q.Right - q.Left + 1) * cell,
		From: stay.From.String(), Until: stay.Until.String(), Now: stay.On(date), Tall: stay.HighCM >= tallCM, Href: "/plantings/" + url.PathEscape(stay.Planting) + "/edit"}
	p.TextX, p.TextY = p.X+4, p.Y+p.H/2+4
	p.Label = stay.Planting
	if p.W > 90 {
		p.Label += " " + stay.Record.Variety
	}
	if most := p.W / 7; len([]rune(p.Label)) > most {
		p.Label = string([]rune(p.Label)[:max(0, most)])
	}
	until := "for good"
	if !stay.Until.IsZero() {
		until = "to about " + locale.Date(stay.Until)
	}
	p.Title = fmt.Sprintf("%s %s, %d plants, about %s high, from %s %s", stay.Planting, stay.Record.Variety, stay.Record.Plants, locale.CM(stay.HighCM), locale.Date(stay.From), until)
	return p
}

// shadePoints returns the outline of the noon shade of a planting.
func shadePoints(g plan.Grid, stay look.BedStay, bearing, latitude float64, date day.Day) string {
	cell := float64(cellPX(g))
	length := plan.ShadeCM(stay.HighCM, latitude, date.YearDay()) / g.SideCM * cell
	turn := (plan.SunDeg(latitude) + 180 - bearing) * math.Pi / 180
	dx, dy := length*math.Cos(turn), length*math.Sin(turn)
	q := stay.Patch
	x0, y0 := cell*float64(q.From-1), cell*float64(q.Left-1)
	x1, y1 := cell*float64(q.To), cell*float64(q.Right)
	corners := [][2]float64{{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}}
	for _, c := range corners[:4] {
		corners = append(corners, [2]float64{c[0] + dx, c[1] + dy})
	}
	var points []string
	for _, c := range hull(corners) {
		points = append(points, fmt.Sprintf("%.1f,%.1f", c[0], c[1]))
	}
	return strings.Join(points, " ")
}

// hull returns the convex hull of points, by the monotone chain of Andrew (1979).
func hull(points [][2]float64) [][2]float64 {
	points = slices.Clone(points)
	slices.SortFunc(points, func(a, b [2]float64) int {
		switch {
		case a[0] < b[0] || a[0] == b[0] && a[1] < b[1]:
			return -1
		case a == b:
			return 0
		}
		return 1
	})
	turn := func(o, a, b [2]float64) float64 { return (a[0]-o[0])*(b[1]-o[1]) - (a[1]-o[1])*(b[0]-o[0]) }
	half := func(in [][2]float64) [][2]float64 {
		var out [][2]float64
		for _, p := range in {
			for len(out) > 1 && turn(out[len(out)-2], out[len(out)-1], p) <= 0 {
				out = out[:len(out)-1]
			}
			out = append(out, p)
		}
		return out[:len(out)-1]
	}
	lower := half(points)
	slices.Reverse(points)
	return append(lower, half(points)...)
}

func unplacedWords(s *say.Season, b plans.BedYear, u look.BedStay) string {
	words := fmt.Sprintf("%s, %d plants", u.Record.Variety, u.Record.Plants)
	if b.HasGrid {
		each, side := b.Grid.Pattern(s.Book.SpacingCM(u.Record.Variety, u.Profile))
		words += fmt.Sprintf(": %d squares", (u.Record.Plants+each-1)/each*side*side)
	}
	return words
}

func newIdle(s *say.Season, b plans.BedYear, i plan.Idle) idleView {
	days := i.Until.Sub(i.From)
	v := idleView{Words: fmt.Sprintf("Squares %d to %d lie empty from %s to %s, %d weeks", i.Patch.From, i.Patch.To, s.Date(i.From), s.Date(i.Until.Add(-1)), days/7)}
	if i.Patch.From == 1 && i.Patch.To == b.Grid.Along {
		v.Words = fmt.Sprintf("The whole bed lies empty from %s to %s, %d weeks", s.Date(i.From), s.Date(i.Until.Add(-1)), days/7)
	}
	from := i.From
	if from.Before(s.View.Today) {
		from = s.View.Today
	}
	switch plan.FillOf(i.Until.Sub(from), plans.Warm(s.Season, from)) {
	case plan.Sow:
		fits := plans.Fits(s.Season, plan.Idle{Patch: i.Patch, From: from, Until: i.Until})
		if len(fits) == 0 {
			v.Do = "sow a green manure"
			break
		}
		var names []string
		for _, p := range fits {
			names = append(names, p.Name)
		}
		v.Do = "time enough for another sowing, such as " + say.List(names)
		v.Href = "/plantings/new?" + url.Values{"bed": {b.Bed.ID}, "crop": {fits[0].ID}, "started_on": {from.String()}, "method": {"direct"}}.Encode()
		v.Sow = "Add a sowing"
	case plan.GreenManure:
		v.Do = "sow a green manure, and clear it to a clean seed bed when the next sowing comes"
	default:
		v.Do = "mulch it until then"
	}
	return v
}

// bedNotes says what does not go well in a bed from a day on.
func bedNotes(locale say.Locale, b plans.BedYear) []string {
	var notes []string
	for _, c := range b.Clashes {
		if c.Until.IsZero() || c.Until.After(locale.Today) {
			notes = append(notes, locale.Clash(c))
		}
	}
	for i, n := range b.Notes {
		if !n.Until.IsZero() && !n.Until.After(locale.Today) {
			continue
		}
		if n.Trouble != plan.WaterClash {
			notes = append(notes, locale.Note(n))
			continue
		}
		first := slices.IndexFunc(b.Notes, func(o plan.Note) bool { return o.Trouble == plan.WaterClash && o.A.Planting == n.A.Planting })
		if first == i { // one seed bed may meet several tubers
			notes = append(notes, locale.WaterClash(b.Notes, n))
		}
	}
	for _, stay := range b.Stays {
		if b.HasGrid && stay.Patch != (plan.Patch{}) && stay.Record.Plants > 0 {
			if words := locale.Crowded(b, stay); words != "" {
				notes = append(notes, words)
			}
		}
		if stay.TooLow {
			notes = append(notes, fmt.Sprintf("%s, %s, is too low for cutting: a bedding form ends up without a stem.", stay.Planting, stay.Record.Variety))
		}
	}
	return notes
}

type stripView struct{ X, Y, H string }

// stripPX is how wide a bed's year is drawn.
const stripPX = 640

// tallCM is from which height on a planting is drawn as tall.
const tallCM = 110
