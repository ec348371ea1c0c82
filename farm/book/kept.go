package book

import (
	"fmt"
	"slices"
	"strings"

	"dewcount/fault"
)

// keeping is how a book keeps the records of a kind.
type keeping interface {
	read(f *Fields, lines [][]string) (r Record, keep func(*Book))
	records(b *Book) []Record
	find(b *Book, id string) (Record, bool)
	remove(b *Book, id string)
	own(b *Book) // makes the list one that can be added to without changing another book's
	check(b *Book, f *Fields, r Record, how Strictness)
	mayGo(b *Book, k *Kind, id string) error
}

// kept is how values of one type are kept.
type kept[T any] struct {
	list   func(*Book) *[]T
	reads  func(*Fields, [][]string) T
	writes func(T) Record
	id     func(T) string                                      // as Record.ID; nil where the record is asked
	order  func(x, y T) int                                    // of the notebook; nil for that of the ids
	checks func(*Book, *Fields, T, Strictness)                 // holds one against all others; nil where they do not matter
	held   func(b *Book, id string) (n int, what, todo string) // by how many others it is spoken of, and what to do; nil for none
}

// read reads a record from lines of text and returns it as it is written, with what puts it into a book.
func (k kept[T]) read(f *Fields, lines [][]string) (Record, func(*Book)) {
	v := k.reads(f, lines)
	return k.writes(v), func(b *Book) {
		list := k.list(b)
		*list = append(*list, v)
	}
}

// records returns a book's records in the order of the notebook.
func (k kept[T]) records(b *Book) []Record {
	values := *k.list(b)
	if k.order != nil {
		values = slices.Clone(values)
		slices.SortFunc(values, k.order)
	}
	records := make([]Record, len(values))
	for i, v := range values {
		records[i] = k.writes(v)
	}
	if k.order == nil {
		slices.SortFunc(records, func(x, y Record) int { return strings.Compare(x.ID(), y.ID()) })
	}
	return records
}

func (k kept[T]) is(v T, id string) bool {
	if k.id != nil {
		return k.id(v) == id
	}
	return k.writes(v).ID() == id
}

func (k kept[T]) find(b *Book, id string) (Record, bool) {
	v, ok := Find(*k.list(b), func(v T) bool { return k.is(v, id) })
	if !ok {
		return Record{}, false
	}
	return k.writes(v), true
}

func (k kept[T]) remove(b *Book, id string) {
	list := k.list(b)
	*list = slices.DeleteFunc(slices.Clone(*list), func(v T) bool { return k.is(v, id) })
}

func (k kept[T]) own(b *Book) {
	list := k.list(b)
	*list = slices.Clip(*list)
}

func (k kept[T]) check(b *Book, f *Fields, r Record, how Strictness) {
	if k.checks != nil {
		k.checks(b, f, k.reads(f, r.Lines), how)
	}
}

func (k kept[T]) mayGo(b *Book, of *Kind, id string) error {
	if k.held == nil {
		return nil
	}
	n, what, todo := k.held(b, id)
	if n == 0 {
		return nil
	}
	return fault.List{{Field: of.Key[0], Advice: fmt.Sprintf("%d %s of %s on record: %s", n, what, id, todo)}}
}
