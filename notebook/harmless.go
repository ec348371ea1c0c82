package notebook

import (
	"encoding/csv"
	"io"
	"regexp"
	"strings"
)

// A spreadsheet takes a field that begins with one of these for a formula and runs it; a name or a note must not become one.
const formulaSigns = "=+-@"

var plainNumber = regexp.MustCompile(`^[+-]?[0-9.]+([eE][+-]?[0-9]+)?$`)

// harmless writes a field so that no spreadsheet runs it: with an apostrophe before it. Numbers stay as they are. A field that begins with
// apostrophes and a sign gets one more, so that harmful finds what stood.
func harmless(field string) string {
	bare := strings.TrimLeft(field, "'")
	if bare == "" || !strings.ContainsRune(formulaSigns, rune(bare[0])) || bare == field && plainNumber.MatchString(field) {
		return field
	}
	return "'" + field
}

// harmful reads what harmless wrote.
func harmful(field string) string {
	if bare := strings.TrimLeft(field, "'"); bare != "" && bare != field && strings.ContainsRune(formulaSigns, rune(bare[0])) {
		return field[1:]
	}
	return field
}

// writeTable writes rows as CSV in which no field is a formula.
func writeTable(w io.Writer, rows [][]string) error {
	out := csv.NewWriter(w)
	for _, row := range rows {
		safe := make([]string, len(row))
		for i, field := range row {
			safe[i] = harmless(field)
		}
		if err := out.Write(safe); err != nil {
			return err
		}
	}
	out.Flush()
	return out.Error()
}
