package records

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/fault"
)

var ctx = context.Background()

func open(t *testing.T, file string) *Records {
	t.Helper()
	r, err := Open(ctx, file)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { r.Close() })
	return r
}

// row of zinnias, and a count of it.
var (
	variety  = book.Variety{Name: "Zinnia coral", Crop: "zinnia-tall"}
	planting = book.Planting{ID: "ZC1", Variety: "Zinnia coral", Method: "direct", StartedOn: day.Must("2026-05-02"), Plants: 60}
	count    = book.Count{ID: "c1", CountedAt: day.At(day.Must("2026-07-09"), 6, 20), Planting: "ZC1", PlantsCount: 12, Stems: [8]int{4, 0, 3, 0, 0, 2}}
)

func planted(t *testing.T) *Records {
	t.Helper()
	r := open(t, filepath.Join(t.TempDir(), "farm ?%.db")) // a path that an address must quote
	if err := r.Apply(ctx, book.Change{Add: []book.Record{variety.Record(), planting.Record(), count.Record()}}); err != nil {
		t.Fatal(err)
	}
	return r
}

func load(t *testing.T, r *Records) *book.Book {
	t.Helper()
	book, _, err := r.Load(ctx)
	if err != nil {
		t.Fatal(err)
	}
	return book
}

func TestRecordsComeBack(t *testing.T) {
	book := load(t, planted(t))
	if got, ok := book.Count("c1"); !ok || got.Stems != count.Stems || got.CountedAt != count.CountedAt {
		t.Errorf("count came back as %+v", got)
	}
	if got, ok := book.Planting("ZC1"); !ok || !got.Record().Equal(planting.Record()) {
		t.Errorf("planting came back as %+v", got)
	}
}

func TestSentTwiceIsStoredOnce(t *testing.T) {
	r := planted(t)
	before, err := r.Revision(ctx)
	if err != nil {
		t.Fatal(err)
	}
	if err := r.Apply(ctx, book.Change{Add: []book.Record{count.Record()}}); err != nil {
		t.Errorf("the same count again: %v", err)
	}
	other := count
	other.Stems[0] = 9
	err = r.Apply(ctx, book.Change{Add: []book.Record{other.Record()}})
	if conflict, ok := errors.AsType[*book.Conflict](err); !ok || !conflict.There {
		t.Errorf("another count under the same id: %v, want a conflict", err)
	}
	if book := load(t, r); len(book.Counts) != 1 || book.Counts[0].Stems != count.Stems {
		t.Errorf("counts are %+v", book.Counts)
	}
	if after, _ := r.Revision(ctx); after != before+1 {
		t.Errorf("the revision went from %d to %d: a refused change must not raise it", before, after)
	}
}

func TestCorrectionKeepsWhatStood(t *testing.T) {
	r := planted(t)
	corrected := count
	corrected.Stems = [8]int{0, 7}
	if err := r.Apply(ctx, book.Change{Correct: []book.Record{corrected.Record()}, Stamp: "2026-07-09T05:00:00Z", Who: "Ada"}); err != nil {
		t.Fatal(err)
	}
	if err := r.Apply(ctx, book.Change{Withdraw: []book.Record{corrected.Record()}, Stamp: "2026-07-09T06:00:00Z"}); err != nil {
		t.Fatal(err)
	}
	b := load(t, r)
	if len(b.Counts) != 0 || len(b.History) != 2 {
		t.Fatalf("%d counts stand, %d are past", len(b.Counts), len(b.History))
	}
	first, err := b.History[0].Record()
	if err != nil || !first.Equal(count.Record()) || b.History[0].Ended != "superseded" || b.History[0].EndedBy != "Ada" {
		t.Errorf("the first past is %+v, %v", b.History[0], err)
	}
	if _, err := r.write.Exec(`DELETE FROM history`); err == nil {
		t.Error("the history could be deleted")
	}
	if _, err := r.write.Exec(`UPDATE history SET content = '[]'`); err == nil {
		t.Error("the history could be changed")
	}
	err = r.Apply(ctx, book.Change{Correct: []book.Record{count.Record()}})
	if conflict, ok := errors.AsType[*book.Conflict](err); !ok || conflict.There {
		t.Errorf("correcting what is withdrawn: %v, want a conflict", err)
	}
}

func TestAllOrNothing(t *testing.T) {
	r := planted(t)
	bad := planting
	bad.ID, bad.Variety = "XX", "not on record"
	good := planting
	good.ID = "ZC2"
	if err := r.Apply(ctx, book.Change{Add: []book.Record{good.Record(), bad.Record()}}); err == nil {
		t.Fatal("a planting of an unknown variety was kept")
	}
	if book := load(t, r); len(book.Plantings) != 1 {
		t.Errorf("%d plantings after a change that failed", len(book.Plantings))
	}
}

