package fordate

import (
	"context"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"strconv"

	"dewcount/core/crop"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/plans"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A dateView is the form for stems on a date, and the answer beside it.
type dateView struct {
	page.Question
	Result *dateResult
}

type dateResult struct {
	Verdict   string
	TooLate   bool
	Plans     []datePlanView
	Curve     curveView
	Others    []otherView
	Programme *programmeView
	Notes     []string
}

// A datePlanView is one way to do it.
type datePlanView struct {
	What, Sowings, Plants, Chance, Stems string
	Band                                 draw.BandView
	Add                                  []page.LinkView // forms of new plantings, filled
	Best                                 bool
}

// A curveView draws how sure each day of sowing would be.
type curveView struct {
	Title  string
	Bars   []draw.ChartBar
	Labels []draw.TickView
	Wanted string
}

type otherView struct{ Name, How, Words, Href string }

type programmeView struct {
	Steps []programmeStep
	Weeks []programmeWeek // one day of each week
	Days  []programmeWeek // every day
}

type programmeStep struct{ When, What string }

type programmeWeek struct{ Week, Natural, Lamps, Blackout string }

func (s view) forDate(c *echo.Context, snap *say.Snapshot) error {
	from := page.Typed(func(name string) string { return c.QueryParam(name) })
	if from("asked") == "" {
		return s.datePage(c, http.StatusOK, snap, dateView{}, dateDefaults(snap, from), nil)
	}
	f := book.NewFields(from)
	ask := plans.ReadDateAsk(snap.Book, f, snap.View.Today)
	if faults, only := page.FaultsBy(f.Faults()); only {
		return s.datePage(c, http.StatusUnprocessableEntity, snap, dateView{}, from, faults)
	}
	result, ok, err := s.Answer(c, snap, "/season", "Sow for a date", ask, func(ctx context.Context, progress func(float64)) (any, error) {
		return plans.ForDate(ctx, snap.Snapshot, ask, progress)
	})
	if err != nil || !ok {
		return err
	}
	return s.datePage(c, http.StatusOK, snap, dateView{Result: newDateResult(snap, result.(*plans.DateResult))}, from, nil)
}

func dateDefaults(snap *say.Snapshot, from page.Typed) page.Typed {
	place, _ := snap.Book.Place()
	return func(name string) string {
		if typed := from(name); typed != "" {
			return typed
		}
		switch name {
		case "chance":
			return book.Decimal(math.Round(100 * place.Chance))
		case "use":
			return crop.Event.String()
		}
		return ""
	}
}

func (s view) datePage(c *echo.Context, code int, snap *say.Snapshot, v dateView, from page.Typed, faults map[string]string) error {
	v.Question = page.Ask(c, snap, "/season/date", []page.Field{
		{Name: "on", Label: "The day", Kind: "date", Needed: true},
		page.CropField(snap),
		page.VarietyField(),
		{Name: "stems", Label: "Stems", Mode: "numeric", Needed: true},
		page.Field{Name: "use", Label: "For", Kind: "select"}.Choose(page.Option{Value: "event", Label: "an event"}, page.Option{Value: "market", Label: "a market"},
			page.Option{Value: "florist", Label: "a florist, tight"}, page.Option{Value: "drying", Label: "drying"}),
		{Name: "chance", Label: "How sure, in 100", Mode: "numeric"},
		{Name: "cut_on", Label: "Cut on", Kind: "date", Hint: "Empty: your last pick of the three days before."},
		page.MethodField(), page.BedField(snap),
	}, from, faults)
	return s.Show(c, code, "fordate", "/season", "Sow for a date", snap, v)
}

func newDateResult(snap *say.Snapshot, d *plans.DateResult) *dateResult {
	r := &dateResult{TooLate: d.TooLate}
	what := d.Profile.Name
	if d.Variety != "" {
		what = d.Variety
	}
	if d.Never {
		r.Verdict = fmt.Sprintf("%s will hardly stand right on %s, whenever it is started.", what, snap.Date(d.On))
		r.Notes = append(r.Notes, "It is too cold before then, or its days are too long or too short: think of another day, another crop, or a bed under cover.")
		return r
	}
	if d.TooLate {
		r.Verdict = fmt.Sprintf("Too late for %s on %s.", what, snap.Date(d.On))
		if len(d.Others) == 0 {
			r.Notes = append(r.Notes, "Nothing that is started today would still come by then: look at what your rows give on that day, or buy in.")
		}
		for _, o := range d.Others {
			r.Others = append(r.Others, newOther(snap, d, o))
		}
		return r
	}
	one, best := d.Answer.One, d.Answer.Best(d.Want(d.Picks))
	r.Verdict = fmt.Sprintf("Start %d plants on %s: %s on %s, %s.", best.Plants(), sowingWords(best, best == d.Answer.Half, snap.Locale), say.Stems(d.Stems), snap.Date(d.On), say.Tenths(best.Chance))
	if !d.Answer.Sure {
		r.Notes = append(r.Notes, fmt.Sprintf("A single sowing is not as sure as you want, %.0f in 100, however many plants it has: the weather moves it past the day too often.", 100*d.Chance))
	}
	var cuts []string
	for _, on := range d.Picks {
		cuts = append(cuts, snap.Date(on))
	}
	note := fmt.Sprintf("Cut on %s, on %s", say.List(cuts), d.Profile.Cut[d.Use])
	if len(cuts) > 1 {
		note += ", and held until the day"
	}
	r.Notes = append(r.Notes, note+"; nothing is cut from it in the week before.")
	most := float64(d.Stems)
	plans := []struct {
		what string
		*plan.DatePlan
	}{{"One sowing", one}, {"Two batches around it", d.Answer.Two}, {"Half of it pinched", d.Answer.Half}}
	for _, p := range plans {
		if p.DatePlan != nil {
			most = max(most, p.High)
		}
	}
	for _, p := range plans {
		if p.DatePlan != nil {
			r.Plans = append(r.Plans, newDatePlan(d, p.what, p.DatePlan, most, snap.Locale))
		}
	}
	r.Curve = newCurve(snap.Locale, d)
	if d.Programme != nil {
		r.Programme = newProgramme(snap.Locale, d)
	}
	return r
}

func newDatePlan(d *plans.DateResult, what string, p *plan.DatePlan, most float64, locale say.Locale) datePlanView {
	v := datePlanView{What: what, Plants: strconv.Itoa(p.Plants()), Chance: fmt.Sprintf("%.0f in 100", 100*p.Chance),
		Stems: say.Bounds(int(p.Low), int(p.Likely+0.5), int(p.High+0.5)), Best: p == d.Answer.One}
	v.Band = draw.NewBand(p.Low, p.Low+(p.Likely-p.Low)/2, p.Likely, p.Likely+(p.High-p.Likely)/2, p.High, most, d.Stems)
	v.Band.Title = v.Stems
	v.Sowings = sowingWords(p, p == d.Answer.Half, locale)
	if p == d.Answer.Half {
		whole := p.Sowings[0]
		whole.Plants = p.Plants()
		v.Add = []page.LinkView{addLink(locale, d, whole, 0.5)}
		return v
	}
	for _, s := range p.Sowings {
		share := 0.0
		if s.Pinched {
			share = 1
		}
		v.Add = append(v.Add, addLink(locale, d, s, share))
	}
	return v
}

// sowingWords names the days of a plan.
func sowingWords(p *plan.DatePlan, half bool, locale say.Locale) string {
	if half {
		return locale.Date(p.Sowings[0].Started) + ", half of them to be pinched"
	}
	var days []string
	for _, s := range p.Sowings {
		words := locale.Date(s.Started)
		if s.Pinched {
			words += " (pinched)"
		}
		days = append(days, words)
	}
	return say.List(days)
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
	return page.LinkView{Name: "Add the sowing of " + locale.Bare(s.Started), Href: "/plantings/new?" + q.Encode()}
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

func newOther(snap *say.Snapshot, d *plans.DateResult, o plans.StillCome) otherView {
	how := map[crop.Method]string{crop.Direct: "sown where it grows", crop.Tray: "in trays", crop.Tuber: "as tubers", crop.Bulb: "as bulbs", crop.Corm: "as corms",
		crop.Cutting: "as cuttings"}[o.Method]
	v := otherView{Name: o.Profile.Name, How: how, Words: fmt.Sprintf("%d plants, %s", 2*o.Plants, say.Tenths(o.Chance))}
	q := url.Values{"asked": {"1"}, "crop": {o.Profile.ID}, "on": {d.On.String()}, "cut_on": {d.CutOn.String()}, "stems": {strconv.Itoa(d.Stems)}, "use": {d.Use.String()}, "method": {string(o.Method)}}
	v.Href = "/season/date?" + q.Encode()
	return v
}

// newProgramme says what lamps and blackout do, step by step and week by week.
func newProgramme(locale say.Locale, d *plans.DateResult) *programmeView {
	g := d.Programme
	v := &programmeView{}
	step := func(when, what string) { v.Steps = append(v.Steps, programmeStep{when, what}) }
	step(locale.Date(g.Planted), fmt.Sprintf("Plant rooted cuttings under cover; strike your own two to three weeks before. From now on %.1f hours of light and more, so that they grow and do not bud.", g.LongH))
	if !g.PinchBy.IsZero() {
		step("by "+locale.Date(g.PinchBy), "Pinch, so that the side shoots have begun when the short days do.")
	}
	step(locale.Date(g.ShortFrom), fmt.Sprintf("Short days begin: %.1f hours of light each day, no light at all in the night, without a day left out.", g.ShortH))
	step("about "+locale.Date(g.ColourOn), "Buds show colour: blackout can end.")
	step(locale.Date(d.CutOn), "Cut.")
	for i, w := range g.Days {
		line := programmeWeek{locale.Date(w.Day), fmt.Sprintf("%.1f", w.NaturalH), hoursOrNone(w.LampsH), hoursOrNone(w.BlackoutH)}
		v.Days = append(v.Days, line)
		if i%7 == 0 {
			v.Weeks = append(v.Weeks, line)
		}
	}
	return v
}

func hoursOrNone(h float64) string {
	if h == 0 {
		return "none"
	}
	return fmt.Sprintf("%.1f", h)
}
