package croptable

import (
	"strings"
	"testing"

	"dewcount/core/crop"
)

// What is read out of the sentences of all shipped crops, as somebody who read the table wrote it down: a sentence that is rewritten must not turn a
// feeding around unseen.
func TestCareIsReadRight(t *testing.T) {
	of := make(map[crop.Feeding][]string)
	var beetles []string
	entries := Shipped()
	for i := range entries {
		p := entries[i].Profile()
		of[p.Feeding] = append(of[p.Feeding], p.ID)
		if p.Beetles {
			beetles = append(beetles, p.ID)
		}
	}
	for feeding, want := range map[crop.Feeding]string{
		crop.WeeksFeed:  "dahlia-ball dahlia-decorative dahlia-dinnerplate dahlia-single",
		crop.SpringFeed: "chrysanthemum-garden rose-garden delphinium",
	} {
		if got := strings.Join(of[feeding], " "); got != want {
			t.Errorf("fed %d: %s, want %s", feeding, got, want)
		}
	}
	if got, want := strings.Join(beetles, " "),
		"dahlia-ball dahlia-decorative dahlia-dinnerplate dahlia-single zinnia-tall zinnia-small annual-mallow basil stock lily-oriental lily-asiatic rose-garden goldenrod coreopsis cut-branches-spring"; got != want {
		t.Errorf("beetles eat %s, want %s", got, want)
	}
}
