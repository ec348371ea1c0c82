package look

import (
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
)

// A CauseKind is what can move a forecast.
type CauseKind int

// The kinds of causes.
const (
	Weather CauseKind = iota
	Counts            // and dates seen
	Cuts
)

// A Cause is one thing that moved the forecast of a crop, and by how many stems it moved what is expected of each pick day.
type Cause struct {
	Kind  CauseKind
	On    day.Day   // counted, cut, or whose weather it was
	Rows  []string  // that were counted or cut
	Stems int       // that were cut
	Was   float64   // °C by which the day was warmer than expected
	Ahead float64   // °C by which the days to come look warmer than they did
	Moved []float64 // likely stems, by the snapshot's pick days
}

// Causes are what moved the forecast of a crop since yesterday morning.
type Causes struct {
	Before []float64 // stems likely then, by the snapshot's pick days
	Moves  []Cause   // in the order in which they are told: the weather, then what was recorded
}

// Causes works out what moved the forecast of a crop since yesterday morning: it goes over from what was known then to what is known
// now one thing at a time.
func (s *Snapshot) Causes(cropID string) (*Causes, error) {
	type result struct {
		*Causes
		error
	}
	r := Once(s, causesOf(cropID), func() result {
		causes, err := s.causesOf(cropID)
		return result{causes, err}
	})
	return r.Causes, r.error
}

// causesOf is the key of what moved a crop's forecast.
type causesOf string

func (s *Snapshot) causesOf(cropID string) (*Causes, error) {
	today := s.View.Today
	yesterday := today.Add(-1)
	all := onlyCrop(s.Book, cropID)
	then := View{From: yesterday, Upto: today, Today: today, To: s.View.To}
	now := s.View
	look := func(b *book.Book, v View) (*Snapshot, []float64, error) {
		snap, err := newSnapshot(b, 0, v, nil, s.Model.Lessons)
		if err != nil {
			return nil, nil, err
		}
		return snap, snap.expected(cropID, s.Forecast.PickDays), nil
	}
	old, before, err := look(knownBefore(all, yesterday, yesterday), then)
	if err != nil {
		return nil, err
	}
	causes := &Causes{Before: before}
	move := func(c Cause, after []float64) {
		c.Moved = make([]float64, len(after))
		for j := range after {
			c.Moved[j] = after[j] - before[j]
		}
		causes.Moves = append(causes.Moves, c)
		before = after
	}
	fresh, after, err := look(knownBefore(all, yesterday, yesterday), now)
	if err != nil {
		return nil, err
	}
	move(weatherMoved(old, fresh, yesterday), after)
	for _, d := range []day.Day{yesterday, today} {
		for _, step := range []struct {
			cause        Cause
			counts, cuts day.Day // the first days whose counts and cuts are not known yet
		}{{countsOn(all, d), d.Add(1), d}, {cutsOn(all, d), d.Add(1), d.Add(1)}} {
			if step.cause.Rows == nil {
				continue
			}
			if _, after, err = look(knownBefore(all, step.counts, step.cuts), now); err != nil {
				return nil, err
			}
			move(step.cause, after)
		}
	}
	return causes, nil
}

// expected returns the likely stems of a crop for the market on some pick days.
func (s *Snapshot) expected(cropID string, picks []day.Day) []float64 {
	stems := make([]float64, len(picks))
	for j, d := range picks {
		if k := slices.Index(s.Forecast.PickDays, d); k >= 0 {
			stems[j] = float64(s.Forecast.Crops[cropID].ByPick[k][crop.Market].Likely())
		}
	}
	return stems
}

// onlyCrop returns the book with the plantings of one crop.
func onlyCrop(b *book.Book, cropID string) *book.Book {
	c := *b
	c.Plantings = slices.DeleteFunc(slices.Clone(b.Plantings), func(p book.Planting) bool {
		profile := b.ProfileOf(p)
		return profile == nil || profile.ID != cropID
	})
	return &c
}

// knownBefore returns the book as it was before some day's counts and dates seen, and some day's cuts.
func knownBefore(b *book.Book, counts, cuts day.Day) *book.Book {
	c := *b
	c.Counts = slices.DeleteFunc(slices.Clone(b.Counts), func(x book.Count) bool { return !x.CountedAt.Day().Before(counts) })
	c.Events = slices.DeleteFunc(slices.Clone(b.Events), func(x book.Event) bool { return !x.On.Before(counts) })
	c.Cuts = slices.DeleteFunc(slices.Clone(b.Cuts), func(x book.Cut) bool { return !x.CutAt.Day().Before(cuts) })
	return &c
}

// countsOn returns what was counted and seen on a day of the book's plantings.
func countsOn(b *book.Book, d day.Day) Cause {
	c := Cause{Kind: Counts, On: d}
	note := func(planting string) {
		if _, ok := b.Planting(planting); ok && !slices.Contains(c.Rows, planting) {
			c.Rows = append(c.Rows, planting)
		}
	}
	for _, x := range b.Counts {
		if x.CountedAt.Day() == d {
			note(x.Planting)
		}
	}
	for _, e := range b.Events {
		if e.On == d {
			note(e.Planting)
		}
	}
	return c
}

// cutsOn returns what was cut on a day of the book's plantings.
func cutsOn(b *book.Book, d day.Day) Cause {
	c := Cause{Kind: Cuts, On: d}
	for _, x := range b.Cuts {
		if _, ok := b.Planting(x.Planting); ok && x.CutAt.Day() == d {
			if !slices.Contains(c.Rows, x.Planting) {
				c.Rows = append(c.Rows, x.Planting)
			}
			c.Stems += x.Stems
		}
	}
	return c
}

// weatherMoved returns how the weather of a day that is past, and of the days to come, differs from what was expected.
func weatherMoved(old, fresh *Snapshot, d day.Day) Cause {
	const ahead = 5
	c := Cause{On: d}
	expected, came := old.Stand.Weather(d), fresh.Stand.Weather(d)
	c.Was = (came.TminC + came.TmaxC - expected.TminC - expected.TmaxC) / 2
	for i := 1; i <= ahead; i++ {
		then, now := old.Stand.Weather(d.Add(i)), fresh.Stand.Weather(d.Add(i))
		c.Ahead += (now.TminC + now.TmaxC - then.TminC - then.TmaxC) / 2 / ahead
	}
	return c
}
