// Package notebook is the farm's open formats: a folder of CSV files in and out, and forecasts as CSV.
package notebook

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"slices"
	"strings"

	"dewcount/croptable"
	"dewcount/farm/book"
	"dewcount/fault"
)

const cropsFile = "crops.json"

// Read reads a notebook folder into a book that knows what base does, and returns it with the change that base lacks. What
// base has already is skipped; a record that contradicts it, or the others, is a *fault.InFile.
func Read(folder fs.FS, base *book.Book) (*book.Book, book.Change, error) {
	if err := knownFiles(folder); err != nil {
		return nil, book.Change{}, err
	}
	own, err := readCrops(folder)
	if err != nil {
		return nil, book.Change{}, err
	}
	r := &reader{folder: folder, book: base.WithCrops(own), known: make(map[*book.Kind]map[string]book.Record)}
	for _, k := range book.Kinds() {
		if err := r.readKind(k); err != nil {
			return nil, book.Change{}, err
		}
	}
	if missing := book.LacksSetting(r.book.Settings); missing != "" {
		return nil, book.Change{}, &fault.InFile{File: book.Settings.Name + ".csv", Line: 1, Column: 1,
			Advice: fmt.Sprintf("the setting %s is missing: add a line for it", missing)}
	}
	for _, p := range r.fresh {
		if err := r.book.Check(p.record, book.OfNotebook); err != nil {
			return nil, book.Change{}, p.fault(err)
		}
	}
	if err := r.readHistory(); err != nil {
		return nil, book.Change{}, err
	}
	change := book.Change{OwnCrops: own, History: r.versions}
	for _, p := range r.fresh {
		change.Add = append(change.Add, p.record)
	}
	return r.book, change, nil
}

func knownFiles(folder fs.FS) error {
	entries, err := fs.ReadDir(folder, ".")
	if err != nil {
		return fmt.Errorf("the folder cannot be read: %w", err)
	}
	known := []string{cropsFile, book.History.Name + ".csv"}
	for _, k := range book.Kinds() {
		known = append(known, k.Name+".csv")
	}
	for _, e := range entries {
		if !slices.Contains(known, e.Name()) && !strings.HasPrefix(e.Name(), ".") {
			return &fault.InFile{File: e.Name(), Line: 1, Column: 1, Advice: "this is no file of a notebook: take it out of the folder"}
		}
	}
	return nil
}

func readCrops(folder fs.FS) ([]croptable.Entry, error) {
	text, err := fs.ReadFile(folder, cropsFile)
	if errors.Is(err, fs.ErrNotExist) {
		return nil, nil
	}
	if err != nil {
		return nil, fmt.Errorf("read %s: %w", cropsFile, err)
	}
	text = bytes.TrimPrefix(text, byteOrderMark)
	entries, err := croptable.Read(bytes.NewReader(text))
	if err != nil {
		line, column := 1, 1
		if at := offset(err); at >= 0 {
			before := text[:min(int(at), len(text))]
			line += bytes.Count(before, []byte("\n"))
			column = len(before) - bytes.LastIndexByte(before, '\n')
		} else if id := faultyCrop(text, err); id > 0 {
			line += bytes.Count(text[:id], []byte("\n"))
		}
		return nil, &fault.InFile{File: cropsFile, Line: line, Column: column, Advice: err.Error(), Err: err}
	}
	return entries, nil
}

func offset(err error) int64 {
	if syntax, ok := errors.AsType[*json.SyntaxError](err); ok {
		return syntax.Offset
	}
	if wrong, ok := errors.AsType[*json.UnmarshalTypeError](err); ok {
		return wrong.Offset
	}
	return -1
}

// faultyCrop returns where in the text the profile stands whose id the error names, 0 if it names none.
func faultyCrop(text []byte, err error) int {
	_, rest, ok := strings.Cut(err.Error(), `crop "`)
	if !ok {
		return 0
	}
	id, _, _ := strings.Cut(rest, `"`)
	return max(0, bytes.Index(text, []byte(`"`+id+`"`)))
}

type reader struct {
	folder   fs.FS
	book     *book.Book
	known    map[*book.Kind]map[string]book.Record
	fresh    []*placed
	versions []book.Version
}

func (r *reader) readKind(k *book.Kind) error {
	r.known[k] = make(map[string]book.Record)
	for _, record := range r.book.Records(k) {
		r.known[k][record.ID()] = record
	}
	rows, err := readFile(r.folder, k)
	if err != nil {
		return err
	}
	mine := make(map[string]bool)
	for _, p := range group(k, rows) {
		record, err := new(book.Book).Read(k, p.record.Lines)
		if err != nil {
			return p.fault(err)
		}
		p.record = record
		id := record.ID()
		if mine[id] {
			return p.fault(fault.List{{Field: k.Key[0], Advice: fmt.Sprintf("%s %q stands twice: take one of them out", k.Singular, id)}})
		}
		mine[id] = true
		if there, ok := r.known[k][id]; ok {
			if !there.Equal(record) {
				return p.fault(fault.List{{Field: k.Key[0], Advice: (&book.Conflict{Record: record, There: true}).Error()}})
			}
			continue
		}
		if _, err := r.book.Read(k, record.Lines); err != nil {
			return p.fault(err)
		}
		r.fresh = append(r.fresh, p)
	}
	return nil
}

func (r *reader) readHistory() error {
	rows, err := readFile(r.folder, book.History)
	if err != nil {
		return err
	}
	there := make(map[string]int)
	for _, p := range r.book.History {
		there[strings.Join(p.Line(), "\x00")]++
	}
	for _, p := range rows {
		fields := p.record.Lines[0]
		f := book.NewFields(func(name string) string { return fields[slices.Index(book.History.Columns, name)] })
		version := book.ReadVersion(f)
		if err := f.Faults(); err != nil {
			return p.fault(err)
		}
		if key := strings.Join(version.Line(), "\x00"); there[key] > 0 {
			there[key]--
			continue
		}
		r.versions = append(r.versions, version)
	}
	return nil
}
