package standin

import (
	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
)

// A Field is the rows of a farm, grown up to the morning of a day. It is never kept: it is grown anew from its seed and from
// what is on record.
type Field struct {
	seed    uint64
	weather *Weather
	lengths *climate.DayLengths
	rows    []*row
	today   day.Day
}

// A Taken is stems that left a row on a day, as somebody recorded it.
type Taken struct {
	Planting string
	On       day.Day
	Stems    int // sound or not
}

// pickHour is when the field's crew has cut, in hours.
const pickHour = 8

// NewField returns the rows as they stand on the morning of a day, having been cut as on record.
func NewField(seed uint64, weather *Weather, latitude float64, rows []Row, cuts []Taken, today day.Day) *Field {
	f := &Field{seed: seed, weather: weather, lengths: climate.DayLengthsAt(latitude)}
	first := today
	for _, r := range rows {
		f.rows = append(f.rows, newRow(seed, r, f.lengths))
		if r.Started.Before(first) {
			first = r.Started
		}
	}
	takenOn := make(map[day.Day][]Taken)
	for _, c := range cuts {
		takenOn[c.On] = append(takenOn[c.On], c)
	}
	f.today = first
	f.dawn()
	for f.today.Before(today) {
		f.Step(takenOn[f.today])
	}
	return f
}

// dawn lets the rows live from midnight to the hour of the pick.
func (f *Field) dawn() {
	for _, r := range f.rows {
		r.live(f.today, f.weather.On(f.today), 0, pickHour)
	}
}

// Step lets the day pass, with these stems taken in its morning, and stops on the next morning.
func (f *Field) Step(cuts []Taken) {
	for _, c := range cuts {
		if r := f.row(c.Planting); r != nil {
			r.cut(c.Stems)
		}
	}
	for _, r := range f.rows {
		r.live(f.today, f.weather.On(f.today), pickHour, 24)
	}
	f.today = f.today.Add(1)
	f.dawn()
}

func (f *Field) row(planting string) *row {
	for _, r := range f.rows {
		if r.Planting == planting {
			return r
		}
	}
	return nil
}

// FirstFlush returns the stems of a row's first flush this season, as far as its plants have set them.
func (f *Field) FirstFlush(planting string) int { return f.row(planting).first }

// A Seen is what the crew would write down of a row this morning.
type Seen struct {
	Planting      string
	Up, InBud     bool // most plants are up; a tenth of them carry a tight bud
	Over          bool // dead, or nothing left that will flower
	PlantsCounted int
	Stems         [crop.Rungs]int
	Ready, Culled int // stems to cut, and how many of them are not sound
	Regrown       int // of those to cut, those that grew after an earlier cut
	CullReason    string
}

// Spoilt stems have one of these causes.
var causes = []string{"chewed petals", "bent neck", "rain marks", "too far open", "short"}

// Eyes are how somebody errs who counts: a stem is called a rung too low or too high, or overlooked, with these chances, and
// one too high more often than too low by the last.
type Eyes struct{ Misjudges, Misses, Leans float64 }

// UsualEyes are those of a crew that has learned to count.
var UsualEyes = Eyes{Misjudges: 0.07, Misses: 0.03}

// Look returns what the crew sees of a row this morning when it counts so many plants. The same morning shows the same.
func (f *Field) Look(planting string, plants int, eyes Eyes) Seen {
	r := f.row(planting)
	seen := Seen{Planting: planting}
	if r == nil || f.today.Before(r.Started) {
		return seen
	}
	random := stream(f.seed, "look", planting, f.today.String())
	up, inBud, coming := 0, 0, 0
	for _, p := range r.plants {
		if p.emerged {
			up++
		}
		if p.budded {
			inBud++
		} else {
			coming++
		}
	}
	seen.Up, seen.InBud = 2*up > len(r.plants), 10*inBud > len(r.plants)
	seen.PlantsCounted = min(plants, len(r.plants))
	chosen := make(map[int]bool)
	for _, i := range random.Perm(len(r.plants))[:seen.PlantsCounted] {
		chosen[i] = true
	}
	for _, s := range r.stems {
		if s.rung < int(crop.Spent) {
			coming++
		}
		if s.rung < 0 || !chosen[s.plant] || random.Float64() < eyes.Misses {
			continue
		}
		called := s.rung
		if random.Float64() < eyes.Misjudges {
			if random.Float64() < 0.5+eyes.Leans {
				called = min(crop.Rungs-1, called+1)
			} else {
				called = max(0, called-1)
			}
		}
		seen.Stems[called]++
	}
	seen.Over = !r.lasts && (r.dead || coming == 0)
	if seen.Over || r.dead {
		seen.Stems = [crop.Rungs]int{}
		return seen
	}
	ready := r.ready()
	seen.Ready = len(ready)
	for _, i := range ready {
		if r.stems[i].flush > 0 {
			seen.Regrown++
		}
	}
	for range seen.Ready {
		if random.Float64() < r.culls {
			seen.Culled++
		}
	}
	seen.CullReason = causes[random.IntN(len(causes))]
	return seen
}

// Rungs returns how many stems of a row really stand on each rung this morning.
func (f *Field) Rungs(planting string) [crop.Rungs]int {
	var stems [crop.Rungs]int
	r := f.row(planting)
	if r == nil || r.dead || f.today.Before(r.Started) {
		return stems
	}
	for _, s := range r.stems {
		if s.rung >= 0 {
			stems[min(s.rung, crop.Rungs-1)]++
		}
	}
	return stems
}
