package demo

import (
	"flag"
	"fmt"
	"maps"
	"math"
	"os"
	"slices"
	"sync"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/review"
	"dewcount/farm/look"
	"dewcount/standin"
)

var (
	seasons   = flag.Int("seasons", 3, "seasons of the trial")
	firstSeed = flag.Uint64("first-season", 1, "seed of the trial's first season")
	oracles   = flag.Int("oracle-every", 4, "hold every so manieth season against the oracle; 0 for none")
	onlyCrop  = flag.String("only-crop", "", "grow this crop alone")
	asTable   = flag.Bool("table", false, "print the trial's table")
)

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

func note(m map[string]*review.Score, key string, r review.Pick) {
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
		view := look.Evening(asOf, s.last, asOf.Add(look.UsualDays))
		told, err := look.NewSnapshot(s.book, 0, view, nil)
		if err != nil {
			t.Error(err)
			return
		}
		mute := *s.book
		mute.Counts, mute.Cuts, mute.Events = nil, nil, nil
		untold, err := look.NewSnapshot(&mute, 0, view, nil)
		if err != nil {
			t.Error(err)
			return
		}
		lock.Lock()
		for i, p := range told.Model.Plantings {
			record, _ := s.book.Planting(p.ID)
			for j, pick := range told.Forecast.PickDays {
				row := review.Pick{Planting: p.ID, Crop: p.Growth.Profile.ID, AsOf: asOf, Pick: pick, Came: float64(s.came[p.ID][pick]),
					Calendar: review.Calendar(p.Growth.Profile, record.Plants, record.StartedOn, picks.Before(pick, pick.Add(-7)), pick)}
				with := func(snap *look.Snapshot) review.Pick {
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
			if stems > 0 && d.After(asOf) && d.Sub(asOf) <= look.UsualDays {
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
	if v.all.Picks < 500 {
		t.Fatalf("only %d picks were judged", v.all.Picks)
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
		fmt.Fprintf(out, "%-26s %6d picks %8.0f cut  bias %+5.1f %%  in50 %2.0f %%  in80 %2.0f %%  skill %3.0f %%\n", name, s.Picks, s.Came, 100*s.Bias(), 100*s.Share(s.In50), 100*s.Share(s.In80), 100*s.Skill())
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
