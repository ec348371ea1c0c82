package fordate

import (
	"fmt"
	"net/url"
	"strconv"

	"dewcount/core/crop"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/plans"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"
)

type dateResult struct {
	Verdict   string
	TooLate   bool
	Sizes     []string // the chances for which plants are told
	Plans     []datePlanView
	Curve     curveView
	Any       []anyView // where no crop was named
	Others    []otherView
	Programme *programmeView
	Notes     []string
}

// A datePlanView is one way to do it.
type datePlanView struct {
	What, Sowings, Plants, Chance, Stems string
	Sizes                                []string // plants, by the chances told
	Band                                 draw.BandView
	Add                                  []page.LinkView // forms of new plantings, filled
	Best                                 bool
}

// An anyView is what a variety of a role and colour would take.
type anyView struct{ Name, Start, Plants, Chance, Href string }

// A curveView draws how sure each day of sowing would be.
type curveView struct {
	Title  string
	Bars   []draw.ChartBar
	Labels []draw.TickView
	Wanted string
}

type otherView struct{ Name, How, Words, Href string }

// hows say how a crop is started.
var hows = map[crop.Method]string{crop.Direct: "sown where it grows", crop.Tray: "in trays", crop.Tuber: "as tubers", crop.Bulb: "as bulbs", crop.Corm: "as corms",
	crop.Cutting: "as cuttings", crop.Established: "as plants that stand"}

// wayWords name the ways.
var wayWords = map[plan.Way]string{plan.One: "One sowing", plan.Two: "Two batches", plan.Three: "Three batches", plan.Half: "Half of it pinched", plan.Stand: "Grown plants"}

func newDateResult(snap *say.Snapshot, d *plans.DateResult) *dateResult {
	r := &dateResult{TooLate: d.TooLate}
	if d.Colour+d.Role != "" {
		return anyResult(snap, d)
	}
	what := d.Profile.Name
	if d.Variety != "" {
		what = d.Variety
	}
	r.ownNote(snap, d, what)
	best := d.Answer.Best()
	switch {
	case d.HasEnough():
		r.Verdict = fmt.Sprintf("Nothing has to be started: your own rows give %s of %s on %s beside your orders, %s.", say.Stems(d.Stems), what, snap.Date(d.On), say.Tenths(d.OwnStems.AtLeast(d.Stems)))
		return r
	case d.Lasts:
		r.lasting(snap, d, what)
	case d.Never && d.NoWinter:
		r.Verdict = say.NoWinter(what, d.Profile)
		r.Notes = append(r.Notes, "Bulbs that were chilled before you buy them flower all the same: ask the seller for how long, and write them down when they are set.")
		return r
	case d.Never:
		r.Verdict = fmt.Sprintf("%s will hardly stand right on %s, whenever it is started.", what, snap.Date(d.On))
		if !d.Near.IsZero() {
			r.Notes = append(r.Notes, fmt.Sprintf("About %s it would, as often as not.", snap.Date(d.Near)))
		}
		r.Notes = append(r.Notes, "It is too cold before then, or its days are too long or too short: think of another day, another crop, or a bed under cover.")
		return r
	case d.TooLate:
		r.Verdict = fmt.Sprintf("Too late for %s on %s.", what, snap.Date(d.On))
		if len(d.Others) == 0 {
			r.Notes = append(r.Notes, "Nothing that is started today would still come by then: look at what your rows give on that day, or buy in.")
		}
		for _, o := range d.Others {
			r.Others = append(r.Others, newOther(d, o))
		}
		return r
	default:
		r.Verdict = fmt.Sprintf("Start %d plants %s: %s on %s, %s.", best.Plants(), sowingWords(best, snap.Locale), say.Stems(d.Stems), snap.Date(d.On), say.Tenths(best.Chance))
		if d.Instead != "" {
			r.Notes = append(r.Notes, fmt.Sprintf("It is planned %s: as the farm usually starts it, there would be enough %.0f times in 100.", hows[d.Instead], 100*d.Usually))
		}
	}
	if best == nil {
		return r
	}
	r.pickNote(snap, d)
	r.ceilingNote(snap, d)
	most := float64(d.Stems)
	for _, p := range d.Answer.Plans {
		most = max(most, p.High)
	}
	for _, size := range best.Sizes {
		r.Sizes = append(r.Sizes, fmt.Sprintf("%.0f in 10", 10*size.Chance))
	}
	for _, p := range d.Answer.Plans {
		r.Plans = append(r.Plans, newDatePlan(d, p, most, snap.Locale))
	}
	r.Curve = newCurve(snap.Locale, d)
	if d.Programme != nil {
		r.Programme = newProgramme(snap.Locale, d)
	}
	return r
}

