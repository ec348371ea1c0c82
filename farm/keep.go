package farm

import (
	"context"
	"fmt"
)

// change keeps what is to be kept of the book as it stands: nobody else writes between plan's reading and the keeping.
func (f *Farm) change(ctx context.Context, who string, plan func(*Book) (Change, error)) error {
	f.writing.Lock()
	defer f.writing.Unlock()
	return f.store.Change(ctx, func() (Change, error) {
		book, _, err := f.load(ctx)
		if err != nil {
			return Change{}, err
		}
		c, err := plan(book)
		if err != nil || c.IsEmpty() {
			return Change{}, err
		}
		c.Who, c.Stamp = who, f.Stamp()
		return c, book.make(c, FormCare)
	})
}

// Add keeps new records after a check of each in the light of the book; Faults say what is wrong with one.
func (f *Farm) Add(ctx context.Context, who string, records ...Record) error {
	return f.change(ctx, who, func(*Book) (Change, error) { return Change{Add: records}, nil })
}

// AddAndCorrect records new ones and takes others in the place of what stands, all of it or nothing.
func (f *Farm) AddAndCorrect(ctx context.Context, who string, add, correct []Record) error {
	return f.change(ctx, who, func(*Book) (Change, error) { return Change{Add: add, Correct: correct}, nil })
}

// Correct puts records in the place of those that stand under their keys, which go into the history.
func (f *Farm) Correct(ctx context.Context, who string, records ...Record) error {
	return f.AddAndCorrect(ctx, who, nil, records)
}

// CorrectShown is Correct of one record for a form that showed its writer what stood, as Mark has it. A *Changed is returned, and nothing
// kept, where something else stands now.
func (f *Farm) CorrectShown(ctx context.Context, who, shown string, r Record) error {
	return f.change(ctx, who, func(b *Book) (Change, error) {
		if err := b.stillShown(r.Kind, r.ID(), shown); err != nil {
			return Change{}, err
		}
		return Change{Correct: []Record{r}}, nil
	})
}

// Withdraw takes a record away; it stays in the history and can come back. Where its page showed something else than stands now, a *Changed
// is returned; shown is empty where that does not matter.
func (f *Farm) Withdraw(ctx context.Context, who, shown string, k *Kind, id string) error {
	return f.change(ctx, who, func(b *Book) (Change, error) {
		if err := b.stillShown(k, id, shown); err != nil {
			return Change{}, err
		}
		return b.withdrawal(k, id)
	})
}

// Set writes settings down: new ones are added, others take the place of what stood, and empty ones are withdrawn. Where the form showed
// other settings than stand now, as SettingsMark has them, a *Changed is returned; shown is empty where that does not matter.
func (f *Farm) Set(ctx context.Context, who, shown string, settings []Setting) error {
	return f.change(ctx, who, func(b *Book) (Change, error) {
		if shown != "" && shown != b.SettingsMark() {
			return Change{}, &Changed{}
		}
		var c Change
		for _, s := range settings {
			_, there := b.Record(Settings, s.Key)
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
func (f *Farm) Undo(ctx context.Context, who string, k *Kind, ids ...string) error {
	if len(ids) > MostUndone {
		return Faults{{Field: "id", Advice: fmt.Sprintf("no more than %d records can be taken back at once: take them back one by one", MostUndone)}}
	}
	return f.change(ctx, who, func(b *Book) (Change, error) {
		return b.each(ids, func(b *Book, id string) (Change, error) { return b.undoing(k, id) })
	})
}

// WithdrawSuccession takes all plantings of a succession away, in one step: none where one of them has records.
func (f *Farm) WithdrawSuccession(ctx context.Context, who, succession string) error {
	return f.change(ctx, who, func(b *Book) (Change, error) {
		var c Change
		for _, p := range b.Plantings {
			if p.Succession == succession && succession != "" {
				if err := b.mayGo(p.Record()); err != nil {
					return Change{}, err
				}
				c.Withdraw = append(c.Withdraw, p.Record())
			}
		}
		if c.Withdraw == nil {
			return Change{}, ErrNoSuchRecord
		}
		return c, nil
	})
}
