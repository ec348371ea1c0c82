package demo

import (
	"flag"
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"sync"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

var promised = flag.Int("promise-seasons", 1, "seasons in which promises are held against what came")

// A reckoning is promises of one kind: how sure they were, and whether they were kept.
type reckoning struct {
	n, kept int
	sure    float64
}

func (r *reckoning) add(chance float64, kept bool) {
	r.n++
	r.sure += chance
	if kept {
		r.kept++
	}
}

// promises gathers reckonings by kind.
type promises map[string]*reckoning

func (p promises) add(kind string, chance float64, kept bool) {
	if p[kind] == nil {
		p[kind] = new(reckoning)
	}
	p[kind].add(chance, kept)
}

func (p promises) stems(kind string, n int) {
	if p[kind] == nil {
		p[kind] = new(reckoning)
	}
	p[kind].n += n
}

// fairlySure tells whether a promise is one of those that are made: neither certain nor a gamble.
func fairlySure(chance float64) bool { return chance >= 0.8 && chance <= 0.95 }

// order writes orders down that a farm might take on a day for the next three weeks: more than it has for some, and some that want the same.
func (s *season) order(b *book.Book, told *look.Snapshot, asOf day.Day, random *rand.Rand) {
	b.Orders, b.OrderLines = nil, nil
	for n := range 9 {
		due := asOf.Add(7*(n/3) + 1 + random.IntN(7))
		kind := []string{"event", "standing", "market"}[random.IntN(3)]
		o := book.Order{ID: fmt.Sprintf("%s %d", kind, n), Kind: kind, DueOn: due}
		use := map[string]crop.Use{"event": crop.Event, "standing": crop.Florist, "market": crop.Market}[kind]
		lines := 0
		for range 12 {
			i := random.IntN(len(told.Model.Plantings))
			p := told.Model.Plantings[i]
			v, _ := b.Variety(p.Variety)
			line := book.OrderLine{Order: o.ID, Line: lines + 1}
			switch random.IntN(4) {
			case 0:
				line.Variety = v.Name
			case 1:
				line.Crop = v.Crop
			case 2:
				line.Role, line.Colour = v.Role, v.Colours()[0]
			default:
				line.Crop, line.Colour = v.Crop, v.Colours()[0]
			}
			likely := 0
			for j, pick := range told.Forecast.PickDays {
				if days := due.Sub(pick); days >= 1 && days <= 4 && p.HasUse[use] {
					likely += told.Forecast.Plantings[i].ByPick[j][use].Likely()
				}
			}
			if likely < 4 {
				continue
			}
			stems := max(2, int(float64(likely)*(0.2+0.9*random.Float64())))
			line.Stems = &stems
			if random.IntN(4) == 0 {
				long := p.Growth.Profile.Stem.LaterCM
				line.MinLengthCM = &long
			}
			b.OrderLines = append(b.OrderLines, line)
			if lines++; lines == 1+n%3 {
				break
			}
		}
		if lines > 0 {
			b.Orders = append(b.Orders, o)
		}
	}
}

// hold holds what would have been promised every second week against what came.
func (s *season) hold(t *testing.T, to promises, lock *sync.Mutex) {
	random := rand.New(rand.NewPCG(s.seed, 8))
	for i := range s.book.Varieties {
		v := &s.book.Varieties[i]
		v.Colour = []string{"white", "red", "white:0.4;red:0.6"}[random.IntN(3)]
		v.Role = []string{"focal", "filler"}[random.IntN(2)]
	}
	for asOf := s.opens; asOf.Before(s.last.Add(-40)); asOf = asOf.Add(14) {
		if !s.blooms(asOf) {
			continue
		}
		view := look.Evening(asOf, s.last, asOf.Add(28))
		told, err := look.NewSnapshot(s.book, 0, view, nil)
		if err != nil {
			t.Error(err)
			return
		}
		b := *s.book
		s.order(&b, told, asOf, random)
		told.Book = &b
		p := market.PromisesOf(told)
		came := p.Came(func(planting string, pick day.Day) [crop.Rungs]int { return s.stood[planting][pick] }, 100_000+int(s.seed))
		own := market.Share(told, market.Ways{OwnPicks: true})
		unheld := own.Came(func(planting string, pick day.Day) [crop.Rungs]int { return s.stood[planting][pick] }, 100_000+int(s.seed))
		lock.Lock()
		for i, d := range p.Dues {
			held, fresh := true, true
			for k, l := range d.Lines {
				to.stems("stems that orders have", came[i][k])
				to.stems("stems that orders have from their own picks", unheld[i][k])
				held, fresh = held && came[i][k] >= l.Wanted, fresh && unheld[i][k] >= l.Wanted
			}
			to.add("orders, held", d.Chance, held)
			to.add("orders, from their own picks", own.Dues[i].Chance, fresh)
			week := fmt.Sprintf("%d weeks", 1+(d.On.Sub(asOf)-1)/7)
			all := true
			for k, l := range d.Lines {
				kept := came[i][k] >= l.Wanted
				all = all && kept
				to.add(fmt.Sprintf("lines at %.1f", float64(int(10*l.Chance))/10), l.Chance, kept)
				if fairlySure(l.Chance) {
					to.add("lines, "+week, l.Chance, kept)
				}
				if alone := s.alone(told, d, l); fairlySure(alone) {
					to.add("lines by themselves, "+week, alone, kept)
				}
			}
			to.add(fmt.Sprintf("orders at %.1f", float64(int(10*d.Chance))/10), d.Chance, all)
			if fairlySure(d.Chance) {
				to.add("orders, "+week, d.Chance, all)
			}
		}
		lock.Unlock()
	}
}

// alone is the chance of a line that adding up would tell: by the last pick before it, as if nobody else wanted any.
func (s *season) alone(told *look.Snapshot, d market.Due, l market.Want) float64 {
	at := slices.Index(told.Forecast.PickDays, d.PickOn)
	if at < 0 {
		return 0
	}
	return told.Forecast.Sum(market.PartsOf(told, l.OrderLine)).ByPick[at][market.UseOf(l.OrderLine, d.Order)].AtLeast(l.Wanted)
}

// TestPromisesComeTrue grows fields and holds against them what would have been promised: -promise-seasons 200 -table gives the figures of docs/model.md.
func TestPromisesComeTrue(t *testing.T) {
	found := make(promises)
	var lock sync.Mutex
	var workers sync.WaitGroup
	next := make(chan uint64)
	for range 2 {
		workers.Go(func() {
			for seed := range next {
				grow(t, seed).hold(t, found, &lock)
			}
		})
	}
	for i := range *promised {
		next <- *firstSeed + uint64(i)
	}
	close(next)
	workers.Wait()
	if *asTable {
		for _, kind := range slices.Sorted(maps.Keys(found)) {
			r := found[kind]
			fmt.Printf("%-32s %6d promised at %2.0f %% on the mean, %2.0f %% kept\n", kind, r.n, 100*r.sure/float64(r.n), 100*float64(r.kept)/float64(r.n))
		}
	}
	sum := reckoning{}
	for _, weeks := range []string{"1 weeks", "2 weeks", "3 weeks"} {
		if r := found["lines, "+weeks]; r != nil {
			sum.n, sum.kept, sum.sure = sum.n+r.n, sum.kept+r.kept, sum.sure+r.sure
		}
	}
	if kept, sure := float64(sum.kept)/float64(sum.n), sum.sure/float64(sum.n); sum.n < 20 || kept < sure-0.2 {
		t.Errorf("of %d lines promised at %.0f %% on the mean %.0f %% were kept", sum.n, 100*sure, 100*kept)
	}
}
