package forecast

import (
	"fmt"
	"hash/fnv"
	"math/rand/v2"
	"runtime"
	"slices"
	"sync"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/growth"

	"gonum.org/v1/gonum/stat/distuv"
)

// A Forecast is the stems that can be cut on each pick day.
type Forecast struct {
	PickDays  []day.Day
	Plantings []Cells          // in the farm's order
	Crops     map[string]Cells // sums over the plantings of a crop, by its id
	Varieties map[string]Cells // and of a variety

	seed    uint64
	draws   int
	ids     []string
	samples []*samples // by planting
}

// Cells are the stems of one planting, crop or variety by pick day and use.
type Cells struct{ ByPick [][crop.Uses]Spread }

// Forecast returns the stems that will stand in the cut window of each use on each pick day, where on every pick day before it
// all that stood in the window of the market was cut. A use whose window begins beyond the market's has earlier picks of its
// own instead. It is worked out once.
func (s *Stand) Forecast() *Forecast {
	if s.made != nil {
		return s.made
	}
	f := &Forecast{
		PickDays: s.farm.Picks.Between(s.farm.From, s.farm.To),
		Crops:    make(map[string]Cells), Varieties: make(map[string]Cells),
		seed: s.farm.Seed, draws: s.farm.Draws,
	}
	same := s.farm.sameCrops(s.before)
	f.Plantings = make([]Cells, len(s.lives))
	f.samples = make([]*samples, len(s.lives))

	// Plantings know nothing of each other from here on, so they are moved side by side; their sums are taken in order.
	next := make(chan int)
	var workers sync.WaitGroup
	for range runtime.GOMAXPROCS(0) {
		workers.Go(func() {
			for i := range next {
				f.samples[i] = s.ahead(i, f.PickDays)
				f.Plantings[i] = f.samples[i].cells()
			}
		})
	}
	crops, varieties := make(map[string][]Part), make(map[string][]Part)
	for i, p := range s.farm.Plantings {
		f.ids = append(f.ids, p.ID)
		id := p.Growth.Profile.ID
		if same[id] {
			was := s.before.made
			at := s.before.index(p.ID)
			f.Plantings[i], f.samples[i] = was.Plantings[at], was.samples[at]
			f.Varieties[p.Variety], f.Crops[id] = was.Varieties[p.Variety], was.Crops[id]
			continue
		}
		crops[id] = append(crops[id], Part{i, 1})
		varieties[p.Variety] = append(varieties[p.Variety], Part{i, 1})
		if s.before != nil && s.before.made != nil {
			if at := s.before.index(p.ID); at >= 0 && slices.Equal(s.lives[i], s.before.lives[at]) && len(s.lives[i]) > 0 {
				f.Plantings[i], f.samples[i] = s.before.made.Plantings[at], s.before.made.samples[at]
				continue
			}
		}
		next <- i
	}
	close(next)
	workers.Wait()
	for id, parts := range crops {
		f.Crops[id] = f.Sum(parts)
	}
	for name, parts := range varieties {
		f.Varieties[name] = f.Sum(parts)
	}
	s.made, s.before = f, nil
	return f
}

// Samples returns the stems of a planting, by its place in the farm, that can be cut on a pick day for a use: one number for each member
// and draw, or for every second of them where the use is only looked at. Sample i of all plantings is of the same weather. It is nil
// where the planting has no such use.
func (f *Forecast) Samples(planting, pick int, u crop.Use) []int32 {
	return f.samples[planting].stems[pick][u]
}

// Shares tells whether planting i has the same stems as planting j of another forecast, because nothing that they rest on has changed.
func (f *Forecast) Shares(i int, other *Forecast, j int) bool {
	return f.samples[i] == other.samples[j]
}

// A Part is a planting, by its place in the farm, and the share of its stems that is meant, 0 to 1.
type Part struct {
	Planting int
	Share    float64
}

// PartsKey returns what tells parts from others.
func PartsKey(parts []Part) string { return fmt.Sprint(parts) }

// mixPlants is how sure the share of a colour in a mix is: as if so many plants of it had been looked at.
const mixPlants = 9

// Sum returns the stems of several plantings together: added up within each weather and draw, since those move all of them
// together, and only then turned into bounds. Of a share below one nobody knows how large it will really be, so that it differs
// from draw to draw.
func (f *Forecast) Sum(parts []Part) Cells {
	sum := newSamples(len(f.PickDays))
	for _, part := range parts {
		if part.Share <= 0 {
			continue
		}
		more := f.samples[part.Planting]
		var share []float64
		if part.Share < 1 {
			share = f.shares(part)
		}
		for j := range more.stems {
			for u, stems := range more.stems[j] {
				if stems == nil {
					continue
				}
				sum.mean[j][u] += more.mean[j][u] * part.Share
				to := sum.stems[j][u]
				if len(to) < len(stems) { // one crop looks at half of the samples for this use, another at all
					wider := make([]int32, len(stems))
					for k := range wider {
						if len(to) > 0 {
							wider[k] = to[k*len(to)/len(wider)]
						}
					}
					to = wider
					sum.stems[j][u] = to
				}
				if share == nil && len(to) == len(stems) {
					for k, n := range stems {
						to[k] += n
					}
					continue
				}
				for k := range to {
					n := stems[k*len(stems)/len(to)]
					if share != nil {
						n = int32(float64(n)*share[k%f.draws] + 0.5)
					}
					to[k] += n
				}
			}
		}
	}
	return sum.cells()
}

