package plan

import (
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/core/growth"
	"dewcount/croptable"
)

// profile returns a crop of the shipped table.
func profile(tb testing.TB, id string) *crop.Profile {
	tb.Helper()
	for _, e := range croptable.Shipped() {
		if e.ID == id {
			return e.Profile()
		}
	}
	tb.Fatalf("no crop %s", id)
	return nil
}

// meadow is bare ground in a general climate, on a day, with nothing on record.
func meadow(tb testing.TB, p *crop.Profile, region string, from day.Day, seed uint64) *Ground {
	tb.Helper()
	r, ok := climate.RegionNamed(region)
	if !ok {
		tb.Fatalf("no climate %s", region)
	}
	season := r.Season()
	g := &Ground{Farm: forecast.Farm{Outlook: climate.Outlook{Latitude: r.Latitude, Usual: &season, From: from}, From: from,
		Picks: day.PickDays{Weekly: must(day.ParseWeekdays("tue fri"))}, PickHour: 8, Seed: seed, BoxCd: growth.BoxCd}}
	g.Row = forecast.Planting{Variety: "bare", Sound: 0.95, Bench: climate.Extremes{TminC: p.Nursery.Night, TmaxC: p.Nursery.Day}}
	g.Row.Growth.Profile = p
	for u := range crop.Use(crop.Uses) {
		g.Row.Windows[u], g.Row.HasUse[u] = p.Window(u, "")
	}
	g.Row.Growth.Market = g.Row.Windows[crop.Market]
	return g
}

func must[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}

func startsOf(g *Ground, methods ...crop.Method) Starts {
	return Starts{Profile: g.Row.Growth.Profile, Methods: methods, Season: g.Farm.Outlook.Season(), From: g.Farm.From, Pinch: true}
}

