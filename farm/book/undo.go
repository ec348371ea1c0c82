package book

import (
	"fmt"
	"slices"
)

// undoingJob is the change that takes back that a job was done, with what it has written down beside itself; false where that is not the matter.
func (b *Book) undoingJob(id string) (Change, bool) {
	r, stands := b.Record(Jobs, id)
	if !stands {
		return Change{}, false
	}
	j := ReadJob(fieldsOf(Jobs, r.Lines[0]))
	p, ok := b.Planting(j.Planting)
	if !ok || j.State != JobDone || dateOf(j.Task, &p) == nil {
		return Change{}, false
	}
	c := Change{Withdraw: []Record{r}}
	if *dateOf(j.Task, &p) == j.On {
		for _, version := range slices.Backward(b.History) { // the last that had another date
			before, err := version.Record()
			if err != nil || before.Kind != Plantings || version.ID != p.ID {
				continue
			}
			old, changed := ReadPlanting(fieldsOf(Plantings, before.Lines[0])), p
			if *dateOf(j.Task, &changed) = *dateOf(j.Task, &old); changed != p {
				c.Correct = append(c.Correct, changed.Record())
				break
			}
		}
	}
	if e, ok := j.event(); ok {
		if seen, there := b.Record(Events, e.ID); there {
			c.Withdraw = append(c.Withdraw, seen)
		}
	}
	return c, true
}

// Withdrawal is the change that takes a record away, unless others speak of it.
func (b *Book) Withdrawal(k *Kind, id string) (Change, error) {
	r, ok := b.Record(k, id)
	if !ok {
		return Change{}, ErrNoSuchRecord
	}
	return Change{Withdraw: []Record{r}}, b.MayGo(r)
}

// Each joins the changes for some ids, each in the light of those before it.
func (b *Book) Each(ids []string, plan func(*Book, string) (Change, error)) (Change, error) {
	var all Change
	now := b.Own()
	for _, id := range ids {
		c, err := plan(now, id)
		if err != nil {
			return Change{}, err
		}
		if err := now.Apply(c, OfForm); err != nil {
			return Change{}, err
		}
		all.Add, all.Correct, all.Withdraw = append(all.Add, c.Add...), append(all.Correct, c.Correct...), append(all.Withdraw, c.Withdraw...)
	}
	return all, nil
}

// Undoing is the change that takes back what was done last to a record.
func (b *Book) Undoing(k *Kind, id string) (Change, error) {
	if k == Jobs {
		if c, ok := b.undoingJob(id); ok {
			return c, nil
		}
	}
	_, stands := b.Record(k, id)
	version, ok := b.lastVersion(k, id)
	switch {
	case !ok && !stands:
		return Change{}, ErrNoSuchRecord
	case !ok || stands && version.Ended == "withdrawn":
		return b.Withdrawal(k, id)
	}
	before, err := version.Record()
	if err != nil {
		return Change{}, fmt.Errorf("undo %s %s: %w", k.Name, id, err)
	}
	if stands {
		return Change{Correct: []Record{before}}, nil
	}
	return Change{Add: []Record{before}}, nil
}
