package main

import (
	"bytes"
	"context"
	"encoding/csv"
	"errors"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"dewcount/demo"
	"dewcount/farm/book"
	"dewcount/records"
)

var ctx = context.Background()

func clock() time.Time { return time.Date(2026, 11, 23, 12, 0, 0, 0, time.UTC) }

// call runs the command and returns its exit status and what it printed.
func call(args ...string) (status int, stdout, stderr string) {
	var out, fault bytes.Buffer
	status = run(ctx, args, &out, &fault, clock)
	return status, out.String(), fault.String()
}

// demoDB is a database of the demo farm, filled once for all tests.
func demoDB(t *testing.T) string {
	t.Helper()
	text, err := filled()
	if err != nil {
		t.Fatal(err)
	}
	file := filepath.Join(t.TempDir(), "demo.db")
	if err := os.WriteFile(file, text, 0o600); err != nil {
		t.Fatal(err)
	}
	return file
}

var filled = sync.OnceValues(func() ([]byte, error) {
	folder, err := os.MkdirTemp("", "dewcount-test-")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(folder)
	file := filepath.Join(folder, "demo.db")
	store, err := records.Open(ctx, file)
	if err != nil {
		return nil, err
	}
	if err := errors.Join(demo.Fill(ctx, store), store.Close()); err != nil {
		return nil, err
	}
	return os.ReadFile(file)
})

func TestWrongCallsPrintUsageAndExitWithTwo(t *testing.T) {
	for _, args := range [][]string{
		{}, {"sow"}, {"import"}, {"import", "dir"}, {"import", "--db", "x.db"}, {"import", "--db", "x.db", "a", "b"},
		{"export", "--db", "x.db"}, {"forecast", "--db", "x.db"}, {"forecast", "--db", "x.db", "--as-of", "10.7.2026"},
		{"forecast", "--db", "x.db", "--as-of", "2026-07-10", "--to", "2026-07-01"}, {"milestones", "--as-of", "2026-07-10"},
		{"backup", "--db", "x.db"}, {"serve"}, {"serve", "--db", "x.db", "more"}, {"demo", "--colour"},
	} {
		status, stdout, stderr := call(args...)
		if status != 2 || !strings.Contains(stderr, "usage") || stdout != "" {
			t.Errorf("dewcount %v: exit %d, %q, %q", args, status, stdout, stderr)
		}
	}
	if _, err := os.Stat("x.db"); err == nil {
		t.Error("a wrong call made a database")
	}
}

func TestFailuresSayOneSentenceAndExitWithOne(t *testing.T) {
	missing := filepath.Join(t.TempDir(), "missing.db")
	for _, args := range [][]string{
		{"export", "--db", missing, t.TempDir()}, {"forecast", "--db", missing, "--as-of", "2026-07-10"}, {"backup", "--db", missing, "copy"},
		{"import", "--db", missing, filepath.Join(t.TempDir(), "nowhere")}, {"serve", "--db", missing, "--addr", "0.0.0.0:0"},
		{"demo", "--addr", "192.0.2.1:80"}, {"demo", "--addr", "8080"}, {"forecast", "--db", missing, "--as-of", "2026-07-10", "--to", "2029-07-10"},
	} {
		status, _, stderr := call(args...)
		if status != 1 || strings.Count(stderr, "\n") != 1 || stderr == "\n" {
			t.Errorf("dewcount %v: exit %d, %q", args, status, stderr)
		}
	}
	if _, err := os.Stat(missing); err == nil {
		t.Error("a failure made a database")
	}
}

