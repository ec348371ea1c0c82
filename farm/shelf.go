package farm

import (
	"context"
	"sync"

	"dewcount/farm/book"
)

// A shelf keeps the book of the last revision, so that it is read from the store once and not for every question.
type shelf struct {
	mu       sync.Mutex
	book     *book.Book
	revision int64
}

// put keeps a book that has just been changed in the place of the one that it was, so that it need not be read again.
func (s *shelf) put(b *book.Book, revision int64) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if revision > s.revision {
		s.book, s.revision = b, revision
	}
}

// load returns the book as it stands, which the caller may change, and its revision.
func (f *Farm) load(ctx context.Context) (*book.Book, int64, error) {
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
	return f.shelf.book.Own(), f.shelf.revision, nil
}
