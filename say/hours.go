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

// CutWhen says in which parts of a day stems can be cut, and why not at other hours.
func CutWhen(snap *Snapshot, t cutting.Daytime, d day.Day, place book.Place) string {
	e := snap.Stand.Weather(d)
	expected := fmt.Sprintf("(%s expected)", snap.Range(Celsius, e.TminC, e.TmaxC))
	switch {
	case t.Spans == nil && t.Frozen:
		return "It does not thaw " + expected + ": what is frozen breaks, leave it."
	case t.Spans == nil:
		return "There is no light to cut in."
	}
	var parts []string
	for _, span := range t.Spans {
		parts = append(parts, Clock(span.From, d, place)+" to "+Clock(span.To, d, place))
	}
	from, to := "after the dew", "while there is light"
	if t.Frozen {
		from = "once it has thawed"
	}
	if t.Hot {
		to = "before the heat"
	}
	return fmt.Sprintf("Cut from about %s: %s, %s %s.", strings.Join(parts, ", or "), from, to, expected)
}
