package main

import (
	"bufio"
	"context"
	"errors"
	"flag"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"time"

	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/fault"
	"dewcount/notebook"
	"dewcount/records"
)

func (p program) importNotebook(ctx context.Context, fset *flag.FlagSet, args []string) (err error) {
	db := database(fset)
	if err := parseWithDB(fset, args, 1, db); err != nil {
		return err
	}
	folder := fset.Arg(0)
	if info, err := os.Stat(folder); err != nil || !info.IsDir() {
		return fmt.Errorf("there is no folder %s: name the notebook's folder", folder)
	}
	_, missing := os.Stat(*db)
	store, err := records.Open(ctx, *db)
	if err != nil {
		return err
	}
	defer func() {
		if err != nil && errors.Is(missing, fs.ErrNotExist) {
			err = errors.Join(err, store.Remove())
			return
		}
		err = errors.Join(err, store.Close())
	}()
	var change book.Change
	err = store.Change(ctx, func() (book.Change, error) {
		base, _, err := store.Load(ctx)
		if err != nil {
			return book.Change{}, err
		}
		_, change, err = notebook.Read(os.DirFS(folder), base)
		change.Stamp = p.clock().UTC().Format(time.RFC3339)
		return change, err
	})
	if err != nil {
		return err
	}
	fmt.Fprintf(p.stderr, "%d records are new in %s\n", len(change.Add)+len(change.History)+len(change.OwnCrops), *db)
	return nil
}

func (p program) export(ctx context.Context, fset *flag.FlagSet, args []string) error {
	db := database(fset)
	if err := parseWithDB(fset, args, 1, db); err != nil {
		return err
	}
	b, err := load(ctx, *db)
	if err != nil {
		return err
	}
	folder := fset.Arg(0)
	_, missing := os.Stat(folder)
	if err := os.MkdirAll(folder, 0o777); err != nil {
		return &fault.Advice{Words: "the folder " + folder + " cannot be made: name another", Err: err}
	}
	entries, err := os.ReadDir(folder)
	if err != nil {
		return &fault.Advice{Words: folder + " cannot be looked into: name a folder", Err: err}
	}
	if len(entries) > 0 {
		return fmt.Errorf("the folder %s is not empty: name a new or an empty one", folder)
	}
	files, err := notebook.Files(b)
	if err != nil {
		return err
	}
	for i, f := range files {
		if err := os.WriteFile(filepath.Join(folder, f.Name), f.Text, 0o666); err != nil {
			for _, written := range files[:i+1] { // half a notebook must not be taken for a whole one
				err = errors.Join(err, removeIfThere(filepath.Join(folder, written.Name)))
			}
			if errors.Is(missing, fs.ErrNotExist) {
				err = errors.Join(err, os.Remove(folder))
			}
			return &fault.Advice{Words: f.Name + " cannot be written to " + folder + ": is there room, and may you write there?", Err: err}
		}
	}
	return nil
}

func removeIfThere(file string) error {
	if err := os.Remove(file); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	return nil
}

func load(ctx context.Context, db string) (*book.Book, error) {
	store, err := records.OpenExisting(ctx, db)
	if err != nil {
		return nil, err
	}
	book, _, err := store.Load(ctx)
	return book, errors.Join(err, store.Close())
}

// asOf computes the farm as it was known on the evening of a day.
func (p program) asOf(ctx context.Context, fset *flag.FlagSet, args []string, to *day.Day) (*look.Snapshot, error) {
	db := database(fset)
	var evening day.Day
	fset.TextVar(&evening, "as-of", day.Day{}, "use what was on record by the evening of `DATE`")
	if err := parseWithDB(fset, args, 0, db); err != nil {
		return nil, err
	}
	switch {
	case evening.IsZero():
		return nil, wrong(fset, "--as-of is missing")
	case to.IsZero():
		*to = evening.Add(look.UsualDays)
	case !to.After(evening):
		return nil, wrong(fset, "--to %s does not lie after --as-of %s", *to, evening)
	}
	if to.Sub(evening) >= forecast.Horizon {
		return nil, fmt.Errorf("--to %s lies too far ahead: name a day within %d days of %s", *to, forecast.Horizon-1, evening)
	}
	book, err := load(ctx, *db)
	if err != nil {
		return nil, err
	}
	today, err := p.today(book)
	if err != nil {
		return nil, err
	}
	return look.NewSnapshot(book, 0, look.Evening(evening, today, *to), nil)
}

// today returns the farm's day: its demo clock's, or the wall clock's where it lies.
func (p program) today(book *book.Book) (day.Day, error) {
	place, err := book.Place()
	if err != nil {
		return day.Day{}, fmt.Errorf("this database has no farm yet: import a notebook, or start dewcount serve")
	}
	if !place.DemoDay.IsZero() {
		return place.DemoDay, nil
	}
	return day.Of(p.clock().In(place.Zone).Date()), nil
}

func (p program) forecast(ctx context.Context, fset *flag.FlagSet, args []string) error {
	var to day.Day
	fset.TextVar(&to, "to", day.Day{}, "forecast up to `DATE` (default 35 days on)")
	s, err := p.asOf(ctx, fset, args, &to)
	if err != nil {
		return err
	}
	return p.print(func(w *bufio.Writer) error { return notebook.WriteForecast(w, s) })
}

func (p program) promise(ctx context.Context, fset *flag.FlagSet, args []string) error {
	var to day.Day
	fset.TextVar(&to, "to", day.Day{}, "serve what is due up to `DATE` (default 35 days on)")
	s, err := p.asOf(ctx, fset, args, &to)
	if err != nil {
		return err
	}
	return p.print(func(w *bufio.Writer) error { return notebook.WritePromises(w, s) })
}

func (p program) milestones(ctx context.Context, fset *flag.FlagSet, args []string) error {
	var to day.Day
	s, err := p.asOf(ctx, fset, args, &to)
	if err != nil {
		return err
	}
	return p.print(func(w *bufio.Writer) error { return notebook.WriteMilestones(w, s) })
}

func (p program) print(write func(*bufio.Writer) error) error {
	w := bufio.NewWriter(p.stdout)
	if err := write(w); err != nil {
		return fmt.Errorf("print: %w", err)
	}
	if err := w.Flush(); err != nil {
		return fmt.Errorf("print: %w", err)
	}
	return nil
}

func (p program) backup(ctx context.Context, fset *flag.FlagSet, args []string) error {
	db := database(fset)
	if err := parseWithDB(fset, args, 1, db); err != nil {
		return err
	}
	store, err := records.OpenExisting(ctx, *db)
	if err != nil {
		return err
	}
	return errors.Join(store.Backup(ctx, fset.Arg(0)), store.Close())
}