// A plan by warmth is held against plans by the calendar that give as many stems in all, in weathers and draws that none has seen: one with
// the days between sowings that the crop table gives, and one with as many sowings as the plan has.
func TestEvenBloomBeatsFixedIntervals(t *testing.T) {
	cases := []struct{ region, crop, today, from, to string }{
		{"foothills-47n", "sunflower-single", "2027-01-10", "2027-07-05", "2027-09-19"},
		{"oceanic-north-57n", "cornflower", "2027-01-10", "2027-06-28", "2027-09-05"},
		{"mediterranean-39n", "zinnia-tall", "2027-01-10", "2027-06-07", "2027-10-17"},
		{"temperate-38s", "cosmos-single", "2027-07-10", "2027-12-13", "2028-03-26"},
	}
	better, spare, leanSpare := 0, 0.0, 0.0 // stems too many, by the week that can be had
	for _, c := range cases {
		p := profile(t, c.crop)
		now, from, to := day.Must(c.today), day.Must(c.from), day.Must(c.to)
		const after = 60 // days in which stems are cut that nobody wants
		g := meadow(t, p, c.region, now, 11)
		starts := startsOf(g, crop.Direct)
		want := WeeklyWant(from, to, 60, 0.9)
		try := g.Try(starts.Between(from, to, 7), crop.Market, to.Add(after))
		bloom := try.EvenBloom(t.Context(), want, Limits{}, nil)
		const days, each = 4, 70 // that stems are held; stems that the work of a sowing is worth
		held := try.EvenBloom(t.Context(), want, Limits{Hold: days, Each: each}, nil)
		unsure := WeeklyWant(from, to, 60, 0.7) // as a farm is planned that has cut nothing yet
		lean := try.EvenBloom(t.Context(), unsure, Limits{Hold: days, Each: each}, nil)
		outlook := g.Farm.Outlook
		frosts := climate.Frosts(climate.Series{First: now}, outlook.Members(40, 300, 5), min(0, p.FrostKillC+2), outlook.Latitude, now.Add(120))
		byTable := Calendar(p, crop.Direct, frosts.Last(0.1), day.Day{}, from, to, EveryDays(p.SowEveryDays))
		if len(bloom.Sowings) < 2 || len(byTable) < 2 {
			t.Errorf("%s in %s: no plan: %v, %v", c.crop, c.region, bloom.Sowings, byTable)
			continue
		}
		span := byTable[len(byTable)-1].Started.Sub(byTable[0].Started) + EveryDays(p.SowEveryDays)
		asMany := Calendar(p, crop.Direct, frosts.Last(0.1), day.Day{}, from, to, (span+len(bloom.Sowings)/2)/len(bloom.Sowings))
		var all []Sowing
		for _, s := range bloom.Sowings {
			all = append(all, s.Sowing)
		}
		for _, s := range held.Sowings {
			all = append(all, s.Sowing)
		}
		for _, s := range lean.Sowings {
			all = append(all, s.Sowing)
		}
		all = append(append(all, byTable...), asMany...)
		unseen := meadow(t, p, c.region, now, 12).Try(all, crop.Market, to.Add(after))
		stems := unseen.Stems(bloom.Sowings)
		judge := func(plan []Planned) Comparison {
			return Compared(unseen.Outcome(plan, want, Limits{}), func(i int) bool { return bloom.Weeks[i].Reachable }, unseen.Stems(plan))
		}
		kept := Compared(unseen.Outcome(held.Sowings, want, Limits{Hold: days}), func(i int) bool { return held.Weeks[i].Reachable }, unseen.Stems(held.Sowings))
		leaner := Compared(unseen.Outcome(lean.Sowings, unsure, Limits{Hold: days}), func(i int) bool { return lean.Weeks[i].Reachable }, unseen.Stems(lean.Sowings))
		even, fixed, usual := judge(bloom.Sowings), judge(unseen.AsManyStems(asMany, stems)), judge(unseen.AsManyStems(byTable, stems))
		weeks := 0
		for _, w := range bloom.Weeks {
			if w.Reachable {
				weeks++
			}
		}
		t.Logf("%s, %s: %d of %d weeks, %d plants, %.0f stems", c.region, c.crop, weeks, len(bloom.Weeks), bloom.Plants, stems)
		for _, o := range []struct {
			what string
			n    int
			Comparison
		}{{"by warmth", len(bloom.Sowings), even}, {"and held", len(held.Sowings), kept}, {"at 7 in 10", len(lean.Sowings), leaner}, {"fixed", len(asMany), fixed}, {"table's days", len(byTable), usual}} {
			t.Logf("  %-13s %2d sowings: %.1f weeks short, %3.0f stems short, %4.0f too many", o.what, o.n, o.WeeksShort, o.StemsShort, o.StemsWasted)
		}
		if even.StemsWasted >= fixed.StemsWasted || even.StemsShort >= fixed.StemsShort {
			t.Errorf("%s in %s: %+v by warmth, %+v by the calendar", c.crop, c.region, even, fixed)
		}
		leanWeeks := 0.0
		for _, w := range lean.Weeks {
			if w.Reachable {
				leanWeeks++
			}
		}
		spare, leanSpare = spare+even.StemsWasted/float64(weeks), leanSpare+leaner.StemsWasted/leanWeeks
		if leaner.WeeksShort > 0.3*leanWeeks || leaner.StemsWasted/leanWeeks > 0.8*even.StemsWasted/float64(weeks) {
			t.Errorf("%s in %s at 7 in 10: %.1f of %.0f weeks short, %.0f stems too many where it was %.0f", c.crop, c.region, leaner.WeeksShort, leanWeeks, leaner.StemsWasted, even.StemsWasted)
		}
		if kept.StemsWasted > even.StemsWasted {
			t.Errorf("%s in %s: %.0f stems too many where they are held, %.0f where not", c.crop, c.region, kept.StemsWasted, even.StemsWasted)
		}
		if even.WeeksShort < fixed.WeeksShort {
			better++
		}
	}
	if leanSpare > 0.7*spare {
		t.Errorf("a sure week has %.0f stems too many at 7 in 10, %.0f at 9 in 10, over all climates", leanSpare, spare)
	}
	if better < 3 {
		t.Errorf("fewer weeks short in %d climates alone", better)
	}
}
