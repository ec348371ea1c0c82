package season

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/plans"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A carryView is a year's plantings as they would be in the next, to be chosen from.
type carryView struct {
	From, To string // the years, in words
	Year     int
	Lines    []carryLine
	None     string
}

type carryLine struct {
	ID, What, When, Where string
	Chosen                bool
}

// yearFrom is the growing year that the address names, today's where it names none.
func yearFrom(c *echo.Context, snap *say.Snapshot) int {
	year, err := strconv.Atoi(c.FormValue("from"))
	if place, fault := snap.Book.Place(); err != nil && fault == nil {
		return look.SeasonYear(snap.View.Today, place.Latitude)
	}
	return year
}

// carry shows what of a year would be carried over into the next.
func (s view) carry(c *echo.Context, snap *say.Snapshot) error {
	year := yearFrom(c, snap)
	v := carryView{From: page.YearName(year, snap), To: page.YearName(year+1, snap), Year: year}
	for _, p := range plans.CarryOver(snap.Snapshot, year) {
		line := carryLine{ID: p.From.ID, What: fmt.Sprintf("%s %s, %s", p.From.ID, p.From.Variety, say.Number(p.To.Plants, "plant")), When: snap.FullDate(p.To.StartedOn), Chosen: !p.Past}
		switch {
		case p.Past:
			line.When += ": past already"
		case p.Moved:
			line.Where = fmt.Sprintf("%s, since its kind stood in %s", p.To.Bed, p.From.Bed)
		case p.NoOther:
			line.Where = fmt.Sprintf("%s again: no other bed of its kind has room", p.To.Bed)
		case p.To.Bed != "":
			line.Where = p.To.Bed
		}
		v.Lines = append(v.Lines, line)
	}
	if v.Lines == nil {
		v.None = fmt.Sprintf("Nothing of %s is left to carry over: what stands for years stays, and the rest is there already.", v.From)
	}
	return s.Show(c, http.StatusOK, "carry", "/season", "Carry the plan over", snap, v)
}

// carryOver makes the plantings that were chosen.
func (s view) carryOver(c *echo.Context, snap *say.Snapshot) error {
	form, err := c.FormValues()
	if err != nil {
		return err
	}
	year := yearFrom(c, snap)
	var records []book.Record
	var ids []string
	for _, p := range plans.CarryOver(snap.Snapshot, year) {
		if slices.Contains(form["planting"], p.From.ID) {
			records, ids = append(records, p.To.Record()), append(ids, p.To.ID)
		}
	}
	if records == nil {
		return c.Redirect(http.StatusSeeOther, "/season/carry?from="+strconv.Itoa(year))
	}
	if err := s.Farm.Add(c.Request().Context(), page.By(c), records...); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, fmt.Sprintf("/season?year=%d&done=%s", year+1, url.QueryEscape("recorded:"+book.Plantings.Name+":"+strings.Join(ids, "\t"))))
}
