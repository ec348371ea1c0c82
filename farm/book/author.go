package book

import "time"

// An Author is who made a record and when: one for its making and one for every correction.
type Author struct {
	Kind, ID string
	At       string // stamp, UTC
	By       string
}

// ReadAuthor reads who made a record.
func ReadAuthor(f *Fields) Author {
	m := Author{Kind: f.Raw("kind"), ID: f.text("id", longestID), At: f.Name("at", "the stamp"), By: f.Name("by", "who made it")}
	if KindNamed(m.Kind) == nil || m.Kind == Authors.Name {
		f.Fault("kind", "%q is no kind of record: write the name of a notebook file, such as counts", m.Kind)
	}
	if _, err := time.Parse(time.RFC3339, m.At); err != nil && m.At != "" {
		f.Fault("at", "%q is no stamp: write it as 2026-07-09T04:20:00Z", m.At)
	}
	return m
}

// Record returns the line as text.
func (m Author) Record() Record { return Record{Authors, [][]string{{m.Kind, m.ID, m.At, m.By}}} }

// AuthorOf returns who made a record, or corrected it last; false where nobody was signed in.
func (b *Book) AuthorOf(k *Kind, id string) (Author, bool) {
	last, found := Author{}, false
	for _, m := range b.Authors {
		if m.Kind == k.Name && m.ID == id && m.At >= last.At {
			last, found = m, true
		}
	}
	return last, found
}