// ownNote says first what the farm has without any sowing.
func (r *dateResult) ownNote(snap *say.Snapshot, d *plans.DateResult, what string) {
	if o := d.OwnStems; o != nil && !d.HasEnough() {
		r.Notes = append(r.Notes, fmt.Sprintf("Your own rows of %s give %s on %s beside your orders; what is started has to give the rest.", what, say.Bounds(o.Sure(), o.Likely(), o.AtBest()), snap.Date(d.On)))
	}
}

// lasting answers for what is planted once, for years.
func (r *dateResult) lasting(snap *say.Snapshot, d *plans.DateResult, what string) {
	blooms := ""
	if !d.First.IsZero() {
		blooms = fmt.Sprintf("%s is planted for years and flowers from about %s to %s here; in the store it holds up to %s.", what, snap.Bare(d.First), snap.Bare(d.Last), say.Days(int(d.Profile.Store.MaxDays)))
	}
	best := d.Answer.Best()
	if best == nil && d.NoWinter {
		r.Verdict = say.NoWinter(what, d.Profile)
		return
	}
	if best == nil {
		r.Verdict = fmt.Sprintf("%s does not stand right on %s, and cannot be held until then.", what, snap.Date(d.On))
		r.Notes = append(r.Notes, blooms, "Early and late varieties move it by a week or two: write yours down and count them.")
		return
	}
	r.Verdict = fmt.Sprintf("%d grown plants of %s give %s on %s, %s.", best.Plants(), what, say.Stems(d.Stems), snap.Date(d.On), say.Tenths(best.Chance))
	r.Notes = append(r.Notes, blooms)
}

// pickNote says when is cut for the day.
func (r *dateResult) pickNote(snap *say.Snapshot, d *plans.DateResult) {
	var cuts []string
	for _, on := range d.Picks {
		cuts = append(cuts, snap.Date(on))
	}
	note := fmt.Sprintf("Cut on %s, on %s", say.List(cuts), d.Profile.Cut[d.Use])
	if len(cuts) > 1 {
		note += ", and held until the day"
	}
	r.Notes = append(r.Notes, note+"; nothing is cut from it in the week before.")
}

// ceilingNote says where more plants do not help any more, and why.
func (r *dateResult) ceilingNote(snap *say.Snapshot, d *plans.DateResult) {
	const often = 0.15 // of the autumns: what comes less often is not why
	best := d.Answer.Best()
	short := fmt.Sprintf("It is not as sure as you want, %.0f in 100: ", 100*d.Chance)
	switch {
	case best.Chance >= d.Chance-0.02:
	case d.Frosted >= often:
		r.Notes = append(r.Notes, short+fmt.Sprintf("frost kills it before %s %s. Think of an earlier day, or of a warmer cover.", snap.Date(d.CutOn), say.Tenths(d.Frosted)))
	case best.Ceiling < d.Chance:
		r.Notes = append(r.Notes, short+fmt.Sprintf("the weather moves it past the day too often. However many plants there are, it is never surer than %.0f in 100.", 100*best.Ceiling))
	case best.Plants() < best.Most:
		r.Notes = append(r.Notes, short+fmt.Sprintf("%d plants would not be so either, and are hardly surer than %d.", best.Most, best.Plants()))
	default:
		r.Notes = append(r.Notes, short+fmt.Sprintf("that would take more than %d plants, and most years they would be for nothing.", best.Plants()))
	}
}

// anyResult sets beside each other what the varieties of a role and colour would take.
func anyResult(snap *say.Snapshot, d *plans.DateResult) *dateResult {
	r := &dateResult{TooLate: d.TooLate}
	what := d.Role
	if d.Colour != "" {
		what = d.Colour + " " + d.Role
	}
	if len(d.Any) == 0 {
		r.Verdict = fmt.Sprintf("Nothing %s that the farm grows can still stand right on %s.", what, snap.Date(d.On))
		return r
	}
	best := d.Any[0]
	if best.HasEnough() {
		r.Verdict = fmt.Sprintf("Nothing has to be started: your own rows of %s give %s on %s beside your orders, %s.", best.Variety, say.Stems(best.Stems), snap.Date(d.On), say.Tenths(best.OwnStems.AtLeast(best.Stems)))
	} else {
		r.Verdict = fmt.Sprintf("%s would do it best: %d plants %s, %s.", best.Variety, best.Answer.Best().Plants(), sowingWords(best.Answer.Best(), snap.Locale), say.Tenths(best.Answer.Best().Chance))
	}
	for _, a := range d.Any {
		one := anyView{Name: a.Variety, Start: "your own rows", Plants: "none"}
		if p := a.Answer.Best(); p != nil {
			one.Start, one.Plants, one.Chance = sowingWords(p, snap.Locale), strconv.Itoa(p.Plants()), fmt.Sprintf("%.0f in 100", 100*p.Chance)
		} else {
			one.Chance = fmt.Sprintf("%.0f in 100", 100*a.OwnStems.AtLeast(a.Stems))
		}
		q := url.Values{"asked": {"1"}, "variety": {a.Variety}, "on": {d.On.String()}, "stems": {strconv.Itoa(a.Stems)}, "use": {d.Use.String()}, "chance": {book.Decimal(100 * d.Chance)}}
		one.Href = "/season/date?" + q.Encode()
		r.Any = append(r.Any, one)
	}
	return r
}

