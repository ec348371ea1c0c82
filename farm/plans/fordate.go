package plans

import (
	"cmp"
	"context"
	"runtime"
	"slices"
	"sync"
	"sync/atomic"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/core/promise"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// A DateAsk is stems that shall stand on a date.
type DateAsk struct {
	Crop, Variety, Bed string
	Method             crop.Method
	On                 day.Day // the day of the event
	CutOn              day.Day // the morning on which they are cut for it
	Stems              int
	Use                crop.Use
	Chance             float64
	Own                []float32 // stems that there will be without any sowing, by sample; nil where nobody has looked
}

// ReadDateAsk reads stems that shall stand on a date. Where no day for cutting is named it is the last pick day of the three before the
// event, or the day before it.
func ReadDateAsk(b *book.Book, f *book.Fields, today day.Day) DateAsk {
	place, _ := b.Place()
	a := DateAsk{Crop: f.Text("crop"), Variety: f.Text("variety"), Bed: f.Text("bed"), Method: crop.Method(f.Text("method")), On: f.Day("on"),
		CutOn: f.OptDay("cut_on"), Stems: f.Whole("stems", 1, 100_000), Use: crop.Event, Chance: place.Chance}
	if percent := f.OptNumber("chance", 50, 99); percent != nil {
		a.Chance = *percent / 100
	}
	if u, err := crop.ParseUse(f.Raw("use")); err == nil {
		a.Use = u
	} else if f.Raw("use") != "" {
		f.Fault("use", "%v", err)
	}
	p := cropField(b, f, &a.Crop, &a.Variety)
	const earliest = 3
	if a.CutOn.IsZero() && !a.On.IsZero() {
		a.CutOn = b.PickDays(place).Before(a.On, a.On.Add(-earliest))
		if a.CutOn.IsZero() {
			a.CutOn = a.On.Add(-1)
		}
	}
	if p != nil {
		if a.Method == "" {
			a.Method = p.PreferredStart
		}
		if _, ok := p.Cut[a.Use]; !ok {
			f.Fault("use", "%s is not cut for that use: choose another", p.Name)
		}
		if why := book.CanStart(p, a.Method); why != "" {
			f.Fault("method", "%s", why)
		} else if p.Lasts(a.Method) {
			f.Fault("crop", "%s stands for years and flowers when it does: look at what your own plants give on that day, or choose another crop", p.Name)
		}
	}
	switch {
	case f.Faults() != nil:
	case a.CutOn.After(a.On):
		f.Fault("cut_on", "%s is after the event: cut on a day before it", a.CutOn)
	case !a.CutOn.After(today):
		f.Fault("on", "%s has come: nothing can be sown for it any more", a.On)
	case a.On.Sub(today) > look.FarthestSeason:
		f.Fault("on", "%s lies too far ahead: plan up to %s", a.On, today.Add(look.FarthestSeason))
	}
	return a
}

// A DateResult is when to sow for a date, what else could be done, and what could still come where it is too late.
type DateResult struct {
	DateAsk
	Profile   *crop.Profile
	Picks     []day.Day // on which is cut for it; what is cut before the last is held
	Answer    plan.DateAnswer
	Programme *plan.Programme // of a steered crop
	Steered   plan.Sowing     // that it is made for
	TooLate   bool
	Never     bool // it will not stand right on that day, whenever it is started
	Others    []StillCome
}

// A StillCome is a crop that can still be sown today for a date.
type StillCome struct {
	Profile *crop.Profile
	Method  crop.Method
	Plants  int     // that give as many stems as wanted as often as not
	Chance  float64 // that they do, with twice as many plants
	Known   bool    // whether the farm grows it
}

// Want returns what the ask wants of a plan, where it is cut on some picks.
func (a DateAsk) Want(picks []day.Day) plan.DateWant {
	return plan.DateWant{CutOn: a.CutOn, Picks: picks, Use: a.Use, Stems: a.Stems, Chance: a.Chance, Own: a.Own}
}

// picksFor returns the picks up to the one on which is cut last whose stems can be held until the day, where they stand in the middle of the use's window.
func picksFor(b *book.Book, p *crop.Profile, a DateAsk) []day.Day {
	place, err := b.Place()
	window, ok := p.Window(a.Use, b.SchoolOf(p.ID, "cut"))
	if err != nil || !ok {
		return nil
	}
	rule, middle := b.Holding(), (window.From+window.To)/2
	var picks []day.Day
	for _, d := range b.PickDays(place).Between(a.On.Add(-int(p.Store.MaxDays)), a.CutOn) {
		if held := a.On.Sub(d); d != a.CutOn && rule.Serves(p, promise.Right{Use: a.Use, Window: window}, promise.Stem{Cut: middle}, float64(held)) {
			picks = append(picks, d)
		}
	}
	return append(picks, a.CutOn)
}

// hopeless is the chance below which it is too late for a date.
const hopeless = 0.2

// ForDate works an ask out. When ctx ends, it gives up soon and returns its error.
func ForDate(ctx context.Context, s *look.Snapshot, a DateAsk, progress func(float64)) (*DateResult, error) {
	ground, err := GroundOf(s, a.Crop, a.Variety, a.Bed)
	if err != nil {
		return nil, err
	}
	p := ground.Row.Growth.Profile
	out := &DateResult{DateAsk: a, Profile: p, Picks: slices.DeleteFunc(picksFor(s.Book, p, a), func(d day.Day) bool { return d.Before(s.View.From) })}
	want := a.Want(out.Picks)
	starts := plan.Starts{Profile: p, Methods: []crop.Method{a.Method}, Season: s.Model.Outlook.Season(), From: s.View.Today, Pinch: true}
	out.Answer = ground.SowFor(ctx, starts, want, progress)
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	one := out.Answer.One
	best := out.Answer.Best(want)
	out.TooLate = best == nil || best.Chance < hopeless
	if out.TooLate && a.CutOn.Sub(s.View.Today) > p.TypicalDays[1]+p.TypicalDays[1]/2 {
		out.TooLate, out.Never = false, true // with so much time it is not the day that is too near
		return out, nil
	}
	if out.TooLate {
		out.Others = stillCome(ctx, s, a)
		return out, ctx.Err()
	}
	if p.Steered() {
		programme(s, out, one.Sowings[0].Sowing)
	}
	return out, nil
}

// programme lays out the day lengths of a steered crop.
func programme(s *look.Snapshot, out *DateResult, sowing plan.Sowing) {
	place, err := s.Book.Place()
	if err != nil {
		return // a snapshot was made of it, so it is sound
	}
	planted := sowing.InBed()
	short := sowing.Short
	if short.IsZero() {
		short = planted.Add(plan.LongDays)
	}
	const openRungs = 18 // days from colour to the cut
	colour := out.CutOn.Add(-openRungs)
	if !colour.After(short) {
		colour = out.CutOn
	}
	g := plan.ProgrammeOf(out.Profile, place.Latitude, planted, short, colour, sowing.Pinched)
	out.Programme, out.Steered = &g, sowing
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
		starts := plan.Starts{Profile: p, Methods: []crop.Method{m}, Season: s.Model.Outlook.Season(), From: s.View.Today}
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

// boolOrder puts what is not before what is.
func boolOrder(a, b bool) int {
	switch {
	case a == b:
		return 0
	case a:
		return 1
	default:
		return -1
	}
}
