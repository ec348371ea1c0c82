// Package farm is one farm as its pages know it: it keeps what is to be recorded, takes it back, and has what the packages below make of the book
// worked out once for all who ask. What keeps the book is behind the interface Store.
package farm

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"sync/atomic"
	"time"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"

	lru "github.com/hashicorp/golang-lru/v2"
	"golang.org/x/sync/singleflight"
)

// ErrNoFarm is that the farm's settings are not written down yet.
var ErrNoFarm = errors.New("this farm has no settings yet: write down where it lies")

// A Farm answers for one farm: what is on record, what it means, and what is to be recorded. Its methods can be called at the same time:
// what takes long is worked out once for all who ask, and nobody waits for anything else.
type Farm struct {
	// Warm works out what every page of a new state asks for, before the state is shown; it may be nil.
	Warm func(*look.Snapshot)

	store   Store
	clock   func() time.Time
	shelf   shelf
	writing sync.Mutex // one change is made at a time

	indexing sync.Mutex

	now     atomic.Pointer[look.Snapshot] // the last that was worked out
	seasons *lru.Cache[int, *look.Season] // the last that were, by year
	without *lru.Cache[string, *look.Snapshot]
	leaving sync.Mutex // one record is left out at a time: many at once would fill the memory
	flight  singleflight.Group
}

// How many seasons, and how many snapshots with a record left out, are kept at a time: each weighs some megabytes.
const (
	mostSeasons = 3
	mostWithout = 4
)

// New returns a farm on a store; clock is the wall clock, which a demo farm replaces with its own day.
func New(store Store, clock func() time.Time) *Farm {
	f := &Farm{store: store, clock: clock}
	f.seasons, _ = lru.New[int, *look.Season](mostSeasons) // an error is of a size below one
	f.without, _ = lru.New[string, *look.Snapshot](mostWithout)
	return f
}

// Today returns the farm's day: that of the demo's clock where there is one.
func (f *Farm) Today(p book.Place) day.Day {
	if !p.DemoDay.IsZero() {
		return p.DemoDay
	}
	return day.Of(f.clock().In(p.Zone).Date())
}

// Now returns the farm's local civil time, to the minute.
func (f *Farm) Now(s *look.Snapshot) day.Moment {
	place, err := s.Book.Place()
	if err != nil {
		return day.Moment{} // a snapshot was made of it, so it is sound
	}
	return f.timeIn(place)
}

func (f *Farm) timeIn(p book.Place) day.Moment {
	now := f.clock().In(p.Zone)
	return day.At(day.Of(now.Date()), now.Hour(), now.Minute())
}

// Stamp returns the wall clock's time as records are stamped.
func (f *Farm) Stamp() string { return f.clock().UTC().Format(time.RFC3339) }

// Load returns the book as it stands.
func (f *Farm) Load(ctx context.Context) (*book.Book, error) {
	book, _, err := f.load(ctx)
	return book, err
}

// Revision returns the number that grows with every change.
func (f *Farm) Revision(ctx context.Context) (int64, error) { return f.store.Revision(ctx) }

// Snapshot returns the farm as it stands this morning. It is worked out once for each revision and day, however many ask.
func (f *Farm) Snapshot(ctx context.Context) (*look.Snapshot, error) {
	s, _, err := f.SnapshotWithin(ctx, 0)
	return s, err
}

// SnapshotWithin is Snapshot for who would rather see the last state of today than wait longer than patience, 0 for as long as it takes: nil where there is
// none yet, since yesterday's would be taken for it. It reports whether what it returns is of the records as they stand. The new state goes on being worked out.
func (f *Farm) SnapshotWithin(ctx context.Context, patience time.Duration) (s *look.Snapshot, fresh bool, err error) {
	now, revision, err := f.worked(ctx)
	if err != nil || now != nil && now.Revision == revision {
		return now, true, err
	}
	var bored <-chan time.Time
	if patience > 0 {
		timer := time.NewTimer(patience)
		defer timer.Stop()
		bored = timer.C
	}
	for {
		select {
		case made := <-f.flight.DoChan("snapshot", func() (any, error) { return f.work(context.WithoutCancel(ctx)) }):
			if made.Err != nil {
				return nil, false, made.Err
			}
			// Who asked while an older state was worked out waits for the next one.
			if s := made.Val.(*look.Snapshot); s.Revision >= revision {
				return s, true, nil
			}
		case <-bored:
			return now, false, nil
		case <-ctx.Done():
			return nil, false, ctx.Err()
		}
	}
}

