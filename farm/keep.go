package farm

import (
	"context"
	"fmt"
	"slices"
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

// make carries a change out in the book and checks its records in the light of all others; the book is of no use after a fault.
func (b *Book) make(c Change, care Care) error {
	for _, r := range c.Withdraw {
		b.remove(r)
	}
	if len(c.Add)+len(c.Correct) == 0 {
		return nil
	}
	for i, r := range slices.Concat(c.Add, c.Correct) {
		other, there := b.Record(r.Kind, r.ID())
		switch {
		case there && other.Equal(r):
			continue
		case there && i < len(c.Add):
			return Faults{{Field: r.Kind.Key[0], Advice: (&Conflict{Record: r, There: true}).Error()}}
		case there:
			b.remove(other)
		}
		if _, err := b.Read(r.Kind, r.Rows); err != nil {
			return err
		}
	}
	for _, r := range slices.Concat(c.Add, c.Correct) {
		if err := b.Check(r, care); err != nil {
			return err
		}
	}
	return nil
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

// withdrawal is the change that takes a record away, unless others speak of it.
func (b *Book) withdrawal(k *Kind, id string) (Change, error) {
	r, ok := b.Record(k, id)
	if !ok {
		return Change{}, ErrNoSuchRecord
	}
	return Change{Withdraw: []Record{r}}, b.mayGo(r)
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

// each joins the changes for some ids, each in the light of those before it.
func (b *Book) each(ids []string, plan func(*Book, string) (Change, error)) (Change, error) {
	var all Change
	now := b.own()
	for _, id := range ids {
		c, err := plan(now, id)
		if err != nil {
			return Change{}, err
		}
		if err := now.make(c, FormCare); err != nil {
			return Change{}, err
		}
		all.Add, all.Correct, all.Withdraw = append(all.Add, c.Add...), append(all.Correct, c.Correct...), append(all.Withdraw, c.Withdraw...)
	}
	return all, nil
}

// undoing is the change that takes back what was done last to a record.
func (b *Book) undoing(k *Kind, id string) (Change, error) {
	if k == Jobs {
		if c, ok := b.undoingJob(id); ok {
			return c, nil
		}
	}
	_, stands := b.Record(k, id)
	past, ok := b.lastPast(k, id)
	switch {
	case !ok && !stands:
		return Change{}, ErrNoSuchRecord
	case !ok || stands && past.Ended == "withdrawn":
		return b.withdrawal(k, id)
	}
	before, err := past.Record()
	if err != nil {
		return Change{}, fmt.Errorf("undo %s %s: %w", k.Name, id, err)
	}
	if stands {
		return Change{Correct: []Record{before}}, nil
	}
	return Change{Add: []Record{before}}, nil
}
