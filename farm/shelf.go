package farm

import (
	"context"
	"slices"
	"sync"
)

// A shelf keeps the book of the last revision, so that it is read from the store once and not for every question.
type shelf struct {
	mu       sync.Mutex
	book     *Book
	revision int64
}

// load returns the book as it stands, which the caller may change, and its revision.
func (f *Farm) load(ctx context.Context) (*Book, int64, error) {
	f.shelf.mu.Lock()
	defer f.shelf.mu.Unlock()
	revision, err := f.store.Revision(ctx)
	if err != nil {
		return nil, 0, err
	}
	if f.shelf.book == nil || f.shelf.revision != revision {
		book, revision, err := f.store.Load(ctx)
		if err != nil {
			return nil, 0, err
		}
		f.shelf.book, f.shelf.revision = book, revision
	}
	return f.shelf.book.own(), f.shelf.revision, nil
}

// own returns a book whose lists can be added to without changing b's.
func (b *Book) own() *Book {
	c := *b
	c.Settings, c.Weather, c.Beds, c.Trays = slices.Clip(b.Settings), slices.Clip(b.Weather), slices.Clip(b.Beds), slices.Clip(b.Trays)
	c.OwnCrops, c.Varieties, c.Plantings, c.Events = slices.Clip(b.OwnCrops), slices.Clip(b.Varieties), slices.Clip(b.Plantings), slices.Clip(b.Events)
	c.Counts, c.Cuts, c.Scoutings, c.Sprays = slices.Clip(b.Counts), slices.Clip(b.Cuts), slices.Clip(b.Scoutings), slices.Clip(b.Sprays)
	c.Jobs = slices.Clip(b.Jobs)
	c.Schools, c.Orders, c.OrderLines, c.RecipeLines = slices.Clip(b.Schools), slices.Clip(b.Orders), slices.Clip(b.OrderLines), slices.Clip(b.RecipeLines)
	c.ExtraPicks, c.Made, c.History = slices.Clip(b.ExtraPicks), slices.Clip(b.Made), slices.Clip(b.History)
	return &c
}
