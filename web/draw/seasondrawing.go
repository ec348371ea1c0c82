package draw

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/look"
	"dewcount/say"
)

// A SeasonDrawing is a year of plantings: each a stem that grows from its sowing into a bloom as wide as the stems it gives, frost closing
// in from both sides, and what has to be fed as ticks above.
type SeasonDrawing struct {
	Title               string
	Width, Height, Head int
	Left, RowH          int
	Months              []monthView
	Weeks               []TickView
	Frosts              []frostView
	FrostLines          []TickView
	Ticks               []dueTick
	Today               string
	Rows                []stemRow
	Dense               bool // names small, where there are many
	Chart               chartDrawing
	DayW                string // how wide a day is
}

type TickView struct{ X, Name string }

// A frostView is a stretch of days on which frost may still, or already, come; Strength is 0 to 1 as text.
type frostView struct{ X, W, Strength string }

// A dueTick is a market day or an order.
type dueTick struct {
	X, Y2, Name string
	Event       bool
}

// A stemRow is a planting drawn.
type stemRow struct {
	ID, Label, Title    string
	Start, Out          string // dates
	Y, Middle           string
	X0, XOut, XBloom, X string
	Nursery             bool
	Pinch               string
	Best, Likely, Sure  string // outlines of the bloom, the wider ones fading
	Chosen, Ghost       bool
	CanMove             bool
	Late                bool // it will hardly flower before the frost
	Href                string
	Name, Cut           string // in words
}

// A chartDrawing is the stems of each week under the plantings, against what is wanted.
type chartDrawing struct {
	Title        string
	Height       int
	Bars         []ChartBar
	Wanted       string     // a stepped line
	Lines        []TickView // heights with their number
	HasWant, Any bool
}

type ChartBar struct{ X, W, Best, BestH, Sure, SureH, Likely string }

const (
	drawingWidth = 1180
	drawingLeft  = 160
	drawingRight = 8
	chartHeight  = 150
)

// GroundW and GroundH are how far the drawing of days reaches.
func (d SeasonDrawing) GroundW() int { return d.Width - d.Left - drawingRight }

// GroundH is its height.
func (d SeasonDrawing) GroundH() int { return d.Height - d.Head }

// ChartY is how far down the chart stands in a file of its own.
func (d SeasonDrawing) ChartY() int { return d.Height + 32 }

// A yearScale maps days to places.
type yearScale struct {
	from day.Day
	Scale
}

func newYearScale(from, until day.Day) yearScale {
	return yearScale{from, Scale{0, float64(until.Sub(from)), drawingLeft, drawingWidth - drawingRight}}
}

func (y yearScale) at(d day.Day) float64 {
	return min(y.r1, max(y.r0, y.Scale.At(float64(d.Sub(y.from)))))
}

