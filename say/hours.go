package say

import (
	"fmt"
	"math"
	"strings"
	"time"

	"dewcount/core/climate"
	"dewcount/core/cutting"
	"dewcount/core/day"
	"dewcount/farm/book"
)

// Clock writes a solar hour of a day as the farm's clock shows it, to a quarter of an hour.
func Clock(solar float64, d day.Day, place book.Place) string {
	return Hour(ClockHour(solar, d, place))
}

// ClockHour returns the hour, 0 to 24, that the farm's clock shows at a solar hour of a day.
func ClockHour(solar float64, d day.Day, place book.Place) float64 {
	year, month, date := d.Date()
	_, offset := time.Date(year, month, date, 12, 0, 0, 0, place.Zone).Zone()
	return math.Mod(solar-climate.SundialFast(d.YearDay())-place.Longitude/15+float64(offset)/3600+24, 24)
}

// Hour says an hour of the day to the next quarter.
func Hour(hour float64) string {
	quarters := int(math.Round(4*hour)) % 96
	return fmt.Sprintf("%d:%02d", quarters/4, quarters%4*15)
}

// CutWhen says in which parts of a day stems can be cut, and why not at other hours; nothing where there is no light to cut in.
func CutWhen(snap *Snapshot, spans []cutting.Span, hot bool, d day.Day, place book.Place) string {
	if len(spans) == 0 {
		return ""
	}
	var parts []string
	for _, span := range spans {
		parts = append(parts, Clock(span.From, d, place)+" to "+Clock(span.To, d, place))
	}
	why := "after the dew, while there is light"
	if hot {
		why = "after the dew, before the heat"
	}
	e := snap.Stand.Weather(d)
	return fmt.Sprintf("Cut from about %s: %s (%s expected).", strings.Join(parts, ", or "), why, snap.Range(Celsius, e.TminC, e.TmaxC))
}
