package cut

import (
	"fmt"
	"math"
	"net/http"
	"net/url"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/cutting"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/market"
	"dewcount/farm/work"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"
	"dewcount/web/parts"

	"github.com/labstack/echo/v5"
)

// A sheetView answers: what do I cut this morning, for whom, and how deep?
type sheetView struct {
	Heading     string
	When, Hands string
	Marked      string // that the farm's own hour lies outside the cutting hours
	Left        string // what must be left where the crew's hours are too few
	Dew         string
	Picks       []parts.PickView
	Beds        []bedView
	Waters      []waterView
	Rest        string
	Hasty       []string // orders that are needed before their stems have rested
	After       afterView
	Frost       bool // one threatens
	Cautions    []string
	Records     bool   // cuts can be recorded: it is the day, or the evening before
	Zone, Now   string // for the page's script: the farm's clock, in the demo the hour that it stands at
	Pick        string
	PickFault   string // of a pick day that was to be added, and what was typed
	PickTyped   string
	At          string // when a cut is made, for who has no scripts
	AsOf        string // the hour of what it shows
}

type bedView struct {
	Name string
	Rows []rowView
}

// A rowView is a row of the sheet.
type rowView struct {
	ID, Variety  string
	Rungs        []draw.RungView
	Window, Sign string
	Spread       draw.SpreadView
	Tests        string
	For          []string
	Spare, Over  string
	Where        []string
	Gone         string
	Waits        string
	Hazards      []string
	Done, NoTime bool
	Sure, Likely int
	Most         int // stems that a record may have
	Stems        numberView
	Seconds      numberView
	Culled       numberView
	Left         numberView
}

// A numberView is a field for stems of a row's cut.
type numberView struct{ Row, Name, Label string }

func (s view) sheet(c *echo.Context, snap *say.Snapshot) error {
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	pick, ok := pickOf(c, snap)
	if !ok {
		return s.Show(c, http.StatusOK, "cutsheet", "/cut", "Cut", snap, sheetView{Heading: "Cut"})
	}
	sheet, _ := work.SheetOf(snap.Snapshot, pick)
	v := s.newSheet(snap, place, sheet)
	return s.Show(c, http.StatusOK, "cutsheet", "/cut", v.Heading, snap, v)
}

// pickOf returns the pick day that the address names, the next where it names none, and whether there is any.
func pickOf(c *echo.Context, snap *say.Snapshot) (day.Day, bool) {
	picks := snap.Forecast.PickDays
	if len(picks) == 0 {
		return day.Day{}, false
	}
	for _, d := range picks {
		if d.String() == c.QueryParam("pick") {
			return d, true
		}
	}
	return picks[0], true
}

