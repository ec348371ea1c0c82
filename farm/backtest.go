package farm

import (
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/review"
)

// A Backtest is what would have been forecast in the past beside what was cut.
type Backtest struct {
	Rows      []review.Row
	FirstCuts []FirstCut
}

// A FirstCut is a planting's forecast of its first cut so many days before it came.
type FirstCut struct {
	Planting, Crop string
	DaysBefore     int
	OffDays        int // forecast less what came
}

// backtestEvery is how many days lie between two looks back.
const backtestEvery = 7

// Backtest looks at the farm from every seventh evening since its first planting was started, hides what came later, and holds
// the forecast of the five weeks after each against the cuts on record. A row is scored up to the first pick that did not take
// all that was ready. progress is called with each evening.
func (b *Book) Backtest(today day.Day, progress func(day.Day)) (*Backtest, error) {
	place, err := b.Place()
	if err != nil {
		return nil, err
	}
	picks := b.PickDays(place)
	cuts, last := b.cutsByPick(place)
	var first day.Day
	for _, p := range b.Plantings {
		if first.IsZero() || p.StartedOn.Before(first) {
			first = p.StartedOn
		}
	}
	out := &Backtest{}
	for asOf := first.Add(backtestEvery); asOf.Before(last); asOf = asOf.Add(backtestEvery) {
		progress(asOf)
		s, err := NewSnapshot(b.grownAt(asOf), 0, Evening(asOf, today, asOf.Add(UsualDays)), nil)
		if err != nil {
			return nil, err
		}
		for i, p := range s.Model.Plantings {
			record, _ := b.Planting(p.ID)
			for j, pick := range s.Forecast.PickDays {
				came, ok := cuts[cutKey{p.ID, pick}]
				if !ok {
					continue
				}
				spread := s.Forecast.Plantings[i].ByPick[j][crop.Market]
				row := review.Row{Planting: p.ID, Crop: p.Growth.Profile.ID, AsOf: asOf, Pick: pick, Mean: spread.Mean(), Came: float64(came),
					Calendar: review.Calendar(p.Growth.Profile, record.Plants, record.StartedOn, picks.Before(pick, pick.Add(-7)), pick)}
				for k, q := range review.Quantiles {
					row.Stems[k] = spread.Quantile(q)
				}
				if row.Counts() {
					out.Rows = append(out.Rows, row)
				}
			}
			if f, ok := b.firstCut(s, i, asOf, last); ok {
				out.FirstCuts = append(out.FirstCuts, f)
			}
		}
	}
	return out, nil
}

// grownAt returns the book without the plantings of years before a day, which have nothing left to forecast.
func (b *Book) grownAt(asOf day.Day) *Book {
	const annualDays = 500
	c := *b
	c.Plantings = slices.DeleteFunc(slices.Clone(b.Plantings), func(p Planting) bool {
		return asOf.Sub(p.StartedOn) > annualDays && !p.EndedOn.IsZero() && p.EndedOn.Before(asOf)
	})
	return &c
}

type cutKey struct {
	planting string
	pick     day.Day
}

// cutsByPick returns the sound stems of each pick that is on record and took all, up to the first that did not, and the last day.
func (b *Book) cutsByPick(place Place) (cuts map[cutKey]int, last day.Day) {
	cuts = make(map[cutKey]int)
	ends := make(map[string]day.Day)
	picks := b.PickDays(place)
	for _, c := range b.Cuts {
		d := c.CutAt.Day()
		if c.Left == nil && place.Picking == "sold" || orZero(c.Left) > 0 {
			if end := ends[c.Planting]; end.IsZero() || d.Before(end) {
				ends[c.Planting] = d
			}
		}
	}
	for _, c := range b.Cuts {
		d := c.CutAt.Day()
		if end := ends[c.Planting]; !picks.Has(d) || !end.IsZero() && !d.Before(end) {
			continue
		}
		cuts[cutKey{c.Planting, d}] += c.Stems
		if d.After(last) {
			last = d
		}
	}
	return cuts, last
}

// firstCut returns how far the forecast of planting i's first cut is off, if that came after asOf.
func (b *Book) firstCut(s *Snapshot, i int, asOf, last day.Day) (FirstCut, bool) {
	p := s.Model.Plantings[i]
	came, _ := b.cutDays(p.ID, last)
	if came.IsZero() || !came.After(asOf) {
		return FirstCut{}, false
	}
	likely := s.Milestones(i).FirstCut.Likely
	if likely.IsZero() {
		return FirstCut{}, false
	}
	return FirstCut{p.ID, p.Growth.Profile.ID, came.Sub(asOf), likely.Sub(came)}, true
}
