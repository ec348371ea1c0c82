package look

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
)

// A Cause is one thing that moved the forecast of a crop, and by how many stems it moved what is expected of each pick day.
type Cause struct {
	Words string
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
	move := func(words string, after []float64) {
		moved := make([]float64, len(after))
		for j := range after {
			moved[j] = after[j] - before[j]
		}
		causes.Moves = append(causes.Moves, Cause{words, moved})
		before = after
	}
	fresh, after, err := look(knownBefore(all, yesterday, yesterday), now)
	if err != nil {
		return nil, err
	}
	move(weatherMoved(old, fresh, yesterday), after)
	for _, d := range []day.Day{yesterday, today} {
		for _, step := range []struct {
			words        string
			counts, cuts day.Day // the first days whose counts and cuts are not known yet
		}{{countsOn(all, d), d.Add(1), d}, {cutsOn(all, d), d.Add(1), d.Add(1)}} {
			if step.words == "" {
				continue
			}
			if _, after, err = look(knownBefore(all, step.counts, step.cuts), now); err != nil {
				return nil, err
			}
			move(step.words, after)
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

// countsOn says what was counted and seen on a day of the book's plantings, empty if nothing was.
func countsOn(b *book.Book, d day.Day) string {
	var rows []string
	note := func(planting string) {
		if _, ok := b.Planting(planting); ok && !slices.Contains(rows, planting) {
			rows = append(rows, planting)
		}
	}
	for _, c := range b.Counts {
		if c.CountedAt.Day() == d {
			note(c.Planting)
		}
	}
	for _, e := range b.Events {
		if e.On == d {
			note(e.Planting)
		}
	}
	if rows == nil {
		return ""
	}
	return fmt.Sprintf("%s's count of %s", d.Weekday(), strings.Join(rows, ", "))
}

// cutsOn says what was cut on a day of the book's plantings, empty if nothing was.
func cutsOn(b *book.Book, d day.Day) string {
	var rows []string
	stems := 0
	for _, c := range b.Cuts {
		if _, ok := b.Planting(c.Planting); ok && c.CutAt.Day() == d {
			if !slices.Contains(rows, c.Planting) {
				rows = append(rows, c.Planting)
			}
			stems += c.Stems
		}
	}
	if rows == nil {
		return ""
	}
	return fmt.Sprintf("%s's cut of %d from %s", d.Weekday(), stems, strings.Join(rows, ", "))
}

// weatherMoved says how the weather of a day that is past, and of the days to come, differs from what was expected.
func weatherMoved(old, fresh *Snapshot, d day.Day) string {
	const ahead, little = 5, 0.5
	expected, came := old.Stand.Weather(d), fresh.Stand.Weather(d)
	was := (came.TminC + came.TmaxC - expected.TminC - expected.TmaxC) / 2
	then, now := 0.0, 0.0
	for i := 1; i <= ahead; i++ {
		a, b := old.Stand.Weather(d.Add(i)), fresh.Stand.Weather(d.Add(i))
		then += (a.TminC + a.TmaxC) / 2 / ahead
		now += (b.TminC + b.TmaxC) / 2 / ahead
	}
	degrees := func(by float64) string {
		if by > 0 {
			return fmt.Sprintf("%.1f °C warmer", by)
		}
		return fmt.Sprintf("%.1f °C colder", -by)
	}
	past := "Yesterday was as warm as expected"
	if math.Abs(was) >= little {
		past = "Yesterday was " + degrees(was) + " than expected"
	}
	if math.Abs(now-then) >= little {
		return past + ", and the next days look " + degrees(now-then) + " than they did"
	}
	return past + ", and the next days look much as they did"
}
