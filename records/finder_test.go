package records_test

import (
	"context"
	"fmt"
	"path/filepath"
	"testing"

	"dewcount/core/day"
	"dewcount/farm/find"
	"dewcount/records"
)

func open(tb testing.TB) *records.Records {
	tb.Helper()
	r, err := records.Open(context.Background(), filepath.Join(tb.TempDir(), "farm.db"))
	if err != nil {
		tb.Fatal(err)
	}
	tb.Cleanup(func() { r.Close() })
	return r
}

// What is put into the index is found by the beginnings of its words, with or without accents, of its days alone, and no longer once it is gone.
func TestTheIndexFindsWhatIsThere(t *testing.T) {
	ctx, r := context.Background(), open(t)
	docs := []find.Doc{{Kind: "note", ID: "1", On: "2025-08-03", Title: "DW1 Dahlia white, ball and pompon", Words: "Backs soft after the heat; cut at half"},
		{Kind: "note", ID: "2", On: "2024-08-03", Title: "DW1 Dahlia white", Words: "Süße Wicken daneben"}, {Kind: "planting", ID: "DW1", On: "2025-05-01", Title: "DW1 Dahlia white", Words: "focal"},
		{Kind: "crop", ID: "dahlia-ball", Title: "Dahlia, ball and pompon", Words: "Dahlia × pinnata"}}
	if err := r.Index(ctx, 7, docs); err != nil {
		t.Fatal(err)
	}
	if at, err := r.Indexed(ctx); err != nil || at != 7 {
		t.Errorf("the index is of %d, %v", at, err)
	}
	ids := func(question string) string {
		t.Helper()
		found, err := r.Search(ctx, find.Ask(question, day.Must("2026-07-09")), 10)
		if err != nil {
			t.Fatalf("%q: %v", question, err)
		}
		all := ""
		for _, d := range found {
			all += d.Kind + d.ID + " "
		}
		return all
	}
	for question, want := range map[string]string{"white dahlia last August": "note1 ", "white dahlias": "note1 note2 plantingDW1 ", "susse wick": "", "suße wicke": "note2 ", "SÜSSE": "", "half backs": "note1 ", "tulip": "", "in August 2024": "note2 ", "dahl": "note1 note2 plantingDW1 cropdahlia-ball "} {
		if got := ids(question); got != want {
			t.Errorf("%q finds %q, want %q", question, got, want)
		}
	}
	if err := r.Index(ctx, 8, docs[1:]); err != nil {
		t.Fatal(err)
	}
	if got := ids("backs soft"); got != "" {
		t.Errorf("what is gone is found: %s", got)
	}
	if got := ids("wicken"); got != "note2 " {
		t.Errorf("what stayed is found as %q", got)
	}
}

// tenYears are as many documents as a farm of sixty plantings a year makes in ten, with a note a day.
func tenYears() []find.Doc {
	var docs []find.Doc
	for i := range 3650 {
		on := day.Must("2016-01-01").Add(i)
		docs = append(docs, find.Doc{Kind: "note", ID: fmt.Sprint(i), On: on.String(), Title: fmt.Sprintf("P%d Zinnia coral, tall double", i%600), Words: fmt.Sprintf("Looked at it on day %d: mildew low down, %d stems culled, backs firm, wind from the west", i, i%40)})
	}
	for i := range 600 {
		docs = append(docs, find.Doc{Kind: "planting", ID: fmt.Sprintf("P%d", i), On: day.Must("2016-03-01").Add(6 * i).String(), Title: fmt.Sprintf("P%d Zinnia coral", i), Words: "in B1; direct; coral, focal, Zinnia, tall double, Zinnia elegans"})
	}
	for i := range 2000 {
		docs = append(docs, find.Doc{Kind: "order", ID: fmt.Sprintf("Order %d", i), On: day.Must("2016-03-01").Add(i).String(), Title: fmt.Sprintf("Order %d", i), Words: "market; white zinnia, dahlia, filler"})
	}
	return docs
}

func BenchmarkSearchTenYears(b *testing.B) {
	ctx, r := context.Background(), open(b)
	if err := r.Index(ctx, 1, tenYears()); err != nil {
		b.Fatal(err)
	}
	q := find.Ask("mildew on the coral zinnias in August 2020", day.Must("2026-07-09"))
	for b.Loop() {
		if found, err := r.Search(ctx, q, 60); err != nil || len(found) == 0 {
			b.Fatal(len(found), err)
		}
	}
}

func BenchmarkIndexOneChangeInTenYears(b *testing.B) {
	ctx, r := context.Background(), open(b)
	docs := tenYears()
	if err := r.Index(ctx, 1, docs); err != nil {
		b.Fatal(err)
	}
	n := 0
	for b.Loop() {
		n++
		docs[0].Words = fmt.Sprint("changed ", n)
		if err := r.Index(ctx, int64(n), docs); err != nil {
			b.Fatal(err)
		}
	}
}
