package book

import "fmt"

// A Changed is that something else stands now than a form showed who filled it in: both versions are theirs to look at.
type Changed struct {
	Now Record // what stands; of no kind where the form shows many records
	By  string // who wrote it, empty where nobody was signed in
}

// Error says what to do.
func (c *Changed) Error() string {
	who := c.By
	if who == "" {
		who = "somebody"
	}
	return fmt.Sprintf("%s has changed this since you opened it: look at both, and send yours again if it is to stand", who)
}

// Mark names what a record says: a form carries it, so that it is known what its writer saw.
func (r Record) Mark() string { return idOf(r.Kind.Name, r.Content()) }

// SettingsMark is Mark of all settings together.
func (b *Book) SettingsMark() string {
	var marks []string
	for _, r := range b.Records(Settings) {
		marks = append(marks, r.Mark())
	}
	return idOf(marks...)
}

// StillShown returns a *Changed where a record does not say any more what its form showed; an empty mark is of a form that showed nothing.
func (b *Book) StillShown(k *Kind, id, mark string) error {
	now, ok := b.Record(k, id)
	if !ok || mark == "" || now.Mark() == mark {
		return nil
	}
	maker, _ := b.AuthorOf(k, id)
	return &Changed{Now: now, By: maker.By}
}

// Without returns the book as it would be had a count or a cut never been made.
func (b *Book) Without(k *Kind, id string) *Book {
	c := b.Own()
	if r, ok := b.Record(k, id); ok {
		c.remove(r)
	}
	return c
}
