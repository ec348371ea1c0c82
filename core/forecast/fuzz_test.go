package forecast

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/evidence"
	"dewcount/core/growth"
	"dewcount/croptable"
)

// wildFarm is a farm out of nonsense: any crop anywhere, weather of no climate, records that cannot be.
func wildFarm(seed uint64, latitude float64) *Farm {
	random := rand.New(rand.NewPCG(seed, 3))
	today := day.Must("2026-01-01").Add(random.IntN(800))
	f := &Farm{
		Outlook: climate.Outlook{Latitude: latitude, ElevationM: random.Float64() * 5000, From: today},
		Picks:   day.PickDays{Weekly: day.Weekdays(random.IntN(128))}, PickHour: random.Float64() * 24, Ahead: random.IntN(3) == 0,
		From: today, To: today.Add(random.IntN(50)), Members: 1 + random.IntN(4), Draws: 1 + random.IntN(6), Seed: seed, BoxCd: growth.BoxCd,
	}
	for d := today.Add(-random.IntN(900)); d.Before(today); d = d.Add(1 + random.IntN(2)*random.IntN(20)) {
		low := random.Float64()*110 - 60
		f.Outlook.Observed = append(f.Outlook.Observed, climate.Dated{Day: d, Extremes: climate.Extremes{TminC: low, TmaxC: low + random.Float64()*60}})
	}
	if random.IntN(2) == 0 {
		s := climate.Regions()[random.IntN(len(climate.Regions()))].Season()
		f.Outlook.Usual = &s
	}
	table := croptable.Shipped()
	for i := range 1 + random.IntN(4) {
		p := table[random.IntN(len(table))].Profile()
		started := today.Add(40 - random.IntN(900))
		planting := Planting{ID: fmt.Sprint(i), Variety: p.ID, Sound: random.Float64(), Until: today.At(6),
			Bench: climate.Extremes{TminC: p.Nursery.Night, TmaxC: p.Nursery.Day},
			Growth: growth.Planting{Profile: p, Method: p.Starts[random.IntN(len(p.Starts))], Plants: random.IntN(3) * random.IntN(200), Started: started,
				KeepBuds: random.IntN(2) == 0}}
		if random.IntN(3) == 0 {
			planting.Growth.PlantedOut = started.Add(random.IntN(200))
		}
		if random.IntN(3) == 0 {
			planting.Growth.Pinched, planting.Growth.PinchedShare = started.Add(random.IntN(100)), random.Float64()
		}
		if random.IntN(4) == 0 {
			planting.Ended = started.Add(random.IntN(600))
		}
		if random.IntN(3) == 0 {
			planting.Emerged = append(planting.Emerged, today.Add(-random.IntN(400)))
		}
		if random.IntN(3) == 0 {
			planting.FirstBud = append(planting.FirstBud, today.Add(-random.IntN(400)))
		}
		if random.IntN(3) == 0 {
			planting.Cover = Cover{NightC: 3, DayC: 4}
		}
		if random.IntN(3) == 0 {
			planting.Cover.Laid[1] = Laid{NightC: 1.5, DayC: 4, From: today.Add(random.IntN(100) - 80)}
		}
		for u := range crop.Use(crop.Uses) {
			planting.Windows[u], planting.HasUse[u] = p.Window(u, "")
		}
		planting.Growth.Market = planting.Windows[crop.Market]
		for range random.IntN(6) {
			c := evidence.Count{At: today.At(0) - random.Float64()*700, Plants: random.IntN(60)}
			for k := range c.Stems {
				c.Stems[k] = random.IntN(1 + random.IntN(500))
			}
			c.Tried = random.IntN(50)
			c.Firm = random.IntN(c.Tried + 1)
			planting.Counts = append(planting.Counts, c)
		}
		for range random.IntN(6) {
			planting.Cuts = append(planting.Cuts, evidence.Cut{At: today.At(0) - random.Float64()*700, Taken: random.IntN(5000), Left: random.IntN(40) - 1})
		}
		f.Plantings = append(f.Plantings, planting)
	}
	return f
}

// FuzzFarm holds that no nonsense makes the core crash, or tell of stems that are no numbers, below none or out of order.
func FuzzFarm(f *testing.F) {
	for seed := range uint64(40) {
		f.Add(seed, float64(seed)*4.5-90)
	}
	f.Fuzz(func(t *testing.T, seed uint64, latitude float64) {
		if !(latitude >= -90 && latitude <= 90) {
			t.Skip("no latitude")
		}
		farm := wildFarm(seed, latitude)
		stand := New(farm, nil)
		forecast := stand.Forecast()
		cells := append([]Cells(nil), forecast.Plantings...)
		var parts []Part
		for i := range farm.Plantings {
			parts = append(parts, Part{i, float64(i%3) / 2})
			m := stand.Milestones(i)
			for _, w := range []When{m.Emerged, m.FirstBud, m.FirstCut, m.LastCut} {
				if w.Late.Before(w.Likely) || w.Likely.Before(w.Early) {
					t.Errorf("dates out of order: %v", w)
				}
			}
			for k, stems := range stand.Standing(i).Rungs {
				if math.IsNaN(stems) || stems < 0 {
					t.Errorf("rung %d: %v stems stand", k, stems)
				}
			}
		}
		cells = append(cells, forecast.Sum(parts))
		for _, c := range cells {
			for j, pick := range c.ByPick {
				for u, s := range pick {
					if mean := s.Mean(); math.IsNaN(mean) || math.IsInf(mean, 0) || mean < 0 {
						t.Fatalf("pick %d, use %d: %v stems", j, u, mean)
					}
					last := 0.0
					for _, p := range []float64{0.1, 0.25, 0.5, 0.75, 0.9} {
						if q := s.Bound(p); q < last {
							t.Fatalf("pick %d, use %d: quantile %v is %v after %v", j, u, p, q, last)
						} else {
							last = q
						}
					}
				}
			}
		}
	})
}
