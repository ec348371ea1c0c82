package plans

import (
	"cmp"
	"context"
	"math"
	"runtime"
	"slices"
	"sync"
	"sync/atomic"

	"dewcount/core/crop"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// mostAny is how many varieties are looked at for a role or a colour.
const mostAny = 8

// forAny works out for a date what each variety of a role and colour would take.
func forAny(ctx context.Context, s *look.Snapshot, a DateAsk, progress func(float64)) (*DateResult, error) {
	if progress == nil {
		progress = func(float64) {}
	}
	out := &DateResult{DateAsk: a}
	var tried []book.Variety
	for _, v := range s.Book.Varieties {
		p := s.Book.CropOf(v)
		if p == nil || a.Role != "" && v.Role != a.Role || v.ColourShare(a.Colour) == 0 || len(tried) == mostAny {
			continue
		}
		if _, cut := p.Cut[a.Use]; cut && !slices.ContainsFunc(tried, func(t book.Variety) bool { return t.Crop == v.Crop }) {
			tried = append(tried, v)
		}
	}
	for i, v := range tried {
		one := a
		one.Crop, one.Variety, one.Colour, one.Role = v.Crop, v.Name, "", ""
		one.Stems = int(math.Ceil(float64(a.Stems) / v.ColourShare(a.Colour))) // of a mix the others are over
		r, err := ForDate(ctx, s, one, nil)
		if err != nil {
			return nil, err
		}
		if r.HasEnough() || r.helps(r.Answer.Best()) {
			out.Any = append(out.Any, r)
		}
		progress(float64(i+1) / float64(len(tried)))
	}
	slices.SortStableFunc(out.Any, func(x, y *DateResult) int {
		a, b := x.Answer.Best(), y.Answer.Best()
		if a == nil || b == nil { // its own rows are enough
			return boolOrder(b == nil, a == nil)
		}
		return cmp.Or(cmp.Compare(min(b.Chance, y.Chance), min(a.Chance, x.Chance)), cmp.Compare(a.Plants(), b.Plants()))
	})
	out.TooLate = len(out.Any) == 0
	return out, nil
}

// mostForDate is from how many times the plants of a full first flush a crop that is started today is of no use.
const mostForDate = 4

// stillCome returns what other crops could still be started today for a date: those that the farm grows first, then by how sure they are.
func stillCome(ctx context.Context, s *look.Snapshot, a DateAsk) []StillCome {
	grown := make(map[string]bool)
	for _, v := range s.Book.Varieties {
		grown[v.Crop] = true
	}
	profiles := s.Book.Crops()
	found := make([]*StillCome, len(profiles))
	var workers sync.WaitGroup
	var next atomic.Int64
	for range runtime.GOMAXPROCS(0) {
		workers.Go(func() {
			for i := int(next.Add(1)) - 1; i < len(profiles) && ctx.Err() == nil; i = int(next.Add(1)) - 1 {
				found[i] = canCome(s, profiles[i], a)
			}
		})
	}
	workers.Wait()
	var others []StillCome
	for i, o := range found {
		if o != nil {
			o.Known = grown[profiles[i].ID]
			others = append(others, *o)
		}
	}
	slices.SortStableFunc(others, func(x, y StillCome) int {
		return cmp.Or(boolOrder(y.Known, x.Known), cmp.Compare(y.Chance, x.Chance))
	})
	return others
}

// canCome tells whether a crop that is started today would stand on the day, nil if not.
func canCome(s *look.Snapshot, p *crop.Profile, a DateAsk) *StillCome {
	_, cutFor := p.Cut[a.Use]
	lead := a.CutOn.Sub(s.View.Today)
	if p.ID == a.Crop || !cutFor || lead < p.TypicalDays[0]/2 || lead > 2*p.TypicalDays[1] {
		return nil
	}
	ground, err := GroundOf(s, p.ID, "", "")
	if err != nil {
		return nil
	}
	var best *StillCome
	for _, m := range plan.Methods(p) {
		if p.Lasts(m) {
			continue
		}
		starts := startsOf(s, ground, []crop.Method{m}, false)
		want := plan.DateWant{CutOn: a.CutOn, Use: a.Use, Stems: a.Stems, Chance: 0.5}
		one := ground.SowOn(starts, s.View.Today, want)
		if one == nil || one.Chance < 0.5 || float64(one.Plants()) > mostForDate*float64(a.Stems)/p.Yield.FirstStems {
			continue
		}
		if best == nil || one.ChanceOfTwice > best.Chance {
			best = &StillCome{Profile: p, Method: m, Plants: one.Plants(), Chance: one.ChanceOfTwice}
		}
	}
	return best
}
