package beds

import (
	"net/http"
	"slices"
	"strconv"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/plans"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"
	"dewcount/web/parts"

	"github.com/labstack/echo/v5"
)

// A bedsView is every bed on a date, in the grower's squares.
type bedsView struct {
	Date, Spoken string
	Year         int
	YearName     string
	Years        []page.LinkView
	First, Last  string // of the slider
	Place        int    // of the date on it, in days
	Days         int
	Beds         []draw.BedView
	Square       string
	Sun          string // from where it shines at noon
	Without      string // plantings for which there is no room
	ToPlace      string
	Written      map[string]parts.NotesView // notes by bed
}

func (s view) beds(c *echo.Context, snap *say.Snapshot) error {
	year, years := page.YearOf(c, snap)
	date, err := day.Parse(c.QueryParam("on"))
	if err != nil {
		date = snap.View.Today
	} else if place, err := snap.Book.Place(); err == nil && slices.Contains(years, look.SeasonYears(date, place.Latitude)[1]) {
		year = look.SeasonYears(date, place.Latitude)[1]
	}
	season, ok, err := s.SeasonOf(c, snap, "/beds", "Beds", year)
	if err != nil || !ok {
		return err
	}
	if date.Before(season.From) || !date.Before(season.Until) {
		date = season.From.Add(180)
	}
	place, err := snap.Book.Place()
	if err != nil {
		return err
	}
	v := bedsView{Date: date.String(), Spoken: snap.FullDate(date), Year: year, YearName: page.YearName(year, snap), First: season.From.String(), Last: season.Until.Add(-1).String(),
		Place: date.Sub(season.From), Days: season.Until.Sub(season.From) - 1, Square: snap.Exact(say.Centimetre, place.SquareCM), Without: c.QueryParam("without"), Written: make(map[string]parts.NotesView)}
	v.Sun = "The sun stands in the south at noon: tall ones belong on the north side."
	if place.Latitude < 0 {
		v.Sun = "The sun stands in the north at noon: tall ones belong on the south side."
	}
	for _, y := range years {
		v.Years = append(v.Years, page.LinkView{Name: page.YearName(y, snap), Href: "/beds?year=" + strconv.Itoa(y), Here: y == year})
	}
	toPlace := 0
	for _, b := range plans.BedYears(season.Season) {
		view := draw.NewBedView(season, b, date, place)
		toPlace += len(view.Unplaced)
		v.Beds = append(v.Beds, view)
		v.Written[view.ID] = parts.NewNotes(snap, book.AboutBed, view.ID)
	}
	if toPlace > 0 {
		v.ToPlace = say.Number(toPlace, "planting") + " with a bed but no squares yet."
	}
	return s.Show(c, http.StatusOK, "beds", "/beds", "Beds", snap, v)
}