// shares draws what the share of a part may be.
func (f *Forecast) shares(part Part) []float64 {
	h := fnv.New64a()
	h.Write([]byte("share\x00" + f.ids[part.Planting]))
	random := rand.New(rand.NewPCG(f.seed, h.Sum64()))
	beta := distuv.Beta{Alpha: mixPlants * part.Share, Beta: mixPlants * (1 - part.Share), Src: random}
	shares := make([]float64, f.draws)
	for d := range shares {
		shares[d] = beta.Rand()
	}
	return shares
}

// samples are whole stems by pick day, use, and member × draw, with the mean of their expectations.
type samples struct {
	stems [][crop.Uses][]int32 // nil where a use is missing
	mean  [][crop.Uses]float64
}

func newSamples(picks int) *samples {
	return &samples{make([][crop.Uses][]int32, picks), make([][crop.Uses]float64, picks)}
}

func (s *samples) cells() Cells {
	cells := Cells{make([][crop.Uses]Spread, len(s.stems))}
	for j := range s.stems {
		for u, stems := range s.stems[j] {
			if stems != nil {
				cells.ByPick[j][u] = newSpread(stems, s.mean[j][u])
			}
		}
	}
	return cells
}

// ahead returns the stems of planting i on the pick days.
func (s *Stand) ahead(i int, picks []day.Day) *samples {
	p := &s.farm.Plantings[i]
	out := newSamples(len(picks))
	if s.LongOver(i) {
		return out
	}
	count := s.farm.Samples()
	var same, own, late []crop.Use // uses cut as the market's, those looked at before its cuts, and those with cuts of their own
	for u := range crop.Use(crop.Uses) {
		if !p.HasUse[u] {
			continue
		}
		some := count
		switch {
		case p.Windows[u] == p.Growth.Market:
			same = append(same, u)
		case p.Windows[u].From > p.Growth.Market.To:
			late = append(late, u)
		default:
			own = append(own, u)
			some = (count + 1) / 2
		}
		for j := range picks {
			out.stems[j][u] = make([]int32, some)
		}
	}
	chance := newChance(s.farm.Seed, p.ID)
	first := p.Growth.Market.From
	for _, u := range own {
		first = min(first, p.Windows[u].From)
	}
	for _, r := range s.lives[i] {
		s.season(i, r, picks, uses{same, own, late, first}, chance, out)
	}
	for j := range out.mean {
		for u := range out.mean[j] {
			out.mean[j][u] /= float64(max(1, len(out.stems[j][u])))
		}
	}
	return out
}

// uses are a planting's uses that are cut as the market's, those looked at before its cuts, those with cuts of their own, and the
// first rung that any of them looks at.
type uses struct {
	same, own, late []crop.Use
	first           crop.Rung
}

// season adds the stems of one season of planting i on the pick days that fall in it.
func (s *Stand) season(i int, r *life, all []day.Day, of uses, chance *chance, out *samples) {
	p := &s.farm.Plantings[i]
	before := 0 // picks before the season
	for before < len(all) && !r.season.Holds(all[before]) {
		before++
	}
	picks := all[before:]
	if r.dead || r.later != nil || len(picks) == 0 {
		return
	}
	instants := make([]float64, len(all))
	for j, d := range all {
		instants[j] = d.At(s.farm.PickHour)
	}
	var run growth.Run
	for m, clock := range r.clocks.members {
		lives := before + s.lastPick(i, r, m, picks)
		if lives == before {
			continue
		}
		first, every, base := 0, 1, m*s.farm.Draws
		if s.farm.Paired {
			first, every, base = m, s.farm.Members, 0
		}
		for d := first; d < s.farm.Draws; d += every {
			now, at := r.known.Runs[d], base+d
			now.CopyTo(&run, clock)
			run.Forget(instants[lives-1], of.first)
			whole := supplyOf(p, &run)
			stock := whole
			for j := before; j < lives; j++ {
				run.To(instants[j])
				if at%2 == 0 { // half of the samples do for what is only looked at
					for _, u := range of.own {
						seen := stock // looking takes nothing
						out.put(j, u, at/2, p.Sound*run.Ready(p.Windows[u], 0), &seen, chance)
					}
				}
				cut := p.Sound * run.Cut(p.Growth.Market, 1)
				stems := stock.take(cut, at, j, chance)
				for _, u := range of.same {
					out.mean[j][u] += cut
					out.stems[j][u][at] = stems
				}
			}
			for _, u := range of.late {
				now.CopyTo(&run, clock)
				later := whole
				for j := before; j < lives; j++ {
					run.To(instants[j])
					out.put(j, u, at, p.Sound*run.Cut(p.Windows[u], 1), &later, chance)
				}
			}
		}
	}
}

func (s *samples) put(pick int, u crop.Use, at int, expected float64, from *supply, c *chance) {
	s.mean[pick][u] += expected
	s.stems[pick][u][at] = from.take(expected, at, pick, c)
}

// lastPick returns how many of the pick days a season of planting i lives to see in member m.
func (s *Stand) lastPick(i int, r *life, m int, picks []day.Day) int {
	p := &s.farm.Plantings[i]
	for j, d := range picks {
		var frost day.Day
		if len(r.frost) > 0 {
			frost = r.frost[m]
		}
		if !frost.IsZero() && !d.Before(frost) || !p.Ended.IsZero() && !d.Before(p.Ended) || !r.season.Holds(d) {
			return j
		}
	}
	return len(picks)
}
