package farm

import (
	"context"
	"fmt"

	"dewcount/farm/book"
	"dewcount/fault"
)

// change keeps what is to be kept of the book as it stands: nobody else writes between plan's reading and the keeping.
func (f *Farm) change(ctx context.Context, who string, plan func(*book.Book) (book.Change, error)) error {
	f.writing.Lock()
	defer f.writing.Unlock()
	var after *book.Book // with the change in it
	var revision int64   // that it was made from
	err := f.store.Change(ctx, func() (c book.Change, err error) {
		if after, revision, err = f.load(ctx); err != nil {
			return c, err
		}
		if c, err = plan(after); err != nil || c.IsEmpty() {
			after = nil
			return book.Change{}, err
		}
		c.Who, c.Stamp = who, f.Stamp()
		if err := after.Apply(c, book.OfForm); err != nil {
			return c, err
		}
		if c.HasCrops() {
			after = nil
		}
		return c, nil
	})
	if err == nil && after != nil {
		f.shelf.put(after, revision+1)
	}
	return err
}

// Add keeps new records after a check of each in the light of the book; Faults say what is wrong with one.
func (f *Farm) Add(ctx context.Context, who string, records ...book.Record) error {
	return f.change(ctx, who, func(*book.Book) (book.Change, error) { return book.Change{Add: records}, nil })
}

// AddAndCorrect records new ones and takes others in the place of what stands, all of it or nothing.
func (f *Farm) AddAndCorrect(ctx context.Context, who string, add, correct []book.Record) error {
	return f.Make(ctx, who, book.Change{Add: add, Correct: correct})
}

// Make makes a change as a whole.
func (f *Farm) Make(ctx context.Context, who string, c book.Change) error {
	return f.change(ctx, who, func(*book.Book) (book.Change, error) { return c, nil })
}

// Correct puts records in the place of those that stand under their keys, which go into the history.
func (f *Farm) Correct(ctx context.Context, who string, records ...book.Record) error {
	return f.AddAndCorrect(ctx, who, nil, records)
}

// CorrectShown is Correct of one record for a form that showed its writer what stood, as Mark has it. A *Changed is returned, and nothing
// kept, where something else stands now.
func (f *Farm) CorrectShown(ctx context.Context, who, shown string, r book.Record) error {
	return f.change(ctx, who, func(b *book.Book) (book.Change, error) {
		if err := b.StillShown(r.Kind, r.ID(), shown); err != nil {
			return book.Change{}, err
		}
		return book.Change{Correct: []book.Record{r}}, nil
	})
}

// Rename puts an order, as it is now, under another name; its lines and what went to it come along. Where its form showed something else than stands now, a
// *book.Changed is returned.
func (f *Farm) Rename(ctx context.Context, who, order, name, shown string, now book.Order) error {
	return f.change(ctx, who, func(b *book.Book) (book.Change, error) {
		if _, ok := b.Order(order); !ok {
			return book.Change{}, book.ErrNoSuchRecord
		}
		if err := b.StillShown(book.Orders, order, shown); err != nil {
			return book.Change{}, err
		}
		return b.Renaming(now, name)
	})
}

// Withdraw takes a record away; it stays in the history and can come back. Where its page showed something else than stands now, a *Changed
// is returned; shown is empty where that does not matter.
func (f *Farm) Withdraw(ctx context.Context, who, shown string, k *book.Kind, id string) error {
	return f.change(ctx, who, func(b *book.Book) (book.Change, error) {
		if err := b.StillShown(k, id, shown); err != nil {
			return book.Change{}, err
		}
		return b.Withdrawal(k, id)
	})
}

// Set writes settings down: new ones are added, others take the place of what stood, and empty ones are withdrawn. Where the form showed
// other settings than stand now, as SettingsMark has them, a *Changed is returned; shown is empty where that does not matter.
func (f *Farm) Set(ctx context.Context, who, shown string, settings []book.Setting) error {
	return f.change(ctx, who, func(b *book.Book) (book.Change, error) {
		if shown != "" && shown != b.SettingsMark() {
			return book.Change{}, &book.Changed{}
		}
		var c book.Change
		for _, s := range settings {
			_, there := b.Record(book.Settings, s.Key)
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
		return c, nil
	})
}

// MostUndone is how many records can be taken back in one step: more than a week of rounds has.
const MostUndone = 300

// Undo takes back what was done last to some records, all of it or nothing: it brings back what stood before, or takes away what is new.
func (f *Farm) Undo(ctx context.Context, who string, k *book.Kind, ids ...string) error {
	if len(ids) > MostUndone {
		return fault.List{{Field: "id", Advice: fmt.Sprintf("no more than %d records can be taken back at once: take them back one by one", MostUndone)}}
	}
	return f.change(ctx, who, func(b *book.Book) (book.Change, error) {
		return b.Each(ids, func(b *book.Book, id string) (book.Change, error) { return b.Undoing(k, id) })
	})
}

// WithdrawSuccession takes all plantings of a succession away, in one step: none where one of them has records.
func (f *Farm) WithdrawSuccession(ctx context.Context, who, succession string) error {
	return f.change(ctx, who, func(b *book.Book) (book.Change, error) {
		var c book.Change
		for _, p := range b.Plantings {
			if p.Succession == succession && succession != "" {
				if err := b.MayGo(p.Record()); err != nil {
					return book.Change{}, err
				}
				c.Withdraw = append(c.Withdraw, p.Record())
			}
		}
		if c.Withdraw == nil {
			return book.Change{}, book.ErrNoSuchRecord
		}
		return c, nil
	})
}
