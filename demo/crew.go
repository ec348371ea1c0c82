package demo

import (
	"hash/fnv"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/growth"
	"dewcount/farm/book"
	"dewcount/standin"
)

// A crew is who works on the stand-in field: how many plants of a row it counts, after how many days it does so again, and how
// well it sees.
type crew struct {
	name   string
	plants int
	every  int
	eyes   standin.Eyes
}

var usualCrew = crew{name: crewName, plants: 15, every: 4, eyes: standin.UsualEyes}

// A morningsWork is what the crew writes down on a day.
type morningsWork struct {
	counts []book.Count
	cuts   []book.Cut
	events []book.Event
	ended  []book.Planting
}

// morning returns what the crew writes down on a day where nobody else has.
func (who crew) morning(b *book.Book, field *standin.Field, place book.Place, d day.Day) morningsWork {
	var work morningsWork
	picks := b.PickDays(place)
	for order, p := range b.Plantings {
		if d.Before(p.StartedOn) || !p.EndedOn.IsZero() {
			continue
		}
		done := doneBefore(b, p.ID, d)
		seen := field.Look(p.ID, who.plants, who.eyes)
		if seen.Over {
			p.EndedOn = d
			work.ended = append(work.ended, p)
			continue
		}
		work.note(done, seen, p.ID, d)
		standing := 0
		for _, n := range seen.Stems {
			standing += n
		}
		if standing > 0 && !done.counted && d.Sub(p.StartedOn)%who.every == int(turn(p.ID))%who.every {
			c := book.Count{CountedAt: day.At(d, 6, order%60), Planting: p.ID, PlantsCount: seen.PlantsCounted, Counter: who.name, Stems: seen.Stems}
			work.counts = append(work.counts, c.WithID())
		}
		if picks.Has(d) && !done.cut && (seen.Ready > 0 || done.everCut) {
			cut := book.Cut{CutAt: day.At(d, 8, 0), Planting: p.ID, Stems: seen.Ready - seen.Culled, Culled: &seen.Culled}
			if seen.Culled > 0 {
				cut.CullReason = seen.CullReason
			}
			work.cuts = append(work.cuts, withID(cut))
		}
	}
	return work
}

// withID gives a cut the id that a notebook without one would.
func withID(c book.Cut) book.Cut {
	row := c.Record().Lines[0]
	return book.ReadCut(book.NewFields(func(name string) string {
		for i, column := range book.Cuts.Columns {
			if column == name {
				return row[i]
			}
		}
		return ""
	}))
}

// turn spreads the rows over the crew's mornings.
func turn(planting string) uint32 {
	h := fnv.New32a()
	h.Write([]byte(planting))
	return h.Sum32()
}

// done is what is on record of a planting already.
type done struct{ counted, cut, everCut, up, inBud bool }

func doneBefore(b *book.Book, planting string, d day.Day) done {
	var out done
	for _, c := range b.Counts {
		out.counted = out.counted || c.Planting == planting && c.CountedAt.Day() == d
	}
	for _, c := range b.Cuts {
		if c.Planting == planting {
			out.cut = out.cut || c.CutAt.Day() == d
			out.everCut = true
		}
	}
	for _, e := range b.Events {
		if e.Planting == planting {
			out.up = out.up || e.Event == book.Emerged
			out.inBud = out.inBud || e.Event == book.FirstBud
		}
	}
	return out
}

// note writes down dates that the crew has seen; it forgets a third of the rows.
func (w *morningsWork) note(done done, seen standin.Seen, planting string, d day.Day) {
	if turn(planting)%3 == 0 {
		return
	}
	add := func(event string) {
		e := book.Event{Planting: planting, Event: event, On: d}
		row := e.Record().Lines[0]
		w.events = append(w.events, book.ReadEvent(book.NewFields(func(name string) string {
			return map[string]string{"planting": row[0], "event": row[1], "on": row[2]}[name]
		})))
	}
	if seen.Up && !done.up {
		add(book.Emerged)
	}
	if seen.InBud && !done.inBud {
		add(book.FirstBud)
	}
}

// enter writes the work into a book.
func (w *morningsWork) enter(b *book.Book) {
	b.Counts = append(b.Counts, w.counts...)
	b.Cuts = append(b.Cuts, w.cuts...)
	b.Events = append(b.Events, w.events...)
	for _, p := range w.ended {
		for i := range b.Plantings {
			if b.Plantings[i].ID == p.ID {
				b.Plantings[i] = p
			}
		}
	}
}

// records returns the work as records, but for the rows that have ended.
func (w *morningsWork) records() []book.Record {
	var records []book.Record
	for _, c := range w.counts {
		records = append(records, c.Record())
	}
	for _, c := range w.cuts {
		records = append(records, c.Record())
	}
	for _, e := range w.events {
		records = append(records, e.Record())
	}
	return records
}

// taken returns the stems that the work took from the rows.
func (w *morningsWork) taken() []standin.Taken { return takenBy(w.cuts) }

func taken(b *book.Book) []standin.Taken { return takenBy(b.Cuts) }

func takenBy(cuts []book.Cut) []standin.Taken {
	var taken []standin.Taken
	for _, c := range cuts {
		taken = append(taken, standin.Taken{Planting: c.Planting, On: c.CutAt.Day(), Stems: c.Taken()})
	}
	return taken
}

// rows returns the book's plantings as the field has them.
func rows(b *book.Book) []standin.Row {
	var rows []standin.Row
	for _, p := range b.Plantings {
		profile := b.ProfileOf(p)
		market, _ := profile.Window(crop.Market, b.SchoolOf(profile.ID, "cut"))
		planting := growth.Planting{Profile: profile, Method: p.Method, Started: p.StartedOn, PlantedOut: p.PlantedOutOn}
		r := standin.Row{Planting: p.ID, Variety: p.Variety, Profile: profile, Method: p.Method, Market: market, Plants: p.Plants, Started: p.StartedOn,
			Out: planting.Out(), Pinched: p.PinchedOn, PinchedShare: p.PinchedPart(), Ended: p.EndedOn}
		if bed, ok := b.Bed(p.Bed); ok && bed.Cover == "tunnel" {
			r.WarmerC = 3.5
		}
		rows = append(rows, r)
	}
	return rows
}
