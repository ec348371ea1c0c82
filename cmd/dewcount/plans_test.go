package main

import (
	"strings"
	"testing"
)

// Plans are printed as they are read elsewhere; what cannot be asked is one sentence.
func TestPlansCSV(t *testing.T) {
	db := demoDB(t)
	status, stdout, stderr := call("for-date", "--db", db, "--as-of", "2026-07-09", "--crop", "cosmos-single", "--on", "2026-09-24", "--stems", "900")
	if status != 0 {
		t.Fatalf("exit %d, %s", status, stderr)
	}
	rows := table(t, stdout)
	if got := strings.Join(rows[0], ","); got != "way,batch,start_on,method,planted_out_on,pinched_on,pinched_share,plants,chance,p10,p50,p90" || len(rows) < 3 || rows[1][0] != "0" || rows[2][0] != "1" || rows[2][2] < "2026-07-10" {
		t.Errorf("the ways are %v", rows)
	}
	status, stdout, stderr = call("even-bloom", "--db", db, "--as-of", "2026-07-09", "--crop", "cosmos-single", "--from", "2027-07-05", "--to", "2027-08-15", "--stems", "60", "--chance", "0.8")
	if status != 0 {
		t.Fatalf("exit %d, %s", status, stderr)
	}
	sowings, weeks, ok := strings.Cut(stdout, "\n\n")
	if !ok || !strings.HasPrefix(sowings, "plan,sowing,start_on,method,planted_out_on,plants\n1,1,2027-") || !strings.HasPrefix(weeks, "plan,week_from,wanted,p10,p50,p90,chance,held\n1,2027-07-05,60,") {
		t.Errorf("the plans are %s", stdout)
	}
	for _, args := range [][]string{{"for-date", "--crop", "unicorn", "--on", "2026-10-01", "--stems", "40"}, {"even-bloom", "--crop", "cosmos-single", "--from", "2027-08-05", "--to", "2027-07-15", "--stems", "60"}} {
		args = append(args, "--db", db, "--as-of", "2026-07-09")
		if status, _, stderr := call(args...); status != 1 || strings.Count(strings.TrimSpace(stderr), "\n") != 0 {
			t.Errorf("%v: exit %d, %q", args, status, stderr)
		}
	}
	for crop, says := range map[string]string{"peony": "no sowing of Peony", "snapdragon": "own rows give enough"} { // nothing can, or has to be started: no way but own rows
		status, stdout, stderr := call("for-date", "--db", db, "--as-of", "2026-07-09", "--crop", crop, "--on", "2026-10-01", "--stems", "40")
		if status != 0 || !strings.HasPrefix(stderr, says) || strings.Contains(stdout, "\n1,") {
			t.Errorf("%s for October: exit %d, %q, %s", crop, status, stderr, stdout)
		}
	}
	for _, args := range [][]string{{"for-date", "--db", db, "--as-of", "2026-07-09", "--crop", "snapdragon", "--stems", "40"}, {"even-bloom", "--db", db, "--as-of", "2026-07-09", "--crop", "snapdragon", "--to", "2027-07-15", "--stems", "4"}} {
		if status, _, _ := call(args...); status != 2 {
			t.Errorf("%v: exit %d, want 2", args, status)
		}
	}
}
