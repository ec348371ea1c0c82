package book

import (
	"cmp"
	"slices"
	"sort"

	"dewcount/fault"
)

// Apply carries a change out in the book, as a store does in what it keeps: with its history and who made it. It checks the records in the
// light of all others; the book is of no use after a fault. Own crops are not changed: they are read with the book.
func (b *Book) Apply(c Change, how Strictness) error {
	var superseded, withdrawn []Version
	for _, r := range c.Withdraw {
		if now, there := b.Record(r.Kind, r.ID()); there {
			withdrawn = append(withdrawn, versionOf(now, "withdrawn", c))
		}
		b.remove(r)
	}
	made := slices.Concat(c.Add, c.Correct)
	for i, r := range made {
		now, there := b.Record(r.Kind, r.ID())
		switch isNew := i < len(c.Add); {
		case there && isNew && now.Equal(r):
			continue
		case there && isNew:
			return fault.List{{Field: r.Kind.Key[0], Advice: (&Conflict{Record: r, There: true}).Error()}}
		case there:
			superseded = append(superseded, versionOf(now, "superseded", c))
			b.remove(now)
		}
		if _, err := b.Read(r.Kind, r.Lines); err != nil {
			return err
		}
	}
	for _, r := range made {
		if err := b.Check(r, how); err != nil {
			return err
		}
	}
	b.remember(slices.Concat(superseded, withdrawn))
	b.sign(made, c)
	return nil
}

func versionOf(r Record, how string, c Change) Version {
	return Version{Kind: r.Kind.Name, ID: r.ID(), Content: r.Content(), Ended: how, EndedAt: c.Stamp, EndedBy: c.Who}
}

// remember puts what stood into the history, which is in the order of kinds and ids, and of one record in that of time.
func (b *Book) remember(versions []Version) {
	for _, p := range versions {
		after := sort.Search(len(b.History), func(i int) bool {
			return cmp.Or(cmp.Compare(b.History[i].Kind, p.Kind), cmp.Compare(b.History[i].ID, p.ID)) > 0
		})
		b.History = slices.Insert(slices.Clone(b.History), after, p)
	}
}

// sign writes down who made records; where nobody was signed in there is nothing to write.
func (b *Book) sign(records []Record, c Change) {
	if c.Who == "" {
		return
	}
	for _, r := range records {
		m := Author{Kind: r.Kind.Name, ID: r.ID(), At: c.Stamp, By: c.Who}
		if r.Kind != Authors && !slices.ContainsFunc(b.Authors, func(o Author) bool { return o.Kind == m.Kind && o.ID == m.ID && o.At == m.At }) {
			b.Authors = append(b.Authors, m)
		}
	}
}
