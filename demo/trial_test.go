package demo

import (
	"flag"
	"fmt"
	"maps"
	"math"
	"slices"
	"sync"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/review"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

var (
	seasons   = flag.Int("seasons", 2, "seasons of the trial")
	firstSeed = flag.Uint64("first-season", 1, "seed of the trial's first season")
	step      = flag.Uint64("season-step", 1, "from each season's seed to the next one's")
	oracles   = flag.Int("oracle-every", 4, "hold every so manieth season against the oracle; 0 for none")
	onlyCrop  = flag.String("only-crop", "", "grow this crop alone")
	even      = flag.Bool("even", false, "grow all crops by the habits of the first field, and count as was done there")
	weather   = flag.Bool("without-weather", false, "beside the oracle, hold them against one that does not know the weather: three times as long")
	asTable   = flag.Bool("table", false, "print the trial's table")
)

// A tally is the scores of one kind of picks: all forecasts, and those beside the oracle with the oracle's own, and that of one without the weather.
type tally struct{ all, beside, oracle, climate review.Score }

// A verdict is the scores of forecasts by what kind of pick they are of, and what they are held against.
type verdict struct {
	of       map[string]*tally
	compares bool         // some seasons are forecast without evidence too
	blind    review.Score // without it
	seeing   review.Score // the same with it
	firsts   map[string]*firstCuts
	biases   bySeason // what was expected by what came
	beside   bySeason // the score by the oracle's
}

// firstCuts is by how many days first cuts were told wrong two weeks ahead; beside an oracle that knows the weather and no traits.
type firstCuts struct{ days, late, beside, oracle, n, besideN float64 }

func newVerdict() *verdict {
	return &verdict{of: make(map[string]*tally), firsts: make(map[string]*firstCuts), biases: make(bySeason), beside: make(bySeason)}
}

func (v *verdict) tally(kind string) *tally {
	if v.of[kind] == nil {
		v.of[kind] = new(tally)
	}
	return v.of[kind]
}

// saidBy is a pick as other fields have it.
func saidBy(fields []int, r review.Pick) review.Pick {
	sorted := slices.Sorted(slices.Values(fields))
	for k, q := range review.Quantiles {
		r.Stems[k] = float64(sorted[min(len(sorted)-1, int(q*float64(len(sorted))))])
	}
	return r
}

// note takes a pick in, with what an oracle said of it, and one without the weather, if they did.
func (v *verdict) note(seed uint64, kinds []string, r review.Pick, oracle, climate []int) {
	if !r.Counts() {
		return
	}
	for _, kind := range kinds {
		t := v.tally(kind)
		t.all.Add(r)
		v.biases.note(kind, seed, r.Mean, r.Came)
		if climate != nil {
			t.climate.Add(saidBy(climate, r))
		}
		if oracle != nil {
			said := saidBy(oracle, r)
			t.beside.Add(r)
			t.oracle.Add(said)
			v.beside.note(kind, seed, r.WIS(), said.WIS())
		}
	}
}

// all is the kind of every pick.
const all = "all"

// kinds returns what kinds a pick of a planting is of.
func (s *season) kinds(p *crop.Profile, r review.Pick, everCut bool) []string {
	month := r.Pick
	if s.country.latitude < 0 {
		month = month.Add(182)
	}
	_, of, _ := month.Date()
	kinds := []string{all, fmt.Sprintf("lead %d weeks", r.Lead()), "in " + s.country.name, "of " + r.Crop, fmt.Sprintf("month %02d", int(of))}
	if p.OneStem() {
		kinds = append(kinds, "one-stem crops")
	}
	if p.Yield.Habit == crop.Again {
		if s.regrown[r.Planting][r.Pick] || s.regrown[r.Planting][s.latestCut(r.Planting, r.Pick)] {
			kinds = append(kinds, "row: later flushes")
		} else {
			kinds = append(kinds, "row: first flush of what comes again")
		}
	}
	if everCut {
		return append(kinds, "row: after its first cut")
	}
	return append(kinds, "row: before its first cut")
}

// latestCut returns the last pick before a day at which something came of a planting.
func (s *season) latestCut(planting string, before day.Day) day.Day {
	var last day.Day
	for d, n := range s.came[planting] {
		if n > 0 && d.Before(before) && d.After(last) {
			last = d
		}
	}
	return last
}

// judge holds what would have been forecast every second week against what came.
func (v *verdict) judge(t *testing.T, s *season, oracle bool, lock *sync.Mutex) {
	t.Helper()
	var lucky map[string]map[day.Day][]int
	var fated map[string]day.Day
	if oracle {
		lucky, fated = s.luck(), s.fate()
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
		untold := told
		compared := v.compares && s.seed%4 == 1
		if compared {
			mute := *s.book
			mute.Counts, mute.Cuts, mute.Events = nil, nil, nil
			if untold, err = look.NewSnapshot(&mute, 0, view, nil); err != nil {
				t.Error(err)
				return
			}
		}
		var climate map[string]map[day.Day][]int
		if oracle && *weather {
			climate = s.climate(asOf)
		}
		lock.Lock()
		totals := make(map[string]map[day.Day]*total)
		for i, p := range told.Model.Plantings {
			record, _ := s.book.Planting(p.ID)
			everCut := s.everCut(p.ID, asOf)
			for j, pick := range told.Forecast.PickDays {
				r := review.Pick{Planting: p.ID, Crop: p.Growth.Profile.ID, AsOf: asOf, Pick: pick, Came: float64(s.came[p.ID][pick]),
					Calendar: review.Calendar(p.Growth.Profile, record.Plants, record.StartedOn, picks.Before(pick, pick.Add(-7)), pick)}
				r.Foretell(told.Forecast.Plantings[i].ByPick[j][crop.Market])
				said := lucky[p.ID][pick]
				kinds := s.kinds(p.Growth.Profile, r, everCut)
				v.note(s.seed, kinds, r, said, climate[p.ID][pick])
				if compared && r.Counts() {
					v.seeing.Add(r)
					r.Foretell(untold.Forecast.Plantings[i].ByPick[j][crop.Market])
					v.blind.Add(r)
				}
				sum(totals, r, said)
			}
			v.firstCut(s, told, i, everCut, fated)
		}
		for j, pick := range told.Forecast.PickDays {
			for id, days := range totals {
				r := days[pick].pick
				r.Foretell(told.Forecast.Crops[id].ByPick[j][crop.Market])
				v.note(s.seed, []string{"crop totals"}, r, days[pick].oracle, nil)
			}
		}
		lock.Unlock()
	}
}

// A total is what a crop gave on a pick.
type total struct {
	pick   review.Pick
	oracle []int
}

func sum(totals map[string]map[day.Day]*total, r review.Pick, oracle []int) {
	if totals[r.Crop] == nil {
		totals[r.Crop] = make(map[day.Day]*total)
	}
	to := totals[r.Crop][r.Pick]
	if to == nil {
		to = &total{pick: review.Pick{Crop: r.Crop, AsOf: r.AsOf, Pick: r.Pick}}
		totals[r.Crop][r.Pick] = to
	}
	to.pick.Came += r.Came
	to.pick.Calendar += r.Calendar
	if to.oracle == nil && oracle != nil {
		to.oracle = make([]int, len(oracle))
	}
	for k, n := range oracle {
		to.oracle[k] += n
	}
}

// everCut tells whether any stem of a planting was cut up to a day: a first one or two may have been before a twentieth of the flush was.
func (s *season) everCut(planting string, asOf day.Day) bool {
	return slices.ContainsFunc(s.book.Cuts, func(c book.Cut) bool {
		return c.Planting == planting && c.Stems > 0 && !c.CutAt.Day().After(asOf)
	})
}

// firstCut holds the day of a row's first cut, two weeks ahead, against what was told.
func (v *verdict) firstCut(s *season, told *look.Snapshot, i int, everCut bool, fated map[string]day.Day) {
	p := told.Model.Plantings[i]
	cut, asOf := s.cuts[p.ID], told.View.From.Add(-1)
	if everCut || cut.Sub(asOf) <= 10 || cut.Sub(asOf) > 17 {
		return
	}
	counted := 0
	for _, c := range s.book.Counts {
		if c.Planting == p.ID && !c.CountedAt.Day().After(asOf) {
			counted++
		}
	}
	likely := told.Milestones(i).FirstCut.Likely
	if counted == 1 || likely.IsZero() {
		return
	}
	kind := "counted twice or more"
	if counted == 0 {
		kind = "never counted"
	}
	if v.firsts[kind] == nil {
		v.firsts[kind] = new(firstCuts)
	}
	f := v.firsts[kind]
	off := math.Abs(float64(likely.Sub(cut)))
	f.days += off
	f.late += float64(likely.Sub(cut))
	f.n++
	if said := fated[p.ID]; !said.IsZero() {
		f.beside += off
		f.oracle += math.Abs(float64(said.Sub(cut)))
		f.besideN++
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

// TestTrial grows fields of the stand-in's own making in several countries and holds the forecasts of their farms against them.
// Two seasons keep the bounds below honest; -seasons 200 -table gives the figures of docs/model.md.
func TestTrial(t *testing.T) {
	v := newVerdict()
	v.compares = true
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
		next <- *firstSeed + uint64(i)*(*step)
	}
	close(next)
	workers.Wait()
	if *asTable {
		v.print()
	}
	told := v.of[all]
	if told.all.Picks < 500 {
		t.Fatalf("only %d picks were judged", told.all.Picks)
	}
	if skill := told.all.Skill(); skill < 0.65 {
		t.Errorf("%.0f %% better than the calendar", 100*skill)
	}
	if in80 := told.all.Share(told.all.In80); in80 < 0.72 || in80 > 0.92 {
		t.Errorf("the 80 %% band holds %.0f %%", 100*in80)
	}
	if bias := told.all.Bias(); math.Abs(bias) > 0.2 {
		t.Errorf("%+.0f %% more was expected than came", 100*bias)
	}
	if v.seeing.WIS > 0.9*v.blind.WIS {
		t.Error("the counts did not pay")
	}
}

func (v *verdict) print() {
	for _, kind := range slices.Sorted(maps.Keys(v.of)) {
		t := v.of[kind]
		s := &t.all
		fmt.Printf("%-38s %6d picks %8.0f cut  bias %+5.1f ± %.1f %%  in50 %2.0f of %2.0f %%, in part %2.0f %%  in80 %2.0f of %2.0f %%, in part %2.0f %%  skill %3.0f %%", kind, s.Picks, s.Came, 100*s.Bias(), 100*v.biases.uncertain(kind),
			100*s.Share(s.In50), 100*s.Said50/float64(s.Picks), 100*s.Part50/float64(s.Picks), 100*s.Share(s.In80), 100*s.Said80/float64(s.Picks), 100*s.Part80/float64(s.Picks), 100*s.Skill())
		if t.oracle.WIS > 0 {
			fmt.Printf("  %.2f ± %.2f of the oracle, %4.1f %% of all", t.beside.WIS/t.oracle.WIS, v.beside.uncertain(kind), 100*t.beside.WIS/v.of[all].beside.WIS)
		}
		if t.climate.WIS > 0 {
			fmt.Printf(", %.2f without the weather", t.climate.WIS/t.oracle.WIS)
		}
		fmt.Println()
	}
	if v.blind.WIS > 0 {
		fmt.Printf("without evidence %.0f %% better than the calendar; evidence lowers the score by %.1f %%\n", 100*v.blind.Skill(), 100*(1-v.seeing.WIS/v.blind.WIS))
	}
	for kind, f := range v.firsts {
		fmt.Printf("first cuts two weeks ahead of rows %s: %.1f days off, %+.1f on the mean (%.0f); %.1f where an oracle without traits is %.1f\n", kind, f.days/f.n, f.late/f.n, f.n, f.beside/f.besideN, f.oracle/f.besideN)
	}
}
