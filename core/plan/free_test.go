package plan

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// A crop of 80 to 100 days that goes into its bed on 1 May: by hand.
func TestFreeFrom(t *testing.T) {
	p := &crop.Profile{Life: crop.TenderAnnual, TypicalDays: [2]int{80, 100}}
	bed, none := day.Must("2026-05-01"), day.Day{}
	for _, c := range []struct {
		method       crop.Method
		last, ended  day.Day
		want, reason string
	}{
		{crop.Direct, none, none, "2026-09-23", "no cut in sight: 145 days"},
		{crop.Direct, day.Must("2026-08-20"), none, "2026-08-27", "a week after its last cut"},
		{crop.Direct, day.Must("2026-08-20"), day.Must("2026-07-01"), "2026-07-01", "it was pulled out"},
		{crop.Established, none, none, "", "it stands for years"},
	} {
		if got := FreeFrom(p, c.method, bed, c.last, c.ended); got.String() != c.want {
			t.Errorf("%s: free from %q, want %q", c.reason, got, c.want)
		}
	}
}
