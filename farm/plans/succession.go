package plans

import (
	"context"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// AnyMethod stands for all ways in which a crop can be started again and again.
const AnyMethod crop.Method = "any"

// methods returns the ways in which an ask lets a crop be started, and the one by which the calendar goes.
func (a SuccessionAsk) methods(p *crop.Profile) (all []crop.Method, calendar crop.Method) {
	switch a.Method {
	case "":
		return []crop.Method{p.PreferredStart}, p.PreferredStart
	case AnyMethod:
		all = slices.DeleteFunc(plan.Methods(p), func(m crop.Method) bool { return p.Lasts(m) })
		return all, p.PreferredStart
	default:
		return []crop.Method{a.Method}, a.Method
	}
}

// A SuccessionAsk is what successions are wanted for.
type SuccessionAsk struct {
	Crop, Variety, Bed string
	Method             crop.Method
	From, To           day.Day // the period that shall be supplied
	Stems              int     // a week
	Chance             float64 // that a week is supplied, 0 to 1
	EveryDays          int     // between sowings by the calendar
	PlantsEach         int     // of each of those; 0 for as many stems in all as the plan by warmth has
	Existing           bool    // whether what is on record counts
	Pinch              bool    // whether pinching may be used
	Sowings            int     // of all numbers of sowings this one; 0 for the one that costs least
	By                 string  // the school that is taken over: "warmth" or "weeks"
}

// ReadSuccessionAsk reads what successions are wanted for.
func ReadSuccessionAsk(b *book.Book, f *book.Fields, today day.Day) SuccessionAsk {
	place, _ := b.Place()
	a := SuccessionAsk{Crop: f.Text("crop"), Variety: f.Text("variety"), Bed: f.Text("bed"), Method: crop.Method(f.Text("method")),
		Stems: f.Whole("stems", 1, 100_000), Chance: place.Chance,
		Existing: f.Text("existing") != "", Pinch: f.Text("pinch") != "", By: f.Word("by", "", "warmth", "weeks", "dates")}
	if percent := f.OptNumber("chance", 50, 99); percent != nil {
		a.Chance = *percent / 100
	}
	if every := f.OptWhole("every", 2, 120); every != nil {
		a.EveryDays = *every
	}
	if each := f.OptWhole("plants_each", 1, 100_000); each != nil {
		a.PlantsEach = *each
	}
	if n := f.OptWhole("sowings", 1, 40); n != nil {
		a.Sowings = *n
	}
	p := cropField(b, f, &a.Crop, &a.Variety)
	if p == nil { // weeks that are left empty can be told once there is a crop
		a.From, a.To = f.OptDay("from"), f.OptDay("until")
		return a
	}
	if a.From = f.Day("from"); a.From.IsZero() { // the end can be told once the beginning is right
		a.To = f.OptDay("until")
	} else {
		a.To = f.Day("until")
	}
	if a.By == "" {
		a.By = b.Chosen(p, "sow")
	}
	if a.Method == "" {
		a.Method = crop.Method(b.SchoolOf(p.ID, "start"))
	}
	if a.EveryDays == 0 {
		a.EveryDays = plan.EveryDays(p.SowEveryDays)
	}
	switch {
	case !plan.Succeeds(p):
		f.Fault("crop", "%s gives what buds it has: successions make no sense, plant early, mid and late varieties instead", p.Name)
	case a.Method == "" || a.Method == AnyMethod:
	case book.CanStart(p, a.Method) != "":
		f.Fault("method", "%s", book.CanStart(p, a.Method))
	case p.Lasts(a.Method) || a.Method == crop.Established:
		f.Fault("method", "what is %s stays for years: successions make no sense", a.Method)
	}
	if _, ok := b.Bed(a.Bed); !ok && a.Bed != "" {
		f.Fault("bed", "%q is no bed on record: choose one, or leave this empty", a.Bed)
	}
	const longest = 370
	switch {
	case f.Faults() != nil:
	case a.To.Before(a.From):
		f.Fault("until", "the period ends on %s, before it begins: check both dates", a.To)
	case a.To.Sub(a.From) > longest:
		f.Fault("until", "a period of %d days is too long: plan a season at a time", a.To.Sub(a.From))
	case !a.To.After(today):
		f.Fault("until", "%s has passed: plan from %s on", a.To, today.Add(1))
	case a.To.Sub(today) > look.FarthestSeason:
		f.Fault("until", "%s lies too far ahead: plan up to %s", a.To, today.Add(look.FarthestSeason))
	}
	return a
}

// cropField completes a crop and a variety: the crop may be left out where the variety is on record.
func cropField(b *book.Book, f *book.Fields, cropID, variety *string) *crop.Profile {
	if v, ok := b.Variety(*variety); ok {
		*cropID = v.Crop
	} else if *variety != "" {
		f.Fault("variety", "%q is no variety on record: choose one, or leave this empty", *variety)
	}
	if *cropID == "" {
		if *variety == "" {
			f.Fault("crop", "choose a crop, or write the name of a variety on record")
		}
		return nil
	}
	for _, p := range b.Crops() {
		if p.ID == *cropID || book.CompareFold(p.Name, *cropID) == 0 {
			*cropID = p.ID
			return p
		}
	}
	f.Fault("crop", "%q is no crop of the table: choose one from the list", *cropID)
	return nil
}

// A SuccessionPlan is what was worked out for an ask: by warmth, and beside it by the calendar.
type SuccessionPlan struct {
	SuccessionAsk
	Profile       *crop.Profile
	Bloom         plan.Bloom
	Calendar      []plan.Planned
	CalendarWeeks []plan.WeekOutcome
	Even, Fixed   plan.Comparison
	Front         []FrontLine   // fewer and more sowings, by their number
	Instead       bool          // any way to start the crop was taken, since the farm's usual one holds few weeks
	Usually       int           // the weeks that the usual one holds then
	Hold          int           // days for which stems are held over
	EvenStems     float64       // in all
	LastSafe      day.Day       // the last sowing that still flowers before frost; zero where there is no such limit, or none is safe
	NoneSafe      bool          // whether no sowing is safe
	Room          int           // plants that the bed holds at once; 0 where no bed is named
	Sowings       []SowingDates // of the chosen school, in order
	PeakHours     []float64     // of picking, by week, for the chosen school at its best
	Space         Space         // that the beds have for it, beside all that is planned
	Week1         day.Day       // the last frost, from which weeks are counted
}

// A SowingDates is a planned sowing with what follows from it.
type SowingDates struct {
	plan.Planned
	PinchOn           day.Day // zero where it is not pinched
	FirstCut, LastCut day.Day
	Squares           int
	Late              bool // after the last safe date
	WeekNo            int  // after the last frost
	BeforeWinter      bool // so long before that frost that nobody counts weeks from it
}

// afterwards is for how many days beyond a period stems are looked at that nobody wants.
const afterwards = 45

// The share of the work that is done once all sowings are tried, and once the plan is found; then it is judged, and sometimes another way tried.
const (
	onceTried = 0.25
	onceFound = 0.75
)

// Successions works an ask out. Where the farm's usual way to start the crop holds fewer than half of the weeks, any way is tried, and taken where it holds twice as many. When ctx
// ends, it gives up soon and returns its error.
func Successions(ctx context.Context, s *look.Snapshot, a SuccessionAsk, progress func(float64)) (*SuccessionPlan, error) {
	out, err := successions(ctx, s, a, progress)
	if err != nil || a.Method != "" {
		return out, err
	}
	usual, weeks := out.holds()
	if 2*usual >= weeks {
		return out, nil
	}
	a.Method = AnyMethod
	other, err := successions(ctx, s, a, func(share float64) {
		if progress != nil {
			progress(onceFound + (1-onceFound)*share)
		}
	})
	if err != nil {
		return other, err
	}
	if held, _ := other.holds(); held == 0 || held < 2*usual {
		return out, nil
	}
	other.Instead, other.Usually = true, usual
	return other, nil
}

// holds returns how many of the weeks that want stems are held.
func (p *SuccessionPlan) holds() (held, weeks int) {
	for _, w := range p.Bloom.Weeks {
		if w.Want > 0 {
			weeks++
			if w.Reachable {
				held++
			}
		}
	}
	return held, weeks
}

func successions(ctx context.Context, s *look.Snapshot, a SuccessionAsk, progress func(float64)) (*SuccessionPlan, error) {
	if progress == nil {
		progress = func(float64) {}
	}
	ground, err := GroundOf(s, a.Crop, a.Variety, a.Bed)
	if err != nil {
		return nil, err
	}
	place, err := s.Book.Place()
	if err != nil {
		return nil, err
	}
	p := ground.Row.Growth.Profile
	place.StemsAnHour = s.Book.StemsAnHour(place, p)
	out := &SuccessionPlan{SuccessionAsk: a, Profile: p}
	methods, byCalendar := a.methods(p)
	starts := startsOf(s, ground, methods, a.Pinch)
	out.Week1 = s.Week1(a.From)
	out.LastSafe, out.NoneSafe = lastSafe(s, ground, starts, byCalendar, a.From, a.To)
	sowings := sowingsFor(starts, a.From, a.To, func(c plan.Sowing) bool {
		return !out.LastSafe.IsZero() && c.Method == byCalendar && c.Started.After(out.LastSafe)
	})
	calendar := plan.Calendar(p, byCalendar, out.Week1, out.LastSafe, a.From, a.To, a.EveryDays)
	calendar = slices.DeleteFunc(calendar, func(c plan.Sowing) bool { return c.Started.Before(s.View.Today) })
	all := sowings
	for _, c := range calendar {
		if !slices.Contains(all, c) {
			all = append(all, c)
		}
	}
	progress(onceTried / 2)
	try := ground.Try(all, crop.Market, a.To.Add(afterwards))
	progress(onceTried)
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	want := plan.WeeklyWant(a.From, a.To, a.Stems, a.Chance)
	if a.By == "dates" {
		want.Stems = market.WantedIn(s, a.Crop, want.First.Monday, len(want.Stems))
	}
	out.Hold = HoldDays(s.Book, p, crop.Market)
	limits := plan.Limits{Existing: a.Existing, Hold: out.Hold, Each: place.SowingMinutes * place.StemsAnHour / 60, Exactly: a.Sowings}
	if grid, ok := s.Book.Grid(a.Bed); ok {
		out.Room = room(s, grid, a, p)
		limits.AtOnce = max(1, out.Room)
	}
	searched := *try
	searched.Trials = try.Trials[:len(sowings)]
	out.Bloom = searched.EvenBloom(ctx, want, limits, func(share float64) { progress(onceTried + (onceFound-onceTried)*share) })
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	out.EvenStems = try.Stems(out.Bloom.Sowings)
	out.Calendar = try.AsManyStems(calendar, out.EvenStems)
	if a.PlantsEach > 0 {
		out.Calendar = plan.Evenly(calendar, a.PlantsEach*len(calendar))
	}
	out.judge(ground, want, limits, a.To.Add(afterwards), place)
	chosen, weeks := out.Bloom.Sowings, out.Bloom.Weeks
	if a.By == "weeks" {
		chosen, weeks = out.Calendar, out.CalendarWeeks
	}
	for i := range out.Front {
		for _, c := range out.Front[i].Sowings {
			out.Front[i].Squares += squaresOf(s, out, c.Plants, place)
		}
	}
	for _, c := range chosen {
		out.Sowings = append(out.Sowings, sowingDates(s, out, try, c, place))
	}
	out.Space = spaceOf(s, out, place)
	for _, w := range weeks {
		out.PeakHours = append(out.PeakHours, w.High/place.StemsAnHour)
	}
	return out, nil
}

// sowingsFor returns the sowings to choose among but those that are too late: a week apart, closer where few weeks are left to sow in.
func sowingsFor(starts plan.Starts, from, to day.Day, late func(plan.Sowing) bool) []plan.Sowing {
	const usual, closest, days = 7, 2, 7 // days between them, and on how many days one should be possible at least
	for step := usual; ; step-- {
		sowings := slices.DeleteFunc(starts.Between(from, to, step), late)
		on := make(map[day.Day]bool)
		for _, c := range sowings {
			on[c.Started] = true
		}
		if len(on) >= days || step == closest {
			return sowings
		}
	}
}

// lastSafe returns the last sowing in the season of a period that still flowers before the frost; zero where nothing limits it, and none
// where no sowing is safe.
func lastSafe(s *look.Snapshot, g *plan.Ground, starts plan.Starts, method crop.Method, from, to day.Day) (last day.Day, none bool) {
	starts.Methods = []crop.Method{method}
	_, most := starts.Leads()
	first := from.Add(-min(most, 150))
	if first.Before(s.View.Today) {
		first = s.View.Today
	}
	starts.Pinch = false
	var sowings []plan.Sowing
	for d := first; d.Before(to.Add(60)); d = d.Add(10) {
		for _, one := range starts.On(d) {
			one.Pinched = starts.Profile.Pinch.Policy == "always"
			sowings = append(sowings, one)
		}
	}
	const longSeason = 200
	end := to.Add(longSeason)
	if farthest := s.View.Today.Add(look.FarthestSeason + longSeason); end.After(farthest) {
		end = farthest
	}
	last, ok, bounded := g.Coarse().Try(sowings, crop.Market, end).LastSafe()
	if !bounded {
		last = day.Day{}
	}
	return last, !ok && len(sowings) > 0
}

// room returns how many plants the bed of an ask holds at one time beside what is planned in it.
func room(s *look.Snapshot, grid plan.Grid, a SuccessionAsk, p *crop.Profile) int {
	const before = 60 // days that plants stand in their bed before the first cut
	return grid.Room(s.Book.SpacingCM(a.Variety, p), a.From.Add(-before), a.To, standingIn(s, s.Book, grid, a.Bed))
}

func sowingDates(s *look.Snapshot, out *SuccessionPlan, try *plan.Try, c plan.Planned, place book.Place) SowingDates {
	d := SowingDates{Planned: c, Late: !out.LastSafe.IsZero() && c.Started.After(out.LastSafe), WeekNo: look.WeekNo(out.Week1, c.Started)}
	const autumn = -20
	d.BeforeWinter = d.WeekNo <= autumn
	if c.Pinched {
		d.PinchOn = plan.PinchOn(out.Profile, c.Sowing)
	}
	d.FirstCut, d.LastCut = try.Cuts(c.Sowing)
	d.Squares = squaresOf(s, out, c.Plants, place)
	return d
}

// squaresOf returns how many squares of a bed so many plants of the plan take up.
func squaresOf(s *look.Snapshot, out *SuccessionPlan, plants int, place book.Place) int {
	return squaresFor(place, plants, s.Book.SpacingCM(out.Variety, out.Profile))
}
