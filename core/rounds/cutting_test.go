package rounds

import (
	"strings"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/plan"
)

func TestCuttingsComeOutOfTheWet(t *testing.T) {
	p := flower()
	p.Method, p.Started, p.Out = crop.Cutting, on("2026-04-01"), on("2026-05-20")
	if j := jobsOf(p, mild, "2026-04-10")[Uncover]; j.Best != on("2026-04-17") || j.Latest != on("2026-04-23") {
		t.Errorf("the cover comes off on %s, until %s", j.Best, j.Latest)
	}
	p.Done[Uncover] = on("2026-04-16")
	if _, again := jobsOf(p, mild, "2026-04-17")[Uncover]; again {
		t.Error("it comes off twice")
	}
	if _, early := jobsOf(p, mild, "2026-03-20")[Uncover]; early {
		t.Error("it comes off before anything was cut")
	}
	if j := jobsOf(p, mild, "2026-03-30")[Sow]; !strings.Contains(j.Reason.String(), "rooting hormone") {
		t.Errorf("cuttings are made so: %s", j.Reason.String())
	}
}

func TestLampsAndBlackoutAreADailyJob(t *testing.T) {
	p := flower()
	p.Steered = plan.SteeredDay{Day: on("2026-05-13"), NaturalH: 15.5, BlackoutH: 3.5}
	if j, ok := jobsOf(p, mild, "2026-05-13")[Steer]; !ok || j.Latest != on("2026-05-13") || !strings.Contains(j.Reason.String(), "3.5 of the day's 15.5") {
		t.Errorf("%v: %s", ok, j.Reason.String())
	}
	p.Steered = plan.SteeredDay{Day: on("2026-05-13"), NaturalH: 15.5}
	if _, ok := jobsOf(p, mild, "2026-05-13")[Steer]; ok {
		t.Error("a day of the right length is steered")
	}
}

// A row that was pulled out three weeks before the next needs no more than mulch, one that lies bare to the winter has time for a green manure while it is
// warm, and where something comes next week nothing is to do.
func TestBareSquaresAreCovered(t *testing.T) {
	warm, cold := flatSky{every: climate.Extremes{TminC: 12, TmaxC: 24}, latitude: 47}, flatSky{every: climate.Extremes{TminC: 0, TmaxC: 6}, latitude: 47}
	for _, c := range []struct {
		next, today string
		sky         Sky
		want        string
	}{{"2026-07-21", "2026-07-01", warm, "mulch"}, {"", "2026-07-01", warm, "green manure"}, {"", "2026-07-01", cold, "mulch"}, {"2026-07-06", "2026-07-01", warm, ""}, {"", "2026-08-20", warm, ""}} {
		p := flower()
		if c.next != "" {
			p.NextHere = on(c.next)
		}
		j, ok := Fill(p, c.sky, on("2026-06-30"), on(c.today))
		if ok != (c.want != "") || ok && !strings.Contains(j.Reason.String(), c.want) {
			t.Errorf("until %q, on %s: %v %s, want %q", c.next, c.today, ok, j.Reason.String(), c.want)
		}
	}
}

func TestTallSunflowersAreTiedUp(t *testing.T) {
	p := flower()
	tall := *p.Profile
	tall.Yield.Habit, tall.Support, tall.HeightCM = crop.Single, "none", [2]float64{150, 180}
	p.Profile = &tall
	if _, ok := jobsOf(p, mild, "2026-05-20")[Net]; !ok {
		t.Error("tall single stems stand without a string")
	}
	tall.HeightCM = [2]float64{60, 80}
	if _, ok := jobsOf(p, mild, "2026-05-20")[Net]; ok {
		t.Error("low ones are tied up")
	}
}
