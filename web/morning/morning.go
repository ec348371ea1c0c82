package morning

import (
	"cmp"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/market"
	"dewcount/farm/work"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"
	"dewcount/web/parts"

	"github.com/labstack/echo/v5"
)

// A morningView answers: what can be cut on the next pick day, and how sure is that?
type morningView struct {
	Heading, For string
	Pick         string // the pick day shown
	Today        bool   // the pick day shown is today
	Picks        []parts.PickView
	Crops        []cropView
	Quiet        string // crops that have nothing on the pick day, in words
	Dues         []parts.DueView
	ToCount      []toCountView
	Rests        string // what the forecast rests on
	Hours        string // in which stems can be cut on the pick day
	Warnings     []warningView
	Jobs         []todoView // of today
	JobsKnown    bool       // they are worked out
	JobMinutes   string     // that today's rounds take
	Shorts       []shortView
	MoreShort    int
	DueToday     string
	Missing      string // that the weather of late is not on record, empty where it is
	Empty        bool
}

// A cropView is a crop's line on a pick day.
type cropView struct {
	ID, Name string
	Window   string
	Rungs    []draw.RungView
	Spread   draw.SpreadView
	Want     string
	Rows     []rowView
	promised int
	likely   float64
}

// A rowView is a planting's part in a crop's line, and what it rests on.
type rowView struct {
	ID, Variety, Bed string
	Spread           draw.SpreadView
	Why, Waits       string
}

// A todoView is a task of today's rounds, with its rows.
type todoView struct{ Name, Rows, Minutes string }

// todo returns today's rounds, where the season is worked out already: the morning does not wait for it, but has it begun, since whoever
// reads the morning goes on the rounds.
func (s view) todo(c *echo.Context, snap *say.Snapshot) (todo []todoView, hours string, known bool) {
	season, ok := s.Farm.Worked(snap.Snapshot, page.CurrentYear(snap))
	if !ok && c.Get(page.StaleKey) != nil {
		return nil, "", false // newer records come in: the rounds are worked out for the state that has them
	}
	if !ok {
		go func() {
			if _, err := s.Farm.Season(snap.Snapshot, page.CurrentYear(snap)); err != nil {
				s.Log.Error("the rounds failed", "error", err)
			}
		}()
		return nil, "", false
	}
	days := parts.NewRounds(snap, &say.Season{Season: season, Locale: snap.Locale}, "", nil).Days
	if len(days) == 0 {
		return nil, "", false
	}
	for _, g := range days[0].Groups {
		var ids []string
		for _, j := range g.Jobs {
			ids = append(ids, j.Planting)
		}
		const named = 5
		words := strings.Join(ids, ", ")
		if len(ids) > named {
			words = fmt.Sprintf("%s and %d more", strings.Join(ids[:named], ", "), len(ids)-named)
		}
		todo = append(todo, todoView{g.Name, words, g.Minutes})
	}
	return todo, days[0].Hours, true
}

type toCountView struct{ ID, Variety, Bed, Why string }

func (s view) morning(c *echo.Context, snap *say.Snapshot) error {
	chosen := 0
	for j, d := range snap.Forecast.PickDays {
		if d.String() == c.QueryParam("pick") {
			chosen = j
		}
	}
	v := newMorning(snap, chosen)
	v.Jobs, v.JobMinutes, v.JobsKnown = s.todo(c, snap)
	return s.Show(c, http.StatusOK, "morning", "/", "Morning", snap, v)
}

// dueDays is how many days ahead the morning speaks of orders.
const dueDays = 10

func newMorning(snap *say.Snapshot, chosen int) morningView {
	f := snap.Forecast
	v := morningView{Empty: len(snap.Book.Plantings) == 0, Rests: say.Rests(snap), Missing: missing(snap), Warnings: warnings(snap)}
	dues := market.Dues(snap.Snapshot)
	if len(f.PickDays) > 0 {
		pick := f.PickDays[chosen]
		v.Pick = pick.String()
		v.Heading, v.Today = "Pick of "+snap.Date(pick), pick == snap.View.Today
		v.For, v.Hours = feeds(snap.Locale, dues, pick), cuttingHours(snap, pick)
		v.Crops, v.Quiet = cropLines(snap, chosen)
		if len(v.Crops) == 0 {
			v.Hours = "" // nothing is cut
		}
		v.Picks = parts.NewPicks(snap, pick)
	}
	v.Shorts, v.MoreShort = shorts(snap, dues)
	v.DueToday = dueToday(snap, dues)
	for _, d := range dues {
		if d.On.Sub(snap.View.Today) <= dueDays {
			v.Dues = append(v.Dues, parts.NewDue(snap.Locale, d).InShort(d))
		}
	}
	v.ToCount = toCount(snap)
	return v
}

