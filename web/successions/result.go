package successions

import (
	"fmt"
	"maps"
	"net/url"
	"strconv"

	"dewcount/core/crop"
	"dewcount/core/plan"
	"dewcount/farm/plans"
	"dewcount/say"
	"dewcount/web/draw"
)

// A successionResult is the plan by warmth beside that by the calendar.
type successionResult struct {
	Verdict      string
	School       string
	Sowings      []sowingLine
	Front        []frontLine
	Weeks        []bloomWeek
	Compared     []comparedLine
	Notes        []string
	None         bool
	CanTake      bool
	Peak         string
	Tight        string // that the beds do not hold it; empty where they do
	CalendarHead string
	Out, Pinch   bool // whether any sowing is planted out or pinched
}

type sowingLine struct {
	Start, Week, Out, Pinch, Cuts, Squares, Plants string
	Late                                           bool
}

// A bloomWeek is a week of both plans beside what is wanted.
type bloomWeek struct {
	Week, Want      string
	Even, Fixed     draw.BandView
	EvenWords       string
	FixedWords      string
	Chance          string
	Short, Given    bool
	FixedShort      bool
	FixedGlut, Glut bool
}

type comparedLine struct{ What, Even, Fixed string }

// A frontLine is a plan of fewer or more sowings.
type frontLine struct {
	Sowings, Plants, Short, Over, Squares, Hours string
	Href                                         string // that opens it; empty for the one that is shown
}

func newSuccessionResult(snap *say.Snapshot, p *plans.SuccessionPlan) *successionResult {
	r := &successionResult{School: "by warmth", CalendarHead: "By the calendar, as many stems in all"}
	if p.PlantsEach > 0 {
		r.CalendarHead = fmt.Sprintf("%d plants every %d days", p.PlantsEach, p.EveryDays)
	}
	if p.By == "weeks" {
		r.School = fmt.Sprintf("every %d days", p.EveryDays)
	}
	r.None = len(p.Sowings) == 0
	held, wanted, least := 0, 0, 1.0
	for _, w := range p.Bloom.Weeks {
		if w.Want == 0 {
			continue
		}
		wanted++
		if w.Reachable {
			held++
			least = min(least, w.Chance)
		}
	}
	plants := 0
	for _, d := range p.Sowings {
		plants += d.Plants
		r.Sowings = append(r.Sowings, newSowingLine(snap, d))
		if d.Late {
			r.Notes = append(r.Notes, fmt.Sprintf("%s is after the last safe day, %s: the frost may come first.", snap.Date(d.Started), snap.Date(p.LastSafe)))
		}
	}
	has := say.Stems(p.Stems)
	if p.By == "dates" {
		has = "what the orders want"
	}
	r.Verdict = fmt.Sprintf("%s of %d plants in all: %d of %d weeks have %s, the least sure of them %s.", say.Number(len(p.Sowings), "sowing"), plants, held, wanted, has, say.Tenths(least))
	switch {
	case wanted == 0:
		r.None, r.Verdict = true, "No order wants any of it in these weeks."
	case r.None && p.Existing && held == wanted:
		r.Verdict = fmt.Sprintf("Nothing more is needed: what is planted already supplies all %d weeks, the least sure of them %s.", wanted, say.Tenths(least))
	case r.None && p.Existing && held > 0:
		r.Verdict = fmt.Sprintf("What is planted already supplies %d of %d weeks, the least sure of them %s; no sowing that can still be made would hold the others so surely.", held, wanted, say.Tenths(least))
	case r.None:
		r.Verdict = "No sowing that can still be made would hold these weeks so surely. Ask for a later period, another way to start, or a lower chance."
	case p.By == "weeks" && p.PlantsEach > 0:
		r.Verdict = fmt.Sprintf("%s of %d plants each, one every %d days.", say.Number(len(p.Sowings), "sowing"), p.PlantsEach, p.EveryDays)
	case p.By == "weeks":
		r.Verdict = fmt.Sprintf("%s, one every %d days, of %d plants: as many stems in all as the plan by warmth.", say.Number(len(p.Sowings), "sowing"), p.EveryDays, plants)
	}
	if given := givenUp(snap.Locale, p.Bloom.Weeks); len(given) > 0 && (!r.None || held > 0) {
		weeks := "weeks"
		if len(given) == 1 {
			weeks = "week"
		}
		r.Notes = append(r.Notes, fmt.Sprintf("Not held: the %s of %s. At the edge of the season it would take too many plants to be so sure; what there will be stands below.", weeks, say.List(given)))
	}
	if p.Instead {
		usually := "none"
		if p.Usually > 0 {
			usually = strconv.Itoa(p.Usually)
		}
		r.Notes = append(r.Notes, fmt.Sprintf("Started as it usually is it would hold %s of these weeks: so any way to start it was tried.", usually))
	}
	if p.Hold > 0 && !r.None {
		r.Notes = append(r.Notes, fmt.Sprintf("Stems that a week has too many of are held up to %s and help out in the next.", say.Days(p.Hold)))
	}
	if weeks := p.Bloom.Weeks; len(weeks) > 0 && !weeks[0].Reachable && p.Method != plans.AnyMethod && p.Profile.HasStart(crop.Tray) && p.Profile.PreferredStart != crop.Tray {
		r.Notes = append(r.Notes, "Started in trays, or in any way it can be, the first weeks may be held: choose so under Started.")
	}
	switch {
	case p.NoneSafe:
		r.Notes = append(r.Notes, "No sowing from today on is safe from the autumn frost.")
	case !p.LastSafe.IsZero():
		r.Notes = append(r.Notes, fmt.Sprintf("Last safe sowing: %s. From it at least half of the stems still come before the frost, nine times in ten.", snap.Date(p.LastSafe)))
	}
	if p.Space.Tight() {
		r.Tight = fmt.Sprintf("More than your beds hold: with this plan %d squares are wanted in the week of %s, %d of them for it, and all beds have %d. Ask for fewer stems a week, be less sure, or add beds.", p.Space.Taken, snap.Bare(p.Space.On), p.Space.Plan, p.Space.Beds)
	}
	if p.Bed != "" && p.Room > 0 {
		r.Notes = append(r.Notes, fmt.Sprintf("In %s there is room for %d plants at a time in that period.", say.InBed(p.Bed), p.Room))
	}
	for _, l := range r.Sowings {
		r.Out, r.Pinch = r.Out || l.Out != "", r.Pinch || l.Pinch != ""
	}
	r.weeks(snap.Locale, p)
	r.Compared = []comparedLine{
		{"Sowings", strconv.Itoa(len(p.Bloom.Sowings)), strconv.Itoa(len(p.Calendar))},
		{"Weeks likely short", fmt.Sprintf("%.1f", p.Even.WeeksShort), fmt.Sprintf("%.1f", p.Fixed.WeeksShort)},
		{"Stems short", fmt.Sprintf("%.0f", p.Even.StemsShort), fmt.Sprintf("%.0f", p.Fixed.StemsShort)},
		{"Stems too many", fmt.Sprintf("%.0f", p.Even.StemsWasted), fmt.Sprintf("%.0f", p.Fixed.StemsWasted)},
	}
	r.peak(snap, p)
	r.CanTake = !r.None
	return r
}