func TestNotebookRoundTripIsByteForByte(t *testing.T) {
	first, second := filepath.Join(t.TempDir(), "one"), filepath.Join(t.TempDir(), "two")
	copied := filepath.Join(t.TempDir(), "copy.db")
	for _, args := range [][]string{{"export", "--db", demoDB(t), first}, {"import", "--db", copied, first}, {"export", "--db", copied, second},
		{"import", "--db", copied, first}} { // a second time: nothing is doubled
		if status, _, stderr := call(args...); status != 0 {
			t.Fatalf("dewcount %v: exit %d, %s", args, status, stderr)
		}
	}
	entries, err := os.ReadDir(first)
	if err != nil || len(entries) != 29 {
		t.Fatalf("%d files were exported: %v", len(entries), err)
	}
	for _, e := range entries {
		a, _ := os.ReadFile(filepath.Join(first, e.Name()))
		b, err := os.ReadFile(filepath.Join(second, e.Name()))
		if err != nil || !bytes.Equal(a, b) || len(a) == 0 {
			t.Errorf("%s is not the same: %v", e.Name(), err)
		}
	}
	if status, _, stderr := call("export", "--db", copied, first); status != 1 {
		t.Errorf("an export into a full folder: exit %d, %s", status, stderr)
	}
}

func TestFailedImportLeavesTheDatabaseAsItWas(t *testing.T) {
	folder := t.TempDir()
	if err := os.WriteFile(filepath.Join(folder, "plantings.csv"), []byte("planting,variety,method,started_on,plants\nX,None,direct,2026-05-01,5\n"), 0o600); err != nil {
		t.Fatal(err)
	}
	fresh := filepath.Join(t.TempDir(), "fresh.db")
	if status, _, stderr := call("import", "--db", fresh, folder); status != 1 || !strings.Contains(stderr, "farm.csv:1:1: ") {
		t.Errorf("exit %d, %s", status, stderr)
	}
	left, _ := filepath.Glob(fresh + "*")
	if len(left) != 0 {
		t.Errorf("a failed import left %v", left)
	}
	db := demoDB(t)
	if status, _, stderr := call("import", "--db", db, folder); status != 1 || !strings.Contains(stderr, "plantings.csv:2:3: ") {
		t.Errorf("exit %d, %s", status, stderr)
	}
	store, err := records.Open(ctx, db)
	if err != nil {
		t.Fatal(err)
	}
	defer store.Close()
	if revision, _ := store.Revision(ctx); revision != 1 {
		t.Errorf("a failed import raised the revision to %d", revision)
	}
}

func table(t *testing.T, text string) [][]string {
	t.Helper()
	rows, err := csv.NewReader(strings.NewReader(text)).ReadAll()
	if err != nil {
		t.Fatal(err)
	}
	return rows
}

func TestForecastCSV(t *testing.T) {
	status, stdout, stderr := call("forecast", "--db", demoDB(t), "--as-of", "2026-07-08", "--to", "2026-07-31")
	if status != 0 {
		t.Fatalf("exit %d, %s", status, stderr)
	}
	rows := table(t, stdout)
	if got := strings.Join(rows[0], ","); got != "planting,crop,variety,pick_day,use,p10,p25,p50,p75,p90,mean" {
		t.Errorf("header is %s", got)
	}
	days := make(map[string]bool)
	sum, total := 0.0, 0.0
	crops := false
	for _, row := range rows[1:] {
		days[row[3]] = true
		last := 0.0
		for _, cell := range row[5:10] {
			n, err := strconv.ParseFloat(cell, 64)
			if err != nil || n < last {
				t.Fatalf("quantiles fall or are none in %v", row)
			}
			last = n
		}
		if crops && row[0] != "" {
			t.Fatalf("a planting's row after the crops': %v", row)
		}
		crops = crops || row[0] == ""
		if mean, _ := strconv.ParseFloat(row[10], 64); row[1] == "zinnia-tall" && row[4] == "market" {
			if row[0] == "" {
				total += mean
			} else {
				sum += mean
			}
		}
	}
	want := []string{"2026-07-10", "2026-07-14", "2026-07-17", "2026-07-21", "2026-07-24", "2026-07-28", "2026-07-31"}
	for _, d := range want {
		if !days[d] {
			t.Errorf("pick day %s is missing", d)
		}
	}
	if len(days) != len(want) || !crops || total < 50 || total < sum*0.99 || total > sum*1.01 {
		t.Errorf("%d days; the zinnias' rows add up to %.1f, the crop's rows say %.1f", len(days), sum, total)
	}
}

