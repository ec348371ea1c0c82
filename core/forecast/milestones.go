package forecast

import (
	"runtime"
	"slices"
	"sync"
	"sync/atomic"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/growth"
)

// A When is a date with bounds: as often before as after Likely, one time in ten before Early, one in ten after Late. All
// are zero where the chance that it comes is below one half.
type When struct{ Early, Likely, Late day.Day }

// Milestones are the dates of a planting's life. What is on record is not in them: the caller knows it better.
type Milestones struct {
	Emerged  When // half of the plants that come are up
	FirstBud When // a tenth of the plants carry a tight bud
	FirstCut When // the first pick day by which a twentieth of the first flush has been cut
	LastCut  When // the last pick day on which at least one stem is expected
	Season   growth.Season
}

// milestoneDraws is how many draws share a member's look at a whole season, in turn: dates need fewer of them than stems do.
const milestoneDraws = 4

// Milestones returns the dates of planting i: of what lasts, those of the season that the farm is looked at in, or of the next where
// nothing more is to come of that.
func (s *Stand) Milestones(i int) Milestones {
	var m Milestones
	for _, r := range s.lives[i] {
		ended := s.farm.Plantings[i].Ended
		if !r.season.Until.IsZero() && !r.season.Until.After(s.farm.From) || !ended.IsZero() && r.season.From.After(ended) {
			continue
		}
		var over bool
		if m, over = s.milestones(i, r); !over {
			break
		}
	}
	return m
}

// AllMilestones returns the dates of all wanted plantings, in the farm's order; they are worked out side by side.
func (s *Stand) AllMilestones(wanted func(i int) bool) []Milestones {
	all := make([]Milestones, len(s.lives))
	var workers sync.WaitGroup
	var next atomic.Int64
	for range runtime.GOMAXPROCS(0) {
		workers.Go(func() {
			for i := int(next.Add(1)) - 1; i < len(all); i = int(next.Add(1)) - 1 {
				if wanted(i) {
					all[i] = s.Milestones(i)
				}
			}
		})
	}
	workers.Wait()
	return all
}

// milestones returns the dates of a season of planting i, and whether its bloom is over. They are worked out once for a row: stands that
// share it see it from the same day.
func (s *Stand) milestones(i int, r *life) (Milestones, bool) {
	r.dated.Do(func() { r.dates, r.over = s.dates(i, r) })
	return r.dates, r.over
}

func (s *Stand) dates(i int, r *life) (m Milestones, over bool) {
	var emerged, bud, first, last dates
	p := &s.farm.Plantings[i]
	var picks []day.Day
	for _, d := range s.farm.Picks.Between(s.farm.From, s.farm.From.Add(s.farm.reach()-1)) {
		if r.season.Holds(d) {
			picks = append(picks, d)
		}
	}
	var run growth.Run
	count, done := 0, 0
	clocks, runs := r.clocks.toHorizon, r.standing().Runs
	every := milestoneDraws
	if r.later != nil { // all weathers have the same past: all draws in one of them
		clocks, every = func() []growth.Clock { return r.clocks.members[:1] }, 1
	}
	for m, clock := range clocks() {
		lives := s.lastPick(i, r, m, picks)
		for d := m % every; d < len(runs); d += every {
			count++
			runs[d].CopyTo(&run, clock)
			if at, ok := run.Emerged(); ok {
				emerged.add(day.On(at))
			}
			if at, ok := run.FirstBud(); ok && !r.kills(m, day.On(at)) {
				bud.add(day.On(at))
			}
			if !r.dead {
				for j := range lives {
					run.To(picks[j].At(s.farm.PickHour))
					run.Cut(p.Growth.Market, 1)
					if j%8 == 7 && run.Grown() && run.ToCome()+run.Standing(crop.Window{From: crop.Tight, To: p.Growth.Market.To}) < 0.5 {
						break
					}
				}
			}
			if at := run.FirstCut(); at > 0 {
				first.add(day.On(at))
			}
			at := run.LastCut()
			if at > 0 {
				last.add(day.On(at))
			}
			if at < s.farm.From.At(0) && (run.Grown() || r.dead) {
				done++
			}
		}
	}
	return Milestones{emerged.when(count), bud.when(count), first.when(count), last.when(count), r.season}, 2*done > count
}

// kills tells whether a frost has killed the row before a day in member m.
func (r *life) kills(m int, d day.Day) bool {
	return r.dead && r.died.Before(d) || len(r.frost) > 0 && !r.frost[m].IsZero() && r.frost[m].Before(d)
}

type dates []day.Day

func (d *dates) add(at day.Day) { *d = append(*d, at) }

// when returns the bounds among count members and draws.
func (d dates) when(count int) When {
	if 2*len(d) < count || len(d) == 0 {
		return When{}
	}
	slices.SortFunc(d, day.Day.Compare)
	at := func(p float64) day.Day { return d[min(len(d)-1, int(p*float64(len(d))))] }
	return When{at(0.1), at(0.5), at(0.9)}
}

// Dead tells whether a frost on record has killed what stood of planting i this season.
func (s *Stand) Dead(i int) bool {
	r := s.on(i, s.farm.From)
	return r != nil && r.dead
}

// FirstFlush returns the stems of the first flush that the records leave likely for planting i, of its last season that is known.
func (s *Stand) FirstFlush(i int) float64 {
	rows := s.lives[i]
	if len(rows) == 0 {
		return 0
	}
	r := s.on(i, s.farm.From)
	if r == nil {
		r = rows[len(rows)-1]
	}
	sum, runs := 0.0, r.standing().Runs
	for _, run := range runs {
		sum += run.FirstFlush() * run.Stems() / float64(len(runs))
	}
	return sum
}

// A Standing is what stands on each rung of a planting where its records end: the mean over the draws, and bounds of the sum.
type Standing struct {
	Rungs                [crop.Rungs]float64
	Sure, Likely, AtBest float64
	FirstFlush           float64 // stems of the first flush that the records leave likely
	ToCome               float64 // stems that have no bud yet
	Spared               float64 // share of the plants to be pinched that carried a bud by then
}

// Finished tells whether a planting has given what it will: less than one stem on the ladder, and less than one to come.
func (s Standing) Finished() bool { return s.Likely < 1 && s.ToCome < 1 }

// Standing returns what stands on planting i where its records end.
func (s *Stand) Standing(i int) Standing {
	var out Standing
	var totals []float64
	r := s.on(i, s.farm.From)
	if r == nil || r.dead {
		return out
	}
	runs := r.standing().Runs
	n := float64(len(runs))
	for _, run := range runs {
		total := 0.0
		for k, stems := range run.Rungs() {
			out.Rungs[k] += stems / n
			if crop.Rung(k) < crop.Over {
				total += stems
			}
		}
		totals = append(totals, total)
		out.ToCome += run.ToCome() / n
		out.Spared += run.Spared() / n
		out.FirstFlush += run.FirstFlush() * run.Stems() / n
	}
	slices.Sort(totals)
	at := func(p float64) float64 { return totals[min(len(totals)-1, int(p*n))] }
	out.Sure, out.Likely, out.AtBest = at(0.1), at(0.5), at(0.9)
	return out
}
