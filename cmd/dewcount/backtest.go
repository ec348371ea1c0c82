package main

import (
	"bufio"
	"context"
	"flag"
	"fmt"
	"maps"
	"math"
	"slices"
	"text/tabwriter"

	"dewcount/core/day"
	"dewcount/core/review"
	"dewcount/farm/look"
	"dewcount/notebook"
)

// backtest prints how far past forecasts could have been trusted: a table, or every row as CSV.
func (p program) backtest(ctx context.Context, fset *flag.FlagSet, args []string) error {
	db := database(fset)
	asCSV := fset.Bool("csv", false, "print every forecast pick as CSV instead of the table")
	if err := parseWithDB(fset, args, 0, db); err != nil {
		return err
	}
	book, err := load(ctx, *db)
	if err != nil {
		return err
	}
	today, err := p.today(book)
	if err != nil {
		return err
	}
	test, err := look.NewBacktest(book, today, func(d day.Day) { fmt.Fprintf(p.stderr, "\rlooking back to %s ", d) })
	fmt.Fprintln(p.stderr)
	if err != nil {
		return err
	}
	if len(test.Picks) == 0 {
		return fmt.Errorf("no cut on record was ever forecast: record the cuts of some pick days first")
	}
	return p.print(func(w *bufio.Writer) error {
		if *asCSV {
			return notebook.WriteBacktest(w, test)
		}
		return writeTrust(w, test)
	})
}

// writeTrust writes the table that a grower reads: how far can I trust this?
func writeTrust(out *bufio.Writer, test *look.Backtest) error {
	w := tabwriter.NewWriter(out, 0, 0, 2, ' ', tabwriter.AlignRight)
	fmt.Fprintln(w, "\tpicks\tcut\texpected\toff by\tcalendar off by\tin the middle half\tbetween sure and best\tbetter than the calendar\t")
	line := func(name string, rows []review.Pick) {
		var s review.Score
		for _, r := range rows {
			s.Add(r)
		}
		each := 1 / float64(max(1, s.Picks))
		fmt.Fprintf(w, "%s\t%d\t%.0f\t%.0f\t%.1f\t%.1f\t%.0f %%\t%.0f %%\t%.0f %%\t\n", name, s.Picks, s.Came, s.Expected, s.WIS*each, s.Calendar*each,
			100*s.Share(s.In50), 100*s.Share(s.In80), 100*s.Skill())
	}
	byLead, byCrop := make(map[int][]review.Pick), make(map[string][]review.Pick)
	for _, r := range test.Picks {
		byLead[r.Lead()] = append(byLead[r.Lead()], r)
		byCrop[r.Crop] = append(byCrop[r.Crop], r)
	}
	line("all", test.Picks)
	for _, lead := range slices.Sorted(maps.Keys(byLead)) {
		line(fmt.Sprintf("%d weeks ahead", lead), byLead[lead])
	}
	for _, id := range slices.Sorted(maps.Keys(byCrop)) {
		line(id, byCrop[id])
	}
	if err := w.Flush(); err != nil {
		return err
	}
	var told review.Score
	for _, r := range test.Picks {
		told.Add(r)
	}
	if test.Untold.WIS > 0 {
		fmt.Fprintf(out, "\nOff by: the weighted interval score of the bounds, in stems a pick; for the calendar how far its number is out.\n"+
			"What was counted, cut and seen made the forecast %.0f %% better than it would have been without.\n", 100*(1-told.WIS/test.Untold.WIS))
	}
	off, n := 0.0, 0
	for _, f := range test.FirstCuts {
		if f.DaysBefore > 10 && f.DaysBefore <= 17 {
			off += math.Abs(float64(f.OffDays))
			n++
		}
	}
	if n > 0 {
		fmt.Fprintf(out, "\nThe first cut of %d rows, about two weeks before it, was %.1f days off.\n", n, off/float64(n))
	}
	return nil
}
