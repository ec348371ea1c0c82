// Package years is year against year: what each brought, side by side.
package years

import (
	"embed"
	"fmt"
	"net/http"
	"net/url"
	"strconv"

	"dewcount/core/day"
	"dewcount/farm/review"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

//go:embed *.html
var templates embed.FS

// A view is the site as this folder's handlers have it.
type view struct{ *page.Site }

// View returns the addresses of this folder, who may use them, and the templates that they show.
func View(site *page.Site) page.View {
	s := view{site}
	return page.View{Templates: templates, Routes: []page.Route{page.Get("/years", page.Look, s.On(s.years))}}
}

// A yearsView has a column for each year, the latest first.
type yearsView struct {
	Years []page.LinkView
	Lines []lineView
	Crops []cropView
	Empty bool
}

type lineView struct {
	What  string
	Cells []string
}

type cropView struct {
	Name, Href string
	Cells      []cellView
}

// A cellView is what a crop brought in a year: stems, and how many a plant and from when until when.
type cellView struct{ Stems, Words string }

// mostYears is how many years fit beside each other.
const mostYears = 6

func (s view) years(c *echo.Context, snap *say.Snapshot) error {
	all := review.Years(snap.Book, snap.View.Today)
	all = all[:min(len(all), mostYears)]
	v := yearsView{Empty: len(all) == 0}
	for _, y := range all {
		v.Years = append(v.Years, page.LinkView{Name: page.YearName(y.Year, snap), Href: "/season?year=" + strconv.Itoa(y.Year)})
	}
	line := func(what string, cell func(y review.Year) string) {
		l := lineView{What: what}
		said := false
		for _, y := range all {
			words := cell(y)
			said = said || words != ""
			l.Cells = append(l.Cells, words)
		}
		if said {
			v.Lines = append(v.Lines, l)
		}
	}
	number := func(of func(y review.Year) int) func(y review.Year) string {
		return func(y review.Year) string {
			if n := of(y); n > 0 {
				return strconv.Itoa(n)
			}
			return ""
		}
	}
	date := func(of func(y review.Year) day.Day) func(y review.Year) string {
		return func(y review.Year) string {
			if d := of(y); !d.IsZero() {
				return snap.DayOfYear(d)
			}
			return ""
		}
	}
	line("Stems cut", number(func(y review.Year) int { return y.Cut }))
	line("Thrown away at the cut", func(y review.Year) string {
		if y.Culled == 0 {
			return ""
		}
		return fmt.Sprintf("%d, %.0f in 100", y.Culled, 100*float64(y.Culled)/float64(y.Cut+y.Culled))
	})
	line("Made up", number(func(y review.Year) int { return y.MadeUp }))
	line("Sold as stems", number(func(y review.Year) int { return y.Sold }))
	line("Taken along and brought back", number(func(y review.Year) int { return y.Back }))
	line("Given away, composted or forgotten", number(func(y review.Year) int { return y.Lost }))
	line("Plantings started", number(func(y review.Year) int { return y.Plantings }))
	line("Plants", number(func(y review.Year) int { return y.Plants }))
	line("First cut", date(func(y review.Year) day.Day { return y.FirstCut }))
	line("Last cut", date(func(y review.Year) day.Day { return y.LastCut }))
	line("Last frost in spring", date(func(y review.Year) day.Day { return y.LastFrost }))
	line("First frost in autumn", date(func(y review.Year) day.Day { return y.FirstFrost }))
	line("Mean of the warm half year", func(y review.Year) string {
		const enough = 20 // days
		switch {
		case y.WarmDays < enough:
			return ""
		case y.WarmDays < halfYear:
			return fmt.Sprintf("%s (of %d days)", snap.Tenth(y.WarmthC), y.WarmDays)
		}
		return snap.Tenth(y.WarmthC)
	})
	line("Rain on record", func(y review.Year) string {
		if y.RainDays == 0 {
			return ""
		}
		return fmt.Sprintf("%s on %s", snap.MM(y.RainMM), say.Number(y.RainDays, "day"))
	})
	v.crops(snap, all)
	return s.Show(c, http.StatusOK, "years", "", "Year against year", snap, v)
}

// halfYear is how many days the warm half has, short of a few.
const halfYear = 178

// crops adds a line for each crop that was cut or grown in any of the years, in the order of the latest.
func (v *yearsView) crops(snap *say.Snapshot, all []review.Year) {
	at := make(map[string]int)
	for i, y := range all {
		for _, c := range y.Crops {
			if _, known := at[c.Crop]; !known {
				p := snap.Book.Crop(c.Crop)
				if p == nil {
					continue
				}
				at[c.Crop] = len(v.Crops)
				v.Crops = append(v.Crops, cropView{Name: p.Name, Href: "/crops/" + url.PathEscape(c.Crop), Cells: make([]cellView, len(all))})
			}
			cell := &v.Crops[at[c.Crop]].Cells[i]
			switch {
			case c.Cut > 0:
				*cell = cellView{strconv.Itoa(c.Cut), fmt.Sprintf("%.1f a plant, %s to %s", c.StemsAPlant, snap.DayOfYear(c.FirstCut), snap.DayOfYear(c.LastCut))}
			case c.Plants > 0:
				*cell = cellView{"", say.Number(c.Plants, "plant")}
			}
		}
	}
}
