package demo

import (
	"flag"
	"fmt"
	"maps"
	"math"
	"math/rand/v2"
	"os"
	"slices"
	"sync"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/review"
	"dewcount/croptable"
	"dewcount/farm"
	"dewcount/standin"
)

var (
	seasons   = flag.Int("seasons", 3, "seasons of the trial")
	firstSeed = flag.Uint64("first-season", 1, "seed of the trial's first season")
	oracles   = flag.Int("oracle-every", 4, "hold every so manieth season against the oracle; 0 for none")
	onlyCrop  = flag.String("only-crop", "", "grow this crop alone")
	asTable   = flag.Bool("table", false, "print the trial's table")
)

// A country is where a trial's farm lies.
type country struct {
	name                string
	latitude, elevation float64
	standin.Climate
	spring int // day of the (northern) year on which the last frost usually is past
}

var countries = []country{
	{"valley, 47 N", 46.9, 520, standin.Valley, 130},
	{"maritime, 52 N", 52, 10, standin.Climate{
		TminC: [12]float64{1.5, 1.3, 2.8, 4.6, 8, 10.8, 12.9, 12.7, 10.4, 7.6, 4.4, 2.1},
		TmaxC: [12]float64{6.4, 7.2, 10.3, 13.9, 17.6, 20.1, 22.3, 22.1, 18.9, 14.6, 10, 7}}, 125},
	{"continental, 41 N", 41, 250, standin.Climate{
		TminC: [12]float64{-6, -4.5, 0.2, 5.7, 11, 16.2, 18.8, 17.9, 13.6, 7.4, 2.2, -3.1},
		TmaxC: [12]float64{2.8, 5, 10.7, 17.4, 23, 28, 30.2, 29.2, 25.1, 18.4, 11.2, 4.8}}, 122},
	{"mediterranean, 38 N", 38, 60, standin.Climate{
		TminC: [12]float64{6, 6.4, 8, 10, 13.4, 17.2, 19.8, 20, 17.6, 14.2, 10.1, 7.3},
		TmaxC: [12]float64{13.8, 14.6, 16.9, 19.8, 24.3, 28.8, 31.6, 31.4, 27.9, 23.2, 18.2, 14.9}}, 70},
	{"southern, 41 S", -41.3, 30, standin.Climate{
		TminC: [12]float64{13.4, 13.4, 11.9, 9.4, 7, 4.6, 3.8, 4.5, 6.2, 8, 9.9, 12},
		TmaxC: [12]float64{22.8, 22.9, 21, 18.2, 15.4, 12.8, 12.2, 13.1, 14.9, 16.8, 18.9, 21}}, 100},
	{"northern, 60 N", 60.2, 40, standin.Climate{
		TminC: [12]float64{-7.5, -8.2, -4.8, 0.3, 5.6, 10.4, 13.3, 12.2, 7.8, 3.2, -0.8, -4.9},
		TmaxC: [12]float64{-1.6, -1.8, 2.4, 8.6, 15.3, 19.4, 22.2, 20.6, 15.3, 8.9, 3.8, 0.4}}, 142},
}

// A season is one farm's year of the trial: what it wrote down, and what its field gave.
type season struct {
	country country
	book    *farm.Book
	rows    []standin.Row
	weather *standin.Weather
	seed    uint64
	place   farm.Place
	first   day.Day // on which the field begins
	opens   day.Day // from which on forecasts are judged
	last    day.Day
	came    map[string]map[day.Day]int // sound stems by planting and pick
	cuts    map[string]day.Day         // the pick by which a twentieth of the first flush was cut
}

