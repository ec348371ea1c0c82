package demo

import (
	"context"
	"fmt"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/plans"
	"dewcount/standin"
)

// bloomed returns the sound stems that sowings give on each of some picks on a field of its own weather and traits, cut on every pick.
func bloomed(c country, p *crop.Profile, planned []plan.Planned, picks []day.Day, seed uint64) []float32 {
	window, _ := p.Window(crop.Market, "")
	first := planned[0].Started
	var rows []standin.Row
	for i, s := range planned {
		row := standin.Row{Planting: fmt.Sprint(i), Variety: "trial", Profile: p, Method: s.Method, Market: window, Plants: s.Plants, Started: s.Started, Out: s.InBed()}
		if s.Pinched {
			row.Pinched, row.PinchedShare = plan.PinchOn(p, s.Sowing), 1
		}
		rows = append(rows, row)
		if s.Started.Before(first) {
			first = s.Started
		}
	}
	field := standin.NewField(seed, standin.NewWeather(c.Climate, seed, first.Add(-10)), c.latitude, rows, nil, first)
	stems := make([]float32, len(picks))
	weekly, _ := day.ParseWeekdays("tue fri")
	usual := day.PickDays{Weekly: weekly}
	j := 0
	for d := first; !d.After(picks[len(picks)-1]); d = d.Add(1) {
		var cuts []standin.Taken
		if usual.Has(d) {
			for _, row := range rows {
				seen := field.Look(row.Planting, 0, standin.Eyes{})
				cuts = append(cuts, standin.Taken{Planting: row.Planting, On: d, Stems: seen.Ready})
				if j < len(picks) && picks[j] == d {
					stems[j] += float32(seen.Ready - seen.Culled)
				}
			}
			if j < len(picks) && picks[j] == d {
				j++
			}
		}
		field.Step(cuts)
	}
	return stems
}

// TestEvenBloomComesTrue grows plans of successions on fields of the stand-in: -date-fields 40 -table gives the figures of docs/model.md.
func TestEvenBloomComesTrue(t *testing.T) {
	asked, places := []string{"cosmos-single", "zinnia-tall", "sunflower-single", "cornflower"}, []int{0, 1, 2}
	if !*asTable {
		asked, places = asked[3:], places[:1]
	}
	told, kept, n := 0.0, 0, 0
	for _, at := range places {
		c := countries[at]
		_, s := plannedFarm(t, c, day.Must("2026-01-10"))
		for _, id := range asked {
			f := map[string]string{"crop": id, "stems": "50", "from": "2026-07-13", "until": "2026-09-06", "chance": "85"}
			ask := plans.ReadSuccessionAsk(s.Book, book.NewFields(func(name string) string { return f[name] }), s.View.Today)
			r, err := plans.Successions(context.Background(), s, ask, nil)
			if err != nil {
				t.Fatal(err)
			}
			if len(r.Bloom.Sowings) == 0 {
				continue
			}
			weekly, _ := day.ParseWeekdays("tue fri")
			first := r.Bloom.Weeks[0].Monday
			picks := day.PickDays{Weekly: weekly}.Between(first, first.Add(7*len(r.Bloom.Weeks)-1))
			said, held, weeks := 0.0, 0, 0
			for seed := range uint64(*dateFields) {
				stems := bloomed(c, s.Book.Crop(id), r.Bloom.Sowings, picks, 6000+seed)
				one := plan.OnField(picks, stems, plan.WeeklyWant(ask.From, ask.To, ask.Stems, ask.Chance), r.Hold)
				for w, o := range r.Bloom.Weeks {
					if o.Reachable {
						said, weeks = said+o.Chance, weeks+1
						if one[w] >= o.Want {
							held++
						}
					}
				}
			}
			told, kept, n = told+said, kept+held, n+weeks
			if *asTable {
				fmt.Printf("%-20s %-18s %2d sowings, %4d plants, %2d weeks held: told %.2f, kept %.2f\n", c.name, id, len(r.Bloom.Sowings), r.Bloom.Plants, weeks / *dateFields, said/float64(weeks), float64(held)/float64(weeks))
			}
		}
	}
	if *asTable {
		fmt.Printf("%d weeks, told %.2f, kept %.2f\n", n, told/float64(n), float64(kept)/float64(n))
	}
	if n == 0 || float64(kept)/float64(n) < told/float64(n)-0.25 {
		t.Errorf("of %d weeks told %.2f on the mean %d were held", n, told/float64(max(1, n)), kept)
	}
}
