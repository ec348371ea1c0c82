package plans

import (
	"context"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/core/plan"
	"dewcount/core/promise"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/market"
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
	Colour, Role       string    // of anything, where no crop is named
	Own                []float32 // stems that there will be without any sowing, by sample; nil where nobody has looked
}

// ReadDateAsk reads stems that shall stand on a date. Where no day for cutting is named it is the last pick day of the three before the
// event, or the day before it.
func ReadDateAsk(b *book.Book, f *book.Fields, today day.Day) DateAsk {
	place, _ := b.Place()
	a := DateAsk{Crop: f.Text("crop"), Variety: f.Text("variety"), Bed: f.Text("bed"), Method: crop.Method(f.Text("method")), On: f.Day("on"),
		CutOn: f.OptDay("cut_on"), Stems: f.Whole("stems", 1, 100_000), Use: crop.Event, Chance: place.Chance}
	if a.Method == AnyMethod {
		a.Method = ""
	}
	if percent := f.OptNumber("chance", 50, 99); percent != nil {
		a.Chance = *percent / 100
	}
	if u, err := crop.ParseUse(f.Raw("use")); err == nil {
		a.Use = u
	} else if f.Raw("use") != "" {
		f.Fault("use", "%v", err)
	}
	if what := f.Text("what"); what != "" && a.Crop == "" && a.Variety == "" {
		a.means(b, f, what)
	}
	var p *crop.Profile
	if a.Colour+a.Role == "" {
		p = cropField(b, f, &a.Crop, &a.Variety)
	}
	const earliest = 3
	if a.CutOn.IsZero() && !a.On.IsZero() {
		a.CutOn = b.PickDays(place).Before(a.On, a.On.Add(-earliest))
		if a.CutOn.IsZero() {
			a.CutOn = a.On.Add(-1)
		}
	}
	if p != nil {
		if _, ok := p.Cut[a.Use]; !ok {
			f.Fault("use", "%s is not cut for that use: choose another", p.Name)
		}
		if why := book.CanStart(p, a.Method); a.Method != "" && why != "" {
			f.Fault("method", "%s", why)
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

// means reads words for what is wanted: a crop or a variety, or a role and a colour of whatever there is.
func (a *DateAsk) means(b *book.Book, f *book.Fields, what string) {
	named := market.Name(b, what)
	switch {
	case len(named) == 0:
		f.Fault("what", "%q names nothing that the farm grows: write a crop, a variety, a role or a colour, such as white filler", what)
	case len(named) > 1:
		var names []string
		for _, n := range named {
			names = append(names, n.Name)
		}
		f.Fault("what", "%q may be %s: say which", what, strings.Join(names, " or "))
	default:
		a.Crop, a.Variety, a.Colour, a.Role = named[0].Line.Crop, named[0].Line.Variety, named[0].Line.Colour, named[0].Line.Role
		if a.Variety == "" && a.Crop != "" && a.Colour != "" { // the farm's variety of the crop that has the colour
			if v, ok := book.Find(b.Varieties, func(v book.Variety) bool { return v.Crop == a.Crop && v.ColourShare(a.Colour) > 0 }); ok {
				a.Variety = v.Name
			}
		}
		if a.Crop != "" || a.Variety != "" {
			a.Colour, a.Role = "", ""
		}
	}
}

// methods returns the ways in which an ask lets a crop be started anew, that of the farm's school first; none where it only stands for years.
func (a DateAsk) methods(b *book.Book, p *crop.Profile) []crop.Method {
	all := plan.Methods(p)
	if a.Method != "" {
		all = []crop.Method{a.Method}
	}
	school := crop.Method(b.SchoolOf(p.ID, "start"))
	if school == "" {
		school = p.PreferredStart
	}
	slices.SortStableFunc(all, func(x, y crop.Method) int { return boolOrder(y == school, x == school) })
	return slices.DeleteFunc(all, func(m crop.Method) bool { return p.Lasts(m) || m == crop.Established })
}

// A DateResult is when to sow for a date, what else could be done, and what could still come where it is too late.
type DateResult struct {
	DateAsk
	Profile   *crop.Profile
	Picks     []day.Day // on which is cut for it; what is cut before the last is held
	Answer    plan.DateAnswer
	OwnStems  *forecast.Spread // that own rows will have beside the orders; nil for none
	Programme *plan.Programme  // of a steered crop
	Steered   plan.Sowing      // that it is made for
	TooLate   bool
	Near      day.Day     // where it never does: the nearest day on which it would as often as not, in whole weeks; zero where none is near
	Never     bool        // it will not stand right on that day, whenever it is started
	Instead   crop.Method // another way than the farm starts it, which is surer; empty where none is
	Usually   float64     // the chance, 0 to 1, of the way in which the farm starts it, where there is another instead
	Lasts     bool        // it is planted for years, and flowers from First to Last: the plan is of plants that stand
	First     day.Day
	Last      day.Day
	NoWinter  bool          // it wants a longer winter than there is
	Frosted   float64       // the chance that the autumn kills it before it is cut last, 0 to 1
	Any       []*DateResult // where no crop is named: of each that would do, the best first
	Others    []StillCome
}

// HasEnough tells whether own rows give what is wanted as surely as it is wanted: then nothing has to be started.
func (r *DateResult) HasEnough() bool {
	return r.OwnStems != nil && r.OwnStems.AtLeast(r.Stems) >= r.Chance
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

// hopeless is the chance below which it is too late for a date, and littleMore by how much a plan must raise that of the farm's own rows to be one.
const hopeless, littleMore = 0.35, 0.1

// helps tells whether a plan is worth being made.
func (r *DateResult) helps(p *plan.DatePlan) bool {
	alone := 0.0
	if r.OwnStems != nil {
		alone = r.OwnStems.AtLeast(r.Stems)
	}
	return p != nil && p.Chance >= hopeless && p.Chance >= alone+littleMore
}

// ForDate works an ask out. When ctx ends, it gives up soon and returns its error.
func ForDate(ctx context.Context, s *look.Snapshot, a DateAsk, progress func(float64)) (*DateResult, error) {
	if a.Colour+a.Role != "" {
		return forAny(ctx, s, a, progress)
	}
	ground, err := GroundOf(s, a.Crop, a.Variety, a.Bed)
	if err != nil {
		return nil, err
	}
	p := ground.Row.Growth.Profile
	own, err := ownStems(s, a)
	if err != nil {
		return nil, err
	}
	a.Own = samplesOf(own)
	out := &DateResult{DateAsk: a, Profile: p, OwnStems: own, Picks: slices.DeleteFunc(picksFor(s.Book, p, a), func(d day.Day) bool { return d.Before(s.View.From) })}
	if out.HasEnough() {
		return out, nil
	}
	want := a.Want(out.Picks)
	methods := a.methods(s.Book, p)
	out.NoWinter = !plan.Chills(p, s.Model.Outlook.Season())
	if len(methods) == 0 {
		out.Lasts = true
		if out.Answer, out.First, out.Last = ground.StandFor(want); !out.helps(out.Answer.Best()) {
			out.Answer = plan.DateAnswer{}
		}
		return out, ctx.Err()
	}
	starts := startsOf(s, ground, methods[:1], true)
	out.Answer = ground.SowFor(ctx, starts, want, progress)
	const near = 0.05 // of the chance wanted: nothing else is worth a change of how the farm starts it
	if best := out.Answer.Best(); len(methods) > 1 && (best == nil || best.Chance < want.Chance-near) {
		starts.Methods = methods[1:]
		other := ground.SowFor(ctx, starts, want, nil)
		if o := other.Best(); o != nil && (best == nil || o.Chance > best.Chance+near) {
			out.Answer, out.Instead = other, o.Sowings[0].Method
			if best != nil {
				out.Usually = best.Chance
			}
		}
	}
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	if out.TooLate = !out.helps(out.Answer.Best()); out.TooLate {
		out.Answer = plan.DateAnswer{}
	}
	if out.TooLate && a.CutOn.Sub(s.View.Today) > p.TypicalDays[1]+p.TypicalDays[1]/2 {
		out.TooLate, out.Never = false, true // with so much time it is not the day that is too near
		starts.Methods = methods
		if near := ground.Near(ctx, starts, want); !near.IsZero() {
			out.Near = near.Add(a.On.Sub(a.CutOn))
		}
		return out, ctx.Err()
	}
	if out.TooLate {
		out.Others = stillCome(ctx, s, a)
		return out, ctx.Err()
	}
	out.Frosted = s.ColdBefore(p.FrostKillC-ground.Row.Cover.NightC, a.CutOn)
	if p.Steered() {
		programme(s, out, out.Answer.Of(plan.One).Sowings[0].Sowing)
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
