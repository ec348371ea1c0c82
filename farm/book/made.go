package book

import "time"

// A Made is who made a record and when: one for its making and one for every correction.
type Made struct {
	Kind, ID string
	At       string // stamp, UTC
	By       string
}

// ReadMade reads who made a record.
func ReadMade(f *Fields) Made {
	m := Made{Kind: f.Raw("kind"), ID: f.text("id", longestID), At: f.Name("at", "the stamp"), By: f.Name("by", "who made it")}
	if KindNamed(m.Kind) == nil || m.Kind == Makers.Name {
		f.Fault("kind", "%q is no kind of record: write the name of a notebook file, such as counts", m.Kind)
	}
	if _, err := time.Parse(time.RFC3339, m.At); err != nil && m.At != "" {
		f.Fault("at", "%q is no stamp: write it as 2026-07-09T04:20:00Z", m.At)
	}
	return m
}

// Record returns the line as text.
func (m Made) Record() Record { return Record{Makers, [][]string{{m.Kind, m.ID, m.At, m.By}}} }

// Maker returns who made a record, or corrected it last; false where nobody was signed in.
func (b *Book) Maker(k *Kind, id string) (Made, bool) {
	last, found := Made{}, false
	for _, m := range b.Made {
		if m.Kind == k.Name && m.ID == id && m.At >= last.At {
			last, found = m, true
		}
	}
	return last, found
}