// NewSeasonDrawing draws some plantings of a season, by their place in it, and beside a moved one where it stood before.
func NewSeasonDrawing(s *say.Season, plantings []int, chosen string, before *say.Season, fromFrost day.Day) SeasonDrawing {
	y := newYearScale(s.From, s.Until)
	d := SeasonDrawing{Width: drawingWidth, Left: drawingLeft, Head: 72}
	switch n := len(plantings); {
	case n <= 30:
		d.RowH = 26
	case n <= 70:
		d.RowH = 19
	default:
		d.RowH, d.Dense = 13, true
	}
	d.Height = d.Head + d.RowH*len(plantings) + 6
	d.Title = fmt.Sprintf("%d plantings from %s to %s, each from its start to its bloom", len(plantings), s.Date(s.From), s.Date(s.Until.Add(-1)))
	for m := s.From; m.Before(s.Until); m = m.Add(1) {
		_, month, date := m.Date()
		if date == 1 {
			d.Months = append(d.Months, monthView{Place(y.at(m)), month.String()[:3]})
		}
		if m.Weekday() != 1 {
			continue
		}
		if !fromFrost.IsZero() {
			if no := look.WeekNo(fromFrost, m); no >= -12 && no <= 30 && no%2 != 0 {
				d.Weeks = append(d.Weeks, TickView{Place(y.at(m)), fmt.Sprint(no)})
			}
		} else if _, week := m.Midnight().ISOWeek(); week%2 == 1 {
			d.Weeks = append(d.Weeks, TickView{Place(y.at(m)), fmt.Sprint(week)})
		}
	}
	d.DayW = fmt.Sprintf("%.4f", y.Scale.At(1)-y.r0)
	d.frost(s, y)
	d.ticks(s, y)
	if !s.View.Today.Before(s.From) && s.View.Today.Before(s.Until) {
		d.Today = Place(y.at(s.View.Today))
	}
	most := 1.0
	weekly := make(map[int][]look.WeekStems)
	for _, i := range plantings {
		weekly[i] = s.StemsOf(i)
		for _, w := range weekly[i] {
			most = max(most, w.AtBest)
		}
	}
	for row, i := range plantings {
		d.Rows = append(d.Rows, d.stem(s, y, i, row, weekly[i], most, chosen))
	}
	if i := s.Index(chosen); before != nil && i >= 0 {
		if j, row := before.Index(chosen), slices.Index(plantings, i); j >= 0 && row >= 0 {
			ghost := d.stem(before, y, j, row, before.StemsOf(j), most, "")
			ghost.Ghost = true
			d.Rows = append([]stemRow{ghost}, d.Rows...)
		}
	}
	return d
}

// frost draws how likely frost is by shading in steps of three days, and marks one year in ten and every second.
func (d *SeasonDrawing) frost(s *say.Season, y yearScale) {
	const step = 3
	for at := s.From; at.Before(s.Until); at = at.Add(step) {
		risk := s.Frosts.After(at)
		if autumn := s.Frosts.Before(at.Add(1)); autumn > risk {
			risk = autumn
		}
		if risk > 0.01 {
			x := y.at(at)
			d.Frosts = append(d.Frosts, frostView{Place(x), Place(y.at(at.Add(step)) - x), fmt.Sprintf("%.2f", risk)})
		}
	}
	for _, line := range []struct {
		at   day.Day
		name string
	}{{s.FrostDates().Last, "frost after this 1 year in 10"}, {s.FrostDates().First, "frost before this 1 year in 10"}} {
		if !line.at.IsZero() && !line.at.Before(s.From) && line.at.Before(s.Until) {
			d.FrostLines = append(d.FrostLines, TickView{Place(y.at(line.at)), line.name + ": " + s.Date(line.at)})
		}
	}
}

// ticks draws what has to be fed: market days and standing buckets small, events with their name.
func (d *SeasonDrawing) ticks(s *say.Season, y yearScale) {
	for _, o := range s.Book.Orders {
		for _, on := range o.Between(s.From, s.Until.Add(-1)) {
			t := dueTick{X: Place(y.at(on)), Name: o.ID + ", " + s.Date(on), Y2: "66", Event: o.Kind == "event"}
			if t.Event {
				t.Y2 = Place(float64(d.Height))
			}
			d.Ticks = append(d.Ticks, t)
		}
	}
	slices.SortStableFunc(d.Ticks, func(a, b dueTick) int { return strings.Compare(fmt.Sprint(a.Event), fmt.Sprint(b.Event)) })
}