// WorkAhead has the farm worked out as it stands before anybody asks, and waits for nothing; what goes wrong is told to who asks.
func (f *Farm) WorkAhead() {
	go func() { _, _ = f.Snapshot(context.Background()) }()
}

// KeepReady has the farm worked out at once, and again whenever it finds its day or its records changed, which it looks for that often, until ctx ends: a
// night's end changes every number, and who opens the first page at six should not wait for that. What goes wrong is told to who asks.
func (f *Farm) KeepReady(ctx context.Context, every time.Duration) {
	look := time.NewTicker(every)
	defer look.Stop()
	for {
		_, _ = f.Snapshot(ctx)
		select {
		case <-look.C:
		case <-ctx.Done():
			return
		}
	}
}

// worked returns the last snapshot, nil where it is of another day or there is none, and the revision of what is on record.
func (f *Farm) worked(ctx context.Context) (*look.Snapshot, int64, error) {
	revision, err := f.store.Revision(ctx)
	if err != nil {
		return nil, 0, err
	}
	now := f.now.Load()
	if now == nil {
		return nil, revision, nil
	}
	book := now.Book
	if now.Revision != revision { // a demo's day is on record
		if book, revision, err = f.load(ctx); err != nil {
			return nil, 0, err
		}
	}
	if place, err := book.Place(); err != nil || f.Today(place) != now.View.Today {
		return nil, revision, nil
	}
	return now, revision, nil
}

// work works the farm out as it stands and keeps it.
func (f *Farm) work(ctx context.Context) (*look.Snapshot, error) {
	now, revision, err := f.worked(ctx)
	if err != nil || now != nil && now.Revision == revision {
		return now, err
	}
	b, revision, err := f.load(ctx)
	if err != nil {
		return nil, err
	}
	if book.LacksSetting(b.Settings) != "" {
		return nil, ErrNoFarm
	}
	place, err := b.Place()
	if err != nil {
		return nil, err
	}
	s, err := look.NewSnapshot(b, revision, look.Morning(f.Today(place)), f.now.Load())
	if err != nil {
		return nil, err
	}
	s.WorkedAt = f.timeIn(place)
	if f.Warm != nil {
		f.Warm(s)
	}
	f.now.Store(s)
	return s, nil
}

// Without returns the farm as it would stand in a snapshot had a record never been made, to show what it changed.
func (f *Farm) Without(s *look.Snapshot, k *book.Kind, id string) (*look.Snapshot, error) {
	key := fmt.Sprintf("without %d %s %s|%s", s.Revision, s.View.Today, k.Name, id)
	if known, ok := f.without.Get(key); ok {
		return known, nil
	}
	return inFlight(&f.flight, key, func() (*look.Snapshot, error) {
		f.leaving.Lock()
		defer f.leaving.Unlock()
		before, err := look.NewSnapshot(s.Book.Without(k, id), s.Revision, s.View, s)
		if err == nil {
			f.without.Add(key, before)
		}
		return before, err
	})
}

// inFlight works a value out under its key, once for all who ask meanwhile.
func inFlight[T any](flight *singleflight.Group, key string, work func() (T, error)) (T, error) {
	made, err, _ := flight.Do(key, func() (any, error) { return work() })
	if err != nil {
		var none T
		return none, err
	}
	return made.(T), nil
}

// Season returns a growing year of the farm as a snapshot has it, by the year in which it begins. It is worked out once, however many ask.
func (f *Farm) Season(now *look.Snapshot, year int) (*look.Season, error) {
	if s, ok := f.Worked(now, year); ok {
		return s, nil
	}
	return inFlight(&f.flight, fmt.Sprintf("season %d %d %s", year, now.Revision, now.View.Today), func() (*look.Season, error) {
		have, _ := f.seasons.Get(year)
		s, err := now.Season(year, have)
		if err != nil {
			return nil, err
		}
		if last, ok := f.seasons.Get(year); !ok || !last.IsNewer(s) {
			f.seasons.Add(year, s)
		}
		return s, nil
	})
}

// Worked returns a growing year where it is worked out already for a snapshot.
func (f *Farm) Worked(now *look.Snapshot, year int) (*look.Season, bool) {
	have, ok := f.seasons.Get(year)
	return have, ok && have.IsOf(now)
}
