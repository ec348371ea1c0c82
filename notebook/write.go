package notebook

import (
	"bytes"
	"fmt"
	"slices"
	"strings"

	"dewcount/croptable"
	"dewcount/farm/book"
)

// A File is a file of a notebook that is to be written.
type File struct {
	Name string
	Text []byte
}

// Files returns a book as the files of a notebook folder, all of them, even the empty ones.
func Files(b *book.Book) ([]File, error) {
	var files []File
	for _, k := range book.Kinds() {
		rows := [][]string{k.Columns}
		for _, record := range b.Records(k) {
			rows = append(rows, record.Lines...)
		}
		files = append(files, File{k.Name + ".csv", table(rows)})
	}
	rows := [][]string{book.History.Columns}
	for _, p := range b.History {
		rows = append(rows, p.Line())
	}
	files = append(files, File{book.History.Name + ".csv", table(rows)})
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
	if err := writeTable(&text, rows); err != nil {
		panic("notebook: a buffer that cannot be written: " + err.Error())
	}
	return text.Bytes()
}