// stem draws a planting on a row.
func (d *SeasonDrawing) stem(s *say.Season, y yearScale, i, row int, weekly []look.WeekStems, most float64, chosen string) stemRow {
	p := s.Model.Plantings[i]
	m := s.Dates[i]
	middle := float64(d.Head) + (float64(row)+0.5)*float64(d.RowH)
	start := p.Growth.Started
	lasts := p.Growth.Profile.Lasts(p.Growth.Method) && start.Before(s.From)
	r := stemRow{ID: p.ID, Label: p.ID + " " + p.Variety, Y: Place(middle - float64(d.RowH)/2), Middle: Place(middle), Start: start.String(),
		Out: p.Growth.Out().String(), Chosen: p.ID == chosen, CanMove: start.After(s.View.Today), Href: "planting=" + p.ID}
	r.X0, r.XOut = Place(y.at(start)), Place(y.at(p.Growth.Out()))
	r.Nursery = p.Growth.Out().After(start) && !lasts
	if lasts {
		r.XOut = r.X0
	}
	end := m.FirstCut.Likely
	if end.IsZero() {
		end = m.FirstBud.Likely
	}
	if end.IsZero() {
		end = start.Add(p.Growth.Profile.TypicalDays[0])
	}
	r.XBloom = Place(y.at(end))
	if pinched := p.Growth.Pinched; !pinched.IsZero() && !lasts {
		x := y.at(pinched)
		r.Pinch = fmt.Sprintf("M%.1f %.1fl3 -4m-3 4l-3 -4", x, middle)
	}
	r.Late = r.CanMove && m.FirstCut.Likely.IsZero() && start.Before(s.Until) && s.Model.From.Add(s.Model.Reach).Sub(start) > p.Growth.Profile.TypicalDays[1]+30
	if r.Late {
		r.Label = "late: " + r.Label
	}
	outline := func(stems func(look.WeekStems) float64) string {
		return bloom(y, weekly, middle, float64(d.RowH)*0.52, most, stems)
	}
	r.Best = outline(func(w look.WeekStems) float64 { return w.AtBest })
	r.Likely = outline(func(w look.WeekStems) float64 { return w.Likely })
	r.Sure = outline(func(w look.WeekStems) float64 { return w.Sure })
	const mostLetters, mostSmall = 25, 28
	letters := mostLetters
	if d.Dense {
		letters = mostSmall
	}
	if runes := []rune(r.Label); len(runes) > letters {
		r.Label = string(runes[:letters-1]) + "…"
	}
	r.Name, r.Cut = p.ID+" "+p.Variety, cutWords(s.Locale, m, weekly)
	r.Title = fmt.Sprintf("%s %s, %d plants: started %s; first cut %s; last cut %s", p.ID, p.Variety, p.Growth.Plants, s.Date(start), s.When(m.FirstCut), s.When(m.LastCut))
	return r
}

// cutWords says from when to when a planting is cut in a season, and how many stems that gives.
func cutWords(locale say.Locale, m forecast.Milestones, weekly []look.WeekStems) string {
	likely := 0.0
	for _, w := range weekly {
		likely += w.Likely
	}
	if m.FirstCut.Likely.IsZero() || likely < 1 {
		return "no stems in this season"
	}
	words := "cut from " + locale.Date(m.FirstCut.Likely)
	if !m.LastCut.Likely.IsZero() && m.LastCut.Likely != m.FirstCut.Likely {
		words += " to " + locale.Date(m.LastCut.Likely)
	}
	return fmt.Sprintf("%s, about %.0f stems", words, likely)
}

// bloom returns the outline of stems by week about a middle line: as wide as the square root of the stems, so that small ones can be seen
// beside large ones.
func bloom(y yearScale, weekly []look.WeekStems, middle, half, most float64, stems func(look.WeekStems) float64) string {
	width := func(n float64) float64 { return half * math.Sqrt(max(0, n)/most) }
	var up, down []string
	open := false
	closing := func(x float64) {
		if open {
			up = append(up, fmt.Sprintf("L%.1f %.1f", x, middle))
		}
	}
	var path strings.Builder
	flush := func(x float64) {
		closing(x)
		if len(up) == 0 {
			return
		}
		slices.Reverse(down)
		path.WriteString(strings.Join(up, "") + strings.Join(down, "") + "Z")
		up, down, open = nil, nil, false
	}
	const least = 0.5 // stems that are worth drawing
	for _, w := range weekly {
		x := y.at(w.Monday.Add(3))
		n := stems(w)
		if n < least {
			flush(y.at(w.Monday))
			continue
		}
		if !open {
			up = append(up, fmt.Sprintf("M%.1f %.1f", y.at(w.Monday.Add(-1)), middle))
			open = true
		}
		up = append(up, fmt.Sprintf("L%.1f %.1f", x, middle-width(n)))
		down = append(down, fmt.Sprintf("L%.1f %.1f", x, middle+width(n)))
	}
	flush(float64(drawingWidth - drawingRight))
	return path.String()
}

