package farm

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"sync"
	"time"

	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/core/growth"
)

// A Snapshot is the farm as it stands at one revision, with what the core makes of it. It is not changed once made.
type Snapshot struct {
	Book     *Book
	Revision int64
	View     View
	Model    *forecast.Farm
	Stand    *forecast.Stand
	Forecast *forecast.Forecast

	dates  sync.Map // milestones by planting, worked out when they are asked for
	sums   sync.Map // stems of several plantings, likewise
	causes sync.Map // what moved a crop's forecast, likewise
}

// NewSnapshot computes a book as it looks in a view. What is the same as in a snapshot before, which may be nil, is taken from
// there.
func NewSnapshot(b *Book, revision int64, v View, before *Snapshot) (*Snapshot, error) {
	model, err := b.Model(v)
	if err != nil {
		return nil, err
	}
	var stood *forecast.Stand
	if before != nil {
		stood = before.Stand
	}
	stand := forecast.New(model, stood)
	return &Snapshot{Book: b, Revision: revision, View: v, Model: model, Stand: stand, Forecast: stand.Forecast()}, nil
}

// Index returns the place of a planting in Model, Stand and Forecast, -1 if there is none.
func (s *Snapshot) Index(planting string) int {
	return slices.IndexFunc(s.Model.Plantings, func(p forecast.Planting) bool { return p.ID == planting })
}

// Milestones returns the dates of planting i: those on record as they were, the others as they are forecast.
func (s *Snapshot) Milestones(i int) forecast.Milestones {
	if m, ok := s.dates.Load(i); ok {
		return m.(forecast.Milestones)
	}
	m := s.onRecord(i, s.Stand.Milestones(i))
	s.dates.Store(i, m)
	return m
}