// front sets plans of fewer and more sowings beside the one that is shown.
func (r *successionResult) front(asked url.Values, p *plans.SuccessionPlan) {
	for _, l := range p.Front {
		line := frontLine{Sowings: strconv.Itoa(len(l.Sowings)), Plants: strconv.Itoa(l.Plants), Short: fmt.Sprintf("%.1f", l.WeeksShort), Over: fmt.Sprintf("%.0f", l.StemsWasted),
			Squares: strconv.Itoa(l.Squares), Hours: fmt.Sprintf("%.0f", l.Hours)}
		if !l.Chosen {
			q := maps.Clone(asked)
			q.Set("sowings", line.Sowings)
			line.Href = "/season/successions?" + q.Encode()
		}
		r.Front = append(r.Front, line)
	}
}

func givenUp(locale say.Locale, weeks []plan.WeekOutcome) []string {
	var names []string
	for _, w := range weeks {
		if !w.Reachable {
			names = append(names, locale.DayOfYear(w.Monday))
		}
	}
	return names
}

func newSowingLine(snap *say.Snapshot, d plans.SowingDates) sowingLine {
	l := sowingLine{Start: snap.Date(d.Started), Plants: strconv.Itoa(d.Plants), Late: d.Late, Squares: strconv.Itoa(d.Squares)}
	if !d.BeforeWinter {
		l.Week = strconv.Itoa(d.WeekNo)
	}
	if !d.Out.IsZero() {
		l.Out = snap.Date(d.Out)
	}
	if !d.PinchOn.IsZero() {
		l.Pinch = snap.Date(d.PinchOn)
	}
	if !d.FirstCut.IsZero() {
		l.Cuts = snap.Date(d.FirstCut) + " to " + snap.Date(d.LastCut)
	}
	return l
}

// weeks puts both plans beside each other, week by week.
func (r *successionResult) weeks(locale say.Locale, p *plans.SuccessionPlan) {
	most := float64(p.Stems)
	for i := range p.Bloom.Weeks {
		most = max(most, p.Bloom.Weeks[i].High, p.CalendarWeeks[i].High)
	}
	for i, w := range p.Bloom.Weeks {
		f := p.CalendarWeeks[i]
		words := func(w plan.WeekOutcome) string {
			return say.Bounds(int(w.Low), int(w.Likely+0.5), int(w.High+0.5))
		}
		band := func(w plan.WeekOutcome) draw.BandView {
			b := draw.NewBand(w.Low, w.Low+(w.Likely-w.Low)/2, w.Likely, w.Likely+(w.High-w.Likely)/2, w.High, most, int(w.Want))
			b.Title = words(w)
			return b
		}
		r.Weeks = append(r.Weeks, bloomWeek{Week: locale.Bare(w.Monday), Want: strconv.Itoa(int(w.Want)), Even: band(w), Fixed: band(f), EvenWords: words(w), FixedWords: words(f),
			Chance: fmt.Sprintf("%.0f in 100", 100*w.Chance), Short: w.Gap(), Given: !w.Reachable, FixedShort: f.Gap(),
			Glut: w.Glut(), FixedGlut: f.Glut()})
	}
}

// peak says what cutting takes in the weeks that give most.
func (r *successionResult) peak(snap *say.Snapshot, p *plans.SuccessionPlan) {
	place, err := snap.Book.Place()
	if err != nil || len(p.PeakHours) == 0 {
		return
	}
	most, at := 0.0, 0
	for i, h := range p.PeakHours {
		if h > most {
			most, at = h, i
		}
	}
	if most == 0 {
		return
	}
	r.Peak = fmt.Sprintf("At its best the week of %s takes %.1f hours of picking at %.0f stems an hour", snap.Bare(p.Bloom.Weeks[at].Monday), most, snap.Book.StemsAnHour(place, p.Profile))
	if place.PickHoursAWeek != nil {
		r.Peak += fmt.Sprintf(", of the %.0f that your hands have", *place.PickHoursAWeek)
		if most > *place.PickHoursAWeek {
			r.Peak += ": more than can be cut"
		}
	}
	r.Peak += "."
}