// chart draws the stems of plantings together, week by week, against what is wanted.
func NewChart(s *say.Season, plantings []int, wanted []float64) chartDrawing {
	y := newYearScale(s.From, s.Until)
	weekly := s.Stems(plantings)
	c := chartDrawing{Height: chartHeight}
	most, want := 1.0, 0.0
	for i, w := range weekly {
		most, want = max(most, w.AtBest, wanted[i]), want+wanted[i]
	}
	c.HasWant = want > 0
	h := Scale{0, most, chartHeight - 18, 8}
	short := 0
	var line strings.Builder
	for i, w := range weekly {
		x, right := y.at(w.Monday), y.at(w.Monday.Add(7))
		if !w.Bare() {
			c.Any = true
			c.Bars = append(c.Bars, ChartBar{X: Place(x + 1), W: Place(max(1, right-x-2)), Best: Place(h.At(w.AtBest)), BestH: Place(h.At(w.Sure) - h.At(w.AtBest)),
				Sure: Place(h.At(w.Sure)), SureH: Place(h.At(0) - h.At(w.Sure)), Likely: Place(h.At(w.Likely))})
		}
		if c.HasWant {
			move := "L"
			if line.Len() == 0 {
				move = "M"
			}
			fmt.Fprintf(&line, "%s%.1f %.1fL%.1f %.1f", move, x, h.At(wanted[i]), right, h.At(wanted[i]))
		}
		if w.Gap(wanted[i], s.View.Today) {
			short++
		}
	}
	c.Wanted = line.String()
	for _, n := range niceSteps(most) {
		c.Lines = append(c.Lines, TickView{Place(h.At(n)), fmt.Sprint(int(n))})
	}
	c.Title = "Stems that can be cut each week, from sure to at best"
	if c.HasWant {
		c.Title += fmt.Sprintf(", against what is wanted: %d weeks to come are likely short", short)
	}
	return c
}

// niceSteps returns two or three round numbers up to a most.
func niceSteps(most float64) []float64 {
	step := math.Pow(10, math.Floor(math.Log10(most)))
	for _, by := range []float64{5, 2.5, 2, 1} {
		if most/(step*by) >= 2 {
			step *= by
			break
		}
	}
	if most/step < 2 {
		step /= 2
	}
	var steps []float64
	for n := step; n <= most; n += step {
		steps = append(steps, n)
	}
	return steps
}

// SortedPlantings returns the plantings of a season that are seen in it, by crop and start; of one crop alone where it is named.
func SortedPlantings(s *say.Season, cropID string) []int {
	var shown []int
	for i, p := range s.Model.Plantings {
		if cropID != "" && p.Growth.Profile.ID != cropID {
			continue
		}
		last := s.Dates[i].LastCut.Late
		if !p.Ended.IsZero() {
			last = p.Ended
		}
		lasts := p.Growth.Profile.Lasts(p.Growth.Method) && p.Ended.IsZero()
		if !p.Growth.Started.Before(s.Until) || !lasts && !last.IsZero() && last.Before(s.From) {
			continue
		}
		shown = append(shown, i)
	}
	name := func(i int) *crop.Profile { return s.Model.Plantings[i].Growth.Profile }
	slices.SortFunc(shown, func(a, b int) int {
		if c := strings.Compare(name(a).Name, name(b).Name); c != 0 {
			return c
		}
		if c := s.Model.Plantings[a].Growth.Started.Compare(s.Model.Plantings[b].Growth.Started); c != 0 {
			return c
		}
		return strings.Compare(s.Model.Plantings[a].ID, s.Model.Plantings[b].ID)
	})
	return shown
}
