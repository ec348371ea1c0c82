package notebook

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"slices"
	"strings"
	"unicode/utf8"

	"dewcount/farm/book"
	"dewcount/fault"
)

// A placed record knows where its rows and fields stand.
type placed struct {
	record book.Record
	file   string
	lines  []int            // by row
	column map[string][]int // by field and row
}

// fault places what is wrong with the record.
func (p *placed) fault(err error) error {
	faults, ok := errors.AsType[fault.List](err)
	if !ok {
		return err
	}
	first := faults[0]
	column := 1
	if columns := p.column[first.Field]; columns != nil {
		column = columns[first.Part]
	}
	return &fault.InFile{File: p.file, Line: p.lines[first.Part], Column: column, Advice: first.Advice, Err: err}
}

var byteOrderMark = []byte("\xef\xbb\xbf")

// readFile reads the rows of a kind's file, fields in the order of the kind's columns; a missing file has none.
func readFile(folder fs.FS, k *book.Kind) ([]*placed, error) {
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
		return nil, &fault.InFile{File: name, Line: 1 + bytes.Count(text[:at], []byte("\n")), Column: at - bytes.LastIndexByte(text[:at], '\n'),
			Advice: "this letter is not UTF-8: save the file as UTF-8"}
	}
	r := csv.NewReader(bytes.NewReader(text))
	header, err := r.Read()
	if err != nil {
		if len(bytes.TrimSpace(text)) == 0 {
			return nil, &fault.InFile{File: name, Line: 1, Column: 1, Advice: "the header row is missing: the first row names the columns"}
		}
		return nil, csvFault(name, err, 0)
	}
	for i, column := range header {
		line, at := r.FieldPos(i)
		if !slices.Contains(k.Columns, column) {
			return nil, &fault.InFile{File: name, Line: line, Column: at, Advice: fmt.Sprintf("%q is no column of this file: its columns are %s",
				column, strings.Join(k.Columns, ", "))}
		}
		if slices.Index(header, column) != i {
			return nil, &fault.InFile{File: name, Line: line, Column: at, Advice: fmt.Sprintf("the column %s stands twice: take one out", column)}
		}
	}
	for _, needed := range k.Needed {
		if !slices.Contains(header, needed) {
			return nil, &fault.InFile{File: name, Line: 1, Column: 1, Advice: fmt.Sprintf("the column %s is missing: add it", needed)}
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
			row[slices.Index(k.Columns, column)] = harmful(read[i])
		}
		p.record = book.Record{Kind: k, Lines: [][]string{row}}
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
	return &fault.InFile{File: name, Line: parse.Line, Column: parse.Column, Advice: advice, Err: err}
}
