package review

import (
	"cmp"
	"maps"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/store"
)

// A Looked is a growing year as its plan was expected to come when it began, by the crop table and what earlier years had taught, beside what came until the day on which it is
// looked at.
type Looked struct {
	Year      int
	AsOf      day.Day // the evening from which it is expected
	Since     day.Day // the first day that is compared: that of the first cut on record where the farm began to write within the year, else that on which the year began
	Upto      day.Day // the last day that is compared
	Over      bool    // it is all past
	All       Came
	Crops     []Came // the most stems first
	Plantings []Came // in the order of their crops, then of their start
}

// A Came is what was expected of a planting, a crop or the whole year, and what came.
type Came struct {
	Planting, Variety, Crop string        // as far as it is one
	Plants                  int           // of those that were to be cut, or were
	Lasts                   bool          // it stands for years: nobody starts it again
	Expected                [5]float64    // sound stems: nine times in ten more than the first, the quarter, the middle, three quarters, one time in ten more than the last
	Stems                   int           // sound stems that were cut
	FirstCut                forecast.When // as it was expected; zero for more than one planting, and where none was likely
	First, Last             day.Day       // the pick by which a twentieth of its first flush was cut, and the last with any; zero where none were
	LengthCM, UsualCM       float64       // of the stems of which it was measured, and of the crop table's; 0 where none was
	Culled                  map[string]int
	Left                    int // ready stems that were left standing at the picks, as far as that was written down
	Fates                   Fates
}

// Fates are what became of stems that are accounted for.
type Fates struct{ Sold, MadeUp, Back, Lost, There int }

// Of returns all of them but those that were brought back, which are among the others.
func (f Fates) Of() int { return f.Sold + f.MadeUp + f.Lost + f.There }

// Untold returns the sound stems of which nothing says what became of them.
func (c *Came) Untold() int { return max(0, c.Stems-c.Fates.Of()) }

// Thrown returns the stems that were thrown away at the cut.
func (c *Came) Thrown() int {
	sum := 0
	for _, n := range c.Culled {
		sum += n
	}
	return sum
}

// Late returns by how many days the first cut came later than was likely, and whether it is beyond what was thought possible, nine times in ten either way.
func (c *Came) Late() (days int, beyond bool) {
	if c.FirstCut.Likely.IsZero() || c.First.IsZero() {
		return 0, false
	}
	return c.First.Sub(c.FirstCut.Likely), c.First.Before(c.FirstCut.Early) || c.First.After(c.FirstCut.Late)
}

// Part returns what came of what was likely, and whether that is beyond the bounds. Nothing is said of less than a handful.
func (c *Came) Part() (part float64, beyond bool) {
	const handful = 5
	n := float64(c.Stems)
	if c.Expected[2] < handful && n < handful {
		return 1, false
	}
	return n / max(1, c.Expected[2]), n < c.Expected[0]-0.5 || n > c.Expected[4]+0.5
}

// CameOf looks at a growing year up to yesterday, or to its end: progress is told how far it is, 0 to 1. A year in which nothing was or will be grown has no crops.
func CameOf(s *look.Snapshot, year int, progress func(float64)) (*Looked, error) {
	b, today := s.Book, s.View.Today
	place, err := b.Place()
	if err != nil {
		return nil, err
	}
	from, until := look.Span(year, place.Latitude)
	out := &Looked{Year: year, AsOf: from.Add(-1), Upto: until.Add(-1)}
	if out.Over = out.Upto.Before(today); !out.Over {
		out.Upto = today.Add(-1)
	}
	progress(0.1)
	season, err := s.AsKnown(asKnown(b, out.AsOf, today), out.AsOf, year)
	if err != nil {
		return nil, err
	}
	progress(0.9)
	out.Since = written(b, season, from)
	g := gathering{b: b, out: out, season: season, crops: make(map[string]*Came), sums: make(map[string][]float64)}
	fates := g.fates(today)
	for i, p := range season.Model.Plantings {
		record, ok := b.Planting(p.ID)
		if c := g.planting(i, record, out.Since); ok && (c.Stems > 0 || c.Expected[4] >= 1 || c.Thrown() > 0) {
			c.Fates = fates[p.ID]
			g.add(c, record)
		}
	}
	g.finish()
	progress(1)
	return out, nil
}