// grow lets a season pass from its seed.
func grow(t *testing.T, seed uint64) *season {
	t.Helper()
	random := rand.New(rand.NewPCG(seed, 77))
	s := &season{country: countries[int(seed)%len(countries)], seed: seed, came: make(map[string]map[day.Day]int), cuts: make(map[string]day.Day)}
	newYear := day.Must("2026-01-01")
	if s.country.latitude < 0 {
		newYear = day.Must("2025-07-01")
	}
	years := random.IntN(4) // on record before
	s.weather = standin.NewWeather(s.country.Climate, seed, newYear.Add(-150-365*5))
	s.book = farm.NewBook([]croptable.Entry(nil))
	b := s.book
	picking := []string{"tue fri", "mon thu", "wed sat", "fri", "mon wed fri"}[random.IntN(5)]
	for key, value := range map[string]string{"name": "A trial", "latitude": fmt.Sprint(s.country.latitude), "longitude": "7",
		"elevation_m": fmt.Sprint(s.country.elevation), "timezone": "UTC", "pick_days": picking} {
		b.Settings = append(b.Settings, farm.Setting{Key: key, Value: value})
	}
	b.Beds = append(b.Beds, farm.Bed{ID: "tunnel", Cover: "tunnel"}, farm.Bed{ID: "field", Cover: "open"})
	chosen := choose(b, random)
	s.opens = newYear.Add(-150)
	if random.IntN(2) == 0 { // half of the farms have a year's records behind them
		plant(b, chosen, random, newYear.Add(-365), s.country.spring)
		years = max(years, 1)
	}
	plant(b, chosen, random, newYear, s.country.spring)
	place, err := b.Place()
	if err != nil {
		t.Fatal(err)
	}
	s.place = place
	s.rows = rows(b)
	wild := 0.6 + random.Float64()
	s.first, s.last = newYear.Add(60), newYear.Add(345)
	for i := range s.rows {
		s.rows[i].Wild = wild
		if s.rows[i].Started.Before(s.first) {
			s.first = s.rows[i].Started
		}
	}
	for d := newYear.Add(-150 - 365*years); d.Before(s.last); d = d.Add(1) {
		b.Weather = append(b.Weather, observed(s.weather, d))
		if !d.Before(newYear.Add(60)) {
			b.Weather = append(b.Weather, issued(s.weather, d)...)
		}
	}
	who := crew{name: "one", plants: 8 + random.IntN(25), every: 3 + random.IntN(6),
		eyes: standin.Eyes{Misjudges: 0.03 + 0.12*random.Float64(), Misses: 0.06 * random.Float64(), Leans: 0.3 * (random.Float64() - 0.5)}}
	field := standin.NewField(seed, s.weather, s.country.latitude, s.rows, nil, s.first)
	gone := make(map[string]int)
	for d := s.first; d.Before(s.last); d = d.Add(1) {
		work := who.morning(b, field, place, d)
		work.enter(b)
		for _, c := range work.cuts {
			if s.came[c.Planting] == nil {
				s.came[c.Planting] = make(map[day.Day]int)
			}
			s.came[c.Planting][d] += c.Stems
			if gone[c.Planting] += c.Taken(); 20*gone[c.Planting] >= field.FirstFlush(c.Planting) && s.cuts[c.Planting].IsZero() && c.Taken() > 0 {
				s.cuts[c.Planting] = d
			}
		}
		field.Step(work.taken())
	}
	return s
}

// choose writes down some varieties and returns the crop of each.
func choose(b *farm.Book, random *rand.Rand) []*crop.Profile {
	table := croptable.Shipped()
	var chosen []*crop.Profile
	for range 6 {
		e := table[random.IntN(len(table))]
		if *onlyCrop != "" {
			e = table[slices.IndexFunc(table, func(e croptable.Entry) bool { return e.ID == *onlyCrop })]
		}
		for v := range 1 + random.IntN(2) {
			name := fmt.Sprintf("%s %d", e.ID, v)
			if _, ok := b.Variety(name); ok {
				continue
			}
			b.Varieties = append(b.Varieties, farm.Variety{Name: name, Crop: e.ID})
			chosen = append(chosen, b.Crop(e.ID))
		}
	}
	return chosen
}

// plant writes down a year's plantings of each variety.
func plant(b *farm.Book, chosen []*crop.Profile, random *rand.Rand, newYear day.Day, spring int) {
	year, _, _ := newYear.Date()
	for v, p := range chosen {
		name := b.Varieties[v].Name
		bed := newYear.Add(spring + usualBed(p) + random.IntN(20) - 6)
		sowings := 1
		if p.Life == crop.TenderAnnual || p.Life == crop.HalfHardyAnnual || p.Life == crop.HardyAnnual || p.ID == "gladiolus" || p.Steered() {
			sowings = 1 + random.IntN(4)
		}
		for n := range sowings {
			sown := farm.Planting{ID: fmt.Sprintf("%s/%d/%d", name, year, n), Variety: name, Bed: "field", Method: p.PreferredStart, StartedOn: bed, Plants: 12 + random.IntN(90)}
			out := bed
			switch {
			case p.Life == crop.HardyAnnual && p.Overwinters && p.HasStart(crop.Direct) && random.IntN(3) == 0:
				sown.Method, sown.StartedOn = crop.Direct, newYear.Add(-115+random.IntN(20)) // in the autumn before
			case p.PreferredStart == crop.Tray:
				sown.StartedOn = bed.Add(-int(7 * (p.Nursery.EarliestWeeks + p.Nursery.LatestWeeks) / 2))
				sown.PlantedOutOn = bed
				if p.Life == crop.Biennial {
					sown.StartedOn, sown.PlantedOutOn = sown.StartedOn.Add(-365), bed.Add(-365)
				}
			case p.PreferredStart == crop.Established:
				sown.StartedOn = newYear.Add(-92)
				sown.Plants = 5 + random.IntN(30)
			case p.PreferredStart == crop.Bulb && p.ChillDays > 0:
				sown.StartedOn = newYear.Add(-70 + random.IntN(30))
			}
			if p.Steered() {
				sown.Bed = "tunnel"
			}
			if p.Pinch.Policy == "always" || p.Pinch.Policy == "optional" && random.IntN(3) == 0 {
				sown.PinchedOn = out.Add(18)
				if half := 0.5; random.IntN(3) == 0 {
					sown.PinchedShare = &half
				}
			}
			if slices.ContainsFunc(b.Plantings, func(old farm.Planting) bool { return old.Variety == name && p.Lasts(old.Method) }) {
				continue // it stands there already
			}
			b.Plantings = append(b.Plantings, sown)
			bed = bed.Add(14 + random.IntN(14))
		}
	}
}

