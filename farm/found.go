package farm

import (
	"context"

	"dewcount/farm/find"
)

// mostFound is how many finds anybody looks through.
const mostFound = 60

// Find returns what a question in words finds among notes, plantings, varieties, crops, orders, beds and years, the best first. Where the words say when and
// nothing is of that time, all times are looked through, and so is told.
func (f *Farm) Find(ctx context.Context, question string) (q find.Query, found []find.Doc, elsewhen bool, err error) {
	s, err := f.Snapshot(ctx)
	if err != nil {
		return q, nil, false, err
	}
	if q = find.Ask(question, s.View.Today); q.IsEmpty() {
		return q, nil, false, nil
	}
	revision, err := f.store.Indexed(ctx)
	if err != nil {
		return q, nil, false, err
	}
	if revision != s.Revision {
		f.indexing.Lock()
		err = f.store.Index(ctx, s.Revision, find.Docs(s.Book))
		f.indexing.Unlock()
		if err != nil {
			return q, nil, false, err
		}
	}
	found, err = f.store.Search(ctx, q, mostFound)
	if err == nil && len(found) == 0 && len(q.Words) > 0 && !q.From.IsZero() {
		always := find.Query{Words: q.Words}
		found, err = f.store.Search(ctx, always, mostFound)
		elsewhen = len(found) > 0
	}
	return q, found, elsewhen, err
}
