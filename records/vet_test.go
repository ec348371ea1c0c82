package records

import (
	"errors"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"dewcount/farm/book"
	"dewcount/fault"

	"github.com/jmoiron/sqlx"
)

// A file that is not ours, is damaged or comes from a newer version is refused as it lies.
func TestWhatIsNotOursIsLeftAlone(t *testing.T) {
	newer, foreign, damaged := filepath.Join(t.TempDir(), "newer.db"), filepath.Join(t.TempDir(), "foreign.db"), filepath.Join(t.TempDir(), "damaged.db")
	for _, path := range []string{newer, damaged} {
		r := open(t, path)
		if err := r.Apply(ctx, book.Change{Add: []book.Record{variety.Record(), planting.Record(), count.Record()}}); err != nil {
			t.Fatal(err)
		}
		if path == newer {
			if _, err := r.write.Exec(`INSERT INTO goose_db_version (version_id, is_applied) VALUES (99, 1)`); err != nil {
				t.Fatal(err)
			}
		}
		if err := r.Close(); err != nil {
			t.Fatal(err)
		}
	}
	db := empty(t, foreign)
	if _, err := db.Exec(`CREATE TABLE diary (page TEXT)`); err != nil {
		t.Fatal(err)
	}
	db.Close()
	text, err := os.ReadFile(damaged)
	if err != nil {
		t.Fatal(err)
	}
	for at := 3 * 4096; at < len(text); at += 4096 {
		copy(text[at:], strings.Repeat("mud", 20))
	}
	mud := filepath.Join(t.TempDir(), "mud.db")
	for path, content := range map[string][]byte{damaged: text, mud: []byte("a letter to the seed merchant, no database at all")} {
		if err := os.WriteFile(path, content, 0o600); err != nil {
			t.Fatal(err)
		}
	}
	for path, want := range map[string]string{newer: "newer Dew Count", foreign: "no database of Dew Count", damaged: "damaged", mud: "no database of Dew Count", t.TempDir(): "no database of Dew Count"} {
		before, _ := os.ReadFile(path)
		r, err := Open(ctx, path)
		if err == nil {
			r.Close()
		}
		var advice *fault.Advice
		if !errors.As(err, &advice) || !strings.Contains(advice.Words, want) {
			t.Errorf("%s: %v, want advice that says %q", filepath.Base(path), err, want)
		}
		if after, _ := os.ReadFile(path); string(after) != string(before) {
			t.Errorf("%s was written to", filepath.Base(path))
		}
	}
}

// Who takes the file away under the program is told at the next connection; an empty farm in its place would be taken for the farm.
func TestAFileThatWasTakenAwayIsNotMadeAnew(t *testing.T) {
	gone := filepath.Join(t.TempDir(), "gone.db")
	db, err := connect(gone, "deferred")
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	if err := db.Ping(); err == nil {
		t.Error("a connection is made to a file that is not there")
	}
	if _, err := os.Stat(gone); err == nil {
		t.Error("the file is made anew")
	}
}

// empty opens a database with nothing in it.
func empty(t *testing.T, path string) *sqlx.DB {
	t.Helper()
	if err := ownerOnly(path); err != nil {
		t.Fatal(err)
	}
	db, err := connect(path, "immediate")
	if err != nil {
		t.Fatal(err)
	}
	return db
}
