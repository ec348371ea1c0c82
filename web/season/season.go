package season

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/market"
	"dewcount/farm/plans"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A seasonView is the year in a drawing, and what a move of one planting would change.
type seasonView struct {
	Year     int
	YearName string
	Years    []page.LinkView
	Crops    []page.Option
	Crop     string
	ByFrost  bool
	Drawing  draw.SeasonDrawing
	Frost    string
	Move     *plantMove
	Choose   []page.Option // plantings that can be moved, for typing
	Weeks    []weekLine
	Empty    bool
	Lacking  []page.LinkView // crops that orders want and of which nothing will come, each to be planned
	Link     string          // address of this view without a planting
}

// A weekLine is a week of the chart in words.
type weekLine struct {
	Week, Stems, Wanted string
	Short               bool
}

// A plantMove is what moves with a planting before it is kept.
type plantMove struct {
	ID, Variety, Crop string
	Fields            []page.Field
	Fault             string
	Moved             bool // something differs from what is on record
	Lines             []dateLine
	Weeks             []moveWeek
	Notes             []string
	CanMove           bool
}

type dateLine struct{ What, Before, After string }

type moveWeek struct {
	Week, Before, After, Wanted string
	Short                       bool
}

func (s view) season(c *echo.Context, snap *say.Snapshot) error {
	return s.seasonPage(c, http.StatusOK, snap, func(name string) string { return c.QueryParam(name) }, nil)
}

// seasonPage shows a growing year; where a planting is named, with what its move would change.
func (s view) seasonPage(c *echo.Context, code int, snap *say.Snapshot, from page.Typed, faults map[string]string) error {
	year, years := page.YearOf(c, snap)
	season, ok, err := s.SeasonOf(c, snap, "/season", "Season "+page.YearName(year, snap), year)
	if err != nil || !ok {
		return err
	}
	v := seasonView{Year: year, YearName: page.YearName(year, snap), Frost: seasonFrost(season), Crop: c.QueryParam("crop"), ByFrost: c.QueryParam("weeks") == "frost"}
	query := func(set ...string) string {
		q := url.Values{"year": {strconv.Itoa(year)}}
		if v.Crop != "" {
			q.Set("crop", v.Crop)
		}
		if v.ByFrost {
			q.Set("weeks", "frost")
		}
		for i := 0; i < len(set); i += 2 {
			q.Set(set[i], set[i+1])
		}
		return "/season?" + q.Encode()
	}
	v.Link = query()
	for _, y := range years {
		v.Years = append(v.Years, page.LinkView{Name: page.YearName(y, snap), Href: query("year", strconv.Itoa(y)), Here: y == year})
	}
	v.Crops = cropOptions(season, v.Crop)
	shown := season
	chosen := c.QueryParam("planting")
	var before *say.Season
	if i := season.Index(chosen); i >= 0 {
		if record, ok := snap.Book.Planting(chosen); ok {
			page.Shows(c, record.Record())
		}
		v.Move, shown = newPlantMove(c, season, i, from, faults)
		if v.Move.Moved {
			before = season
		}
	}
	plantings := draw.SortedPlantings(shown, v.Crop)
	v.Empty = len(plantings) == 0
	var fromFrost day.Day
	if v.ByFrost {
		fromFrost = snap.Week1(shown.From)
	}
	v.Drawing = draw.NewSeasonDrawing(shown, plantings, chosen, before, fromFrost)
	wanted := market.Wanted(shown.Season, v.Crop)
	v.Drawing.Chart = draw.NewChart(shown, plantings, wanted)
	for i := range v.Drawing.Rows {
		r := &v.Drawing.Rows[i]
		r.Href = query("planting", r.ID)
	}
	v.Weeks = weekLines(shown, plantings, wanted)
	for _, i := range plantings {
		p := shown.Model.Plantings[i]
		if p.Growth.Started.After(shown.View.Today) {
			v.Choose = append(v.Choose, page.Option{Value: p.ID, Label: p.ID + " " + p.Variety, Chosen: p.ID == chosen})
		}
	}
	v.Lacking = lacking(season)
	return s.Show(c, code, "season", "/season", "Season "+v.YearName, snap, v)
}

