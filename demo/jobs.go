package demo

import (
	"fmt"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/rounds"
	"dewcount/farm/book"
)

// caredFor writes down what the crew did to its rows before the demo's first day: once what is done once, and lately what is done
// again and again.
func caredFor(b *book.Book) []book.JobRecord {
	var done []book.JobRecord
	note := func(p book.Planting, task rounds.Task, on day.Day, id string) {
		if !on.Before(FirstDay) || on.Before(p.StartedOn) {
			return
		}
		done = append(done, book.JobRecord{Job: id, Planting: p.ID, Task: task, State: book.JobDone, On: on, Person: crewName})
	}
	for _, p := range b.Plantings {
		if !p.StartedOn.Before(FirstDay) || !p.EndedOn.IsZero() {
			continue
		}
		out := p.StartedOn
		if !p.PlantedOutOn.IsZero() {
			out = p.PlantedOutOn
		}
		once := func(task rounds.Task, after int) { note(p, task, out.Add(after), p.ID+" "+string(task)) }
		if p.Method == crop.Direct {
			once(rounds.Thin, 16)
			once(rounds.ThinMore, 26)
		}
		once(rounds.Net, 24)
		once(rounds.RaiseNet, 48)
		once(rounds.Strip, 55)
		again := func(task rounds.Task, ago, before int) {
			on := FirstDay.Add(-ago)
			note(p, task, on, fmt.Sprintf("%s %s %s", p.ID, task, on.Add(-before)))
		}
		if zone := zoneOf(b, p); !on(p, FirstDay.Add(-12)) {
			again(rounds.Water, 1, 1) // a seed bed, by hand
		} else {
			again(rounds.Water, 1+zone, 3)
		}
		again(rounds.Scout, 1+int(turn(p.ID)%6), 7)
		again(rounds.Weed, 2+int(turn(p.ID)%8), 14)
		again(rounds.Feed, 4+int(turn(p.ID)%15), 21)
	}
	return done
}

// sightings are what the crew saw on its last rounds.
var sightings = []book.Scouting{
	{ID: "larkenfold-scouting-1", Planting: "DA1", On: day.Of(2026, 7, 5), Cause: "earwigs", Stems: 40, Spoiled: whole(2), Done: "traps of straw in pots"},
	{ID: "larkenfold-scouting-2", Planting: "CO1", On: day.Of(2026, 7, 3), Cause: "leaf-eating beetles", Stems: 60, Spoiled: whole(3), Done: "picked by hand"},
}

// on tells whether a planting had been started by a day.
func on(p book.Planting, d day.Day) bool { return !p.StartedOn.After(d) }

// zoneOf returns the place of a planting's bed in the crew's turn of watering.
func zoneOf(b *book.Book, p book.Planting) int {
	bed, _ := b.Bed(p.Bed)
	return map[string]int{"brook": 0, "barn": 1, "hill": 2}[bed.Zone]
}

// water writes down what the crew waters on a day: a zone every third day, and seed beds by hand.
func water(b *book.Book, d day.Day) []book.Record {
	last := make(map[string]day.Day)
	for _, j := range b.Jobs {
		if j.Task == rounds.Water && j.State == book.JobDone && j.On.After(last[j.Planting]) {
			last[j.Planting] = j.On
		}
	}
	var records []book.Record
	for _, p := range b.Plantings {
		if !on(p, d) || !p.EndedOn.IsZero() || last[p.ID] == d {
			continue
		}
		seedBed := p.Method == crop.Direct && d.Sub(p.StartedOn) < 12
		if !seedBed && d.Sub(FirstDay)%3 != zoneOf(b, p) {
			continue
		}
		id := p.ID + " " + string(rounds.Water)
		if !last[p.ID].IsZero() {
			id += " " + last[p.ID].String()
		}
		records = append(records, book.JobRecord{Job: id, Planting: p.ID, Task: rounds.Water, State: book.JobDone, On: d, Person: crewName}.Record())
	}
	return records
}