// written returns from when on cuts are on record of a year that begins on a day: where the farm's first was written down weeks after many were expected, what came before it
// is not known.
func written(b *book.Book, season *look.Season, from day.Day) day.Day {
	const handful, weeks = 5, 21
	first := day.Day{}
	for _, c := range b.Cuts {
		if on := c.CutAt.Day(); first.IsZero() || on.Before(first) {
			first = on
		}
	}
	likely := 0
	for j, d := range season.Forecast.PickDays {
		if d.Before(from) {
			continue
		}
		for i := range season.Forecast.Plantings {
			likely += season.Forecast.Plantings[i].ByPick[j][crop.Market].Likely()
		}
		if likely >= handful {
			if first.Sub(d) > weeks {
				return first
			}
			break
		}
	}
	return from
}

// asKnown returns a book as it could be known on an evening: with the plan as it was carried out, but for what was pulled out since.
func asKnown(b *book.Book, asOf, today day.Day) *book.Book {
	known := b.Own()
	known.Counts = slices.DeleteFunc(slices.Clone(b.Counts), func(c book.Count) bool { return c.CountedAt.Day().After(asOf) })
	known.Cuts = slices.DeleteFunc(slices.Clone(b.Cuts), func(c book.Cut) bool { return c.CutAt.Day().After(asOf) })
	known.Events = slices.DeleteFunc(slices.Clone(b.Events), func(e book.Event) bool { return e.On.After(asOf) })
	known.Weather = slices.DeleteFunc(slices.Clone(b.Weather), func(w book.WeatherDay) bool { return w.Date.After(asOf) || w.IssuedOn.After(asOf) })
	known.Plantings = slices.Clone(b.Plantings)
	for i := range known.Plantings {
		if p := &known.Plantings[i]; p.EndedOn.After(asOf) && !p.EndedOn.After(today) {
			p.EndedOn = day.Day{}
		}
	}
	return known
}

// A gathering adds up what was expected and what came.
type gathering struct {
	b      *book.Book
	out    *Looked
	season *look.Season
	crops  map[string]*Came
	sums   map[string][]float64 // expected stems by sample, of each crop and, under no name, of all
}

// planting returns what was expected of one planting, by its place in the season, and what came.
func (g *gathering) planting(i int, record book.Planting, from day.Day) Came {
	v, _ := g.b.Variety(record.Variety)
	c := Came{Planting: record.ID, Variety: record.Variety, Crop: v.Crop, Plants: record.Plants, FirstCut: g.season.Dates[i].FirstCut, Culled: make(map[string]int)}
	if c.FirstCut.Likely.After(g.out.Upto) || c.FirstCut.Likely.Before(from) {
		c.FirstCut = forecast.When{} // not of this year, or still to come
	}
	var stems []float64
	for j, d := range g.season.Forecast.PickDays {
		if d.Before(from) || d.After(g.out.Upto) {
			continue
		}
		for k, n := range g.season.Forecast.Samples(i, j, crop.Market) {
			if stems == nil {
				stems = make([]float64, len(g.season.Forecast.Samples(i, j, crop.Market)))
			}
			stems[k] += float64(n)
		}
	}
	c.Expected = g.note(v.Crop, stems)
	measured := 0
	var taken []book.Cut
	for _, cut := range g.b.Cuts {
		on := cut.CutAt.Day()
		if cut.Planting != record.ID || on.Before(from) || on.After(g.out.Upto) {
			continue
		}
		c.Stems += cut.Stems
		c.Left += book.OrZero(cut.Left)
		if n := book.OrZero(cut.Culled); n > 0 {
			c.Culled[cut.CullReason] += n
		}
		if cut.Stems > 0 {
			taken = append(taken, cut)
			c.Last = later(c.Last, on)
		}
		if cut.LengthCM != nil && cut.Stems > 0 {
			c.LengthCM += *cut.LengthCM * float64(cut.Stems)
			measured += cut.Stems
		}
	}
	profile := g.b.CropOf(v)
	c.Lasts = profile.Lasts(record.Method)
	slices.SortStableFunc(taken, func(x, y book.Cut) int { return x.CutAt.Compare(y.CutAt) }) // one can be written down later
	c.First = firstCut(taken, min(float64(c.Stems), float64(record.Plants)*profile.Yield.FirstStems))
	if measured > 0 {
		c.LengthCM /= float64(measured)
		c.UsualCM = usualCM(v, profile)
	}
	return c
}

// firstCut returns the pick by which a twentieth of a flush was cut: a stray stem before the others is no first cut, and the forecast does not mean it.
func firstCut(cuts []book.Cut, flush float64) day.Day {
	const twentieth = 0.05
	sum := 0
	for _, c := range cuts {
		if sum += c.Stems; float64(sum) >= twentieth*flush {
			return c.CutAt.Day()
		}
	}
	return day.Day{}
}

// usualCM is how long a variety's stems are on the mean of first and later ones.
func usualCM(v book.Variety, p *crop.Profile) float64 {
	if v.StemCM != nil {
		return *v.StemCM
	}
	return (p.Stem.FirstCM + p.Stem.LaterCM) / 2
}

