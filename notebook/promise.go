package notebook

import (
	"io"
	"strconv"

	"dewcount/farm/look"
	"dewcount/farm/market"
)

// WritePromises writes how far each order will be filled, when all are served together, as CSV: a row for every line and ingredient on every day on which it is
// due.
func WritePromises(w io.Writer, s *look.Snapshot) error {
	rows := [][]string{{"order", "due_on", "line", "what", "wanted", "p10", "p25", "p50", "p75", "p90", "chance", "whole"}}
	for _, d := range market.Dues(s) {
		for _, l := range d.Lines {
			line := strconv.Itoa(l.Line)
			if l.Part != "" {
				line += "." + l.Part
			}
			row := []string{d.Order.ID, d.On.String(), line, l.What, strconv.Itoa(l.Wanted)}
			for _, p := range []float64{0.1, 0.25, 0.5, 0.75, 0.9} {
				row = append(row, cents(l.Filled.Bound(p)))
			}
			rows = append(rows, append(row, cents(l.Chance), cents(d.Chance)))
		}
	}
	return writeTable(w, rows)
}
