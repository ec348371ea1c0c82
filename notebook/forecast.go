package notebook

import (
	"io"
	"maps"
	"math"
	"slices"
	"strconv"

	"dewcount/core/crop"
	"dewcount/core/forecast"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// WriteForecast writes a forecast as CSV: a row for every planting, pick day and use, then each crop's sums.
func WriteForecast(w io.Writer, s *look.Snapshot) error {
	rows := [][]string{{"planting", "crop", "variety", "pick_day", "use", "p10", "p25", "p50", "p75", "p90", "mean"}}
	f := s.Forecast
	add := func(planting, cropID, variety string, cells forecast.Cells, has [crop.Uses]bool) {
		for j, d := range f.PickDays {
			for u := range crop.Use(crop.Uses) {
				if !has[u] {
					continue
				}
				spread := cells.ByPick[j][u]
				row := []string{planting, cropID, variety, d.String(), u.String()}
				for _, p := range []float64{0.1, 0.25, 0.5, 0.75, 0.9} {
					row = append(row, cents(spread.Bound(p)))
				}
				rows = append(rows, append(row, cents(spread.Mean())))
			}
		}
	}
	uses := make(map[string][crop.Uses]bool)
	for i, p := range s.Model.Plantings {
		add(p.ID, p.Growth.Profile.ID, p.Variety, f.Plantings[i], p.HasUse)
		uses[p.Growth.Profile.ID] = p.HasUse
	}
	for _, id := range slices.Sorted(maps.Keys(f.Crops)) {
		add("", id, "", f.Crops[id], uses[id])
	}
	return writeTable(w, rows)
}

func cents(n float64) string { return book.Decimal(math.Round(n*100) / 100) }

// WriteMilestones writes the dates of every planting as CSV; a date that will hardly come is empty.
func WriteMilestones(w io.Writer, s *look.Snapshot) error {
	rows := [][]string{{"planting", "crop", "variety", "milestone", "p10", "p50", "p90"}}
	for i, p := range s.Model.Plantings {
		m := s.Milestones(i)
		for _, named := range []struct {
			name string
			when forecast.When
		}{{"emerged", m.Emerged}, {"first_bud", m.FirstBud}, {"first_cut", m.FirstCut}, {"last_cut", m.LastCut}} {
			rows = append(rows, []string{p.ID, p.Growth.Profile.ID, p.Variety, named.name,
				named.when.Early.String(), named.when.Likely.String(), named.when.Late.String()})
		}
	}
	return writeTable(w, rows)
}

// WriteBacktest writes every pick that was forecast and cut as CSV.
func WriteBacktest(w io.Writer, test *look.Backtest) error {
	rows := [][]string{{"planting", "crop", "as_of", "pick_day", "lead_weeks", "p10", "p25", "p50", "p75", "p90", "mean", "calendar", "cut"}}
	for _, r := range test.Picks {
		row := []string{r.Planting, r.Crop, r.AsOf.String(), r.Pick.String(), strconv.Itoa(r.Lead())}
		for _, n := range append(r.Stems[:], r.Mean, r.Calendar, r.Came) {
			row = append(row, cents(n))
		}
		rows = append(rows, row)
	}
	return writeTable(w, rows)
}
