package records

import (
	"context"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/crop"
	"dewcount/farm/book"

	"github.com/jmoiron/sqlx"
)

// A table holds records of one kind, or a part of them: its columns are those of the notebook.
type table struct {
	name    string
	kind    *book.Kind
	columns []string
	key     []string
}

// tablesOf returns where the records of a kind are kept: one table, or beside it one for the parts of its records, such as count_rungs.
func tablesOf(k *book.Kind) []table {
	if k.Parts == nil {
		return []table{{k.Name, k, k.Columns, k.Key}}
	}
	head := slices.DeleteFunc(slices.Clone(k.Columns), func(column string) bool { return slices.Contains(k.Parts, column) })
	parts := slices.Concat(k.Key, k.Parts)
	return []table{{k.Name, k, head, k.Key}, {k.Singular + "_" + k.Parts[0] + "s", k, parts, parts[:len(k.Key)+1]}}
}

func quoted(columns []string, each string) string {
	parts := make([]string, len(columns))
	for i, c := range columns {
		parts[i] = fmt.Sprintf(each, `"`+c+`"`)
	}
	return strings.Join(parts, ", ")
}

// insert, remove and selectAll are the table's statements, made of names that are constants of this program.
func (t table) insert() string {
	return `INSERT INTO ` + t.name + ` (` + quoted(t.columns, "%s") + `) VALUES (?` + strings.Repeat(`, ?`, len(t.columns)-1) + `)`
}

func (t table) removeByKey(key []string) string {
	return `DELETE FROM ` + t.name + ` WHERE ` + strings.ReplaceAll(quoted(key, "%s = ?"), ", ", " AND ")
}

func (t table) selectAll() string { return `SELECT ` + quoted(t.columns, "%s") + ` FROM ` + t.name }

func (t table) selectByKey(key []string) string {
	return t.selectAll() + ` WHERE ` + strings.ReplaceAll(quoted(key, "%s = ?"), ", ", " AND ")
}

// values returns a notebook row as the table's values: an empty field is null, but for a key.
func (t table) values(row []string, columns []string) []any {
	values := make([]any, len(columns))
	for i, c := range columns {
		text := row[slices.Index(t.kind.Columns, c)]
		if text != "" || slices.Contains(t.key, c) {
			values[i] = text
		}
	}
	return values
}

// put writes all rows of a record.
func put(ctx context.Context, tx *writing, r book.Record) error {
	for i, t := range tablesOf(r.Kind) {
		rows := r.Lines
		if i == 0 {
			rows = rows[:1]
		}
		for _, row := range rows {
			if _, err := tx.ExecContext(ctx, t.insert(), t.values(row, t.columns)...); err != nil {
				return fmt.Errorf("write %s %s: %w", r.Kind.Name, r.ID(), err)
			}
		}
	}
	return nil
}

// drop deletes the rows of the record with r's key.
func drop(ctx context.Context, tx *writing, r book.Record) error {
	t := tablesOf(r.Kind)[0]
	if _, err := tx.ExecContext(ctx, t.removeByKey(r.Kind.Key), t.values(r.Lines[0], r.Kind.Key)...); err != nil {
		return fmt.Errorf("take away %s %s: %w", r.Kind.Name, r.ID(), err)
	}
	return nil
}

// standing returns the record that stands under r's key, and whether there is one.
func standing(ctx context.Context, tx *writing, r book.Record) (book.Record, bool, error) {
	t := tablesOf(r.Kind)[0]
	rows, err := readRows(ctx, tx, t, t.selectByKey(r.Kind.Key), t.values(r.Lines[0], r.Kind.Key)...)
	if err != nil || len(rows) == 0 {
		return book.Record{}, false, err
	}
	if r.Kind.Parts == nil {
		return book.Record{Kind: r.Kind, Lines: rows}, true, nil
	}
	of := tablesOf(r.Kind)[1]
	parts, err := readRows(ctx, tx, of, of.selectByKey(r.Kind.Key), t.values(r.Lines[0], r.Kind.Key)...)
	if err != nil {
		return book.Record{}, false, err
	}
	return whole(r.Kind, rows[0], parts), true, nil
}

// querier is what reads: a transaction.
type querier interface {
	QueryxContext(ctx context.Context, query string, args ...any) (*sqlx.Rows, error)
}

// readRows returns rows as text in the order of the kind's columns; columns that t lacks stay empty.
func readRows(ctx context.Context, q querier, t table, query string, args ...any) ([][]string, error) {
	rows, err := q.QueryxContext(ctx, query, args...)
	if err != nil {
		return nil, fmt.Errorf("read %s: %w", t.name, err)
	}
	defer rows.Close()
	var read [][]string
	for rows.Next() {
		values, err := rows.SliceScan()
		if err != nil {
			return nil, fmt.Errorf("read %s: %w", t.name, err)
		}
		row := make([]string, len(t.kind.Columns))
		for i, v := range values {
			row[slices.Index(t.kind.Columns, t.columns[i])] = text(v)
		}
		read = append(read, row)
	}
	if err := rows.Err(); err != nil {
		return nil, fmt.Errorf("read %s: %w", t.name, err)
	}
	return read, nil
}

// text writes a value as the notebook does.
func text(v any) string {
	switch v := v.(type) {
	case nil:
		return ""
	case int64:
		return strconv.FormatInt(v, 10)
	case float64:
		return book.Decimal(v)
	case string:
		return v
	case []byte:
		return string(v)
	default:
		return fmt.Sprint(v)
	}
}

// whole joins the row of a record's head with those of its parts, in the order of the ladder.
func whole(k *book.Kind, head []string, parts [][]string) book.Record {
	r := book.Record{Kind: k}
	rung := slices.Index(k.Columns, k.Parts[0])
	slices.SortFunc(parts, func(a, b []string) int {
		x, _ := crop.ParseRung(a[rung]) // a constraint holds them to the ladder
		y, _ := crop.ParseRung(b[rung])
		return int(x - y)
	})
	for _, part := range parts {
		row := slices.Clone(head)
		for i, v := range part {
			if v != "" {
				row[i] = v
			}
		}
		r.Lines = append(r.Lines, row)
	}
	return r
}
