package demo

import (
	"context"
	"fmt"
	"strconv"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/croptable"
	"dewcount/farm"
	"dewcount/farm/book"
	"dewcount/standin"
)

// crewName signs what the demo's crew records.
const crewName = "crew"

// Fill makes the demo farm in an empty store, with a spring of counts and cuts on record. It does nothing in one that has a
// farm already.
func Fill(ctx context.Context, store farm.Store) error {
	b, _, err := store.Load(ctx)
	if err != nil {
		return err
	}
	if len(b.Settings) > 0 {
		return nil
	}
	b = book.NewBook([]croptable.Entry(nil))
	lay(b)
	weather := standin.NewWeather(standin.Valley, seed, weatherSince)
	b.Weather = Past(weather, FirstDay)
	if err := spring(b, weather); err != nil {
		return err
	}
	b.Jobs = caredFor(b)
	b.Scoutings = append(b.Scoutings, sightings...)
	change := book.Change{Stamp: FirstDay.String() + "T04:00:00Z"}
	for _, k := range book.Kinds() {
		change.Add = append(change.Add, b.Records(k)...)
	}
	return store.Apply(ctx, change)
}

// lay writes down the farm, its plan and its orders.
func lay(b *book.Book) {
	b.Settings = append(b.Settings, settings...)
	b.Settings = append(b.Settings, demoDay(FirstDay), book.Setting{Key: "demo_seed", Value: strconv.Itoa(seed)})
	for _, p := range blocks {
		for n := range p.beds {
			id := p.name
			if p.beds > 1 {
				id = fmt.Sprintf("%s %d", p.name, n+1)
			}
			b.Beds = append(b.Beds, book.Bed{ID: id, LengthM: &p.length, WidthM: &p.width, BearingDeg: &p.bearing, Zone: p.zone, Cover: p.cover,
				Exposure: p.wind, SunH: &p.sun})
		}
	}
	b.Trays = append(b.Trays, trays...)
	b.Varieties = append(b.Varieties, varieties...)
	for _, s := range sowings {
		p := book.Planting{ID: s.id, Variety: s.variety, Bed: s.bed, Method: s.method, StartedOn: day.Must(s.start), Plants: s.plants}
		if s.method == crop.Tray {
			p.Tray = "72 cells"
		}
		if s.out > 0 {
			p.PlantedOutOn = p.StartedOn.Add(s.out)
		}
		if s.pinched > 0 {
			p.PinchedOn = p.StartedOn.Add(s.pinched)
			if s.share < 1 {
				p.PinchedShare = &s.share
			}
		}
		b.Plantings = append(b.Plantings, p)
	}
	placeAll(b)
	for _, s := range sales {
		b.Orders = append(b.Orders, s.order)
		for i, w := range s.wants {
			line := book.OrderLine{Order: s.order.ID, Line: i + 1, Variety: w.variety, Crop: w.crop, Colour: w.colour, Role: w.role, Stems: &w.stems,
				Use: s.use.String()}
			if s.order.Kind == "standing" { // florists take bunches
				ten, price := 10, 9.5
				line.Bunch, line.Price = &ten, &price
			}
			b.OrderLines = append(b.OrderLines, line)
		}
		if extra, ok := bouquets[s.order.ID]; ok {
			b.OrderLines = append(b.OrderLines, book.OrderLine{Order: s.order.ID, Line: len(s.wants) + 1, Recipe: extra.recipe, Quantity: &extra.quantity, Use: s.use.String()})
		}
	}
	b.RecipeLines = append(b.RecipeLines, recipes...)
	for _, cropID := range []string{"snapdragon", "scabious"} { // the florist on the square fetches them on the evening of the day they are cut
		b.Schools = append(b.Schools, book.School{Crop: cropID, Question: "rest", School: "five"})
	}
	b.StorePlaces, b.Readings, b.Notes, b.Stock = placesOf(), readingsOf(), notes, counted
}

