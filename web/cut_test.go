package web

import (
	"net/http"
	"strings"
	"testing"

	"dewcount/core/day"
	"dewcount/farm/book"
)

// Who pours a hot bath is warned where it is poured, and nobody else is.
func TestTheHotBathWarnsWhereItIsPoured(t *testing.T) {
	s := newSite(t, true)
	waters := func() string {
		_, body := s.get("/cut")
		_, section, ok := strings.Cut(body, `class="cut-waters"`)
		if !ok {
			t.Fatal("the sheet has no buckets")
		}
		section, _, _ = strings.Cut(section, "</section>")
		return section
	}
	if before := waters(); strings.Contains(before, "scalds") || !strings.Contains(before, "of warm water") {
		t.Errorf("dahlias go into warm water: %s", before)
	}
	if err := s.store.Apply(ctx, book.Change{Add: []book.Record{book.School{Crop: "dahlia-ball", Question: "condition", School: "hot"}.Record()}}); err != nil {
		t.Fatal(err)
	}
	after := waters()
	first, rest, _ := strings.Cut(after, "</li>")
	if !strings.Contains(first, "1 bucket of a hot bath, 71 to 82 °C, 6 cm deep") || !strings.Contains(first, "scalds") || strings.Contains(rest, "scalds") {
		t.Errorf("the hot bath comes first, with its caution: %s", after)
	}
}

// A frost that is told leads from the morning and the sheet to what to save first; a label's code leads to the sheet until its row is cut, and then to what
// became of its stems.
func TestAFrostIsToldAndALabelLeadsToItsStems(t *testing.T) {
	s := newSite(t, true)
	if status, body := s.get("/cut/frost"); status != http.StatusOK || !strings.Contains(body, "No frost that would kill a row threatens") {
		t.Errorf("in July: %d", status)
	}
	cold := book.WeatherDay{Date: day.Must("2026-07-11"), TminC: -5, TmaxC: 15, IssuedOn: day.Must("2026-07-08")}
	if err := s.store.Apply(ctx, book.Change{Correct: []book.Record{cold.Record()}}); err != nil {
		t.Fatal(err)
	}
	for _, path := range []string{"/", "/cut"} {
		if _, body := s.get(path); !strings.Contains(body, `href="/cut/frost"`) {
			t.Errorf("%s does not lead to what to save", path)
		}
	}
	_, body := s.get("/cut/frost")
	for _, words := range []string{"Frost in the night to Sat 11 July (as good as certain): cut about ", "on the evening of Fri 10 July.", " are waited for", " of hands that start", " done in time."} {
		if !strings.Contains(body, words) {
			t.Errorf("the page of the frost does not say %q", words)
		}
	}
	const label = "/cut/bucket?planting=DW1&on=2026-07-10"
	leads := func() string {
		answer, err := s.client.Get(s.server.URL + label)
		if err != nil {
			t.Fatal(err)
		}
		answer.Body.Close()
		return answer.Header.Get("Location")
	}
	if got := leads(); got != "/cut?pick=2026-07-10" {
		t.Errorf("before the cut the code leads to %s", got)
	}
	if err := s.store.Apply(ctx, book.Change{Add: []book.Record{book.Cut{ID: "early", CutAt: day.At(day.Must("2026-07-09"), 19, 0), Planting: "DW1", Stems: 30}.Record()}}); err != nil {
		t.Fatal(err)
	}
	s.get("/cut") // until it is in what pages know
	if got := leads(); got != "/store/move?lot=early" {
		t.Errorf("after it to %s", got)
	}
}
