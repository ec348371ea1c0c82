package forecast

import (
	"dewcount/core/climate"
	"dewcount/core/day"
)

// A Cover is what stands over a row, by how much warmer its nights and days are than outdoors, in °C, and what was laid over it for some days beside that.
type Cover struct {
	NightC, DayC float64
	Laid         [2]Laid // the last two
}

// Laid is a fleece or a shade cloth, by how much warmer (below 0 colder) it makes nights and days, in °C.
type Laid struct {
	NightC, DayC float64
	From, Until  day.Day // Until is the first day without it, zero while it lies
}

// on returns by how much warmer a night and a day are than outdoors.
func (c Cover) on(d day.Day) (nightC, dayC float64) {
	nightC, dayC = c.NightC, c.DayC
	for _, l := range c.Laid {
		if !l.From.IsZero() && !d.Before(l.From) && (l.Until.IsZero() || d.Before(l.Until)) {
			nightC, dayC = nightC+l.NightC, dayC+l.DayC
		}
	}
	return nightC, dayC
}

// over returns a day's extremes under the cover.
func (c Cover) over(e climate.Extremes, d day.Day) climate.Extremes {
	nightC, dayC := c.on(d)
	return climate.Extremes{TminC: e.TminC + nightC, TmaxC: max(e.TminC+nightC, e.TmaxC+dayC)}
}

// warm returns a series as it is under the cover.
func (c Cover) warm(s climate.Series) climate.Series {
	switch {
	case c == Cover{}:
		return s
	case c.Laid == [2]Laid{}:
		return s.Warmer(c.NightC, c.DayC)
	}
	days := make([]climate.Extremes, len(s.Days))
	for i, e := range s.Days {
		days[i] = c.over(e, s.First.Add(i))
	}
	return climate.Series{First: s.First, Days: days}
}
