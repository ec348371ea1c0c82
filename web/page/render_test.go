package page

import "testing"

func TestDoneTellsOnlyWhatTheFarmKnows(t *testing.T) {
	if d := ReadDone("recorded:counts:a|b:c"); d == nil || d.Words != "Count recorded." || d.ID != "a|b:c" {
		t.Errorf("done is %+v", d)
	}
	for _, text := range []string{"", "recorded", "recorded:people:x", "sold:counts:x", "<b>:counts:x"} {
		if d := ReadDone(text); d != nil {
			t.Errorf("%q: %+v", text, d)
		}
	}
}
