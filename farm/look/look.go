// Package look is what the core makes of a book: a morning's state with its forecast, a season, what moved a number, which plants to
// count, and what would have been foretold in the past. A page, a plan and a list all read from the same.
package look

import (
	"slices"

	"dewcount/core/day"
	"dewcount/core/evidence"
	"dewcount/core/forecast"
	"dewcount/core/growth"
	"dewcount/farm/book"
)

// A Snapshot is the farm as it stands at one revision, with what the core makes of it. It is not changed once made.
type Snapshot struct {
	Book     *book.Book
	Revision int64
	View     View
	Model    *forecast.Farm
	Stand    *forecast.Stand
	Forecast *forecast.Forecast

	WorkedAt day.Moment // when it was worked out, by the farm's clock

	memo Memo
}

// NewSnapshot computes a book as it looks in a view. What is the same as in a snapshot before, which may be nil, is taken from
// there.
func NewSnapshot(b *book.Book, revision int64, v View, before *Snapshot) (*Snapshot, error) {
	if before == nil {
		return newSnapshot(b, revision, v, nil, evidence.NewLessons())
	}
	return newSnapshot(b, revision, v, before.Stand, before.Model.Lessons)
}

// With returns the snapshot of another book on the same field: its orders and lots may differ, its rows, weather and picks do not.
func (s *Snapshot) With(b *book.Book) *Snapshot {
	return &Snapshot{Book: b, Revision: s.Revision, View: s.View, Model: s.Model, Stand: s.Stand, Forecast: s.Forecast, WorkedAt: s.WorkedAt}
}

func newSnapshot(b *book.Book, revision int64, v View, stood *forecast.Stand, lessons *evidence.Lessons) (*Snapshot, error) {
	model, err := ModelOf(b, v)
	if err != nil {
		return nil, err
	}
	model.Lessons = lessons
	stand := forecast.New(model, stood)
	return &Snapshot{Book: b, Revision: revision, View: v, Model: model, Stand: stand, Forecast: stand.Forecast()}, nil
}

// Index returns the place of a planting in Model, Stand and Forecast, -1 if there is none.
func (s *Snapshot) Index(planting string) int {
	return slices.IndexFunc(s.Model.Plantings, func(p forecast.Planting) bool { return p.ID == planting })
}

// Milestones returns the dates of planting i: those on record as they were, the others as they are forecast.
func (s *Snapshot) Milestones(i int) forecast.Milestones {
	return Once(s, milestonesOf(i), func() forecast.Milestones { return s.onRecord(i, s.Stand.Milestones(i)) })
}

// milestonesOf is the key of planting i's dates.
type milestonesOf int

// onRecord puts the dates on record in the place of those that are forecast of planting i.
func (s *Snapshot) onRecord(i int, m forecast.Milestones) forecast.Milestones {
	p := s.Model.Plantings[i]
	sure := func(d day.Day) forecast.When { return forecast.When{Early: d, Likely: d, Late: d} }
	for _, e := range s.Book.Events {
		if e.Planting != p.ID || e.On.After(s.View.Upto) || !m.Season.Holds(e.On) {
			continue
		}
		switch e.Event {
		case book.Emerged:
			m.Emerged = sure(e.On)
		case book.FirstBud:
			m.FirstBud = sure(e.On)
		}
	}
	first, last := cutDays(s.Book, p.ID, m.Season, s.View.Upto)
	if !first.IsZero() {
		m.FirstCut = sure(first)
	}
	dead := s.Stand.Dead(i) && m.Season.Holds(s.View.From)
	if !last.IsZero() && (dead || !p.Ended.IsZero() && !p.Ended.After(s.View.Upto)) {
		m.LastCut = sure(last)
	}
	return m
}

// cutDays returns the first and the last day of a season up to one on which stems of a planting were cut.
func cutDays(b *book.Book, planting string, season growth.Season, upto day.Day) (first, last day.Day) {
	for _, c := range b.Cuts {
		d := c.CutAt.Day()
		if c.Planting != planting || c.Stems == 0 || d.After(upto) || !season.Holds(d) {
			continue
		}
		if first.IsZero() || d.Before(first) {
			first = d
		}
		if d.After(last) {
			last = d
		}
	}
	return first, last
}