// onRecord puts the dates on record in the place of those that are forecast of planting i.
func (s *Snapshot) onRecord(i int, m forecast.Milestones) forecast.Milestones {
	p := s.Model.Plantings[i]
	sure := func(d day.Day) forecast.When { return forecast.When{Early: d, Likely: d, Late: d} }
	for _, e := range s.Book.Events {
		if e.Planting != p.ID || e.On.After(s.View.Upto) || !m.Season.Holds(e.On) {
			continue
		}
		switch e.Event {
		case Emerged:
			m.Emerged = sure(e.On)
		case FirstBud:
			m.FirstBud = sure(e.On)
		}
	}
	first, last := s.Book.cutDays(p.ID, m.Season, s.View.Upto)
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
func (b *Book) cutDays(planting string, season growth.Season, upto day.Day) (first, last day.Day) {
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

// ErrNoFarm is that the farm's settings are not written down yet.
var ErrNoFarm = errors.New("this farm has no settings yet: write down where it lies")

// A Farm answers for one farm: what is on record, what it means, and what is to be recorded.
type Farm struct {
	store Store
	clock func() time.Time

	shelf shelf

	mu      sync.Mutex
	now     *Snapshot
	without map[string]*Snapshot // by record; of the same revision and view as now

	seasons map[int]*Season // the last that was worked out, by year
}

// New returns a farm on a store; clock is the wall clock, which a demo farm replaces with its own day.
func New(store Store, clock func() time.Time) *Farm {
	return &Farm{store: store, clock: clock}
}

// Today returns the farm's day: that of the demo's clock where there is one.
func (f *Farm) Today(p Place) day.Day {
	if !p.DemoDay.IsZero() {
		return p.DemoDay
	}
	return day.Of(f.clock().In(p.Zone).Date())
}

// Snapshot returns the farm as it stands this morning. It is computed once for each revision and day.
func (f *Farm) Snapshot(ctx context.Context) (*Snapshot, error) {
	f.mu.Lock()
	defer f.mu.Unlock()
	return f.current(ctx)
}

func (f *Farm) current(ctx context.Context) (*Snapshot, error) {
	revision, err := f.store.Revision(ctx)
	if err != nil {
		return nil, err
	}
	if f.now != nil && f.now.Revision == revision {
		if place, err := f.now.Book.Place(); err == nil && f.Today(place) == f.now.View.Today {
			return f.now, nil
		}
	}
	book, revision, err := f.load(ctx)
	if err != nil {
		return nil, err
	}
	if LacksSetting(book.Settings) != "" {
		return nil, ErrNoFarm
	}
	place, err := book.Place()
	if err != nil {
		return nil, err
	}
	s, err := NewSnapshot(book, revision, Morning(f.Today(place)), f.now)
	if err != nil {
		return nil, err
	}
	f.now, f.without = s, make(map[string]*Snapshot)
	return s, nil
}

// Without returns the farm as it would stand had a record never been made, to show what it changed.
func (f *Farm) Without(ctx context.Context, k *Kind, id string) (*Snapshot, error) {
	f.mu.Lock()
	defer f.mu.Unlock()
	s, err := f.current(ctx)
	if err != nil {
		return nil, err
	}
	key := k.Name + "|" + id
	if f.without[key] == nil {
		if len(f.without) >= mostWithout {
			clear(f.without)
		}
		book := *s.Book
		book.Counts = slices.DeleteFunc(slices.Clone(book.Counts), func(c Count) bool { return k == &Counts && c.ID == id })
		book.Cuts = slices.DeleteFunc(slices.Clone(book.Cuts), func(c Cut) bool { return k == &Cuts && c.ID == id })
		if f.without[key], err = NewSnapshot(&book, s.Revision, s.View, s); err != nil {
			return nil, err
		}
	}
	return f.without[key], nil
}

// mostWithout is how many snapshots with a record left out are kept at a time: each weighs some megabytes.
const mostWithout = 4

// Stamp returns the wall clock's time as records are stamped.
func (f *Farm) Stamp() string { return f.clock().UTC().Format(time.RFC3339) }

// Add keeps new records after a check of each in the light of the book; Faults say what is wrong with one.
func (f *Farm) Add(ctx context.Context, who string, records ...Record) error {
	return f.keep(ctx, who, Change{Add: records})
}

// Correct puts records in the place of those that stand under their keys, which go into the history.
func (f *Farm) Correct(ctx context.Context, who string, records ...Record) error {
	return f.keep(ctx, who, Change{Correct: records})
}

// Withdraw takes a record away; it stays in the history and can come back.
func (f *Farm) Withdraw(ctx context.Context, who string, k *Kind, id string) error {
	book, _, err := f.load(ctx)
	if err != nil {
		return err
	}
	r, ok := book.Record(k, id)
	if !ok {
		return ErrNoSuchRecord
	}
	if err := book.mayGo(r); err != nil {
		return err
	}
	return f.keep(ctx, who, Change{Withdraw: []Record{r}})
}

// AddAndCorrect records new ones and takes others in the place of what stands, all of it or nothing.
func (f *Farm) AddAndCorrect(ctx context.Context, who string, add, correct []Record) error {
	return f.keep(ctx, who, Change{Add: add, Correct: correct})
}

func (f *Farm) keep(ctx context.Context, who string, c Change) error {
	c.Who, c.Stamp = who, f.Stamp()
	if len(c.Add)+len(c.Correct) > 0 {
		book, _, err := f.load(ctx)
		if err != nil {
			return err
		}
		standing := make(map[*Kind]map[string]Record)
		for i, r := range slices.Concat(c.Add, c.Correct) {
			if standing[r.Kind] == nil {
				standing[r.Kind] = book.byID(r.Kind)
			}
			other, there := standing[r.Kind][r.ID()]
			switch {
			case there && other.Equal(r):
				continue
			case there && i < len(c.Add):
				return Faults{{Field: r.Kind.Key[0], Advice: (&Conflict{Record: r, There: true}).Error()}}
			case there:
				book.remove(other)
			}
			if _, err := book.Read(r.Kind, r.Rows); err != nil {
				return err
			}
			standing[r.Kind][r.ID()] = r
		}
		for _, r := range slices.Concat(c.Add, c.Correct) {
			if err := book.Check(r, FormCare); err != nil {
				return err
			}
		}
	}
	return f.store.Apply(ctx, c)
}

// Set writes settings down: new ones are added, others take the place of what stood, and empty ones are withdrawn.
func (f *Farm) Set(ctx context.Context, who string, settings []Setting) error {
	book, _, err := f.load(ctx)
	if err != nil {
		return err
	}
	var c Change
	for _, s := range settings {
		_, there := book.Record(&Settings, s.Key)
		switch {
		case s.Value == "" && there:
			c.Withdraw = append(c.Withdraw, s.Record())
		case s.Value == "":
		case there:
			c.Correct = append(c.Correct, s.Record())
		default:
			c.Add = append(c.Add, s.Record())
		}
	}
	return f.keep(ctx, who, c)
}

// Undo takes back what was done last to a record: it brings back what stood before, or takes away what is new.
func (f *Farm) Undo(ctx context.Context, who string, k *Kind, id string) error {
	book, _, err := f.load(ctx)
	if err != nil {
		return err
	}
	if k == &Jobs {
		if undone, err := f.undoJob(ctx, who, book, id); undone || err != nil {
			return err
		}
	}
	now, stands := book.Record(k, id)
	past, ok := book.lastPast(k, id)
	switch {
	case !ok && !stands:
		return ErrNoSuchRecord
	case !ok || stands && past.Ended == "withdrawn":
		return f.Withdraw(ctx, who, k, now.ID())
	}
	before, err := past.Record()
	if err != nil {
		return fmt.Errorf("undo %s %s: %w", k.Name, id, err)
	}
	if stands {
		return f.Correct(ctx, who, before)
	}
	return f.Add(ctx, who, before)
}

// Load returns the book as it stands.
func (f *Farm) Load(ctx context.Context) (*Book, error) {
	book, _, err := f.load(ctx)
	return book, err
}

// Now returns the farm's local civil time, to the minute.
func (f *Farm) Now(s *Snapshot) day.Moment {
	place, err := s.Book.Place()
	if err != nil {
		return day.Moment{} // a snapshot was made of it, so it is sound
	}
	now := f.clock().In(place.Zone)
	return day.At(day.Of(now.Date()), now.Hour(), now.Minute())
}
