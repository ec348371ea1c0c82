package forecast

import (
	"slices"

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
}

// milestoneDraws is how many draws share a member's look at a whole season, in turn: dates need fewer of them than stems do.
const milestoneDraws = 4

// Milestones returns the dates of planting i.
func (s *Stand) Milestones(i int) Milestones {
	var emerged, bud, first, last dates
	p := &s.farm.Plantings[i]
	picks := s.farm.Picks.Between(s.farm.From, s.farm.From.Add(Horizon-1))
	var run growth.Run
	count := 0
	for m, clock := range s.rows[i].clocks.toHorizon() {
		lives := s.lastPick(i, m, picks)
		for d := m % milestoneDraws; d < len(s.rows[i].runs); d += milestoneDraws {
			now := s.rows[i].runs[d]
			count++
			now.CopyTo(&run, clock)
			if at, ok := run.Emerged(); ok {
				emerged.add(day.On(at))
			}
			if at, ok := run.FirstBud(); ok && !s.kills(i, m, day.On(at)) {
				bud.add(day.On(at))
			}
			if !s.rows[i].dead {
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
			if at := run.LastCut(); at > 0 {
				last.add(day.On(at))
			}
		}
	}
	return Milestones{emerged.when(count), bud.when(count), first.when(count), last.when(count)}
}

func (s *Stand) drawnStems(i, draw int) float64 { return s.rows[i].runs[draw].Stems() }

// kills tells whether a frost has killed planting i before a day in member m.
func (s *Stand) kills(i, m int, d day.Day) bool {
	frost := s.rows[i].frost[m]
	return s.rows[i].dead || !frost.IsZero() && frost.Before(d)
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

// Dead tells whether a frost on record has killed planting i.
func (s *Stand) Dead(i int) bool { return s.rows[i].dead }

// A Standing is what stands on each rung of a planting where its records end: the mean over the draws, and bounds of the sum.
type Standing struct {
	Rungs                [crop.Rungs]float64
	Sure, Likely, AtBest float64
	FirstFlush           float64 // stems of the first flush that the records leave likely
	ToCome               float64 // stems that have no bud yet
}

// Standing returns what stands on planting i where its records end.
func (s *Stand) Standing(i int) Standing {
	var out Standing
	var totals []float64
	if s.rows[i].dead {
		return out
	}
	n := float64(len(s.rows[i].runs))
	for d, run := range s.rows[i].runs {
		total := 0.0
		for k, stems := range run.Rungs() {
			out.Rungs[k] += stems / n
			if crop.Rung(k) < crop.Over {
				total += stems
			}
		}
		totals = append(totals, total)
		out.ToCome += run.ToCome() / n
		out.FirstFlush += s.rows[i].course.FirstFlush() * s.drawnStems(i, d) / n
	}
	slices.Sort(totals)
	at := func(p float64) float64 { return totals[min(len(totals)-1, int(p*n))] }
	out.Sure, out.Likely, out.AtBest = at(0.1), at(0.5), at(0.9)
	return out
}
