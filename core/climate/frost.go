package climate

import (
	"slices"

	"dewcount/core/day"
)

// A FrostRisk is when the cold comes in the possible weathers: the last day of the spring and the first of the autumn on which each
// of them falls to a temperature.
type FrostRisk struct {
	last, first []day.Day // sorted; a weather without such a day has none
	weathers    int
}

// Frosts returns the risk of a minimum at or below celsius (°C) in the growing year that a day falls in: before the turn of its
// summer and after it. The summer turns on 15 July in the north and on 15 January in the south. Days that are past are taken
// from past, where they are on record; the others from the members.
func Frosts(past Series, members []Series, celsius, latitude float64, around day.Day) FrostRisk {
	year, _, _ := around.Date()
	turn := day.Of(year, 7, 15)
	if latitude < 0 {
		turn = day.Of(year, 1, 15)
		if around.Sub(turn) > 181 {
			turn = day.Of(year+1, 1, 15)
		}
	}
	risk := FrostRisk{weathers: len(members)}
	for _, m := range members {
		var last, first day.Day
		for d := turn.Add(-182); d.Before(turn.Add(183)); d = d.Add(1) {
			e, ok := m.on(d)
			if !ok {
				e, ok = past.on(d)
			}
			if !ok || e.TminC > celsius {
				continue
			}
			if d.Before(turn) {
				last = d
			} else if first.IsZero() {
				first = d
			}
		}
		if !last.IsZero() {
			risk.last = append(risk.last, last)
		}
		if !first.IsZero() {
			risk.first = append(risk.first, first)
		}
	}
	slices.SortFunc(risk.last, day.Day.Compare)
	slices.SortFunc(risk.first, day.Day.Compare)
	return risk
}

func (s Series) on(d day.Day) (Extremes, bool) {
	if i := d.Sub(s.First); i >= 0 && i < len(s.Days) {
		return s.Days[i], true
	}
	return Extremes{}, false
}

// After returns the chance, 0 to 1, that the spring still brings such a cold day after d.
func (r FrostRisk) After(d day.Day) float64 {
	return r.share(r.last, func(last day.Day) bool { return last.After(d) })
}

// Before returns the chance, 0 to 1, that the autumn brings such a cold day before d.
func (r FrostRisk) Before(d day.Day) float64 {
	return r.share(r.first, func(first day.Day) bool { return first.Before(d) })
}

func (r FrostRisk) share(days []day.Day, is func(day.Day) bool) float64 {
	n := 0
	for _, d := range days {
		if is(d) {
			n++
		}
	}
	return float64(n) / float64(max(1, r.weathers))
}

// Last returns the day after which the chance of another such day in spring is no greater than risk (0 to 1), the zero Day if it
// never is.
func (r FrostRisk) Last(risk float64) day.Day {
	for i := len(r.last) - 1; i >= 0; i-- {
		if d := r.last[i]; r.After(d.Add(-1)) > risk {
			return d
		}
	}
	return day.Day{}
}

// First returns the day up to which the chance of such a day in autumn is no greater than risk (0 to 1), the zero Day if it never
// is greater.
func (r FrostRisk) First(risk float64) day.Day {
	for _, d := range r.first {
		if r.Before(d.Add(1)) > risk {
			return d
		}
	}
	return day.Day{}
}