// placeAll gives the plantings squares of their beds, one after the other along each, as far as there is room for as long as they usually stand.
func placeAll(b *book.Book) {
	const bloom = 60 // days that a planting is cut for
	stays := make(map[string][]plan.Stay)
	for i := range b.Plantings {
		p := &b.Plantings[i]
		profile := b.ProfileOf(*p)
		grid, ok := b.Grid(p.Bed)
		if !ok || profile == nil {
			continue
		}
		stay := plan.Stay{Planting: p.ID, From: p.StartedOn}
		if !p.PlantedOutOn.IsZero() {
			stay.From = p.PlantedOutOn
		}
		if !profile.Lasts(p.Method) {
			stay.Until = p.StartedOn.Add(profile.TypicalDays[1] + bloom)
		}
		if stay.Patch, ok = grid.Place(p.Plants, b.SpacingCM(p.Variety, profile), stay.From, stay.Until, stays[p.Bed]); ok {
			p.Squares = stay.Patch.String()
			stays[p.Bed] = append(stays[p.Bed], stay)
		}
	}
}

func demoDay(d day.Day) book.Setting { return book.Setting{Key: "demo_day", Value: d.String()} }

func observed(w *standin.Weather, d day.Day) book.WeatherDay {
	on := w.On(d)
	return book.WeatherDay{Date: d, TminC: on.TminC, TmaxC: on.TmaxC, RainMM: &on.RainMM}
}

func issued(w *standin.Weather, evening day.Day) []book.WeatherDay {
	var days []book.WeatherDay
	for i, on := range w.Forecast(evening) {
		days = append(days, book.WeatherDay{Date: evening.Add(i + 1), TminC: on.TminC, TmaxC: on.TmaxC, RainMM: &on.RainMM, IssuedOn: evening})
	}
	return days
}

// spring lets the farm grow from its first sowing to the demo's first day, counted and cut by its crew.
func spring(b *book.Book, weather *standin.Weather) error {
	place, err := b.Place()
	if err != nil {
		return fmt.Errorf("the demo's settings: %w", err)
	}
	first := FirstDay
	for _, p := range b.Plantings {
		if p.StartedOn.Before(first) {
			first = p.StartedOn
		}
	}
	field := standin.NewField(place.DemoSeed, weather, place.Latitude, rows(b), nil, first)
	for d := first; d.Before(FirstDay); d = d.Add(1) {
		work := usualCrew.morning(b, field, place, d)
		work.enter(b)
		b.Moves = append(b.Moves, movesOf(b, d)...)
		field.Step(work.taken())
	}
	return nil
}

// Step lets a day of the demo pass: the crew counts and cuts where nobody has, the weather service tells what the day was and
// what the next week will be, and the clock moves on.
func Step(ctx context.Context, store farm.Store) error {
	return store.Change(ctx, func() (book.Change, error) {
		b, _, err := store.Load(ctx)
		if err != nil {
			return book.Change{}, err
		}
		return nextDay(b)
	})
}

// nextDay returns what the demo's day leaves on record.
func nextDay(b *book.Book) (book.Change, error) {
	place, err := b.Place()
	if err != nil {
		return book.Change{}, err
	}
	today := place.DemoDay
	if today.IsZero() {
		return book.Change{}, fmt.Errorf("this farm has no demo clock: its days pass by themselves")
	}
	weather := standin.NewWeather(standin.Valley, place.DemoSeed, weatherSince)
	field := standin.NewField(place.DemoSeed, weather, place.Latitude, rows(b), taken(b), today)
	work := usualCrew.morning(b, field, place, today)
	change := book.Change{Who: crewName, Stamp: today.String() + "T20:00:00Z"}
	change.Add = append(work.records(), water(b, today)...)
	evening := b.Own()
	work.enter(evening)
	for _, m := range movesOf(evening, today) {
		change.Add = append(change.Add, m.Record())
	}
	for _, p := range work.ended {
		change.Correct = append(change.Correct, p.Record())
	}
	change.Add = append(change.Add, observed(weather, today).Record())
	for _, w := range issued(weather, today) {
		change.Add = append(change.Add, w.Record())
	}
	change.Correct = append(change.Correct, demoDay(today.Add(1)).Record())
	return change, nil
}
