package demo

import (
	"context"
	"flag"
	"fmt"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/plans"
	"dewcount/standin"
)

var dateFields = flag.Int("date-fields", 6, "fields on which each plan for a date is grown")

// plannedFarm is a farm in a country that has three years of weather on record and nothing else, on a winter's day.
func plannedFarm(t *testing.T, c country, today day.Day) (*book.Book, *look.Snapshot) {
	t.Helper()
	b := book.NewBook(nil)
	for key, value := range map[string]string{"name": "A trial", "latitude": fmt.Sprint(c.latitude), "longitude": "7", "elevation_m": fmt.Sprint(c.elevation), "timezone": "UTC", "pick_days": "tue fri"} {
		b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
	}
	weather := standin.NewWeather(c.Climate, 4001, today.Add(-365*3))
	for d := today.Add(-365 * 3); d.Before(today); d = d.Add(1) {
		b.Weather = append(b.Weather, observed(weather, d))
	}
	s, err := look.NewSnapshot(b, 0, look.Morning(today), nil)
	if err != nil {
		t.Fatal(err)
	}
	return b, s
}

// grown returns how many sound stems a plan has on its day on a field of its own weather and traits: cut on the farm's picks until the week before, and on the plan's.
func grown(c country, p *crop.Profile, r *plans.DateResult, planned []plan.Planned, pinched float64, seed uint64) int {
	first := planned[0].Started
	var rows []standin.Row
	for i, s := range planned {
		window, _ := p.Window(r.Use, "")
		row := standin.Row{Planting: fmt.Sprint(i), Variety: "trial", Profile: p, Method: s.Method, Market: window, Plants: s.Plants, Started: s.Started, Out: s.InBed()}
		if s.Pinched {
			row.Pinched, row.PinchedShare = plan.PinchOn(p, s.Sowing), pinched
		}
		rows = append(rows, row)
		if s.Started.Before(first) {
			first = s.Started
		}
	}
	field := standin.NewField(seed, standin.NewWeather(c.Climate, seed, first.Add(-10)), c.latitude, rows, nil, first)
	weekly, _ := day.ParseWeekdays("tue fri")
	usual := day.PickDays{Weekly: weekly}
	stems := 0
	for d := first; !d.After(r.CutOn); d = d.Add(1) {
		ours := false
		for _, on := range r.Picks {
			ours = ours || on == d
		}
		var cuts []standin.Taken
		if ours || usual.Has(d) && d.Before(r.Picks[0].Add(-6)) {
			for _, row := range rows {
				seen := field.Look(row.Planting, 0, standin.Eyes{})
				cuts = append(cuts, standin.Taken{Planting: row.Planting, On: d, Stems: seen.Ready})
				if ours {
					stems += seen.Ready - seen.Culled
				}
			}
		}
		field.Step(cuts)
	}
	return stems
}

// TestPlansForADateComeTrue grows plans for a date on fields of the stand-in: -date-fields 40 -table gives the figures of docs/model.md.
func TestPlansForADateComeTrue(t *testing.T) {
	asked := []struct{ crop, on string }{{"cosmos-single", "08-14"}, {"zinnia-tall", "08-21"}, {"snapdragon", "07-31"}, {"sunflower-single", "08-07"}, {"ammi", "07-24"}, {"cornflower", "07-17"},
		{"dahlia-ball", "09-04"}, {"scabious", "08-21"}}
	places := []int{0, 1, 2}
	if !*asTable {
		asked, places = asked[:3], places[:1]
	}
	told, n, kept := 0.0, 0, 0
	for _, at := range places {
		c := countries[at]
		_, s := plannedFarm(t, c, day.Must("2026-01-10"))
		for _, a := range asked {
			p := s.Book.Crop(a.crop)
			if p == nil {
				t.Fatalf("no crop %s", a.crop)
			}
			f := map[string]string{"crop": a.crop, "stems": "40", "on": "2026-" + a.on, "chance": "85"}
			ask := plans.ReadDateAsk(s.Book, book.NewFields(func(name string) string { return f[name] }), s.View.Today)
			r, err := plans.ForDate(context.Background(), s, ask, nil)
			if err != nil {
				t.Fatal(err)
			}
			best := r.Answer.Best()
			if best == nil || best.Chance < 0.8 || best.Chance > 0.95 {
				if *asTable {
					fmt.Printf("%-20s %-20s no plan that is so sure\n", c.name, a.crop)
				}
				continue
			}
			share := 1.0
			well := 0
			for seed := range uint64(*dateFields) {
				if grown(c, p, r, best.Sowings, share, 5000+seed) >= ask.Stems {
					well++
				}
			}
			told, n, kept = told+best.Chance*float64(*dateFields), n+*dateFields, kept+well
			if *asTable {
				fmt.Printf("%-20s %-20s way %d, %4d plants, told %.2f, kept %.2f\n", c.name, a.crop, best.Way, best.Plants(), best.Chance, float64(well)/float64(*dateFields))
			}
		}
	}
	if *asTable {
		fmt.Printf("%d plans grown, told %.2f, kept %.2f\n", n, told/float64(n), float64(kept)/float64(n))
	}
	if n == 0 || float64(kept)/float64(n) < told/float64(n)-0.3 {
		t.Errorf("of %d plans told %.2f on the mean %d were kept", n, told/float64(max(1, n)), kept)
	}
}