// lacking leads to a plan of each crop that orders want and of which nothing will come.
func lacking(season *say.Season) []page.LinkView {
	var links []page.LinkView
	for _, u := range plans.UnplannedOf(season.Season) {
		q := url.Values{"stems": {strconv.Itoa(u.Stems)}, "until": {u.Until.String()}}
		if u.Variety != "" {
			q.Set("variety", u.Variety)
		} else {
			q.Set("crop", u.Profile.ID)
		}
		links = append(links, page.LinkView{Name: fmt.Sprintf("%s, %d a week", u.Profile.Name, u.Stems), Href: "/season/successions?" + q.Encode()})
	}
	return links
}

// seasonFrost says when frost ends and begins in a season.
func seasonFrost(s *say.Season) string {
	frost := s.FrostDates()
	last, first := frost.Last, frost.First
	say := func(d day.Day) string { return s.DayOfYear(d) }
	switch {
	case last.IsZero() && first.IsZero():
		return "Hardly any frost in this season."
	case first.IsZero():
		return "Frost after " + say(last) + " one year in ten; none in autumn."
	case last.IsZero():
		return "Frost before " + say(first) + " one year in ten; none in spring."
	}
	return fmt.Sprintf("Frost after %s and before %s one year in ten.", say(last), say(first))
}

func cropOptions(s *say.Season, chosen string) []page.Option {
	options := []page.Option{{Value: "", Label: "all crops", Chosen: chosen == ""}}
	seen := make(map[string]bool)
	for _, i := range draw.SortedPlantings(s, "") {
		p := s.Model.Plantings[i].Growth.Profile
		if !seen[p.ID] {
			seen[p.ID] = true
			options = append(options, page.Option{Value: p.ID, Label: p.Name, Chosen: p.ID == chosen})
		}
	}
	return options
}

// weekLines says the chart in words, for weeks in which something stands or is wanted.
func weekLines(s *say.Season, plantings []int, wanted []float64) []weekLine {
	var lines []weekLine
	for i, w := range s.Stems(plantings) {
		if w.Bare() && wanted[i] == 0 {
			continue
		}
		l := weekLine{Week: s.Bare(w.Monday), Stems: say.Bounds(int(w.Sure), int(w.Likely+0.5), int(w.AtBest+0.5))}
		if wanted[i] > 0 {
			l.Wanted = strconv.Itoa(int(wanted[i]))
			l.Short = w.Gap(wanted[i], s.View.Today)
		}
		lines = append(lines, l)
	}
	return lines
}

// moved returns the planting as a form moves it: planned dates that follow the start move with it, unless they were typed anew.
func moved(record book.Planting, from page.Typed) (book.Planting, error) {
	value := page.Of(record.Record())
	typed := func(name string) string { return strings.TrimSpace(from(name)) }
	by := 0
	if start, err := day.Parse(typed("started_on")); err == nil {
		by = start.Sub(record.StartedOn)
	}
	f := book.NewFields(func(name string) string {
		was, err := day.Parse(value(name))
		follows := err == nil && (name == "planted_out_on" || name == "pinched_on" || name == "bought_on")
		switch name {
		case "started_on", "planted_out_on", "pinched_on", "pinched_share", "plants":
			if now := typed(name); now != "" && !(follows && now == was.String()) {
				return now
			}
			if typed(name) == "" && from("typed") != "" && name != "plants" && name != "started_on" {
				return "" // the form was sent, and the field was emptied
			}
		}
		if follows {
			return was.Add(by).String()
		}
		return value(name)
	})
	p := book.ReadPlanting(f)
	return p, f.Faults()
}

// newPlantMove works out what a move changes, and returns it with the season as it would be.
func newPlantMove(c *echo.Context, season *say.Season, i int, from page.Typed, faults map[string]string) (*plantMove, *say.Season) {
	m := season.Model.Plantings[i]
	record, _ := season.Book.Planting(m.ID)
	v := &plantMove{ID: m.ID, Variety: m.Variety, Crop: m.Growth.Profile.Name, CanMove: record.StartedOn.After(season.View.Today)}
	p, err := moved(record, from)
	after := season
	if err == nil && !p.Record().Equal(record.Record()) {
		var other *look.Season
		if other, err = season.With(p); err == nil {
			after = &say.Season{Season: other, Locale: season.Locale}
		}
	}
	if err != nil {
		after = season
		if by, only := page.FaultsBy(err); only && faults == nil {
			faults = by
		}
	}
	shown := page.Of(p.Record())
	if err != nil {
		shown = func(name string) string {
			if typed := from(name); typed != "" {
				return typed
			}
			return page.Of(record.Record())(name)
		}
	}
	v.Fields = page.Fill(c, []page.Field{
		{Name: "started_on", Label: "Start", Kind: "date", Needed: true},
		{Name: "planted_out_on", Label: "Plant out", Kind: "date"},
		{Name: "pinched_on", Label: "Pinch", Kind: "date"},
		{Name: "pinched_share", Label: "Share pinched", Mode: "decimal"},
		{Name: "plants", Label: "Plants", Mode: "numeric", Needed: true},
	}, shown, faults)
	v.Fault = page.Rest(v.Fields, faults)
	if after == season {
		v.Lines = moveLines(season, i, nil, 0)
		return v, season
	}
	v.Moved = true
	j := after.Index(m.ID)
	v.Lines = moveLines(season, i, after, j)
	v.Weeks = moveWeeks(season, after, m.Growth.Profile.ID)
	v.Notes = append(lateNotes(after, j), clashNotes(after, m.ID)...)
	return v, after
}

