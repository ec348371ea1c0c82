// Package records keeps a farm's book in SQLite. It is the only place with SQL.
//
// What stands now is in one table a kind, with the columns of the notebook. What stood before is in history, and stays there.
package records

import (
	"context"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net/url"
	"os"
	"path/filepath"

	"dewcount/fault"

	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Records is an open database.
type Records struct {
	write *sqlx.DB // one connection
	read  *sqlx.DB
	path  string
}

// readers is how many connections read at the same time.
const readers = 4

// Open opens the database of a file, which is made where it is missing, and brings its tables up to date. A file that is damaged, of another
// program or of a newer version is refused before anything is written to it.
func Open(ctx context.Context, file string) (*Records, error) {
	path, err := filepath.Abs(file)
	if err != nil {
		return nil, fmt.Errorf("the place of %s: %w", file, err)
	}
	if err := vet(ctx, path); err != nil {
		return nil, err
	}
	if err := ownerOnly(path); err != nil {
		return nil, err
	}
	if err := migrate(ctx, path); err != nil {
		return nil, err
	}
	r := &Records{path: path}
	if r.write, err = connect(path, "immediate"); err != nil {
		return nil, err
	}
	r.write.SetMaxOpenConns(1)
	if r.read, err = connect(path, "deferred"); err != nil {
		return nil, errors.Join(err, r.write.Close())
	}
	r.read.SetMaxOpenConns(readers)
	return r, nil
}

// OpenExisting is Open for a file that must be there.
func OpenExisting(ctx context.Context, file string) (*Records, error) {
	if _, err := os.Stat(file); err != nil {
		return nil, fmt.Errorf("there is no database %s: make one with dewcount import or dewcount serve", file)
	}
	return Open(ctx, file)
}

// ownerOnly makes a file where it is missing, and lets nobody but its owner read it: it holds names and what passwords are known by. What SQLite
// keeps beside it takes its mode over.
func ownerOnly(path string) error {
	file, err := os.OpenFile(path, os.O_RDWR|os.O_CREATE, privateMode)
	if err == nil {
		err = errors.Join(file.Chmod(privateMode), file.Close())
	}
	if err != nil {
		return &fault.Advice{Words: path + " cannot be written: name a file in a folder that is there and that you may write to", Err: err}
	}
	return nil
}

const privateMode = 0o600

func connect(path, lock string) (*sqlx.DB, error) {
	pragmas := url.Values{"_pragma": {"foreign_keys(1)", "journal_mode(wal)", "synchronous(full)", "busy_timeout(5000)"},
		"_txlock": {lock}, "_dqs": {"0"}, "mode": {"rw"}} // a file that was taken away under the program is not made anew, empty
	address := url.URL{Scheme: "file", Path: path, RawQuery: pragmas.Encode()}
	db, err := sqlx.Open("sqlite", address.String())
	if err != nil {
		return nil, fmt.Errorf("open %s: %w", path, err)
	}
	return db, nil
}

func migrate(ctx context.Context, path string) error {
	db, err := connect(path, "immediate")
	if err != nil {
		return err
	}
	defer db.Close()
	provider, err := migrator(db)
	if err != nil {
		return err
	}
	if _, err := provider.Up(ctx); err != nil {
		return &fault.Advice{Words: path + " could not be brought up to date, and is as it was: is there room on the disk, and does no other program use it?", Err: err}
	}
	return nil
}

func migrator(db *sqlx.DB) (*goose.Provider, error) {
	folder, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, fmt.Errorf("the embedded migrations: %w", err)
	}
	provider, err := goose.NewProvider(goose.DialectSQLite3, db.DB, folder,
		goose.WithDisableGlobalRegistry(true), goose.WithSlog(slog.New(slog.DiscardHandler)))
	if err != nil {
		return nil, fmt.Errorf("the migrations: %w", err)
	}
	return provider, nil
}

// Close closes the database and folds its log into the file.
func (r *Records) Close() error {
	return errors.Join(r.read.Close(), r.write.Close())
}

// alone is change for what is no record of the farm: the revision stays.
func (r *Records) alone(ctx context.Context, f func(*sqlx.Tx) error) error {
	return fullDisk(r.transact(ctx, f))
}

const raiseRevision = `UPDATE revision SET number = number + 1`

// errNothing is that there was nothing to keep.
var errNothing = errors.New("records: nothing to keep")

// change runs f in a transaction and raises the revision. If f fails, nothing is kept; with errNothing that is no failure.
func (r *Records) change(ctx context.Context, f func(*writing) error) error {
	err := r.transact(ctx, func(tx *sqlx.Tx) error {
		if err := f(&writing{tx, make(map[string]*sqlx.Stmt)}); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, raiseRevision); err != nil {
			return fmt.Errorf("raise the revision: %w", err)
		}
		return nil
	})
	if errors.Is(err, errNothing) {
		return nil
	}
	return fullDisk(err)
}

// fullDisk gives advice for the one failure that a person can mend.
func fullDisk(err error) error {
	if one, ok := errors.AsType[*sqlite.Error](err); ok && one.Code()&0xff == sqlite3.SQLITE_FULL {
		return &fault.Advice{Words: "the disk is full and nothing was recorded: make room and send it again", Err: err}
	}
	return err
}

func (r *Records) transact(ctx context.Context, f func(*sqlx.Tx) error) error {
	tx, err := r.write.BeginTxx(ctx, nil)
	if err != nil {
		return fmt.Errorf("begin: %w", err)
	}
	defer tx.Rollback() // no effect once committed
	if err := f(tx); err != nil {
		return err
	}
	if err := tx.Commit(); err != nil {
		return fmt.Errorf("keep the change: %w", err)
	}
	return nil
}

const readRevision = `SELECT number FROM revision`

// Revision returns the number that grows with every change.
func (r *Records) Revision(ctx context.Context) (int64, error) {
	var number int64
	if err := r.read.GetContext(ctx, &number, readRevision); err != nil {
		return 0, fmt.Errorf("read the revision: %w", err)
	}
	return number, nil
}

// Backup writes a consistent copy to a file that must not be there yet, while others read and write.
func (r *Records) Backup(ctx context.Context, file string) error {
	if _, err := os.Stat(file); err == nil {
		return fmt.Errorf("%s is there already: name a new file", file)
	}
	if err := ownerOnly(file); err != nil {
		return err
	}
	if _, err := r.read.ExecContext(ctx, `VACUUM INTO ?`, file); err != nil {
		return &fault.Advice{Words: "the copy " + file + " cannot be written: name a new file in a folder that is there and has room",
			Err: errors.Join(err, removeIfThere(file))}
	}
	return nil
}

func removeIfThere(file string) error {
	if err := os.Remove(file); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	return nil
}

// Remove closes the database and deletes its files: for one that was made in vain.
func (r *Records) Remove() error {
	return errors.Join(r.Close(), removeIfThere(r.path), removeIfThere(r.path+"-wal"), removeIfThere(r.path+"-shm"))
}
