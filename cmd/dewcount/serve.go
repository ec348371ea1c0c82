package main

import (
	"context"
	"flag"
	"fmt"
	"os"
	"path/filepath"

	"dewcount/demo"
	"dewcount/records"
)

func (p program) demo(ctx context.Context, fset *flag.FlagSet, args []string) error {
	db := fset.String("db", "", "keep the demo farm in `FILE` (default: a fresh temporary one)")
	if err := parse(fset, args, 0); err != nil {
		return err
	}
	file := *db
	if file == "" {
		folder, err := os.MkdirTemp("", "dewcount-demo-")
		if err != nil {
			return fmt.Errorf("a place for the demo farm: %w", err)
		}
		defer os.RemoveAll(folder)
		file = filepath.Join(folder, "larkenfold.db")
	}
	store, err := records.Open(ctx, file)
	if err != nil {
		return err
	}
	defer store.Close()
	return demo.Fill(ctx, store)
}

func (p program) serve(ctx context.Context, fset *flag.FlagSet, args []string) error {
	return nil
}
