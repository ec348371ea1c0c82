package page

import (
	"fmt"
	"slices"
	"strconv"

	"dewcount/core/day"
	"dewcount/farm/look"
	"dewcount/say"

	"github.com/labstack/echo/v5"
)

// CurrentYear returns the growing year of today.
func CurrentYear(snap *say.Snapshot) int {
	place, err := snap.Book.Place()
	if err != nil {
		return 0
	}
	return look.SeasonYears(snap.View.Today, place.Latitude)[1]
}

// YearOf returns the growing year that a page asks for, otherwise that of today, and beside it the years to choose from.
func YearOf(c *echo.Context, snap *say.Snapshot) (int, []int) {
	place, err := snap.Book.Place()
	if err != nil {
		return 0, nil
	}
	years := look.SeasonYears(snap.View.Today, place.Latitude)
	if y, err := strconv.Atoi(c.QueryParam("year")); err == nil && slices.Contains(years, y) {
		return y, years
	}
	return years[1], years
}

// YearName writes a growing year: one number in the north, two in the south.
func YearName(year int, snap *say.Snapshot) string {
	if place, err := snap.Book.Place(); err == nil && place.Latitude < 0 {
		return fmt.Sprintf("%d/%02d", year, (year+1)%100)
	}
	return strconv.Itoa(year)
}

// YearIn returns the growing year that a day lies in, as addresses write it.
func YearIn(snap *say.Snapshot, d day.Day) string {
	place, err := snap.Book.Place()
	if err != nil {
		return ""
	}
	return strconv.Itoa(look.SeasonYears(d, place.Latitude)[1])
}
