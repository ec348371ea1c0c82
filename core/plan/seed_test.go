package plan

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// By hand: 80 plants, a twentieth of the seedlings dies: 84.2, so 85; a tenth more than 85 at 70 of 100 that come up: 133.6, so 134;
// two trays of 72; one packet of 150.
func TestSeedsRoundUp(t *testing.T) {
	n := SeedNeed{Plants: 80, Losses: 0.05, Germination: 0.7, Margin: 0.1}
	if n.Seedlings() != 85 || n.Seeds() != 134 || Holders(n.Seeds(), 72) != 2 || Holders(n.Seeds(), 150) != 1 {
		t.Errorf("%d seedlings, %d seeds, %d trays, %d packets", n.Seedlings(), n.Seeds(), Holders(n.Seeds(), 72), Holders(n.Seeds(), 150))
	}
	even := SeedNeed{Plants: 70, Germination: 0.7}
	if even.Seeds() != 100 || Holders(144, 72) != 2 || Holders(145, 72) != 3 || Holders(0, 72) != 0 {
		t.Errorf("even numbers are rounded up too: %d seeds", even.Seeds())
	}
}

func TestRaising(t *testing.T) {
	p := &crop.Profile{Nursery: crop.Nursery{EarliestWeeks: 5, LatestWeeks: 8, RootBound: crop.Stunts, HardenDays: 8, OffHeat: true}}
	r := RaisingOf(p, day.Must("2027-03-01"), day.Must("2027-03-09"), day.Must("2027-04-20"), day.Must("2027-04-10"))
	for _, c := range []struct {
		what      string
		got, want string
	}{
		{"off the heat", r.OffHeat.String(), "2027-03-09"}, {"pot on", r.PotOn.String(), "2027-03-30"}, // halfway of 42 days
		{"earliest", r.Earliest.String(), "2027-04-10"}, // five weeks are 5 April, frost until the 10th
		{"latest", r.Latest.String(), "2027-04-26"}, {"first day out", r.Harden[0].String(), "2027-04-12"},
	} {
		if c.got != c.want {
			t.Errorf("%s on %s, not %s", c.what, c.got, c.want)
		}
	}
	if len(r.Harden) != 8 || r.Harden[0].Hours != 2 || r.Harden[7].Hours != 12 || r.Harden[5].Night || !r.Harden[6].Night || !r.Stunts {
		t.Errorf("hardening: %+v", r.Harden)
	}
	for i := 1; i < len(r.Harden); i++ {
		if r.Harden[i].Hours < r.Harden[i-1].Hours {
			t.Errorf("fewer hours on %s than the day before", r.Harden[i])
		}
	}
	bench := Bench([]BenchTray{{r, day.Must("2027-03-09"), 3}, {Raising{Sown: day.Must("2027-03-22"), Out: day.Must("2027-04-19")}, day.Must("2027-03-29"), 2}})
	for _, c := range []struct{ week, heat, bench, harden int }{{0, 3, 0, 0}, {1, 3, 3, 0}, {3, 2, 3, 0}, {5, 0, 5, 0}, {6, 0, 2, 3}, {7, 0, 0, 3}} {
		b := bench[c.week]
		if b.Heat != c.heat || b.Bench != c.bench || b.Harden != c.harden {
			t.Errorf("week of %s: %d on heat, %d on the bench, %d outdoors; want %d, %d, %d", b.Monday, b.Heat, b.Bench, b.Harden, c.heat, c.bench, c.harden)
		}
	}
}

// A crop that buds below 13.5 hours over a ramp of one hour is kept growing by 14 hours and more, and buds fastest at 12.
func TestProgramme(t *testing.T) {
	p := &crop.Profile{Daylength: crop.Daylength{Kind: "short", CriticalH: 13.5, WidthH: 1}}
	g := ProgrammeOf(p, 46.9, day.Must("2027-03-01"), day.Must("2027-03-19"), day.Must("2027-05-10"), true)
	if g.LongH != 14 || g.ShortH != 12 || g.PinchBy != day.Must("2027-03-09") || len(g.Days) != 70 {
		t.Errorf("%+v", g)
	}
	for _, d := range g.Days {
		light := d.NaturalH + d.LampsH - d.BlackoutH
		if long := d.Before(g.ShortFrom); long && light < g.LongH || !long && (light > g.ShortH+1e-9 || d.LampsH > 0) || long && d.BlackoutH > 0 {
			t.Errorf("%s has %.1f h of light", d, light)
		}
	}
	// Published civil day length: on 1 March at 46.9 north the sun is up for about 11.0 h, civil twilight adds about an hour.
	if h := g.Days[0].NaturalH; h < 11.7 || h > 12.3 {
		t.Errorf("1 March has %.2f h of light", h)
	}
	south := ProgrammeOf(p, -46.9, day.Must("2027-09-01"), day.Must("2027-09-19"), day.Must("2027-11-10"), true)
	if south.Days[0].LampsH == 0 || south.Days[69].BlackoutH == 0 {
		t.Error("in the south September wants lamps and November blackout")
	}
}