func TestTwoPeopleAtOnce(t *testing.T) {
	file := filepath.Join(t.TempDir(), "farm.db")
	a, b := open(t, file), open(t, file)
	if err := a.Apply(ctx, book.Change{Add: []book.Record{variety.Record(), planting.Record()}}); err != nil {
		t.Fatal(err)
	}
	const each = 20
	var both sync.WaitGroup
	for who, r := range []*Records{a, b} {
		both.Go(func() {
			for i := range each {
				c := count
				c.ID = fmt.Sprintf("%d-%d", who, i)
				if err := r.Apply(ctx, book.Change{Add: []book.Record{c.Record()}}); err != nil {
					t.Errorf("count %s: %v", c.ID, err)
				}
			}
		})
	}
	both.Wait()
	if book := load(t, a); len(book.Counts) != 2*each {
		t.Errorf("%d counts of %d are on record", len(book.Counts), 2*each)
	}
}

func TestBackupIsWhole(t *testing.T) {
	r := planted(t)
	backup := filepath.Join(t.TempDir(), "copy.db")
	if err := r.Backup(ctx, backup); err != nil {
		t.Fatal(err)
	}
	if err := r.Backup(ctx, backup); err == nil {
		t.Error("a backup was written over another")
	}
	if book := load(t, open(t, backup)); len(book.Counts) != 1 {
		t.Errorf("the backup has %d counts", len(book.Counts))
	}
}

// What was acknowledged survives a program that stops dead: a copy of the files as they lie, log and all, has every count.
func TestAcknowledgedSurvivesAPowerCut(t *testing.T) {
	r := planted(t)
	folder := t.TempDir()
	for i := range 10 {
		c := count
		c.ID = fmt.Sprint("late", i)
		if err := r.Apply(ctx, book.Change{Add: []book.Record{c.Record()}}); err != nil {
			t.Fatal(err)
		}
		after := filepath.Join(folder, fmt.Sprint("after", i, ".db"))
		for _, end := range []string{"", "-wal"} {
			text, err := os.ReadFile(r.path + end)
			if err != nil {
				t.Fatal(err)
			}
			if err := os.WriteFile(after+end, text, 0o600); err != nil {
				t.Fatal(err)
			}
		}
		if book := load(t, open(t, after)); len(book.Counts) != i+2 {
			t.Fatalf("after a cut %d of %d counts are there", len(book.Counts), i+2)
		}
	}
}

func TestOpenRefusesWhatIsNoDatabase(t *testing.T) {
	file := filepath.Join(t.TempDir(), "notes.txt")
	if err := os.WriteFile(file, []byte("sow zinnias on Saturday, and more of them this time, please"), 0o600); err != nil {
		t.Fatal(err)
	}
	if _, err := Open(ctx, file); err == nil {
		t.Error("a text was opened as a database")
	}
	if _, err := OpenExisting(ctx, file+".missing"); err == nil {
		t.Error("a missing file was opened")
	}
}

// A disk that runs full refuses the new record, keeps the old ones, and goes on when there is room again.
func TestFullDiskLosesNothing(t *testing.T) {
	r := planted(t)
	var pages int
	if err := r.write.Get(&pages, `PRAGMA page_count`); err != nil {
		t.Fatal(err)
	}
	if _, err := r.write.Exec(fmt.Sprintf(`PRAGMA max_page_count = %d`, pages)); err != nil {
		t.Fatal(err)
	}
	kept := 1
	var full error
	for i := 0; full == nil && i < 2000; i++ {
		c := count
		c.ID, c.Counter = fmt.Sprint("more", i), "a counter with a long name to fill the pages with"
		if full = r.Apply(ctx, book.Change{Add: []book.Record{c.Record()}}); full == nil {
			kept++
		}
	}
	if _, ok := errors.AsType[*fault.Advice](full); !ok || !strings.Contains(full.Error(), "disk is full") {
		t.Fatalf("the disk ran full: %v", full)
	}
	if book := load(t, r); len(book.Counts) != kept {
		t.Errorf("%d counts are there, %d were acknowledged", len(book.Counts), kept)
	}
	if _, err := r.write.Exec(`PRAGMA max_page_count = 1000000`); err != nil {
		t.Fatal(err)
	}
	c := count
	c.ID = "after"
	if err := r.Apply(ctx, book.Change{Add: []book.Record{c.Record()}}); err != nil {
		t.Errorf("with room again: %v", err)
	}
}

