package forecast

import (
	"dewcount/core/climate"
	"dewcount/core/cutting"
	"dewcount/core/day"
)

// Weather returns the extremes of a day: as they are on record or bridged, and from then on the mean of the members.
func (s *Stand) Weather(d day.Day) climate.Extremes {
	if i := d.Sub(s.sky.past.First); i >= 0 && i < len(s.sky.past.Days) {
		return s.sky.past.Days[i]
	}
	var mean climate.Extremes
	for _, m := range s.sky.members {
		i := min(len(m.Days)-1, max(0, d.Sub(m.First)))
		mean.TminC += m.Days[i].TminC / float64(len(s.sky.members))
		mean.TmaxC += m.Days[i].TmaxC / float64(len(s.sky.members))
	}
	return mean
}

// CuttingHours returns the parts of a day, in solar hours, in which stems can be cut up to so many °C.
func (s *Stand) CuttingHours(d day.Day, untilC float64) cutting.Daytime {
	return cutting.Hours(s.Weather(d.Add(-1)), s.Weather(d), s.Weather(d.Add(1)), climate.SunHours(s.sky.latitude, d.YearDay()), untilC)
}

// CdADay returns the warmth in °Cd that a day from d on brings the stems of planting i, at their likely pace and on the mean of some days.
func (s *Stand) CdADay(i int, d day.Day, days int) float64 {
	p := &s.farm.Plantings[i]
	sum := 0.0
	for k := range days {
		at := d.Add(k)
		sun := climate.SunHours(s.sky.latitude, at.YearDay())
		under := func(d day.Day) climate.Extremes { return p.Cover.over(s.Weather(d), d) }
		sum += p.Growth.Profile.Response.DegreeDays(climate.WarmthHours(under(at.Add(-1)), under(at), under(at.Add(1)), sun))
	}
	pace := 1.0
	if learned, ok := s.Learned(i); ok {
		pace = learned.Pace[1]
	}
	return sum / float64(max(1, days)) / pace
}

// FrostWithin returns the chance, 0 to 1, that a frost kills what stands of planting i in one of so many nights after a day, if it lives until then.
func (s *Stand) FrostWithin(i int, after day.Day, nights int) float64 {
	r := s.on(i, s.farm.From)
	if r == nil || r.dead || r.later != nil {
		return 0
	}
	killed, alive := 0, 0
	for _, d := range r.frost {
		if !d.IsZero() && !d.After(after) {
			continue
		}
		alive++
		if !d.IsZero() && d.Sub(after) <= nights {
			killed++
		}
	}
	return float64(killed) / float64(max(1, alive))
}

// SoilWarm returns the first day from From on by which the soil is so warm, in °C, as often as not, and whether there is one.
func (s *Stand) SoilWarm(celsius float64) (day.Day, bool) {
	return climate.SoilWarm(s.sky.past, s.sky.members, celsius, 0.5, s.farm.From)
}

// Frosts returns the risk of a minimum at or below celsius (°C) in the growing year that a day falls in.
func (s *Stand) Frosts(celsius float64, around day.Day) climate.FrostRisk {
	return climate.Frosts(s.sky.past, s.sky.members, celsius, s.sky.latitude, around)
}

// NightBelow returns the chance, 0 to 1, that the minimum of a day to come is at or below celsius (°C).
func (s *Stand) NightBelow(d day.Day, celsius float64) float64 {
	n := 0
	for _, m := range s.sky.members {
		if i := d.Sub(m.First); i >= 0 && i < len(m.Days) && m.Days[i].TminC <= celsius {
			n++
		}
	}
	return float64(n) / float64(max(1, len(s.sky.members)))
}

// WinterC returns the lowest temperature in °C that the year to come brings: the mean over the weathers.
func (s *Stand) WinterC() float64 {
	const year = 365
	sum := 0.0
	for _, m := range s.sky.members {
		lowest := m.Days[0].TminC
		for _, e := range m.Days[:min(year, len(m.Days))] {
			lowest = min(lowest, e.TminC)
		}
		sum += lowest
	}
	return sum / float64(max(1, len(s.sky.members)))
}