func TestMilestonesCSV(t *testing.T) {
	status, stdout, stderr := call("milestones", "--db", demoDB(t), "--as-of", "2026-07-08")
	if status != 0 {
		t.Fatalf("exit %d, %s", status, stderr)
	}
	rows := table(t, stdout)
	if got := strings.Join(rows[0], ","); got != "planting,crop,variety,milestone,p10,p50,p90" {
		t.Errorf("header is %s", got)
	}
	dates := make(map[string][]string)
	for _, row := range rows[1:] {
		dates[row[0]+" "+row[3]] = row[4:]
		if !slices.IsSorted(row[4:]) && row[4] != "" {
			t.Errorf("dates fall in %v", row)
		}
	}
	if d := dates["CO1 first_cut"]; len(d) != 3 || d[0] != d[2] || d[0] >= "2026-07-08" {
		t.Errorf("the first cut on record is %v", d)
	}
	if d := dates["SU6 first_cut"]; len(d) != 3 || d[0] <= "2026-07-10" || d[0] >= d[2] {
		t.Errorf("the first cut of a June sowing is %v", d)
	}
}

// The demo starts on an address of its own, answers, and stops when it is told to.
func TestDemoServes(t *testing.T) {
	serving, stop := context.WithCancel(ctx)
	reader, writer := io.Pipe()
	done := make(chan int, 1)
	go func() {
		done <- run(serving, []string{"demo", "--addr", "127.0.0.1:0"}, writer, io.Discard, clock)
	}()
	line := make([]byte, 200)
	n, err := reader.Read(line)
	if err != nil {
		t.Fatal(err)
	}
	words := strings.Fields(string(line[:n]))
	address := words[slices.IndexFunc(words, func(w string) bool { return strings.HasPrefix(w, "http://") })]
	answer, err := http.Get(address)
	if err != nil {
		t.Fatal(err)
	}
	body, _ := io.ReadAll(answer.Body)
	answer.Body.Close()
	if answer.StatusCode != http.StatusOK || !strings.Contains(string(body), demo.FirstDay.Midnight().Format("Monday 2 January 2006")) {
		t.Errorf("%s answered %d", address, answer.StatusCode)
	}
	stop()
	if status := <-done; status != 0 {
		t.Errorf("stopped with %d", status)
	}
}

func TestBackup(t *testing.T) {
	db, to := demoDB(t), filepath.Join(t.TempDir(), "copy.db")
	if status, _, stderr := call("backup", "--db", db, to); status != 0 {
		t.Fatalf("exit %d, %s", status, stderr)
	}
	if status, _, _ := call("backup", "--db", db, to); status != 1 {
		t.Error("a backup was written over another")
	}
	if status, _, stderr := call("milestones", "--db", to, "--as-of", "2026-05-01"); status != 0 {
		t.Errorf("the copy: exit %d, %s", status, stderr)
	}
}