// usualBed is the day, counted from the last frost, on which a crop usually goes into its bed.
func usualBed(p *crop.Profile) int {
	switch p.Life {
	case crop.TenderAnnual, crop.CuttingLife:
		return 12
	case crop.HardyAnnual, crop.BulbLife:
		return -28
	case crop.Biennial:
		return 75
	case crop.CormLife:
		if p.ID == "gladiolus" {
			return -10
		}
		return -55
	default:
		return 5
	}
}

// A verdict is the scores of forecasts by weeks ahead, and what they are held against.
type verdict struct {
	byLead, byCrop, byCountry map[string]*review.Score
	all, blind, known, floor  review.Score // with evidence and without; beside the oracle, and the oracle
	offDays                   float64
	firstCuts                 int
}

func newVerdict() *verdict {
	return &verdict{byLead: make(map[string]*review.Score), byCrop: make(map[string]*review.Score), byCountry: make(map[string]*review.Score)}
}

func note(m map[string]*review.Score, key string, r review.Row) {
	if m[key] == nil {
		m[key] = new(review.Score)
	}
	m[key].Add(r)
}

// judge holds what would have been forecast every second week against what came.
func (v *verdict) judge(t *testing.T, s *season, oracle bool, lock *sync.Mutex) {
	t.Helper()
	var lucky map[string]map[day.Day][]int
	if oracle {
		lucky = s.luck()
	}
	picks := s.book.PickDays(s.place)
	for asOf := s.opens; asOf.Before(s.last.Add(-40)); asOf = asOf.Add(14) {
		if !s.blooms(asOf) {
			continue
		}
		view := farm.Evening(asOf, s.last, asOf.Add(farm.UsualDays))
		told, err := farm.NewSnapshot(s.book, 0, view, nil)
		if err != nil {
			t.Error(err)
			return
		}
		mute := *s.book
		mute.Counts, mute.Cuts, mute.Events = nil, nil, nil
		untold, err := farm.NewSnapshot(&mute, 0, view, nil)
		if err != nil {
			t.Error(err)
			return
		}
		lock.Lock()
		for i, p := range told.Model.Plantings {
			record, _ := s.book.Planting(p.ID)
			for j, pick := range told.Forecast.PickDays {
				row := review.Row{Planting: p.ID, Crop: p.Growth.Profile.ID, AsOf: asOf, Pick: pick, Came: float64(s.came[p.ID][pick]),
					Calendar: review.Calendar(p.Growth.Profile, record.Plants, record.StartedOn, picks.Before(pick, pick.Add(-7)), pick)}
				with := func(snap *farm.Snapshot) review.Row {
					r := row
					r.Foretell(snap.Forecast.Plantings[i].ByPick[j][crop.Market])
					return r
				}
				r := with(told)
				if !r.Counts() {
					continue
				}
				v.all.Add(r)
				v.blind.Add(with(untold))
				note(v.byLead, fmt.Sprintf("%d weeks ahead", r.Lead()), r)
				note(v.byCrop, r.Crop, r)
				note(v.byCountry, s.country.name, r)
				if lucky != nil {
					v.known.Add(r)
					all := lucky[p.ID][pick]
					for k, q := range review.Quantiles {
						r.Stems[k] = float64(all[min(len(all)-1, int(q*float64(len(all))))])
					}
					v.floor.Add(r)
				}
			}
			counted := 0
			for _, c := range s.book.Counts {
				if c.Planting == p.ID && !c.CountedAt.Day().After(asOf) {
					counted++
				}
			}
			onRecord := false // a first stem or two may have been cut before a twentieth of the flush was
			for _, c := range s.book.Cuts {
				onRecord = onRecord || c.Planting == p.ID && c.Stems > 0 && !c.CutAt.Day().After(asOf)
			}
			if cut := s.cuts[p.ID]; !onRecord && counted >= 2 && cut.Sub(asOf) > 10 && cut.Sub(asOf) <= 17 {
				if likely := told.Milestones(i).FirstCut.Likely; !likely.IsZero() {
					v.offDays += math.Abs(float64(likely.Sub(cut)))
					v.firstCuts++
				}
			}
		}
		lock.Unlock()
	}
}

