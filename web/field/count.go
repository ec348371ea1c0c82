package field

import (
	"fmt"
	"math"
	"net/url"
	"strconv"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A countView is the page of a dew count: eight big buttons, plants counted, what the forecast expected here.
type countView struct {
	Heading, Action, Cancel, Save string
	ID                            string
	Planting, Variety, Bed        string
	Plants                        int
	Window                        string
	Sample                        page.Field   // how many plants
	Fields                        []page.Field // when, and who
	Rungs                         []rungField
	Firms                         []page.Field // of the rungs whose necks are tried, how many held
	Fault, RungFault              string
	Withdraw                      *page.DoneView
}

// A rungField is a button and the number that it counts up.
type rungField struct {
	draw.RungView
	Name, Typed, Expected string
}

func (s view) usualCount(snap *say.Snapshot, p book.Planting) map[string]string {
	return map[string]string{"counted_at": s.usually(snap, 6), "plants_counted": strconv.Itoa(min(look.UsualSample, p.Plants))}
}

// usually returns the time that a record of today has unless it is changed: an hour of the demo's day, or now.
func (s view) usually(snap *say.Snapshot, hour int) string {
	if place, err := snap.Book.Place(); err == nil && !place.DemoDay.IsZero() {
		return day.At(snap.View.Today, hour, 0).String()
	}
	return s.Farm.Now(snap.Snapshot).String()
}

// countForm shows the form of a count: of a new one, or of the one with an id.
func (s view) countForm(c *echo.Context, code int, snap *say.Snapshot, p book.Planting, id string, from page.Typed, faults map[string]string) error {
	i := snap.Index(p.ID)
	window := snap.Model.Plantings[i].Growth.Market
	v := countView{Heading: "Dew count", Action: "/plantings/" + url.PathEscape(p.ID) + "/count", Save: "Record the count",
		ID: from("id"), Cancel: "/plantings/" + url.PathEscape(p.ID), Planting: p.ID, Variety: p.Variety, Bed: p.Bed, Plants: p.Plants, Window: window.String()}
	if id != "" {
		v.Heading, v.Action, v.Save = "Correct a count", "/counts/"+url.PathEscape(id), "Keep the correction"
		v.Withdraw = &page.DoneView{Words: "Withdraw this count", Kind: book.Counts.Name, ID: id}
	}
	v.Sample = page.Fill(c, []page.Field{{Name: "plants_counted", Label: "Plants counted", Mode: "numeric", Needed: true,
		Hint: fmt.Sprintf("of %d in the row", p.Plants)}}, from, faults)[0]
	v.Fields = page.Fill(c, []page.Field{
		{Name: "counted_at", Label: "When", Kind: "datetime-local", Needed: true},
		{Name: "counter", Label: "Who counted"},
	}, from, faults)
	counted, err := strconv.Atoi(strings.TrimSpace(from("plants_counted")))
	if err != nil {
		counted = min(look.UsualSample, p.Plants)
	}
	standing := snap.Stand.Standing(i)
	entry, _, _ := snap.Book.Entry(snap.Model.Plantings[i].Growth.Profile.ID)
	wags := triesNecks(entry)
	for k, rung := range draw.LadderOf(snap.Model.Plantings[i].Growth.Profile.Ladder, standing.Rungs, window) {
		cell := rungField{RungView: rung, Name: "stems_" + rung.ID, Typed: from("stems_" + rung.ID)}
		if id == "" { // what stands today says nothing of a count that was made
			cell.Expected = fmt.Sprintf("%.0f", math.Round(standing.Rungs[k]*float64(counted)/float64(p.Plants)))
		}
		v.Rungs = append(v.Rungs, cell)
		if firm := "firm_" + rung.ID; rung.InWindow && wags || from(firm) != "" {
			v.Firms = append(v.Firms, page.Field{Name: firm, Label: rung.ID, Typed: from(firm)})
		}
	}
	for _, name := range []string{"stems", "rung", "firm"} {
		if faults[name] != "" {
			v.RungFault = faults[name]
		}
	}
	if v.RungFault == "" {
		v.Fault = page.Rest(append(v.Fields, v.Sample), faults)
	}
	return s.Show(c, code, "count", "/plantings", v.Heading+" "+p.ID, snap, v)
}

// readCount reads a count from its form: the stems of a rung are in a field of their own.
func readCount(from page.Typed, locale say.Locale) (book.Record, error) {
	f := book.NewFields(from)
	count := book.ReadCountHead(f)
	for k := range crop.Rung(crop.Rungs) {
		g := book.NewFields(func(name string) string {
			switch name {
			case "rung":
				return k.String()
			case "stems":
				if typed := strings.TrimSpace(from("stems_" + k.String())); typed != "" {
					return typed
				}
				return "0"
			case "firm":
				return from("firm_" + k.String())
			}
			return ""
		})
		book.ReadCountLine(g, &count)
		if by, only := page.FaultsBy(g.Faults()); only {
			for _, advice := range by {
				f.Fault("stems", "%s: %s", k, strings.TrimSuffix(advice, "."))
			}
		}
	}
	notToCome(f, "counted_at", count.CountedAt, locale)
	return count.WithID().Record(), f.Faults()
}

func notToCome(f *book.Fields, name string, m day.Moment, locale say.Locale) {
	if m.Day().After(locale.Today) {
		f.Fault(name, "%s has not come yet: today is %s", locale.Date(m.Day()), locale.Date(locale.Today))
	}
}

// ofCount has a count's stems in a field for each rung.
func ofCount(r book.Record) page.Typed {
	head := page.Of(r)
	return func(name string) string {
		for _, row := range r.Lines {
			column := page.Of(book.Record{Kind: r.Kind, Lines: [][]string{row}})
			switch name {
			case "stems_" + column("rung"):
				return column("stems")
			case "firm_" + column("rung"):
				return column("firm")
			}
		}
		if strings.HasPrefix(name, "stems_") {
			return "0"
		}
		return head(name)
	}
}
