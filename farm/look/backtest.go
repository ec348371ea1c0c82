package look

import (
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/review"
	"dewcount/farm/book"
)

// A Backtest is what would have been forecast in the past beside what was cut.
type Backtest struct {
	Picks     []review.Pick
	Untold    review.Score // of the same rows without what was counted, cut and seen, to show what that was worth
	FirstCuts []FirstCut
}

// A FirstCut is a planting's forecast, so many days before, of the pick day by which a twentieth of its first flush was cut.
type FirstCut struct {
	Planting, Crop string
	DaysBefore     int
	OffDays        int // forecast less what came
}

// backtestEvery is how many days lie between two looks back.
const backtestEvery = 7

// NewBacktest looks at the farm from every seventh evening since its first planting was started, hides what came later, and holds
// the forecast of the five weeks after each against the cuts on record. A row is scored up to the first pick that did not take
// all that was ready. progress is called with each evening.
func NewBacktest(b *book.Book, today day.Day, progress func(day.Day)) (*Backtest, error) {
	place, err := b.Place()
	if err != nil {
		return nil, err
	}
	picks := b.PickDays(place)
	cuts, last := cutsByPick(b, place)
	var first day.Day
	for _, p := range b.Plantings {
		if first.IsZero() || p.StartedOn.Before(first) {
			first = p.StartedOn
		}
	}
	out := &Backtest{}
	var firstCuts map[string]day.Day
	for asOf := first.Add(backtestEvery); asOf.Before(last); asOf = asOf.Add(backtestEvery) {
		if !cutSoon(cuts, asOf) {
			continue
		}
		if firstCuts == nil {
			if firstCuts, err = firstCutsOf(b, last, today); err != nil {
				return nil, err
			}
		}
		progress(asOf)
		view := Evening(asOf, today, asOf.Add(UsualDays))
		then := grownAt(b, asOf)
		s, err := NewSnapshot(then, 0, view, nil)
		if err != nil {
			return nil, err
		}
		mute := *then
		mute.Counts, mute.Cuts, mute.Events = nil, nil, nil
		untold, err := NewSnapshot(&mute, 0, view, nil)
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
				row := review.Pick{Planting: p.ID, Crop: p.Growth.Profile.ID, AsOf: asOf, Pick: pick, Came: float64(came),
					Calendar: review.Calendar(p.Growth.Profile, record.Plants, record.StartedOn, picks.Before(pick, pick.Add(-7)), pick)}
				row.Foretell(s.Forecast.Plantings[i].ByPick[j][crop.Market])
				if row.Counts() {
					out.Picks = append(out.Picks, row)
					row.Foretell(untold.Forecast.Plantings[i].ByPick[j][crop.Market])
					out.Untold.Add(row)
				}
			}
			came := firstCuts[p.ID]
			if !came.After(asOf) {
				continue // its dates take long, and nobody asks for them
			}
			dates := s.Milestones(i)
			likely := dates.FirstCut.Likely
			if earlier, _ := cutDays(b, p.ID, dates.Season, asOf); earlier.IsZero() && !likely.IsZero() {
				out.FirstCuts = append(out.FirstCuts, FirstCut{p.ID, p.Growth.Profile.ID, came.Sub(asOf), likely.Sub(came)})
			}
		}
	}
	return out, nil
}

// cutSoon tells whether a forecast of a day can be held against any cut.
func cutSoon(cuts map[cutKey]int, asOf day.Day) bool {
	for key := range cuts {
		if key.pick.After(asOf) && key.pick.Sub(asOf) <= UsualDays {
			return true
		}
	}
	return false
}

// firstCutsOf returns the pick day by which a twentieth of each planting's first flush had been cut, as large as all its records up to
// a last day make that flush.
func firstCutsOf(b *book.Book, last, today day.Day) (map[string]day.Day, error) {
	s, err := NewSnapshot(b, 0, Evening(last, today, last), nil)
	if err != nil {
		return nil, err
	}
	firsts := make(map[string]day.Day)
	gone := make(map[string]int)
	cuts := slices.SortedFunc(slices.Values(b.Cuts), func(x, y book.Cut) int { return x.CutAt.Day().Compare(y.CutAt.Day()) })
	for _, c := range cuts {
		i := s.Index(c.Planting)
		if i < 0 || !firsts[c.Planting].IsZero() {
			continue
		}
		gone[c.Planting] += c.Taken()
		if flush := s.Stand.FirstFlush(i); gone[c.Planting] > 0 && float64(gone[c.Planting]) >= flush/20 {
			firsts[c.Planting] = c.CutAt.Day()
		}
	}
	return firsts, nil
}

// grownAt returns the book without the plantings of years before a day, which have nothing left to forecast.
func grownAt(b *book.Book, asOf day.Day) *book.Book {
	const annualDays = 500
	c := *b
	c.Plantings = slices.DeleteFunc(slices.Clone(b.Plantings), func(p book.Planting) bool {
		return asOf.Sub(p.StartedOn) > annualDays && !p.EndedOn.IsZero() && p.EndedOn.Before(asOf)
	})
	return &c
}

type cutKey struct {
	planting string
	pick     day.Day
}

// cutsByPick returns the sound stems of each pick that is on record and took all, up to the first that did not, and the last day.
func cutsByPick(b *book.Book, place book.Place) (cuts map[cutKey]int, last day.Day) {
	cuts = make(map[cutKey]int)
	ends := make(map[string]day.Day)
	picks := b.PickDays(place)
	for _, c := range b.Cuts {
		d := c.CutAt.Day()
		if c.Left == nil && place.Picking == "sold" || book.OrZero(c.Left) > 0 {
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
