package notebook

import (
	"io"
	"strconv"

	"dewcount/core/forecast"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/plans"
)

// WriteSeason writes a season as a table: each planting with its dates, likely and with their bounds.
func WriteSeason(w io.Writer, s *look.Season) error {
	rows := [][]string{{"planting", "crop", "variety", "bed", "squares", "method", "plants", "started_on", "planted_out_on", "first_cut_p10", "first_cut_p50", "first_cut_p90",
		"last_cut_p10", "last_cut_p50", "last_cut_p90"}}
	bounds := func(w forecast.When) []string { return []string{w.Early.String(), w.Likely.String(), w.Late.String()} }
	for i, p := range s.Model.Plantings {
		record, _ := s.Book.Planting(p.ID)
		row := []string{p.ID, p.Growth.Profile.ID, p.Variety, record.Bed, record.Squares, string(record.Method), strconv.Itoa(record.Plants), record.StartedOn.String(), record.PlantedOutOn.String()}
		row = append(row, bounds(s.Dates[i].FirstCut)...)
		rows = append(rows, append(row, bounds(s.Dates[i].LastCut)...))
	}
	return writeTable(w, rows)
}

// WriteBeds writes who stands on which squares, and from when until when.
func WriteBeds(w io.Writer, s *look.Season) error {
	rows := [][]string{{"bed", "planting", "variety", "squares", "plants", "height_cm", "from", "until"}}
	for _, b := range plans.BedYears(s) {
		for _, stay := range b.Stays {
			rows = append(rows, []string{b.Bed.ID, stay.Planting, stay.Record.Variety, stay.Patch.String(), strconv.Itoa(stay.Record.Plants), book.Decimal(stay.HighCM), stay.From.String(), stay.Until.String()})
		}
	}
	return writeTable(w, rows)
}

// WriteSeeds writes the seed list of a season.
func WriteSeeds(w io.Writer, lines []plans.SeedLine) error {
	rows := [][]string{{"variety", "crop", "plants", "seeds", "in_stock", "to_order", "packets", "other_parts"}}
	for _, l := range lines {
		if l.Seeds+l.Parts == 0 {
			continue
		}
		stock := ""
		if l.StockKnown {
			stock = strconv.Itoa(l.InStock)
		}
		rows = append(rows, []string{l.Variety, l.Profile.ID, strconv.Itoa(l.Plants), strconv.Itoa(l.Seeds), stock, strconv.Itoa(l.ToOrder), strconv.Itoa(l.Packets), strconv.Itoa(l.Parts)})
	}
	return writeTable(w, rows)
}
