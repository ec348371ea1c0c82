// Package plan works back from what is wanted to what is to be done: when to sow so that the bloom is even or stands on a date, how many
// plants, seeds, trays and squares that takes, and how a crop is steered by day length.
//
// A sowing that is thought of is tried as if it stood on record, in every weather and draw of a forecast that knows what the farm
// has on record of its crop. What it gives is taken as stems a plant, so that one trial serves any number of plants.
package plan

import (
	"slices"
	"strconv"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
)

// A Sowing is one way to start a crop: how, on which day, and whether its plants are pinched.
type Sowing struct {
	Method  crop.Method
	Started day.Day
	Out     day.Day // planted out on; zero where it is started in its bed
	Pinched bool
	Short   day.Day // of a steered crop: on which its short days begin; zero for the usual
}

// InBed returns the day from which the sowing takes up its bed.
func (s Sowing) InBed() day.Day {
	if s.Out.IsZero() {
		return s.Started
	}
	return s.Out
}

// A Ground is what sowings of one crop are tried on: the farm with its rows of that crop, and a row of the crop as a new one would
// be, of which Sowing and plants are filled in.
type Ground struct {
	Farm forecast.Farm
	Row  forecast.Planting

	members, draws int // 0 for trialMembers and trialDraws
}

// How finely trials are drawn: a set of traits for each sample, and more weathers than a forecast has, since a week hangs on them. Where every one of 32 sets grew in every one of
// 12 weathers, as many samples told the chance of a week two and a half times as badly.
const (
	trialMembers = 64
	trialDraws   = 384
	trialPlants  = 1000
	trialMargin  = 3 // days beyond the last pick
)

// Coarse returns the same ground with fewer draws, for what asks little of them.
func (g *Ground) Coarse() *Ground {
	coarse := *g
	coarse.members, coarse.draws = 12, 96
	return &coarse
}

// Unseen returns the same ground under other weathers and other draws: what was chosen by trying many sowings is judged by those, since it does
// a little worse there.
func (g *Ground) Unseen() *Ground {
	const other = 0x5eed
	unseen := *g
	unseen.Farm.Seed += other
	return &unseen
}

// A Trial is a sowing with what it would give: stems a plant by pick day, and within it by sample. Sample i of all trials of one Try
// is of the same weather.
type Trial struct {
	Sowing
	ByPick [][]float32
}

// A Try is what several sowings would give on the same pick days, and what the rows on record give beside them, in whole stems.
type Try struct {
	Picks   []day.Day
	Samples int
	Trials  []Trial
	Rows    [][]float32 // stems of all rows on record together, by pick day and sample
}

// Try returns what sowings would give for a use on the pick days up to a last one. Rows on record are added up where they hold the
// variety of the ground's row, or any of the crop where that has none.
func (g *Ground) Try(sowings []Sowing, use crop.Use, to day.Day) *Try {
	farm := g.Farm
	farm.To, farm.Members, farm.Draws, farm.Paired = to, trialMembers, trialDraws, true
	if g.members > 0 {
		farm.Members, farm.Draws = g.members, g.draws
	}
	farm.Reach = max(2, to.Sub(farm.From)+trialMargin)
	only := [crop.Uses]bool{}
	only[use] = true
	farm.Plantings = slices.Clone(farm.Plantings)
	for i := range farm.Plantings {
		farm.Plantings[i].HasUse = only
	}
	rows := len(farm.Plantings)
	for i, s := range sowings {
		p := g.Row
		p.ID, p.HasUse = "trial "+strconv.Itoa(i)+" "+s.Started.String(), only
		p.Growth.Method, p.Growth.Started, p.Growth.PlantedOut, p.Growth.Plants = s.Method, s.Started, s.Out, trialPlants
		p.Growth.Pinched, p.Growth.PinchedShare = day.Day{}, 0
		p.Growth.ShortDays = s.Short
		if s.Pinched {
			p.Growth.Pinched, p.Growth.PinchedShare = s.InBed(), 1
		}
		p.Counts, p.Cuts, p.Emerged, p.FirstBud, p.Ended = nil, nil, nil, nil, day.Day{}
		p.Until = farm.From.At(0)
		farm.Plantings = append(farm.Plantings, p)
	}
	f := forecast.New(&farm, nil).Forecast()
	t := &Try{Picks: f.PickDays, Samples: farm.Samples()}
	for i, s := range sowings {
		trial := Trial{Sowing: s, ByPick: make([][]float32, len(t.Picks))}
		for j := range t.Picks {
			trial.ByPick[j] = t.add(nil, f.Samples(rows+i, j, use), 1./trialPlants)
		}
		t.Trials = append(t.Trials, trial)
	}
	t.Rows = make([][]float32, len(t.Picks))
	for j := range t.Picks {
		t.Rows[j] = make([]float32, t.Samples)
		for i := range rows {
			if g.Row.Variety == "" || farm.Plantings[i].Variety == g.Row.Variety {
				t.add(t.Rows[j], f.Samples(i, j, use), 1)
			}
		}
	}
	return t
}

// add adds so much of each sample to dst, made if it is nil, and returns it. Uses that are looked at in every second sample stand for
// two.
func (t *Try) add(dst []float32, samples []int32, each float32) []float32 {
	if dst == nil {
		dst = make([]float32, t.Samples)
	}
	if len(samples) == 0 {
		return dst
	}
	for s := range dst {
		dst[s] += each * float32(samples[s*len(samples)/t.Samples])
	}
	return dst
}

// A Week is seven days from a Monday on.
type Week struct{ Monday day.Day }

// WeekOf returns the week that a day falls in.
func WeekOf(d day.Day) Week {
	return Week{d.Add(-(int(d.Weekday()) + 6) % 7)}
}

// weekly adds what stands by pick day and sample up by week from a first one on: weeks without a pick day have nothing.
func weekly(picks []day.Day, byPick [][]float32, first Week, weeks, samples int) [][]float32 {
	sums := make([][]float32, weeks)
	for w := range sums {
		sums[w] = make([]float32, samples)
	}
	for j, d := range picks {
		w := d.Sub(first.Monday) / 7
		if d.Before(first.Monday) || w >= weeks {
			continue
		}
		for s, stems := range byPick[j] {
			sums[w][s] += stems
		}
	}
	return sums
}

// Cuts returns the pick days from which and until which a sowing that was tried is usually cut, but for a twentieth of its stems at each end: the
// medians of those days over the samples that give any; zero Days where none does. The mean over samples would last longer than any row does,
// since they bloom at different times.
func (t *Try) Cuts(s Sowing) (first, last day.Day) {
	const end = 0.05
	trial := t.trialOf(s)
	if trial == nil {
		return
	}
	total, sum := make([]float64, t.Samples), make([]float64, t.Samples)
	for _, by := range trial.ByPick {
		for k, stems := range by {
			total[k] += float64(stems)
		}
	}
	var firsts, lasts []int
	for j, by := range trial.ByPick {
		for k, stems := range by {
			was := sum[k]
			sum[k] += float64(stems)
			if was < end*total[k] && sum[k] >= end*total[k] {
				firsts = append(firsts, j)
			}
			if was < (1-end)*total[k] && sum[k] >= (1-end)*total[k] {
				lasts = append(lasts, j)
			}
		}
	}
	if len(firsts) == 0 {
		return
	}
	return t.Picks[firsts[len(firsts)/2]], t.Picks[lasts[len(lasts)/2]] // they are in order
}