// Every order is told once for each of its days and lines, with quantiles that do not fall, and all of it no surer than any line.
func TestPromiseCSV(t *testing.T) {
	status, stdout, stderr := call("promise", "--db", demoDB(t), "--as-of", "2026-07-09", "--to", "2026-07-24")
	if status != 0 {
		t.Fatalf("exit %d, %s", status, stderr)
	}
	rows := table(t, stdout)
	if got := strings.Join(rows[0], ","); got != "order,due_on,line,what,wanted,p10,p25,p50,p75,p90,chance,whole" {
		t.Errorf("header is %s", got)
	}
	seen := make(map[string]bool)
	number := func(s string) float64 {
		n, err := strconv.ParseFloat(s, 64)
		if err != nil {
			t.Errorf("%q is no number", s)
		}
		return n
	}
	for _, row := range rows[1:] {
		key := strings.Join(row[:3], "|")
		if seen[key] {
			t.Errorf("%s is told twice", key)
		}
		seen[key] = true
		last := 0.0
		for _, cell := range row[5:10] {
			if n := number(cell); n < last || n > number(row[4]) {
				t.Errorf("quantiles fall, or are more than was wanted: %v", row)
			} else {
				last = n
			}
		}
		if number(row[11]) > number(row[10]) || row[1] <= "2026-07-09" || row[1] > "2026-07-24" {
			t.Errorf("all of it is surer than a line, or it is not due then: %v", row)
		}
	}
	for _, key := range []string{"Fallow Steps market|2026-07-11|1", "Fallow Steps market|2026-07-18|9.focal", "Wedding at the mill|2026-07-18|5.spike", "Square florist bucket|2026-07-10|2"} {
		if !seen[key] {
			t.Errorf("%s is missing", key)
		}
	}
}

// The past forecasts of the demo's spring are better than the calendar, and every row of the CSV is one that came true or not.
// fewRows is a database of the demo's place, weather, and some of its rows with all that is on record of them: looking back on all would take a minute.
func fewRows(t *testing.T, rows ...string) string {
	t.Helper()
	all, err := load(ctx, demoDB(t))
	if err != nil {
		t.Fatal(err)
	}
	var few book.Change
	few.Stamp = "2026-07-09T04:00:00Z"
	for _, k := range []*book.Kind{book.Settings, book.Weather, book.Beds, book.Trays, book.Varieties, book.Plantings, book.Events, book.Counts, book.Cuts} {
		for _, r := range all.Records(k) {
			of := func(row string) bool { return strings.HasPrefix(r.Field("planting"), row) }
			if !slices.Contains(k.Columns, "planting") || slices.ContainsFunc(rows, of) {
				few.Add = append(few.Add, r)
			}
		}
	}
	file := filepath.Join(t.TempDir(), "few.db")
	store, err := records.Open(ctx, file)
	if err != nil {
		t.Fatal(err)
	}
	if err := errors.Join(store.Apply(ctx, few), store.Close()); err != nil {
		t.Fatal(err)
	}
	return file
}

func TestBacktest(t *testing.T) {
	db := fewRows(t, "CO")
	status, stdout, stderr := call("backtest", "--db", db)
	if status != 0 {
		t.Fatalf("exit %d, %s", status, stderr)
	}
	for _, want := range []string{"all", "1 weeks ahead", "5 weeks ahead", "cornflower", "better than the calendar", "about two weeks before it"} {
		if !strings.Contains(stdout, want) {
			t.Errorf("the table lacks %q:\n%s", want, stdout)
		}
	}
	all := strings.Fields(strings.SplitN(stdout, "\n", 3)[1])
	skill, err := strconv.Atoi(all[len(all)-2])
	if err != nil || skill < 40 {
		t.Errorf("better than the calendar by %v %%: %v", skill, err)
	}
	status, stdout, stderr = call("backtest", "--db", db, "--csv")
	if status != 0 {
		t.Fatalf("exit %d, %s", status, stderr)
	}
	rows := table(t, stdout)
	if len(rows) < 20 || len(rows[0]) != 13 || strconv.Itoa(len(rows)-1) != all[1] {
		t.Fatalf("%d rows of %d columns, of %s picks", len(rows), len(rows[0]), all[1])
	}
	for _, row := range rows[1:] {
		if row[2] >= row[3] {
			t.Fatalf("a forecast of %s for %s", row[2], row[3])
		}
	}
	if status, _, _ := call("backtest"); status != 2 {
		t.Errorf("a wrong call: exit %d", status)
	}
}
