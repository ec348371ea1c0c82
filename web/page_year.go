package web

import (
	"dewcount/core/day"
	"dewcount/farm/look"
	"fmt"
	"slices"
	"strconv"

	"github.com/labstack/echo/v5"
)

// currentYear returns the growing year of today.
func currentYear(snap *look.Snapshot) int {
	place, err := snap.Book.Place()
	if err != nil {
		return 0
	}
	return look.SeasonYears(snap.View.Today, place.Latitude)[1]
}

// yearOf returns the growing year that a page asks for, otherwise that of today, and beside it the years to choose from.
func yearOf(c *echo.Context, snap *look.Snapshot) (int, []int) {
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

// yearName writes a growing year: one number in the north, two in the south.
func yearName(year int, snap *look.Snapshot) string {
	if place, err := snap.Book.Place(); err == nil && place.Latitude < 0 {
		return fmt.Sprintf("%d/%02d", year, (year+1)%100)
	}
	return strconv.Itoa(year)
}

// yearIn returns the growing year that a day lies in, as addresses write it.
func yearIn(snap *look.Snapshot, d day.Day) string {
	place, err := snap.Book.Place()
	if err != nil {
		return ""
	}
	return strconv.Itoa(look.SeasonYears(d, place.Latitude)[1])
}
