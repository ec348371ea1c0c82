package growth

import (
	"time"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// A Season is a planting's growth between two rests: the whole life of what flowers once, a year of what lasts.
type Season struct {
	Planting
	From, Until day.Day // its stems are cut on days from From to before Until; From is zero for a whole life, Until for no end
}

// Holds tells whether stems cut on a day are of the season.
func (s *Season) Holds(d day.Day) bool {
	return !d.Before(s.From) && (s.Until.IsZero() || d.Before(s.Until))
}

// restDays is how long before the turn of its year a lasting plant goes to rest: on 1 October in the north, where the year turns on
// 1 January.
const restDays = 92

// Seasons returns the seasons of a planting at a latitude in degrees north that end after a day and begin up to another, in order.
// What was established or divided has rested before; what was raised or set has a first season of its own, and is established
// after it. The year of the south turns on 1 July.
func (p *Planting) Seasons(latitude float64, after, upto day.Day) []Season {
	if !p.Profile.Lasts(p.Method) {
		return []Season{{Planting: *p}}
	}
	var seasons []Season
	year := yearOf(p.Started.Add(restDays), latitude)
	if p.Method == crop.Division {
		year = yearOf(p.Started.Add(halfYearDays), latitude) // late in the year it roots and flowers in the next
	}
	if p.Method != crop.Established && p.Method != crop.Division {
		if p.Method.Sown() && p.Profile.ChillDays > 0 {
			year = yearOf(p.Started, latitude) + 1 // it flowers after its first winter
		}
		year++
		if first := (Season{*p, day.Day{}, turn(year, latitude)}); first.Until.After(after) {
			seasons = append(seasons, first)
		}
	}
	if skipped := yearOf(after, latitude); skipped > year {
		year = skipped
	}
	for ; !turn(year, latitude).After(upto); year++ {
		s := Season{*p, turn(year, latitude), turn(year+1, latitude)}
		s.Turn, s.Rested = s.From, s.From.Add(-restDays)
		if !s.Holds(p.Pinched) {
			s.Pinched = day.Day{}
		}
		s.Emerged, s.PlantedOut, s.InBud = day.Day{}, day.Day{}, day.Day{}
		seasons = append(seasons, s)
	}
	return seasons
}

// turn returns the first day of a growing year: 1 January of that year in the north, 1 July of it in the south.
func turn(year int, latitude float64) day.Day {
	if latitude < 0 {
		return day.Of(year, time.July, 1)
	}
	return day.Of(year, time.January, 1)
}

// yearOf returns the growing year that a day falls in.
func yearOf(d day.Day, latitude float64) int {
	year, _, _ := d.Date()
	if d.Before(turn(year, latitude)) {
		year--
	}
	return year
}

// halfYearDays parts a growing year: a bulb or corm that is set in its first half was chilled in the store.
const halfYearDays = 181

// chillFrom returns the day from which a planting's chill days are counted, and whether it needs them.
func (p *Planting) chillFrom(latitude float64) (day.Day, bool) {
	switch {
	case p.Profile.ChillDays == 0:
		return day.Day{}, false
	case !p.Rested.IsZero():
		return p.Rested, true
	case p.Method.Sown():
		return p.Out(), true
	case p.Started.Sub(turn(yearOf(p.Started, latitude), latitude)) < halfYearDays:
		return day.Day{}, false
	default:
		return p.Started, true
	}
}
