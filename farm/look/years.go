package look

import "dewcount/core/day"

// SeasonYear returns the year in which the growing year of a day begins: the calendar year in the north, July to June in the south.
func SeasonYear(d day.Day, latitude float64) int { return seasonYear(d, latitude) }