// feeds names the orders that a pick day's stems go to.
func feeds(locale say.Locale, dues []market.Due, pick day.Day) string {
	var names []string
	for _, d := range dues {
		if slices.ContainsFunc(d.Lines, func(w market.Want) bool {
			return slices.ContainsFunc(w.From, func(g market.Gift) bool { return g.Pick == pick })
		}) {
			names = append(names, d.Order.ID+" on "+locale.Date(d.On))
		}
	}
	const named = 3
	if n := len(names) - named; n > 0 {
		names = append(names[:named], fmt.Sprintf("%d more", n))
	}
	return say.List(names)
}

// cropLines are the crops that a pick day gives, those of which somebody was promised stems first.
func cropLines(snap *say.Snapshot, pick int) (lines []cropView, quiet string) {
	f := snap.Forecast
	var none []string
	asked := promised(snap, f.PickDays[pick])
	for id, cells := range f.Crops {
		profile := snap.Book.Crop(id)
		window, _ := profile.Window(crop.Market, snap.Book.SchoolOf(id, "cut"))
		spread := cells.ByPick[pick][crop.Market]
		wanted := asked[id]
		if spread.AtBest() == 0 && wanted == 0 {
			none = append(none, profile.Name)
			continue
		}
		line := cropView{ID: id, Name: profile.Name, Window: window.String(), Rungs: draw.RungsOf(profile.Ladder, window), likely: spread.Mean()}
		most := max(spread.Bound(0.9), float64(wanted)) * 1.04
		line.Spread = draw.NewSpreadView(spread, most, wanted)
		if line.promised = wanted; wanted > 0 {
			line.Want = fmt.Sprintf("%d promised", wanted)
		}
		line.Rows = rows(snap, id, pick, most)
		lines = append(lines, line)
	}
	slices.SortFunc(lines, func(a, b cropView) int {
		return cmp.Or(cmp.Compare(min(1, b.promised), min(1, a.promised)), cmp.Compare(b.likely, a.likely), strings.Compare(a.ID, b.ID))
	})
	slices.Sort(none)
	const named = 12
	if n := len(none); n > named {
		return lines, fmt.Sprintf("%d crops", n)
	}
	return lines, say.List(none)
}

// rows lists the plantings behind a crop's line.
func rows(snap *say.Snapshot, cropID string, pick int, most float64) []rowView {
	var rows []rowView
	for i, p := range snap.Model.Plantings {
		spread := snap.Forecast.Plantings[i].ByPick[pick][crop.Market]
		if p.Growth.Profile.ID != cropID || spread.AtBest() == 0 {
			continue
		}
		rows = append(rows, rowView{ID: p.ID, Variety: p.Variety, Bed: snap.Book.BedOf(p.ID), Spread: draw.NewSpreadView(spread, most, 0), Why: say.WhyNow(snap, i), Waits: snap.Waits(p.ID, snap.Forecast.PickDays[pick])})
	}
	return rows
}

// missing says that the weather of late is not on record, and what to do about it.
func missing(snap *say.Snapshot) string {
	switch days, none := snap.WeatherGap(); {
	case none:
		return "No weather is on record, so a usual season is reckoned with: the dates can be weeks out. Load your station's file under Farm, Devices: each day's lowest and highest temperature."
	case days > 0:
		return fmt.Sprintf("The weather of the last %d days is not on record, and is taken to be usual. Load your station's file under Farm, Devices, to be surer.", days)
	}
	return ""
}

// toCount names those of the rows that the rounds want counted whose count would tell most: the most stems in doubt first.
func toCount(snap *say.Snapshot) []toCountView {
	const most = 5
	type candidate struct {
		toCountView
		doubt float64
	}
	var all []candidate
	for i, p := range snap.Model.Plantings {
		if !work.CountNow(snap.Snapshot, i) {
			continue
		}
		pick := work.CountFor(snap.Snapshot, i)
		next := snap.Forecast.Plantings[i].ByPick[slices.Index(snap.Forecast.PickDays, pick)][crop.Market]
		why := "never counted"
		if last, ok := snap.Book.LastCount(p.ID); ok {
			why = "last counted " + say.Days(snap.View.Today.Sub(last.CountedAt.Day())) + " ago"
		}
		all = append(all, candidate{toCountView{p.ID, p.Variety, snap.Book.BedOf(p.ID), fmt.Sprintf("%s: %d to %d stems on %s", why, next.Sure(), next.AtBest(), snap.Date(pick))}, float64(next.AtBest() - next.Sure())})
	}
	slices.SortFunc(all, func(a, b candidate) int { return cmp.Or(cmp.Compare(b.doubt, a.doubt), strings.Compare(a.ID, b.ID)) })
	var views []toCountView
	for _, c := range all[:min(most, len(all))] {
		views = append(views, c.toCountView)
	}
	return views
}
