package forecast

import (
	"math"
	"runtime"
	"sync"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/growth"
)

// A Supply is the sound stems that stand on each rung at each pick, before it is cut, in some of a forecast's samples chosen evenly. Where each is cut in the
// market's window its stems there are whole and the forecast's own; others are what is expected, with the forecast's chance.
type Supply struct {
	PickDays []day.Day
	N        int
	stems    [][][]Rungs // by planting, pick and sample; nil where a planting has none
}

// Rungs is stems by rung.
type Rungs [crop.Rungs]float32

// Of returns the stems of planting i on a pick by sample; nil where it has none.
func (s *Supply) Of(i, pick int) []Rungs {
	if s.stems[i] == nil {
		return nil
	}
	return s.stems[i][pick]
}

// Supply returns what stands at each pick in so many samples, or in all where there are fewer.
func (s *Stand) Supply(n int) *Supply {
	f := s.Forecast()
	all := s.farm.Samples()
	n = min(n, all)
	out := &Supply{PickDays: f.PickDays, N: n, stems: make([][][]Rungs, len(s.lives))}
	at := make([]int, n) // the samples, spread over members and draws
	for k := range at {
		step := all / n
		at[k] = k*step + k%step
	}
	next := make(chan int)
	var workers sync.WaitGroup
	for range runtime.GOMAXPROCS(0) {
		workers.Go(func() {
			for i := range next {
				out.stems[i] = s.rungs(i, f, at)
			}
		})
	}
	for i := range s.lives {
		if !s.LongOver(i) {
			next <- i
		}
	}
	close(next)
	workers.Wait()
	return out
}

// rungs returns the stems of planting i by pick and sample.
func (s *Stand) rungs(i int, f *Forecast, samples []int) [][]Rungs {
	p := &s.farm.Plantings[i]
	out := make([][]Rungs, len(f.PickDays))
	for j := range out {
		out[j] = make([]Rungs, len(samples))
	}
	chance := newChance(s.farm.Seed, p.ID)
	for _, r := range s.lives[i] {
		before := 0
		for before < len(f.PickDays) && !r.season.Holds(f.PickDays[before]) {
			before++
		}
		picks := f.PickDays[before:]
		if r.dead || r.later != nil || len(picks) == 0 {
			continue
		}
		var run growth.Run
		for k, at := range samples {
			m, d := s.farm.sample(at)
			lives := before + s.lastPick(i, r, m, picks)
			if lives == before {
				continue
			}
			r.known.Runs[d].CopyTo(&run, r.clocks.members[m])
			run.Forget(f.PickDays[lives-1].At(s.farm.PickHour), crop.Tight)
			for j := before; j < lives; j++ {
				run.To(f.PickDays[j].At(s.farm.PickHour))
				s.look(i, &run, &out[j][k], f, j, at, chance)
				run.Cut(p.Growth.Market, 1)
			}
		}
	}
	return out
}

// beyondSpread is how well it is known how long stems stay on rungs beyond the market's window, as the standard deviation of its logarithm: of what stands in it
// the counts and cuts tell, and of these they tell little. Fitted on fields of the stand-in, seasons 5001 to 5040.
const beyondSpread = 0.2

// longer is how much longer than usual stems stay beyond the window in a sample.
func (c *chance) longer(at int) float64 {
	const shift = 613 // so that it does not come and go with anything else
	return math.Exp(beyondSpread * c.luck[(at+shift)%chances].z)
}

// look adds what stands on each rung where a run stands.
func (s *Stand) look(i int, run *growth.Run, to *Rungs, f *Forecast, pick, at int, c *chance) {
	p := &s.farm.Plantings[i]
	standing := run.Rungs()
	market := p.Growth.Market
	inWindow := 0.0
	for k := market.From; k <= market.To; k++ {
		inWindow += standing[k]
	}
	cut := float64(f.samples[i].stems[pick][crop.Market][at])
	for k := range crop.Rung(crop.Rungs) {
		switch {
		case market.Holds(k) && inWindow > 0:
			to[k] += float32(cut * standing[k] / inWindow)
		case !market.Holds(k):
			const shift = 37 // so that what is beyond the window does not come and go with what is in it
			to[k] += float32(c.whole(p.Sound*standing[k]*c.longer(at), math.Inf(1), at, pick+shift+int(k)))
		}
	}
}
