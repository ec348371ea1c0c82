package rounds

import (
	"strings"
	"testing"

	"dewcount/core/crop"
)

// By hand: a hundred plants at 25 cm stand on 6.25 m². Sown where they grow and up on 11 May they are weeded a week later, 4 minutes a square metre and two to go there, and
// nine days after that; the row closes when its first buds show. Planted out on 12 May they are weeded a week later in 1.5 minutes a square metre.
func TestRowsAreWeededUntilTheyClose(t *testing.T) {
	sown, raised, pot, stands := flower(), flower(), flower(), flower()
	raised.Method, raised.Out, raised.IsOut = crop.Cutting, on("2026-05-12"), true
	pot.Pot = true
	stands.Method = crop.Established
	if j := jobsOf(sown, mild, "2026-05-12")[Weed]; j.Best != on("2026-05-18") || j.Minutes != 27 {
		t.Errorf("a sown row is weeded on %s in %.1f minutes", j.Best, j.Minutes)
	}
	if j := jobsOf(raised, mild, "2026-05-13")[Weed]; j.Best != on("2026-05-19") || j.Minutes != 11.375 {
		t.Errorf("what was planted out is weeded on %s in %.2f minutes", j.Best, j.Minutes)
	}
	sown.Done[Weed] = on("2026-05-18")
	if j := jobsOf(sown, mild, "2026-05-20")[Weed]; j.Best != on("2026-05-27") {
		t.Errorf("it is weeded again on %s", j.Best)
	}
	sown.Done[Weed] = on("2026-06-12")
	if j, ok := jobsOf(sown, mild, "2026-06-15")[Weed]; ok {
		t.Errorf("a closed row is weeded on %s", j.Best)
	}
	sown.Done[Weed] = on("2026-05-18")
	if j := jobsOf(sown, mild, "2026-06-10")[Weed]; j.Best != on("2026-06-10") {
		t.Errorf("what was left for weeks is weeded on %s", j.Best)
	}
	autumn := flower() // up on 11 May, and after 45 days no seedlings any more
	autumn.Dates.FirstBud = at("2026-09-20")
	for today, words := range map[string]string{"2026-06-25": "no bigger than the weeds", "2026-06-26": "stroke of the hoe"} {
		if j := jobsOf(autumn, mild, today)[Weed]; !strings.Contains(j.Reason.String(), words) || (j.Minutes == 27) != (today == "2026-06-25") {
			t.Errorf("on %s a sown row is weeded in %.1f minutes: %s", today, j.Minutes, j.Reason)
		}
	}
	for name, p := range map[string]*Planting{"a pot": pot, "what stands for years": stands} {
		if j, ok := jobsOf(p, mild, "2026-05-12")[Weed]; ok {
			t.Errorf("%s is weeded on %s", name, j.Best)
		}
	}
}