// moveLines holds the dates of a planting before and after a move.
func moveLines(before *say.Season, i int, after *say.Season, j int) []dateLine {
	a := before.Dates[i]
	named := []struct {
		name string
		of   func(forecast.Milestones) forecast.When
	}{
		{"Shoots", func(m forecast.Milestones) forecast.When { return m.Emerged }},
		{"First buds", func(m forecast.Milestones) forecast.When { return m.FirstBud }},
		{"First cut", func(m forecast.Milestones) forecast.When { return m.FirstCut }},
		{"Last cut", func(m forecast.Milestones) forecast.When { return m.LastCut }},
	}
	var lines []dateLine
	for _, n := range named {
		l := dateLine{What: n.name, Before: before.When(n.of(a))}
		if after != nil {
			l.After = before.When(n.of(after.Dates[j]))
		}
		lines = append(lines, l)
	}
	return lines
}

// moveWeeks holds the weeks of a crop in which a move changes the stems, with what is wanted of it.
func moveWeeks(before, after *say.Season, cropID string) []moveWeek {
	a, b := before.Stems(draw.SortedPlantings(before, cropID)), after.Stems(draw.SortedPlantings(after, cropID))
	wanted := market.Wanted(after.Season, cropID)
	var weeks []moveWeek
	for i := range b {
		if !b[i].Moved(a[i]) {
			continue
		}
		w := moveWeek{Week: before.Bare(b[i].Monday), Before: strconv.Itoa(int(a[i].Likely + 0.5)), After: strconv.Itoa(int(b[i].Likely + 0.5))}
		if wanted[i] > 0 {
			w.Wanted, w.Short = strconv.Itoa(int(wanted[i])), b[i].Gap(wanted[i], before.View.Today)
		}
		weeks = append(weeks, w)
	}
	return weeks
}

// lateNotes warns of a start after which the frost may come before the flowers.
func lateNotes(s *say.Season, i int) []string {
	if s.Dates[i].FirstCut.Likely.IsZero() {
		return []string{"Started so, it will hardly flower before the frost: it is kept if you say so, and marked."}
	}
	return nil
}

// clashNotes tells who else wants the squares of a planting.
func clashNotes(s *say.Season, id string) []string {
	var notes []string
	for bed, stays := range s.Stays() {
		for _, c := range say.ClashesOf(stays) {
			if c.A.Planting == id || c.B.Planting == id {
				notes = append(notes, fmt.Sprintf("In %s, %s", say.InBed(bed), s.Clash(c)))
			}
		}
	}
	slices.Sort(notes)
	return notes
}

// keepMove keeps a planting as the form of the season moves it.
func (s view) keepMove(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	record, ok := snap.Book.Planting(from("planting"))
	if !ok {
		return book.ErrNoSuchRecord
	}
	p, err := moved(record, from)
	if err == nil {
		err = s.Farm.CorrectShown(c.Request().Context(), page.By(c), c.FormValue(page.ShownKey), p.Record())
	}
	if faults, only := page.FaultsOf(c, err, from, page.Of, "started_on", "planted_out_on", "pinched_on", "pinched_share", "plants"); only {
		return s.seasonPage(c, http.StatusUnprocessableEntity, snap, from, faults)
	}
	if err != nil {
		return err
	}
	q := url.Values{"planting": {p.ID}, "done": {"corrected:plantings:" + p.ID}}
	for _, keep := range []string{"year", "crop", "weeks"} {
		if value := c.QueryParam(keep); value != "" {
			q.Set(keep, value)
		}
	}
	return c.Redirect(http.StatusSeeOther, "/season?"+q.Encode())
}