func newDatePlan(d *plans.DateResult, p *plan.DatePlan, most float64, locale say.Locale) datePlanView {
	v := datePlanView{What: wayWords[p.Way], Plants: strconv.Itoa(p.Plants()), Chance: fmt.Sprintf("%.0f in 100", 100*p.Chance),
		Stems: say.Bounds(int(p.Low), int(p.Likely+0.5), int(p.High+0.5)), Best: p == d.Answer.Best()}
	for _, size := range p.Sizes {
		words := "–"
		if size.Plants > 0 {
			words = strconv.Itoa(size.Plants)
		}
		v.Sizes = append(v.Sizes, words)
	}
	v.Band = draw.NewBand(p.Low, p.Low+(p.Likely-p.Low)/2, p.Likely, p.Likely+(p.High-p.Likely)/2, p.High, most, d.Stems)
	v.Band.Title = v.Stems
	v.Sowings = sowingWords(p, locale)
	switch p.Way {
	case plan.Stand:
	case plan.Half:
		whole := p.Sowings[0]
		whole.Plants = p.Plants()
		v.Add = []page.LinkView{addLink(locale, d, whole, 0.5)}
	default:
		for _, s := range p.Sowings {
			v.Add = append(v.Add, addLink(locale, d, s, map[bool]float64{true: 1}[s.Pinched]))
		}
	}
	return v
}

// sowingWords says how and when the plants of a plan are started.
func sowingWords(p *plan.DatePlan, locale say.Locale) string {
	if p.Way == plan.Stand {
		return "that stand already"
	}
	var days []string
	for _, s := range p.Sowings {
		days = append(days, locale.Date(s.Started))
	}
	first := p.Sowings[0]
	words := hows[first.Method] + " on " + say.List(days)
	if first.Pinched { // of several all are
		words += ", to be pinched"
	}
	if p.Way == plan.Half {
		words = hows[first.Method] + " on " + locale.Date(first.Started) + ", half of them to be pinched"
	}
	if !first.Out.IsZero() && len(p.Sowings) == 1 {
		words += ", planted out on " + locale.Date(first.Out)
	}
	return words
}

// addLink leads to the form of a new planting, filled with a sowing of which a share is pinched.
func addLink(locale say.Locale, d *plans.DateResult, s plan.Planned, pinched float64) page.LinkView {
	q := url.Values{"variety": {d.Variety}, "method": {string(s.Method)}, "started_on": {s.Started.String()}, "plants": {strconv.Itoa(s.Plants)}, "bed": {d.Bed}}
	if d.Variety == "" {
		q.Set("crop", d.Profile.ID)
	}
	if !s.Out.IsZero() {
		q.Set("planted_out_on", s.Out.String())
	}
	if pinched > 0 {
		s.Pinched = true
		q.Set("pinched_on", plan.PinchOn(d.Profile, s.Sowing).String())
	}
	if pinched > 0 && pinched < 1 {
		q.Set("pinched_share", book.Decimal(pinched))
	}
	return page.LinkView{Name: "Add the sowing of " + locale.Short(s.Started), Href: "/plantings/new?" + q.Encode()}
}

// newCurve draws the chance of each day around the best, with as many plants.
func newCurve(locale say.Locale, d *plans.DateResult) curveView {
	c := curveView{Title: "How sure as many plants would be, started on each of these days"}
	n := len(d.Answer.ByDate)
	if n == 0 {
		return c
	}
	const width, height, top = 640.0, 110.0, 8.0
	each := width / float64(n)
	y := draw.NewScale(0, 1, height-22, top)
	for i, b := range d.Answer.ByDate {
		x := float64(i) * each
		c.Bars = append(c.Bars, draw.ChartBar{X: draw.Place(x + 1), W: draw.Place(each - 2), Sure: draw.Place(y.At(b.Chance)), SureH: draw.Place(y.At(0) - y.At(b.Chance))})
		if i%4 == 0 {
			c.Labels = append(c.Labels, draw.TickView{X: draw.Place(x), Name: locale.Short(b.Started)})
		}
	}
	c.Wanted = draw.Place(y.At(d.Chance))
	return c
}

func newOther(d *plans.DateResult, o plans.StillCome) otherView {
	v := otherView{Name: o.Profile.Name, How: hows[o.Method], Words: fmt.Sprintf("%d plants, %s", 2*o.Plants, say.Tenths(o.Chance))}
	q := url.Values{"asked": {"1"}, "crop": {o.Profile.ID}, "on": {d.On.String()}, "cut_on": {d.CutOn.String()}, "stems": {strconv.Itoa(d.Stems)}, "use": {d.Use.String()}, "method": {string(o.Method)}}
	v.Href = "/season/date?" + q.Encode()
	return v
}
