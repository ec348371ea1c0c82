package notebook

import (
	"slices"
	"strings"

	"dewcount/farm/book"
)

// group puts the rows of a count together; every other row is a record. Rows of a count share its id, or where each row
// has an id of its own, or none, what they say of the whole count.
func group(k *book.Kind, rows []*placed) []*placed {
	if k.Parts == nil {
		return rows
	}
	field := func(row []string, name string) string { return row[slices.Index(k.Columns, name)] }
	var counts []*placed
	byID := make(map[string]*placed)
	byHead := make(map[string]*placed)
	for _, row := range rows {
		fields := row.record.Lines[0]
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
			count.record.Lines = append(count.record.Lines, fields)
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
	for _, row := range count.record.Lines {
		if field(row, "rung") == field(fields, "rung") || ids[field(row, "id")] {
			return false
		}
		ids[field(row, "id")] = true
	}
	return true
}
