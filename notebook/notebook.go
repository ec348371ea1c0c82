// Package notebook is the farm's open formats: a folder of CSV files in and out, and forecasts as CSV.
package notebook

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"slices"
	"strings"
	"unicode/utf8"

	"dewcount/croptable"
	"dewcount/farm"
)

// A Fault is one thing wrong in a notebook file. Its Error reads "counts.csv:14:9: " and the advice.
type Fault struct {
	File         string
	Line, Column int // from 1
	Advice       string
	Err          error // what caused it, for Unwrap; may be nil
}

// Error names the place and says what to do.
func (f *Fault) Error() string {
	return fmt.Sprintf("%s:%d:%d: %s", f.File, f.Line, f.Column, f.Advice)
}

// Unwrap returns the cause.
func (f *Fault) Unwrap() error { return f.Err }

const cropsFile = "crops.json"

// Read reads a notebook folder into a book that knows what base does, and returns it with the change that base lacks. What
// base has already is skipped; a record that contradicts it, or the others, is a *Fault.
func Read(folder fs.FS, base *farm.Book) (*farm.Book, farm.Change, error) {
	if err := knownFiles(folder); err != nil {
		return nil, farm.Change{}, err
	}
	own, err := readCrops(folder)
	if err != nil {
		return nil, farm.Change{}, err
	}
	r := &reader{folder: folder, book: base.WithCrops(own), known: make(map[*farm.Kind]map[string]farm.Record)}
	for _, k := range farm.Kinds() {
		if err := r.readKind(k); err != nil {
			return nil, farm.Change{}, err
		}
	}
	if missing := farm.LacksSetting(r.book.Settings); missing != "" {
		return nil, farm.Change{}, &Fault{File: farm.Settings.Name + ".csv", Line: 1, Column: 1,
			Advice: fmt.Sprintf("the setting %s is missing: add a line for it", missing)}
	}
	for _, p := range r.fresh {
		if err := r.book.Check(p.record, farm.NotebookCare); err != nil {
			return nil, farm.Change{}, p.fault(err)
		}
	}
	if err := r.readHistory(); err != nil {
		return nil, farm.Change{}, err
	}
	change := farm.Change{OwnCrops: own, History: r.pasts}
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
	known := []string{cropsFile, farm.History.Name + ".csv"}
	for _, k := range farm.Kinds() {
		known = append(known, k.Name+".csv")
	}
	for _, e := range entries {
		if !slices.Contains(known, e.Name()) && !strings.HasPrefix(e.Name(), ".") {
			return &Fault{File: e.Name(), Line: 1, Column: 1, Advice: "this is no file of a notebook: take it out of the folder"}
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
		return nil, &Fault{File: cropsFile, Line: line, Column: column, Advice: err.Error(), Err: err}
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

// A placed record knows where its rows and fields stand.
type placed struct {
	record farm.Record
	file   string
	lines  []int            // by row
	column map[string][]int // by field and row
}

// fault places what is wrong with the record.
func (p *placed) fault(err error) error {
	faults, ok := errors.AsType[farm.Faults](err)
	if !ok {
		return err
	}
	first := faults[0]
	column := 1
	if columns := p.column[first.Field]; columns != nil {
		column = columns[first.Row]
	}
	return &Fault{File: p.file, Line: p.lines[first.Row], Column: column, Advice: first.Advice, Err: err}
}

type reader struct {
	folder fs.FS
	book   *farm.Book
	known  map[*farm.Kind]map[string]farm.Record
	fresh  []*placed
	pasts  []farm.Past
}

func (r *reader) readKind(k *farm.Kind) error {
	r.known[k] = make(map[string]farm.Record)
	for _, record := range r.book.Records(k) {
		r.known[k][record.ID()] = record
	}
	rows, err := readFile(r.folder, k)
	if err != nil {
		return err
	}
	mine := make(map[string]bool)
	for _, p := range group(k, rows) {
		record, err := new(farm.Book).Read(k, p.record.Rows)
		if err != nil {
			return p.fault(err)
		}
		p.record = record
		id := record.ID()
		if mine[id] {
			return p.fault(farm.Faults{{Field: k.Key[0], Advice: fmt.Sprintf("%s %q stands twice: take one of them out", k.Singular(), id)}})
		}
		mine[id] = true
		if there, ok := r.known[k][id]; ok {
			if !there.Equal(record) {
				return p.fault(farm.Faults{{Field: k.Key[0], Advice: (&farm.Conflict{Record: record, There: true}).Error()}})
			}
			continue
		}
		if _, err := r.book.Read(k, record.Rows); err != nil {
			return p.fault(err)
		}
		r.fresh = append(r.fresh, p)
	}
	return nil
}

// group puts the rows of a count together; every other row is a record. Rows of a count share its id, or where each row
// has an id of its own, or none, what they say of the whole count.
func group(k *farm.Kind, rows []*placed) []*placed {
	if k != &farm.Counts {
		return rows
	}
	field := func(row []string, name string) string { return row[slices.Index(k.Columns, name)] }
	var counts []*placed
	byID := make(map[string]*placed)
	byHead := make(map[string]*placed)
	for _, row := range rows {
		fields := row.record.Rows[0]
		id := field(fields, "id")
		headOf := strings.Join([]string{field(fields, "counted_at"), field(fields, "planting"), field(fields, "plants_counted"),
			field(fields, "counter")}, "\x00")
		count := byID[id]
		if id == "" {
			count = byHead[headOf]
		} else if other := byHead[headOf]; count == nil && other != nil && apart(other, field, id, fields) {
			count = other
		}
		if count == nil {
			counts = append(counts, row)
			byHead[headOf] = row
			count = row
		} else {
			count.record.Rows = append(count.record.Rows, fields)
			count.lines = append(count.lines, row.lines...)
			for name, columns := range row.column {
				count.column[name] = append(count.column[name], columns...)
			}
		}
		if id != "" {
			byID[id] = count
		}
	}
	return counts
}

// apart tells whether a row with an id not seen before belongs to a count whose rows have each an id of their own.
func apart(count *placed, field func([]string, string) string, id string, fields []string) bool {
	ids := map[string]bool{id: true}
	for _, row := range count.record.Rows {
		if field(row, "rung") == field(fields, "rung") || ids[field(row, "id")] {
			return false
		}
		ids[field(row, "id")] = true
	}
	return true
}

func (r *reader) readHistory() error {
	rows, err := readFile(r.folder, &farm.History)
	if err != nil {
		return err
	}
	there := make(map[string]int)
	for _, p := range r.book.History {
		there[strings.Join(p.Row(), "\x00")]++
	}
	for _, p := range rows {
		fields := p.record.Rows[0]
		f := farm.NewFields(func(name string) string { return fields[slices.Index(farm.History.Columns, name)] })
		past := farm.ReadPast(f)
		if err := f.Faults(); err != nil {
			return p.fault(err)
		}
		if key := strings.Join(past.Row(), "\x00"); there[key] > 0 {
			there[key]--
			continue
		}
		r.pasts = append(r.pasts, past)
	}
	return nil
}

var byteOrderMark = []byte("\xef\xbb\xbf")

// readFile reads the rows of a kind's file, fields in the order of the kind's columns; a missing file has none.
func readFile(folder fs.FS, k *farm.Kind) ([]*placed, error) {
	name := k.Name + ".csv"
	text, err := fs.ReadFile(folder, name)
	if errors.Is(err, fs.ErrNotExist) {
		return nil, nil
	}
	if err != nil {
		return nil, fmt.Errorf("read %s: %w", name, err)
	}
	text = bytes.TrimPrefix(text, byteOrderMark)
	if at := invalid(text); at >= 0 {
		return nil, &Fault{File: name, Line: 1 + bytes.Count(text[:at], []byte("\n")), Column: at - bytes.LastIndexByte(text[:at], '\n'),
			Advice: "this letter is not UTF-8: save the file as UTF-8"}
	}
	r := csv.NewReader(bytes.NewReader(text))
	header, err := r.Read()
	if err != nil {
		if len(bytes.TrimSpace(text)) == 0 {
			return nil, &Fault{File: name, Line: 1, Column: 1, Advice: "the header row is missing: the first row names the columns"}
		}
		return nil, csvFault(name, err, 0)
	}
	for i, column := range header {
		line, at := r.FieldPos(i)
		if !slices.Contains(k.Columns, column) {
			return nil, &Fault{File: name, Line: line, Column: at, Advice: fmt.Sprintf("%q is no column of this file: its columns are %s",
				column, strings.Join(k.Columns, ", "))}
		}
		if slices.Index(header, column) != i {
			return nil, &Fault{File: name, Line: line, Column: at, Advice: fmt.Sprintf("the column %s stands twice: take one out", column)}
		}
	}
	for _, needed := range k.Needed {
		if !slices.Contains(header, needed) {
			return nil, &Fault{File: name, Line: 1, Column: 1, Advice: fmt.Sprintf("the column %s is missing: add it", needed)}
		}
	}
	var rows []*placed
	for {
		read, err := r.Read()
		if errors.Is(err, io.EOF) {
			return rows, nil
		}
		if err != nil {
			return nil, csvFault(name, err, len(header))
		}
		line, _ := r.FieldPos(0)
		p := &placed{file: name, lines: []int{line}, column: make(map[string][]int)}
		row := make([]string, len(k.Columns))
		for i, column := range header {
			_, at := r.FieldPos(i)
			p.column[column] = []int{at}
			row[slices.Index(k.Columns, column)] = read[i]
		}
		p.record = farm.Record{Kind: k, Rows: [][]string{row}}
		rows = append(rows, p)
	}
}

// invalid returns where text stops being UTF-8, -1 if it never does.
func invalid(text []byte) int {
	for at := 0; at < len(text); {
		letter, size := utf8.DecodeRune(text[at:])
		if letter == utf8.RuneError && size <= 1 || letter == 0 {
			return at
		}
		at += size
	}
	return -1
}

func csvFault(name string, err error, columns int) error {
	parse, ok := errors.AsType[*csv.ParseError](err)
	if !ok {
		return fmt.Errorf("read %s: %w", name, err)
	}
	advice := "this is no CSV: put a text with quotes or commas in quotes, and double the quotes in it"
	if errors.Is(err, csv.ErrFieldCount) {
		advice = fmt.Sprintf("this row has not the %d fields of the header: check its commas", columns)
	}
	return &Fault{File: name, Line: parse.Line, Column: parse.Column, Advice: advice, Err: err}
}

// A File is a file of a notebook that is to be written.
type File struct {
	Name string
	Text []byte
}

// Files returns a book as the files of a notebook folder, all of them, even the empty ones.
func Files(b *farm.Book) ([]File, error) {
	var files []File
	for _, k := range farm.Kinds() {
		rows := [][]string{k.Columns}
		for _, record := range b.Records(k) {
			rows = append(rows, record.Rows...)
		}
		files = append(files, File{k.Name + ".csv", table(rows)})
	}
	rows := [][]string{farm.History.Columns}
	for _, p := range b.History {
		rows = append(rows, p.Row())
	}
	files = append(files, File{farm.History.Name + ".csv", table(rows)})
	own := slices.Clone(b.OwnCrops)
	slices.SortFunc(own, func(x, y croptable.Entry) int { return strings.Compare(x.ID, y.ID) })
	var crops bytes.Buffer
	if err := croptable.Write(&crops, own); err != nil {
		return nil, fmt.Errorf("write %s: %w", cropsFile, err)
	}
	return append(files, File{cropsFile, crops.Bytes()}), nil
}

func table(rows [][]string) []byte {
	var text bytes.Buffer
	w := csv.NewWriter(&text)
	if err := w.WriteAll(rows); err != nil {
		panic("notebook: a buffer that cannot be written: " + err.Error())
	}
	return text.Bytes()
}