// blooms tells whether anything was cut in the five weeks after a day.
func (s *season) blooms(asOf day.Day) bool {
	for _, picks := range s.came {
		for d, stems := range picks {
			if stems > 0 && d.After(asOf) && d.Sub(asOf) <= farm.UsualDays {
				return true
			}
		}
	}
	return false
}

// luck is what an oracle expects who knows the weather and each row's traits, and only not its plants: the sound stems of other
// fields of the same traits, in order.
func (s *season) luck() map[string]map[day.Day][]int {
	const fields = 24
	picks := s.book.PickDays(s.place)
	out := make(map[string]map[day.Day][]int)
	for k := range fields {
		others := slices.Clone(s.rows)
		for i := range others {
			others[i].Luck = uint64(k + 1)
			if p, ok := s.book.Planting(others[i].Planting); ok {
				others[i].Ended = p.EndedOn
			}
		}
		field := standin.NewField(s.seed, s.weather, s.country.latitude, others, nil, s.first)
		for d := s.first; d.Before(s.last); d = d.Add(1) {
			var taken []standin.Taken
			if picks.Has(d) {
				for _, r := range others {
					seen := field.Look(r.Planting, 0, standin.UsualEyes)
					taken = append(taken, standin.Taken{Planting: r.Planting, On: d, Stems: seen.Ready})
					if out[r.Planting] == nil {
						out[r.Planting] = make(map[day.Day][]int)
					}
					out[r.Planting][d] = append(out[r.Planting][d], seen.Ready-seen.Culled)
				}
			}
			field.Step(taken)
		}
	}
	for _, byDay := range out {
		for _, stems := range byDay {
			slices.Sort(stems)
		}
	}
	return out
}

// TestTrial grows fields of the stand-in's own making in several countries and holds the forecasts of their farms against them.
// Three seasons keep the bounds below honest; -seasons 200 -table gives the figures of docs/model.md.
func TestTrial(t *testing.T) {
	v := newVerdict()
	var lock sync.Mutex
	var workers sync.WaitGroup
	next := make(chan uint64)
	for range 2 {
		workers.Go(func() {
			for seed := range next {
				s := grow(t, seed)
				v.judge(t, s, *oracles > 0 && int(seed)%*oracles == 0, &lock)
			}
		})
	}
	for i := range *seasons {
		next <- *firstSeed + uint64(i)
	}
	close(next)
	workers.Wait()
	if *asTable {
		v.print()
	}
	if v.all.Rows < 500 {
		t.Fatalf("only %d rows were judged", v.all.Rows)
	}
	if skill := v.all.Skill(); skill < 0.65 {
		t.Errorf("%.0f %% better than the calendar", 100*skill)
	}
	if in80 := v.all.Share(v.all.In80); in80 < 0.72 || in80 > 0.92 {
		t.Errorf("the 80 %% band holds %.0f %%", 100*in80)
	}
	if bias := v.all.Bias(); math.Abs(bias) > 0.2 {
		t.Errorf("%+.0f %% more was expected than came", 100*bias)
	}
	if v.all.WIS > 0.9*v.blind.WIS {
		t.Error("the counts did not pay")
	}
}

func (v *verdict) print() {
	out := os.Stdout
	line := func(name string, s *review.Score) {
		fmt.Fprintf(out, "%-26s %6d rows %8.0f cut  bias %+5.1f %%  in50 %2.0f %%  in80 %2.0f %%  skill %3.0f %%\n", name, s.Rows, s.Came, 100*s.Bias(), 100*s.Share(s.In50), 100*s.Share(s.In80), 100*s.Skill())
	}
	line("all", &v.all)
	line("without evidence", &v.blind)
	for _, m := range []map[string]*review.Score{v.byLead, v.byCountry, v.byCrop} {
		for _, key := range slices.Sorted(maps.Keys(m)) {
			line(key, m[key])
		}
	}
	fmt.Fprintf(out, "evidence lowers the score by %.1f %%\n", 100*(1-v.all.WIS/v.blind.WIS))
	if v.floor.WIS > 0 {
		fmt.Fprintf(out, "%.2f times the oracle's score\n", v.known.WIS/v.floor.WIS)
	}
	fmt.Fprintf(out, "first cuts two weeks ahead after two counts: %.1f days off (%d)\n", v.offDays/float64(max(1, v.firstCuts)), v.firstCuts)
}