// addPick adds a pick day beside the weekly ones, such as one before an event.
func (s view) addPick(c *echo.Context, snap *say.Snapshot) error {
	f := book.NewFields(page.Posted(c)).For(snap.Locale)
	on := book.ReadPick(f)
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	switch {
	case f.Faults() != nil:
	case on.Before(snap.View.Today) || on.After(snap.View.To):
		f.Fault("date", "choose a day from today to %s", snap.Date(snap.View.To))
	case snap.Book.PickDays(place).Has(on):
		f.Fault("date", "%s is a pick day already", snap.Date(on))
	}
	err = f.Faults()
	if err == nil {
		err = s.Farm.Add(c.Request().Context(), page.By(c), book.PickRecord(on))
	}
	if by, only := page.FaultsBy(err); only {
		pick := snap.Forecast.PickDays[0]
		sheet, _ := work.SheetOf(snap.Snapshot, pick)
		v := s.newSheet(snap, place, sheet)
		v.PickFault, v.PickTyped = page.Rest(nil, by), c.FormValue("date")
		return s.Show(c, http.StatusUnprocessableEntity, "cutsheet", "/cut", v.Heading, snap, v)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/cut?pick="+on.String()+"&done="+url.QueryEscape("recorded:"+book.ExtraPicks.Name+":"+on.String()))
}

func (s view) newSheet(snap *say.Snapshot, place book.Place, sheet work.Sheet) sheetView {
	v := sheetView{Heading: "Cut of " + snap.Date(sheet.Pick), Records: sheet.Records, Pick: sheet.Pick.String(), Zone: place.Zone.String(),
		Cautions: []string{"Knives cut: close them on the walk. A full bucket weighs up to " + snap.KG(15) + "."}}
	if !place.DemoDay.IsZero() {
		v.Now = day.At(snap.View.Today, 8, 0).String()
	}
	if v.At = v.Now; v.At == "" {
		v.At = s.Farm.Now(snap.Snapshot).String()
	}
	v.AsOf = snap.WorkedAt.Clock()
	v.Picks = parts.NewPicks(snap, sheet.Pick)
	v.When, v.Hands = hours(snap, place, sheet)
	v.Waters, v.Rest, v.Hasty = buckets(snap, place, sheet)
	v.After = newAfter(snap, sheet.After(snap.Snapshot))
	_, v.Frost = snap.FrostThreat()
	v.Marked = outside(snap, place, sheet)
	v.Dew = "Nothing here measures the dew: it is taken to be gone an hour and a half after sunrise."
	var left []string
	most := 1.0
	for _, r := range sheet.Rows {
		most = max(most, 1.04*r.Spread.Bound(0.9))
		if r.NoTime {
			left = append(left, snap.Model.Plantings[r.Planting].ID)
		}
	}
	if len(left) > 0 {
		v.Left = fmt.Sprintf("The crew has %s that day, and this takes %s: leave %s, of which least is asked for, or call somebody in.", say.SpokenHours(sheet.Crew), say.SpokenHours(sheet.Minutes), say.List(left))
	}
	for _, r := range sheet.Rows {
		bed := snap.Book.BedOf(snap.Model.Plantings[r.Planting].ID)
		if bed == "" {
			bed = "No bed"
		}
		if n := len(v.Beds); n == 0 || v.Beds[n-1].Name != bed {
			v.Beds = append(v.Beds, bedView{Name: bed})
		}
		last := &v.Beds[len(v.Beds)-1]
		last.Rows = append(last.Rows, newRow(snap, sheet, r, most))
	}
	return v
}

// hours says when to cut, and with how many hands.
func hours(snap *say.Snapshot, place book.Place, sheet work.Sheet) (when, hands string) {
	when = say.CutWhen(snap, sheet.Daytime, sheet.Pick, place)
	if sheet.Hands == 0 {
		return when, ""
	}
	from := sheet.Spans[0].From
	at := func(hands int) string {
		return say.Clock(from+sheet.Minutes/60/float64(hands), sheet.Pick, place)
	}
	const few = 10 // minutes
	if sheet.Minutes < few {
		return when, "A few minutes' work."
	}
	if sheet.Hands == 1 {
		return when, fmt.Sprintf("One pair of hands that starts at %s is done by %s.", say.Clock(from, sheet.Pick, place), at(1))
	}
	hands = fmt.Sprintf("About %s for one: %d pairs of hands that start at %s are done by %s.", say.SpokenHours(sheet.Minutes), sheet.Hands, say.Clock(from, sheet.Pick, place), at(sheet.Hands))
	return when, hands
}

// outside says that the hour at which the farm picks lies outside the hours in which stems can be cut.
func outside(snap *say.Snapshot, place book.Place, sheet work.Sheet) string {
	from, to := 0.0, 0.0
	for _, span := range sheet.Spans {
		from, to = say.ClockHour(span.From, sheet.Pick, place), say.ClockHour(span.To, sheet.Pick, place)
		if place.PickHour >= from-0.125 && place.PickHour <= to+0.125 {
			return ""
		}
	}
	if len(sheet.Spans) == 0 {
		return ""
	}
	return fmt.Sprintf("The farm picks at %s: that is outside these hours.", say.Hour(place.PickHour))
}

func newRow(snap *say.Snapshot, sheet work.Sheet, r work.SheetRow, most float64) rowView {
	p := &snap.Model.Plantings[r.Planting]
	profile, window := p.Growth.Profile, p.Growth.Market
	v := rowView{ID: p.ID, Variety: p.Variety, Rungs: draw.RungsOf(profile.Ladder, window), Window: window.String(), Spread: draw.NewSpreadView(r.Spread, most, 0),
		Sign: crop.Sign(profile.Ladder, window.From), Waits: snap.Waits(p.ID, sheet.Pick), Hazards: profile.Handling(), Done: r.Cut, NoTime: r.NoTime,
		Sure: r.Spread.Sure(), Likely: r.Spread.Likely(), Most: int(profile.MostStems(p.Growth.Plants, p.Growth.PinchedShare)), Where: where(snap, p.Growth.KeepBuds, sheet.Pick, r.Where)}
	v.Stems, v.Seconds = numberView{p.ID, "stems", "Sound stems"}, numberView{p.ID, "seconds", "Seconds"}
	v.Culled, v.Left = numberView{p.ID, "culled", "Culled"}, numberView{p.ID, "left", "Left standing"}
	if to := crop.Sign(profile.Ladder, window.To); window.To != window.From {
		v.Sign += "; at most: " + to
	}
	var tests []string
	for _, t := range profile.Judged(crop.Market) {
		tests = append(tests, string(t))
	}
	if words := say.TestWords(tests); words != nil {
		v.Tests = say.Sentence(say.List(words))
	}
	for _, c := range r.Claims {
		v.For = append(v.For, claimWords(snap, c))
	}
	if r.Spare > 0 {
		v.Spare = fmt.Sprintf("%d more likely stand ready that nobody has asked for.", r.Spare)
		if len(r.Claims) == 0 {
			v.Spare = "Nobody has asked for these."
		}
	}
	if r.Soon && r.Over > 0 {
		v.Over = fmt.Sprintf("About %d of them would be over by the next pick.", r.Over)
	}
	if r.Soon && r.Gone > 0 {
		v.Gone = fmt.Sprintf("Cut off and throw away about %d that have gone over.", r.Gone)
	}
	return v
}

// claimWords says for whom stems are, and what is asked of them.
func claimWords(snap *say.Snapshot, c market.Claim) string {
	words := fmt.Sprintf("%d for %s on %s", c.Stems, c.Order, snap.Date(c.On))
	if c.MinCM > 0 {
		words += ", at least " + snap.CM(c.MinCM)
	}
	switch {
	case c.Early:
		words += ", cut tighter: they open in water"
	case c.Late:
		words += ", further open than for the market"
	}
	if c.Use != crop.Market {
		words += ", as for " + say.For(c.Use)
	}
	return words
}

// where says where on the stem to cut, and what it costs.
func where(snap *say.Snapshot, keepBuds bool, pick day.Day, w cutting.Where) []string {
	switch {
	case w.Pulled:
		return []string{fmt.Sprintf("Pull it with its bulb: about %s.", snap.CM(w.CM))}
	case w.Ends:
		return []string{fmt.Sprintf("Cut it as low as it goes, about %s: nothing follows this season.", snap.CM(w.CM))}
	case w.Ground:
		return []string{fmt.Sprintf("Cut it as low as it goes, about %s: nothing follows from this stem.", snap.CM(w.CM))}
	}
	next := func(days float64) string { return snap.Date(pick.Add(int(math.Round(days)))) }
	more := 100 * (w.High.Shoots/w.Low.Shoots - 1)
	low := fmt.Sprintf("Low, just above a joint: %s now, the next stems from here about %s, %s long.", snap.CM(w.CM), next(w.Low.NextDays), snap.CM(w.Low.CM))
	high := fmt.Sprintf("High, above the side buds: the next about %s and %.0f %% more of them, %s shorter ever after.", next(w.High.NextDays), more, snap.CM(w.Low.CM-w.High.CM))
	if keepBuds {
		return []string{high, low}
	}
	return []string{strings.TrimSpace(low), high}
}
