package seeds

import (
	"cmp"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/plans"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A seedsView is what is to be bought, sown and raised in a season.
type seedsView struct {
	Find     page.FindView
	Year     int
	YearName string
	Years    []page.LinkView
	Lines    []seedView
	Raisings []raisingView
	Bench    []benchView
	BenchHas string
	BenchBox string
	BenchW   string
	Trays    []trayView
	NewTray  []page.Field
	Stock    []stockView
	NewStock []page.Field
	Fault    string
	Labels   string
	Basis    string
}

type seedView struct {
	Variety, Crop, Plants, Seeds, Stock, Order, Packets string
	Sowings                                             []string // what to pack, by sowing
	Short                                               bool
}

// A raisingView is the life of a sowing's trays.
type raisingView struct {
	ID, Variety, Trays, Begins, OffHeat, PotOn, Out, Window, Warning string
	Harden                                                           []string
	on                                                               day.Day // it begins
}

// A benchView is a week of the nursery.
type benchView struct {
	Week, Words                        string
	X, W, HeatY, HeatH, BenchY, BenchH string
	Full                               bool
}

type trayView struct{ ID, Words string }

func (s view) seeds(c *echo.Context, snap *say.Snapshot) error {
	return s.seedsPage(c, http.StatusOK, snap, func(string) string { return "" }, nil)
}

func (s view) seedsPage(c *echo.Context, code int, snap *say.Snapshot, from page.Typed, faults map[string]string) error {
	year, years := page.YearOf(c, snap)
	if c.QueryParam("year") == "" && !hasSowings(snap, year) {
		year++
	}
	season, ok, err := s.SeasonOf(c, snap, "/seeds", "Seeds and trays", year)
	if err != nil || !ok {
		return err
	}
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	v := seedsView{Year: year, YearName: page.YearName(year, snap), Labels: "/labels?year=" + strconv.Itoa(year)}
	for _, y := range years {
		v.Years = append(v.Years, page.LinkView{Name: page.YearName(y, snap), Href: "/seeds?year=" + strconv.Itoa(y), Here: y == year})
	}
	v.Basis = fmt.Sprintf("Plants that bear, %.0f in 100 lost on the way, %.0f in 100 sown beyond, direct rows twice as thick; all rounded up.", 100*place.Losses, 100*place.Margin)
	v.Find = page.NewFind(c, "/seeds", "variety or crop", nil)
	v.Find.Kept = []page.LinkView{{Name: "year", Href: strconv.Itoa(year)}}
	lines := plans.Seeds(season.Season)
	for _, l := range lines {
		if l.Seeds+l.Parts+l.Plugs > 0 && v.Find.Takes("", l.Variety, l.Profile.Name) {
			v.Lines = append(v.Lines, newSeedView(snap, l))
		}
		for _, w := range l.Sowings {
			if w.Raising != nil {
				v.Raisings = append(v.Raisings, newRaising(snap, l, w))
			}
		}
	}
	slices.SortStableFunc(v.Raisings, func(a, b raisingView) int { return a.on.Compare(b.on) })
	v.bench(snap.Locale, plans.Bench(season.Season, lines), place)
	for _, t := range snap.Book.Trays {
		words := strconv.Itoa(t.Cells) + " cells"
		if t.ID == words {
			words = ""
		}
		if t.LengthCM != nil && t.WidthCM != nil {
			words = strings.TrimPrefix(words+", ", ", ") + fmt.Sprintf("%s by %s", snap.Number(say.Centimetre, *t.LengthCM), snap.Exact(say.Centimetre, *t.WidthCM))
		}
		v.Trays = append(v.Trays, trayView{t.ID, words})
	}
	tray := []page.Field{{Name: "tray", Label: "Name", Needed: true, Hint: "Such as 72 cells."}, {Name: "cells", Label: "Cells", Mode: "numeric", Needed: true},
		{Name: "length_cm", Label: "Length in cm", Mode: "decimal"}, {Name: "width_cm", Label: "Width in cm", Mode: "decimal"}}
	if n := len(trayless(snap)); n > 0 {
		tray = append(tray, page.Field{Name: raiseKey, Label: "Raise in it", Kind: "select"}.Choose(page.Option{Value: "", Label: "nothing yet"}, page.Option{Value: "all", Label: say.Number(n, "sowing") + " without a tray"}))
	}
	today := func(name string) string {
		if name == "on" && from(name) == "" {
			return snap.View.Today.String()
		}
		return from(name)
	}
	v.NewTray, v.NewStock = page.Fill(c, tray, from, faults), page.Fill(c, stockFields(snap), today, faults)
	v.Stock = stockViews(snap)
	v.Fault = page.Rest(slices.Concat(v.NewTray, v.NewStock), faults)
	return s.Show(c, code, "seeds", "/seeds", "Seeds and trays", snap, v)
}

// hasSowings tells whether anything is still to be started in a growing year.
func hasSowings(snap *say.Snapshot, year int) bool {
	place, err := snap.Book.Place()
	if err != nil {
		return false
	}
	return slices.ContainsFunc(snap.Book.Plantings, func(p book.Planting) bool {
		return p.StartedOn.After(snap.View.Today) && look.SeasonYears(p.StartedOn, place.Latitude)[1] == year
	})
}

func newSeedView(snap *say.Snapshot, l plans.SeedLine) seedView {
	v := seedView{Variety: l.Variety, Crop: l.Profile.Name, Plants: strconv.Itoa(l.Plants), Seeds: strconv.Itoa(l.Seeds), Short: l.ToOrder > 0}
	if l.Seeds > 0 || l.Parts+l.Plugs == 0 {
		if l.StockKnown {
			v.Stock = strconv.Itoa(l.InStock)
		}
		v.Order = strconv.Itoa(l.ToOrder)
		if l.Packets > 0 {
			v.Packets = say.Number(l.Packets, "packet")
		}
	} else {
		v.Seeds, v.Short = "", false
	}
	if l.Plugs > 0 {
		words := say.Number(l.Plugs, "plug")
		v.Seeds, v.Order, v.Short = join(v.Seeds, words), join(v.Order, words), true
	}
	if l.Parts > 0 {
		own, order := stockOf(l)
		v.Seeds = join(v.Seeds, strconv.Itoa(l.Parts)+" to set")
		v.Stock, v.Order = join(v.Stock, own), join(v.Order, order)
		v.Short = v.Short || slices.ContainsFunc(l.Own, func(o plans.OwnStock) bool { return o.ToBuy > 0 && len(o.Counts) > 0 })
	}
	for _, w := range l.Sowings {
		if w.Plugs > 0 && w.Planting.BoughtOn.After(snap.View.Today) {
			v.Sowings = append(v.Sowings, fmt.Sprintf("%s: %d plugs to come on %s", w.Planting.ID, w.Plugs, snap.Date(w.Planting.BoughtOn)))
		}
		if w.Planting.StartedOn.Before(snap.View.Today) || w.Seeds == 0 {
			continue
		}
		words := fmt.Sprintf("%s, %s: %d seeds", w.Planting.ID, snap.Date(w.Planting.StartedOn), w.Seeds)
		if w.Trays > 0 {
			words += fmt.Sprintf(" in %s of %s", say.Number(w.Trays, "tray"), w.Tray.ID)
		}
		v.Sowings = append(v.Sowings, words)
	}
	return v
}

func newRaising(snap *say.Snapshot, l plans.SeedLine, w plans.SeedSowing) raisingView {
	r := w.Raising
	v := raisingView{on: r.Sown, ID: w.Planting.ID, Variety: l.Variety, Begins: "sow " + snap.Date(r.Sown), Out: snap.Date(r.Out), Trays: "no tray chosen"}
	if w.Plugs > 0 {
		v.Begins, v.Trays = "plugs come "+snap.Date(r.Sown), "in their own trays"
	}
	if w.Trays > 0 {
		v.Trays = fmt.Sprintf("%s of %s", say.Number(w.Trays, "tray"), w.Tray.ID)
	}
	if !r.OffHeat.IsZero() {
		v.OffHeat = snap.Date(r.OffHeat)
	}
	if !r.PotOn.IsZero() {
		v.PotOn = snap.Date(r.PotOn)
	}
	v.Window = "from " + snap.Date(r.Earliest)
	if !r.Latest.IsZero() {
		v.Window += ", no later than " + snap.Date(r.Latest)
	}
	for _, h := range r.Harden {
		night := "in for the night"
		if h.Night {
			night = "out overnight"
		}
		v.Harden = append(v.Harden, fmt.Sprintf("%s: %d hours outdoors, %s", snap.Date(h.Day), h.Hours, night))
	}
	switch {
	case r.Out.Before(r.Earliest):
		v.Warning = fmt.Sprintf("planted out on %s it is too young, or frost may still come: wait until %s", snap.Date(r.Out), snap.Date(r.Earliest))
	case !r.Latest.IsZero() && r.Earliest.After(r.Latest):
		v.Warning = fmt.Sprintf("it will be too old for its tray before the frost is over: sow about %s later", say.Number((r.Earliest.Sub(r.Latest)+6)/7, "week"))
	case !r.Latest.IsZero() && r.Out.After(r.Latest) && r.Stunts:
		v.Warning = fmt.Sprintf("kept beyond %s it is stunted for good and never makes a stem: plant out before, or sow later", snap.Date(r.Latest))
	case !r.Latest.IsZero() && r.Out.After(r.Latest):
		v.Warning = fmt.Sprintf("kept beyond %s it is held back: plant out before, or pot on", snap.Date(r.Latest))
	}
	return v
}

// bench draws the nursery week by week.
func (v *seedsView) bench(locale say.Locale, weeks []plan.BenchWeek, place book.Place) {
	if len(weeks) == 0 {
		return
	}
	most := 1.0
	for _, w := range weeks {
		most = max(most, float64(w.Heat+w.Bench))
	}
	if place.BenchTrays != nil {
		most = max(most, float64(*place.BenchTrays))
	}
	const width, height = 44.0, 90.0
	y := draw.NewScale(0, most, height, 6)
	for i, w := range weeks {
		b := benchView{Week: locale.Short(w.Monday), X: draw.Place1(float64(i) * width), W: draw.Place1(width - 3)}
		b.HeatY, b.HeatH = draw.Place1(y.At(float64(w.Heat))), draw.Place1(y.At(0)-y.At(float64(w.Heat)))
		b.BenchY, b.BenchH = draw.Place1(y.At(float64(w.Heat+w.Bench))), draw.Place1(y.At(float64(w.Heat))-y.At(float64(w.Heat+w.Bench)))
		b.Words = fmt.Sprintf("Week of %s: %d on the heat, %d on the bench, %d hardening off", locale.Bare(w.Monday), w.Heat, w.Bench, w.Harden)
		if place.BenchTrays != nil && w.Heat+w.Bench > *place.BenchTrays {
			b.Full = true
			b.Words += fmt.Sprintf(": more than the %d there is room for", *place.BenchTrays)
		}
		v.Bench = append(v.Bench, b)
	}
	v.BenchW = draw.Place1(width * float64(len(weeks)))
	v.BenchBox = fmt.Sprintf("0 0 %.0f 112", width*float64(len(weeks)))
	if place.BenchTrays != nil {
		v.BenchHas = draw.Place1(y.At(float64(*place.BenchTrays)))
	}
}

// addTray keeps a tray size.
func (s view) addTray(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	f := book.NewFields(from).For(snap.Locale)
	t := book.ReadTray(f)
	change := book.Change{Add: []book.Record{t.Record()}}
	if from(raiseKey) != "" {
		for _, p := range trayless(snap) {
			p.Tray = t.ID
			change.Correct = append(change.Correct, p.Record())
		}
	}
	err := f.Faults()
	if err == nil {
		err = s.Farm.Make(c.Request().Context(), page.By(c), change)
	}
	if faults, only := page.FaultsOf(c, err, from, page.Of, "tray", "cells"); only {
		return s.seedsPage(c, http.StatusUnprocessableEntity, snap, from, faults)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, page.AddressOf("recorded", t.Record(), "seeds"))
}

// raiseKey is the field by which sowings that have no tray yet are put into a new one.
const raiseKey = "raise"

// trayless are the sowings in trays that nobody has chosen a tray for, and that are not planted out yet.
func trayless(snap *say.Snapshot) []book.Planting {
	return slices.DeleteFunc(slices.Clone(snap.Book.Plantings), func(p book.Planting) bool {
		return p.Method != crop.Tray || p.Tray != "" || !p.EndedOn.IsZero() || !p.PlantedOutOn.IsZero() && p.PlantedOutOn.Before(snap.View.Today)
	})
}

// A labelsView is labels to print: one for each tray and each row.
type labelsView struct {
	YearName string
	Labels   []labelView
}

type labelView struct{ ID, Variety, Line, Foot string }

func (s view) labels(c *echo.Context, snap *say.Snapshot) error {
	year, _ := page.YearOf(c, snap)
	season, ok, err := s.SeasonOf(c, snap, "/seeds", "Labels", year)
	if err != nil || !ok {
		return err
	}
	v := labelsView{YearName: page.YearName(year, snap)}
	for _, l := range plans.Seeds(season.Season) {
		for _, w := range l.Sowings {
			trays := max(1, w.Trays)
			for i := range trays {
				v.Labels = append(v.Labels, newLabel(w, l, i+1, trays))
			}
		}
	}
	slices.SortStableFunc(v.Labels, func(a, b labelView) int { return cmp.Compare(a.ID, b.ID) })
	return s.Show(c, http.StatusOK, "labels", "/seeds", "Labels", snap, v)
}

func newLabel(w plans.SeedSowing, l plans.SeedLine, number, of int) labelView {
	date := func(d day.Day) string { return d.Midnight().Format("2 Jan 2006") }
	v := labelView{ID: w.Planting.ID, Variety: l.Variety, Line: "started " + date(w.Planting.StartedOn)}
	if w.Raising != nil {
		v.Line = "sown " + date(w.Planting.StartedOn) + ", out " + date(w.Raising.Out)
		if !w.Planting.BoughtOn.IsZero() {
			v.Line = "plugs of " + date(w.Planting.BoughtOn) + ", out " + date(w.Raising.Out)
		}
		if !w.Raising.Latest.IsZero() {
			v.Foot = "no later than " + date(w.Raising.Latest)
		}
	}
	if of > 1 {
		v.ID += fmt.Sprintf(" %d/%d", number, of)
	}
	if w.Planting.Bed != "" {
		if v.Foot != "" {
			v.Foot += ", "
		}
		v.Foot += say.InBed(w.Planting.Bed)
	}
	return v
}
