package records

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"

	"dewcount/fault"

	"github.com/jmoiron/sqlx"
)

const (
	// quickCheck looks for damage: pages that are not what they should be, rows that break their constraints.
	quickCheck = `PRAGMA quick_check(1)`
	readTables = `SELECT name FROM sqlite_master WHERE type = 'table'`
	// readVersion is the number of the last migration that the file has seen.
	readVersion = `SELECT coalesce(max(version_id), 0) FROM goose_db_version WHERE is_applied`
)

// vet looks at a file without writing to it, and tells what to do about one that is not a sound database of this version or an earlier one. A
// file that is missing or empty will be one.
func vet(ctx context.Context, path string) error {
	info, err := os.Stat(path)
	if errors.Is(err, fs.ErrNotExist) || err == nil && info.Size() == 0 {
		return nil
	}
	foreign := &fault.Advice{Words: path + " is no database of Dew Count: name another file", Err: err}
	if err != nil || info.IsDir() {
		return foreign
	}
	address := url.URL{Scheme: "file", Path: path, RawQuery: url.Values{"mode": {"ro"}, "_pragma": {"busy_timeout(5000)"}}.Encode()}
	db, err := sqlx.Open("sqlite", address.String())
	if err != nil {
		return fmt.Errorf("open %s: %w", path, err)
	}
	defer db.Close()
	var tables []string
	if foreign.Err = db.SelectContext(ctx, &tables, readTables); foreign.Err != nil {
		return foreign
	}
	ours := 0
	for _, name := range tables {
		if name == "goose_db_version" || name == "revision" {
			ours++
		}
	}
	if len(tables) == 0 {
		return nil
	}
	var version int64
	if foreign.Err = db.GetContext(ctx, &version, readVersion); ours < 2 || foreign.Err != nil {
		return foreign
	}
	if known := newest(); version > known {
		return &fault.Advice{Words: fmt.Sprintf("%s was written by a newer Dew Count: start that one, or a backup of before (this file is at step %d, this program knows %d)", path, version, known)}
	}
	var found string
	if err := db.GetContext(ctx, &found, quickCheck); err != nil || found != "ok" {
		return &fault.Advice{Words: path + " is damaged, and nothing was written to it: put the last backup in its place, and keep the damaged file", Err: errors.Join(err, errors.New(found))}
	}
	return nil
}

// newest returns the number of the last migration that this program knows.
func newest() int64 {
	files, err := fs.Glob(migrations, "migrations/*.sql")
	if err != nil {
		panic("records: the embedded migrations: " + err.Error())
	}
	return int64(len(files)) // they are numbered from one on
}