// note adds expected stems by sample to those of their crop and of all, and returns their bounds.
func (g *gathering) note(cropID string, stems []float64) [5]float64 {
	for _, of := range []string{cropID, ""} {
		if g.sums[of] == nil {
			g.sums[of] = make([]float64, len(stems))
		}
		if len(g.sums[of]) == 0 {
			g.sums[of] = slices.Clone(stems)
			continue
		}
		for k, n := range stems {
			g.sums[of][k] += n
		}
	}
	return bounds(stems)
}

func bounds(stems []float64) (out [5]float64) {
	sorted := slices.Sorted(slices.Values(stems))
	if len(sorted) == 0 {
		return out
	}
	for k, p := range []float64{0.1, 0.25, 0.5, 0.75, 0.9} {
		out[k] = sorted[min(len(sorted)-1, int(p*float64(len(sorted))))]
	}
	return out
}

// add adds a planting to the list, its crop and the whole.
func (g *gathering) add(c Came, record book.Planting) {
	g.out.Plantings = append(g.out.Plantings, c)
	if g.crops[c.Crop] == nil {
		g.crops[c.Crop] = &Came{Crop: c.Crop, Culled: make(map[string]int)}
	}
	for _, sum := range []*Came{g.crops[c.Crop], &g.out.All} {
		sum.Plants += record.Plants
		sum.Stems += c.Stems
		sum.Left += c.Left
		if sum.Culled == nil {
			sum.Culled = make(map[string]int)
		}
		for why, n := range c.Culled {
			sum.Culled[why] += n
		}
		f := &sum.Fates
		f.Sold, f.MadeUp, f.Back, f.Lost, f.There = f.Sold+c.Fates.Sold, f.MadeUp+c.Fates.MadeUp, f.Back+c.Fates.Back, f.Lost+c.Fates.Lost, f.There+c.Fates.There
		if !c.First.IsZero() && (sum.First.IsZero() || c.First.Before(sum.First)) {
			sum.First = c.First
		}
		sum.Last = later(sum.Last, c.Last)
	}
}

// finish puts the crops and plantings in order.
func (g *gathering) finish() {
	g.out.All.Expected = bounds(g.sums[""])
	for id, c := range g.crops {
		c.Expected = bounds(g.sums[id])
		g.out.Crops = append(g.out.Crops, *c)
	}
	slices.SortFunc(g.out.Crops, func(a, b Came) int {
		return cmp.Or(cmp.Compare(b.Stems, a.Stems), cmp.Compare(b.Expected[2], a.Expected[2]), cmp.Compare(a.Crop, b.Crop))
	})
	place := make(map[string]int)
	for i, c := range g.out.Crops {
		place[c.Crop] = i
	}
	slices.SortStableFunc(g.out.Plantings, func(a, b Came) int {
		x, _ := g.b.Planting(a.Planting)
		y, _ := g.b.Planting(b.Planting)
		return cmp.Or(cmp.Compare(place[a.Crop], place[b.Crop]), x.StartedOn.Compare(y.StartedOn), cmp.Compare(a.Planting, b.Planting))
	})
}

// fates returns what became of the stems that were cut in the year, by planting, as the ledger has it.
func (g *gathering) fates(today day.Day) map[string]Fates {
	all := make(map[string]Fates)
	of := func(lot string) (string, bool) {
		c, ok := g.b.Cut(lot)
		return c.Planting, ok && c.CutAt.Day().After(g.out.AsOf) && !c.CutAt.Day().After(g.out.Upto)
	}
	for _, a := range store.Of(g.b, day.At(today, 4, 0)).Accounts {
		if planting, ok := of(a.Lot); ok {
			f := all[planting]
			f.Sold, f.MadeUp, f.Back, f.Lost, f.There = f.Sold+a.Sold, f.MadeUp+a.MadeUp, f.Back+a.Returned, f.Lost+a.Given+a.Composted+a.Forgone, f.There+a.There
			all[planting] = f
		}
	}
	for _, m := range g.b.Moves {
		if planting, ok := of(m.Lot); ok && m.What == book.Unsold {
			f := all[planting]
			f.Back += m.Stems
			all[planting] = f
		}
	}
	return all
}

// Reasons returns the causes for which stems were thrown away, the most frequent first.
func (c *Came) Reasons() []string {
	return slices.SortedFunc(maps.Keys(c.Culled), func(a, b string) int {
		return cmp.Or(cmp.Compare(c.Culled[b], c.Culled[a]), cmp.Compare(a, b))
	})
}
