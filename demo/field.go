package demo

import (
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/standin"
)

// WeatherOf returns the weather that a made-up farm of the valley has by its seed.
func WeatherOf(place book.Place) *standin.Weather {
	return standin.NewWeather(standin.Valley, place.DemoSeed, weatherSince)
}

// FieldOf returns the field of a made-up farm as it stands on the morning of a day, grown from its seed and cut as on record.
func FieldOf(b *book.Book, place book.Place, weather *standin.Weather, today day.Day) *standin.Field {
	return standin.NewField(place.DemoSeed, weather, place.Latitude, rows(b), taken(b), today)
}

// heardEvenings is of how many evenings a made-up farm has kept what the weather service said.
const heardEvenings = 56

// Past returns the weather that a made-up farm has on record on the morning of a day: since two years before, and the forecasts of the evenings of the
// last weeks.
func Past(weather *standin.Weather, today day.Day) []book.WeatherDay {
	var past []book.WeatherDay
	for d := weatherSince; d.Before(today); d = d.Add(1) {
		past = append(past, observed(weather, d))
	}
	for d := today.Add(-heardEvenings); d.Before(today); d = d.Add(1) {
		past = append(past, issued(weather, d)...)
	}
	return past
}

// Evening returns what the weather service says on the evening of a day: what the day was, and what the next will be.
func Evening(weather *standin.Weather, today day.Day) []book.WeatherDay {
	return append([]book.WeatherDay{observed(weather, today)}, issued(weather, today)...)
}

// A Morning is what the made-up crew writes down on a day of what nobody else has.
type Morning struct {
	Counts []book.Count
	Cuts   []book.Cut
	Events []book.Event
	Ended  []book.Planting // with the day on it
}

// MorningOf returns the crew's morning on a field that stands as on record.
func MorningOf(b *book.Book, field *standin.Field, place book.Place, d day.Day) Morning {
	w := usualCrew.morning(b, field, place, d)
	return Morning{w.counts, w.cuts, w.events, w.ended}
}

// Enter writes the morning into a book.
func (m *Morning) Enter(b *book.Book) {
	w := morningsWork{m.Counts, m.Cuts, m.Events, m.Ended}
	w.enter(b)
}

// Records returns the morning as records, but for the rows that have ended.
func (m *Morning) Records() []book.Record {
	w := morningsWork{m.Counts, m.Cuts, m.Events, m.Ended}
	return w.records()
}

// TakenOn returns the stems that left the rows on a day, as a book has it.
func TakenOn(b *book.Book, d day.Day) []standin.Taken {
	var on []standin.Taken
	for _, t := range taken(b) {
		if t.On == d {
			on = append(on, t)
		}
	}
	return on
}

// Seen returns what the crew sees of a row this morning: what is spoilt depends on who looks, and by this all see the same.
func Seen(field *standin.Field, planting string) standin.Seen {
	return field.Look(planting, usualCrew.plants, usualCrew.eyes)
}

// A Grown is the sound stems that a row gave on a pick.
type Grown struct {
	Planting string
	On       day.Day
	Sound    int
}

// Grow returns what the plantings of a book give from its field up to a day where all that is ready is cut on each pick day, whatever is on record as cut.
func Grow(b *book.Book, place book.Place, until day.Day) []Grown {
	all := rows(b)
	first := until
	for i := range all {
		all[i].Ended = day.Day{}
		if all[i].Started.Before(first) {
			first = all[i].Started
		}
	}
	field := standin.NewField(place.DemoSeed, WeatherOf(place), place.Latitude, all, nil, first)
	picks := b.PickDays(place)
	var grown []Grown
	for d := first; d.Before(until); d = d.Add(1) {
		var cuts []standin.Taken
		if picks.Has(d) {
			for _, r := range all {
				if seen := Seen(field, r.Planting); seen.Ready > 0 {
					cuts = append(cuts, standin.Taken{Planting: r.Planting, On: d, Stems: seen.Ready})
					grown = append(grown, Grown{r.Planting, d, seen.Ready - seen.Culled})
				}
			}
		}
		field.Step(cuts)
	}
	return grown
}
