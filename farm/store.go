package farm

import (
	"context"

	"dewcount/farm/book"
	"dewcount/farm/find"
)

// A Store keeps books; the package records fulfils it.
type Store interface {
	Load(ctx context.Context) (*book.Book, int64, error)
	Revision(ctx context.Context) (int64, error)
	// Change asks for a change and keeps it, all of it or nothing. From the asking on nobody else can write, in this program or another one:
	// what plan reads still stands when its change is kept. An empty change keeps nothing and raises no revision.
	Change(ctx context.Context, plan func() (book.Change, error)) error
	// Apply is Change for one that is known beforehand.
	Apply(ctx context.Context, c book.Change) error
	// Indexed returns the revision of which the full-text index is, Index brings it to another, and Search asks it.
	Indexed(ctx context.Context) (int64, error)
	Index(ctx context.Context, revision int64, docs []find.Doc) error
	Search(ctx context.Context, q find.Query, most int) ([]find.Doc, error)
}