// What every earlier version has written is read: its tables, and a history that kept values by their places.
func TestEarlierVersionsAreRead(t *testing.T) {
	for version := int64(1); version < newest(); version++ {
		path := filepath.Join(t.TempDir(), "farm.db")
		db := empty(t, path)
		provider, err := migrator(db)
		if err != nil {
			t.Fatal(err)
		}
		if _, err := provider.UpTo(ctx, version); err != nil {
			t.Fatal(err)
		}
		for _, statement := range []string{
			`INSERT INTO varieties (variety, crop) VALUES ('Zinnia coral', 'zinnia-tall')`,
			`INSERT INTO plantings (planting, variety, method, started_on, plants) VALUES ('ZC1', 'Zinnia coral', 'direct', '2026-05-02', 60)`,
			`INSERT INTO events (id, planting, event, "on") VALUES ('e', 'ZC1', 'emerged', '2026-05-12')`,
			`INSERT INTO counts (id, counted_at, planting, plants_counted) VALUES ('c1', '2026-07-09', 'ZC1', 12)`,
			`INSERT INTO count_rungs (id, rung, stems) VALUES ('c1', 'half', 4)`,
			`INSERT INTO history (kind, id, content, ended, ended_at) VALUES ('plantings', 'ZC1', '[["ZC1","Zinnia coral","","direct","2026-05-02","","","","50","",""]]', 'superseded', '2026-06-01T05:00:00Z')`,
		} {
			if _, err := db.Exec(statement); err != nil {
				t.Fatalf("version %d: %s: %v", version, statement, err)
			}
		}
		if err := db.Close(); err != nil {
			t.Fatal(err)
		}
		book := load(t, open(t, path))
		c, ok := book.Count("c1")
		before, err := book.History[0].Record()
		if !ok || c.Stems[4] != 4 || len(book.Events) != 1 || err != nil || before.Field("plants") != "50" || before.Field("succession") != "" {
			t.Errorf("version %d: %d events, a count of %v, before it %v, %v", version, len(book.Events), c.Stems, before.Lines, err)
		}
	}
}

// Names, roles and hashes of passwords are nobody else's on the machine.
func TestFilesAreTheirOwnersAlone(t *testing.T) {
	folder := t.TempDir()
	path := filepath.Join(folder, "farm.db")
	if err := os.WriteFile(path, nil, 0o644); err != nil { // made by another program
		t.Fatal(err)
	}
	r := open(t, path)
	sessions, err := r.OpenSessions(ctx)
	if err != nil {
		t.Fatal(err)
	}
	defer sessions.Close()
	if err := errors.Join(r.Apply(ctx, book.Change{Add: []book.Record{variety.Record()}}), r.Backup(ctx, filepath.Join(folder, "copy.db"))); err != nil {
		t.Fatal(err)
	}
	files, _ := filepath.Glob(filepath.Join(folder, "*"))
	if len(files) < 4 {
		t.Fatalf("only %v are there", files)
	}
	for _, f := range files {
		if info, err := os.Stat(f); err != nil || info.Mode().Perm() != 0o600 {
			t.Errorf("%s has mode %o", filepath.Base(f), info.Mode().Perm())
		}
	}
	copied := open(t, filepath.Join(folder, "copy.db"))
	if book := load(t, copied); len(book.Varieties) != 1 {
		t.Error("the copy has not what the farm has")
	}
}

// What was let in by other rules than today's is read, and comes back from the history by what its values are.
func TestWhatOtherRulesLetInIsRead(t *testing.T) {
	r := planted(t)
	for _, statement := range []string{
		`INSERT INTO varieties (variety, crop, height_cm) VALUES ('new', 'zinnia-tall', 9999)`,
		`INSERT INTO plantings (planting, variety, method, started_on, plants) VALUES ('a|b', 'new', 'direct', '1890-05-02', 5000000)`,
		`INSERT INTO events (id, planting, event, "on") VALUES ('..', 'a|b', char(1), '1890-01-01')`,
	} {
		if _, err := r.write.Exec(statement); err != nil {
			t.Fatal(err)
		}
	}
	book := load(t, r)
	p, ok := book.Planting("a|b")
	v, _ := book.Variety("new")
	if !ok || p.Plants != 5_000_000 || v.HeightCM == nil || *v.HeightCM != 9999 || len(book.Events) != 1 {
		t.Errorf("the planting comes back as %+v, %+v", p, v)
	}
}
