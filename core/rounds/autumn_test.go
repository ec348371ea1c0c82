package rounds

import (
	"math"
	"strings"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
)

// A shoot wants 300 °Cd, which are 30.4 days at 9.9 a day: fed or deadheaded 31 days before the last cut a plant has nothing of it any more, a day earlier it has.
// What seeds itself about is cut down all the same.
func TestNothingIsDoneForStemsThatWillNotCome(t *testing.T) {
	p := flower()
	p.Profile.Yield.RegrowCd = 300
	p.Feeding, p.Done[Feed] = crop.WeeksFeed, on("2026-06-01")
	p.Standing[crop.Over], p.Cut = 5, on("2026-07-10")
	day := mild.DegreeDays(p.Profile.Response, on("2026-07-20"))
	if n := 300 / day; n <= 30 || n >= 31 {
		t.Fatalf("a shoot takes %.1f days", n)
	}
	for today, wanted := range map[string]bool{"2026-07-19": true, "2026-07-20": false} { // the last cut is on 20 August
		jobs := jobsOf(p, mild, today)
		if _, fed := jobs[Feed]; fed != wanted {
			t.Errorf("on %s it is fed: %v, want %v", today, fed, wanted)
		}
		if _, deadheaded := jobs[Deadhead]; deadheaded != wanted {
			t.Errorf("on %s it is deadheaded: %v, want %v", today, deadheaded, wanted)
		}
	}
	p.Profile.SeedsAbout = true
	if _, ok := jobsOf(p, mild, "2026-08-10")[Deadhead]; !ok {
		t.Error("what seeds itself about is left to do so")
	}
	p.Dates.LastCut = forecast.When{} // nobody knows
	if j, ok := jobsOf(p, mild, "2026-08-10")[Feed]; !ok || j.Best != on("2026-08-10") {
		t.Errorf("what has no last cut and was fed ten weeks ago is fed on %s (there: %v)", j.Best, ok)
	}
	winter := mild
	winter.every = climate.Extremes{TminC: 2, TmaxC: 14}
	if _, ok := jobsOf(p, winter, "2026-11-10")[Feed]; ok {
		t.Error("it is fed in November, for stems of March")
	}
	frosty := mild
	frosty.frostOn = on("2026-09-05")
	if j, ok := jobsOf(p, frosty, "2026-08-10")[Feed]; ok {
		t.Errorf("26 days before the frost that kills it it is fed on %s", j.Best)
	}
}

// What was sown in autumn is thinned to its final distance when it rises in spring. Where the first thinning was left out until the second is due, there is one.
func TestThinningOfAutumnSowings(t *testing.T) {
	p := flower()
	p.Profile.Overwinters = true
	p.Started, p.Out = on("2026-09-01"), on("2026-09-01")
	p.Dates = forecast.Milestones{Emerged: at("2026-09-11"), FirstBud: at("2027-05-01"), FirstCut: at("2027-05-20"), LastCut: at("2027-07-01")}
	autumn := mild
	autumn.every = climate.Extremes{TminC: 4, TmaxC: 8}
	autumn.days = make(map[string]climate.Extremes)
	for d := on("2026-09-01"); d.Before(on("2026-10-20")); d = d.Add(1) { // all of its warmth comes before the winter
		autumn.days[d.String()] = mild.every
	}
	jobs := jobsOf(p, autumn, "2026-09-12")
	if first := jobs[Thin]; first.Best.Before(on("2026-09-12")) || first.Best.After(on("2026-09-25")) {
		t.Errorf("true leaves are thinned on %s", first.Best)
	}
	if second := jobs[ThinMore]; second.Best != on("2027-02-15") {
		t.Errorf("it is thinned to its final distance on %s, want when it rises", second.Best)
	}
	p.Profile.Overwinters = false
	second := jobsOf(p, autumn, "2026-09-12")[ThinMore].Best
	for _, c := range []struct {
		today day.Day
		both  bool
	}{{second.Add(-4), true}, {second.Add(-3), false}} {
		jobs := jobsOf(p, autumn, c.today.String())
		if _, first := jobs[Thin]; first != c.both {
			t.Errorf("%d days before the second thinning the first is to be done: %v", second.Sub(c.today), first)
		}
		if _, ok := jobs[ThinMore]; !ok {
			t.Errorf("%d days before it the second thinning is no job", second.Sub(c.today))
		}
	}
}

// What is said of stems that are left is what is known of them, and nothing where nothing is.
func TestWhatIsLeftUncut(t *testing.T) {
	for _, c := range []struct {
		stems float64
		over  int
		known bool
		want  string
	}{
		{10, 4, true, "by the next pick about 4 of 10 are over"}, {10, 10, true, "about 10 stems go on opening, and are over"}, {10, 0, true, "they likely stand until the next pick"},
		{1, 0, true, "it likely stands until the next pick"}, {2, 1, true, "about 1 of 2 is over"}, {1, 1, true, "it goes on opening, and is likely over"}, {10, 0, false, "what stands right goes on opening"},
	} {
		p := flower()
		p.Picks = []Pick{{On: on("2026-07-10"), Stems: c.stems, Over: c.over, Known: c.known, Hours: 0.1}}
		if got := jobsOf(p, mild, "2026-07-08")[Cut].Cost.String(); !strings.Contains(got, c.want) {
			t.Errorf("of %.0f stems %d are over (%t): %q, want %q", c.stems, c.over, c.known, got, c.want)
		}
	}
}

// A frost takes the more the more stands in colour.
func TestFrostTakesMostWhereMostStands(t *testing.T) {
	frosty := mild
	frosty.frostOn = on("2026-07-12")
	harm := func(stems float64) float64 {
		p := flower()
		p.Standing[crop.Open] = stems
		j := jobsOf(p, frosty, "2026-07-08")[Frost]
		if !j.Lapses || !strings.Contains(j.Reason.String(), "kills it, comes in the night to Sun 12 July 90 %: cut all") {
			t.Errorf("%v stems: %+v", stems, j)
		}
		return j.Harm
	}
	if none, some, many := harm(0), harm(50), harm(400); none != 0.92 || math.Abs(some-0.96) > 1e-9 || many <= some || many > 1 {
		t.Errorf("a frost does harm of %v, %v and %v", none, some, many)
	}
}

// Before it buds nobody looks at its flowers.
func TestWhatIsLookedAt(t *testing.T) {
	for today, words := range map[string]string{"2026-05-20": "look at shoots and", "2026-07-10": "look at flowers and"} {
		if j := jobsOf(flower(), mild, today)[Scout]; !strings.HasPrefix(j.Reason.String(), words) {
			t.Errorf("on %s: %q, want %q", today, j.Reason, words)
		}
	}
	peony := flower() // in bloom; its dates are the next season's already
	peony.Dates.FirstBud, peony.Standing[crop.Open] = at("2027-04-20"), 5
	if j := jobsOf(peony, mild, "2026-06-20")[Scout]; !strings.HasPrefix(j.Reason.String(), "look at flowers") {
		t.Errorf("in bloom: %q", j.Reason)
	}
}
