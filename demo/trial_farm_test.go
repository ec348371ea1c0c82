package demo

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/croptable"
	"dewcount/farm/book"
	"dewcount/standin"
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
	book    *book.Book
	rows    []standin.Row
	weather *standin.Weather
	seed    uint64
	place   book.Place
	first   day.Day // on which the field begins
	opens   day.Day // from which on forecasts are judged
	last    day.Day
	came    map[string]map[day.Day]int             // sound stems by planting and pick
	stood   map[string]map[day.Day][crop.Rungs]int // sound stems by rung on each pick's morning
	regrown map[string]map[day.Day]bool            // picks most of whose stems grew after an earlier cut
	cuts    map[string]day.Day                     // the pick by which a twentieth of the first flush was cut
}

// crewEyes are those of every trial's crew, where they are set.
var crewEyes *standin.Eyes

// grow lets a season pass from its seed.
func grow(t *testing.T, seed uint64) *season {
	t.Helper()
	random := rand.New(rand.NewPCG(seed, 77))
	s := &season{country: countries[int(seed)%len(countries)], seed: seed, came: make(map[string]map[day.Day]int),
		stood: make(map[string]map[day.Day][crop.Rungs]int), regrown: make(map[string]map[day.Day]bool)}
	newYear := day.Must("2026-01-01")
	if s.country.latitude < 0 {
		newYear = day.Must("2025-07-01")
	}
	years := random.IntN(4) // on record before
	s.weather = standin.NewWeather(s.country.Climate, seed, newYear.Add(-150-365*5))
	s.book = book.NewBook([]croptable.Entry(nil))
	b := s.book
	picking := []string{"tue fri", "mon thu", "wed sat", "fri", "mon wed fri"}[random.IntN(5)]
	for key, value := range map[string]string{"name": "A trial", "latitude": fmt.Sprint(s.country.latitude), "longitude": "7",
		"elevation_m": fmt.Sprint(s.country.elevation), "timezone": "UTC", "pick_days": picking} {
		b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
	}
	b.Beds = append(b.Beds, book.Bed{ID: "tunnel", Cover: "tunnel"}, book.Bed{ID: "field", Cover: "open"})
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
		s.rows[i].Wild, s.rows[i].Even = wild, *even
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
	if !*even { // samples of a few plants too
		who.plants = int(4 * math.Pow(6, random.Float64()))
	}
	if crewEyes != nil {
		who.eyes = *crewEyes
	}
	field := standin.NewField(seed, s.weather, s.country.latitude, s.rows, nil, s.first)
	var firsts firstTwentieths
	for d := s.first; d.Before(s.last); d = d.Add(1) {
		work := who.morning(b, field, place, d)
		work.enter(b)
		for _, c := range work.cuts {
			s.note(c, d, field.Rungs(c.Planting))
			if seen := field.Look(c.Planting, 0, who.eyes); 2*seen.Regrown > seen.Ready {
				if s.regrown[c.Planting] == nil {
					s.regrown[c.Planting] = make(map[day.Day]bool)
				}
				s.regrown[c.Planting][d] = true
			}
			if s.came[c.Planting] == nil {
				s.came[c.Planting] = make(map[day.Day]int)
			}
			s.came[c.Planting][d] += c.Stems
			firsts.note(c.Planting, d, c.Taken(), field.FirstFlush(c.Planting))
		}
		field.Step(work.taken())
	}
	s.cuts = firsts.days()
	return s
}

// note writes down what stood on the rungs of a row that was cut, as far as it was sound.
func (s *season) note(c book.Cut, d day.Day, standing [crop.Rungs]int) {
	if s.stood[c.Planting] == nil {
		s.stood[c.Planting] = make(map[day.Day][crop.Rungs]int)
	}
	sound := 0.93
	if taken := c.Taken(); taken > 0 {
		sound = float64(c.Stems) / float64(taken)
	}
	before, given := 0.0, 0
	for k, n := range standing {
		before += sound * float64(n)
		upto := int(before + 0.5)
		standing[k], given = upto-given, upto
	}
	s.stood[c.Planting][d] = standing
}

// firstTwentieths gathers what is taken of rows, for the pick by which a twentieth of a first flush is.
type firstTwentieths struct {
	taken map[string][]taking
	flush map[string]int // the whole first flush, once all of it has budded
}

type taking struct {
	on    day.Day
	stems int
}

func (f *firstTwentieths) note(planting string, on day.Day, stems, flush int) {
	if f.taken == nil {
		f.taken, f.flush = make(map[string][]taking), make(map[string]int)
	}
	f.taken[planting] = append(f.taken[planting], taking{on, stems})
	f.flush[planting] = max(f.flush[planting], flush)
}

func (f *firstTwentieths) days() map[string]day.Day {
	days := make(map[string]day.Day)
	for planting, all := range f.taken {
		gone := 0
		for _, t := range all {
			if gone += t.stems; t.stems > 0 && 20*gone >= f.flush[planting] {
				days[planting] = t.on
				break
			}
		}
	}
	return days
}

// choose writes down some varieties and returns the crop of each.
func choose(b *book.Book, random *rand.Rand) []*crop.Profile {
	table := croptable.Shipped()
	var chosen []*crop.Profile
	for n := range 6 {
		e := table[random.IntN(len(table))]
		for n == 0 && !*even && !e.Profile().OneStem() { // one-stem crops are few in the table and many in fields
			e = table[random.IntN(len(table))]
		}
		if *onlyCrop != "" {
			e = table[slices.IndexFunc(table, func(e croptable.Entry) bool { return e.ID == *onlyCrop })]
		}
		for v := range 1 + random.IntN(2) {
			name := fmt.Sprintf("%s %d", e.ID, v)
			if _, ok := b.Variety(name); ok {
				continue
			}
			b.Varieties = append(b.Varieties, book.Variety{Name: name, Crop: e.ID})
			chosen = append(chosen, b.Crop(e.ID))
		}
	}
	return chosen
}

// plant writes down a year's plantings of each variety.
func plant(b *book.Book, chosen []*crop.Profile, random *rand.Rand, newYear day.Day, spring int) {
	year, _, _ := newYear.Date()
	for v, p := range chosen {
		name := b.Varieties[v].Name
		bed := newYear.Add(spring + usualBed(p) + random.IntN(20) - 6)
		sowings := 1
		if p.Life == crop.TenderAnnual || p.Life == crop.HalfHardyAnnual || p.Life == crop.HardyAnnual || p.ID == "gladiolus" || p.Steered() {
			sowings = 1 + random.IntN(4)
		}
		for n := range sowings {
			sown := book.Planting{ID: fmt.Sprintf("%s/%d/%d", name, year, n), Variety: name, Bed: "field", Method: p.PreferredStart, StartedOn: bed, Plants: 12 + random.IntN(90)}
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
			if slices.ContainsFunc(b.Plantings, func(old book.Planting) bool { return old.Variety == name && p.Lasts(old.Method) }) {
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
