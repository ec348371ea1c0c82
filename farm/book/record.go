package book

import "slices"

// A Record is one record of a kind as text, a line for each of its notebook file. Kinds without Parts have one.
type Record struct {
	Kind  *Kind
	Lines [][]string
}

// ID returns the record's key columns, parted by a bar: what tells it from the others of its kind.
func (r Record) ID() string {
	id := ""
	for i, key := range r.Kind.Key {
		if i > 0 {
			id += "|"
		}
		id += r.Field(key)
	}
	return id
}

// Field returns a column of the record's first line.
func (r Record) Field(column string) string {
	return r.Lines[0][slices.Index(r.Kind.Columns, column)]
}

// Equal tells whether two records say the same.
func (r Record) Equal(o Record) bool {
	return r.Kind == o.Kind && slices.EqualFunc(r.Lines, o.Lines, slices.Equal[[]string])
}
