package web

import (
	"strings"
	"testing"

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
