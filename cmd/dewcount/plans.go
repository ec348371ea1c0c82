package main

import (
	"bufio"
	"context"
	"flag"
	"fmt"
	"strconv"

	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/plans"
	"dewcount/notebook"
)

// planFlags are what all plans are asked for.
type planFlags struct {
	db             *string
	asOf           day.Day
	crop, use      string
	stems          int
	chance         float64
	on, from, upto day.Day
}

// fields returns what was asked as the forms of the pages have it.
func (f *planFlags) fields() *book.Fields {
	typed := map[string]string{"crop": f.crop, "use": f.use, "stems": strconv.Itoa(f.stems), "on": f.on.String(), "from": f.from.String(), "until": f.upto.String(), "existing": "1"}
	if f.chance > 0 {
		typed["chance"] = strconv.FormatFloat(100*f.chance, 'f', -1, 64)
	}
	return book.NewFields(func(name string) string { return typed[name] })
}

// plan reads the flags that all plans share, and loads the farm as it was known on the evening that they name; last is the day that it is asked for, or to.
func (p program) plan(ctx context.Context, fset *flag.FlagSet, args []string, f *planFlags, last *day.Day) (*look.Snapshot, error) {
	f.db = database(fset)
	fset.TextVar(&f.asOf, "as-of", day.Day{}, "use what was on record by the evening of `DATE`")
	fset.StringVar(&f.crop, "crop", "", "the crop's `ID`")
	fset.IntVar(&f.stems, "stems", 0, "how many `STEMS`")
	fset.Float64Var(&f.chance, "chance", 0, "how sure, 0.5 to 0.99 (default as the farm has set it)")
	if err := parseWithDB(fset, args, 0, f.db); err != nil {
		return nil, err
	}
	switch {
	case f.asOf.IsZero():
		return nil, wrong(fset, "--as-of is missing")
	case f.crop == "":
		return nil, wrong(fset, "--crop is missing")
	case f.stems < 1:
		return nil, wrong(fset, "--stems is missing: write how many")
	case last.IsZero():
		return nil, wrong(fset, "a date is missing")
	case !last.After(f.asOf):
		return nil, wrong(fset, "%s does not lie after --as-of %s", *last, f.asOf)
	}
	reach := *last // of the forecast of what is on record
	if reach.Sub(f.asOf) >= forecast.Horizon || !f.upto.IsZero() {
		reach = f.asOf.Add(look.UsualDays)
	}
	b, err := load(ctx, *f.db)
	if err != nil {
		return nil, err
	}
	if _, err := p.today(b); err != nil {
		return nil, err
	}
	return look.NewSnapshot(b, 0, look.Evening(f.asOf, f.asOf.Add(1), reach), nil)
}

// forDate prints ways to have stems on a day.
func (p program) forDate(ctx context.Context, fset *flag.FlagSet, args []string) error {
	var f planFlags
	fset.TextVar(&f.on, "on", day.Day{}, "the `DATE` on which they are wanted")
	fset.StringVar(&f.use, "use", "event", "what they are for: market, event, florist or drying")
	s, err := p.plan(ctx, fset, args, &f, &f.on)
	if err != nil {
		return err
	}
	fields := f.fields()
	ask := plans.ReadDateAsk(s.Book, fields, s.View.Today)
	if err := fields.Faults(); err != nil {
		return err
	}
	result, err := plans.ForDate(ctx, s, ask, nil)
	if err != nil {
		return err
	}
	switch {
	case result.HasEnough():
		fmt.Fprintf(p.stderr, "own rows give enough for %s: nothing has to be started\n", ask.On)
	case result.Lasts && result.Answer.Best() != nil:
		fmt.Fprintf(p.stderr, "%s is planted for years: %d grown plants would give so many stems on %s\n", result.Profile.Name, result.Answer.Best().Plants(), ask.On)
	case result.Answer.Best() == nil:
		fmt.Fprintf(p.stderr, "no sowing of %s from %s on can give stems for %s\n", result.Profile.Name, s.View.Today, ask.On)
	}
	return p.print(func(w *bufio.Writer) error { return notebook.WriteWays(w, result) })
}

// evenBloom prints successions that give so many stems a week.
func (p program) evenBloom(ctx context.Context, fset *flag.FlagSet, args []string) error {
	var f planFlags
	fset.TextVar(&f.from, "from", day.Day{}, "the first `DATE` of the period")
	fset.TextVar(&f.upto, "to", day.Day{}, "its last `DATE`")
	s, err := p.plan(ctx, fset, args, &f, &f.upto)
	if err != nil {
		return err
	}
	if f.from.IsZero() {
		return wrong(fset, "--from is missing")
	}
	fields := f.fields()
	ask := plans.ReadSuccessionAsk(s.Book, fields, s.View.Today)
	if err := fields.Faults(); err != nil {
		return err
	}
	front, err := plans.EvenBloom(ctx, s, ask)
	if err != nil {
		return err
	}
	return p.print(func(w *bufio.Writer) error { return notebook.WriteBloom(w, front) })
}
