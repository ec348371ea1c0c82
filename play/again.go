package play

import (
	"context"
	"fmt"

	"dewcount/farm"
	"dewcount/farm/book"
)

// Again begins a season anew, with the weather and the field of a seed. What was stays in the history.
func Again(ctx context.Context, store farm.Store, seed uint64) error {
	return store.Change(ctx, func() (book.Change, error) {
		b, _, err := store.Load(ctx)
		if err != nil {
			return book.Change{}, err
		}
		if place, err := b.Place(); err != nil || place.Game == "" {
			return book.Change{}, fmt.Errorf("this farm is no season to be played: it is not begun anew")
		}
		return again(b, seed)
	})
}

// again returns what makes a book that of a season's first morning.
func again(b *book.Book, seed uint64) (book.Change, error) {
	fresh, err := begin(seed)
	if err != nil {
		return book.Change{}, err
	}
	c := book.Change{Stamp: First.String() + "T04:00:00Z"}
	kinds := book.Kinds()
	for i := len(kinds) - 1; i >= 0; i-- { // what speaks of others goes before them
		for _, r := range b.Records(kinds[i]) {
			if _, stays := fresh.Record(kinds[i], r.ID()); !stays && kinds[i] != book.Authors {
				c.Withdraw = append(c.Withdraw, r)
			}
		}
	}
	for _, k := range kinds {
		for _, r := range fresh.Records(k) {
			switch was, there := b.Record(k, r.ID()); {
			case !there:
				c.Add = append(c.Add, r)
			case !was.Equal(r):
				c.Correct = append(c.Correct, r)
			}
		}
	}
	return c, nil
}
