package plans

import (
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// unsureChance is how sure a plan shall be on a farm that has cut nothing yet: what it does not know of its weather and soil would cost twice the plants at nine times in ten.
const unsureChance = 0.7

// UsualChance returns how sure a week of bloom is planned to be where nobody says: as the farm has it, and less on one that has nothing on record.
func UsualChance(b *book.Book, place book.Place) float64 {
	if _, set := b.Record(book.Settings, "chance"); !set && len(b.Cuts) == 0 {
		return min(place.Chance, unsureChance)
	}
	return place.Chance
}

// UsualFrom returns from when on a crop can be planned for: from when the first sowing that can still be made is usually in bloom.
func UsualFrom(s *look.Snapshot, p *crop.Profile, variety string) day.Day {
	const anyCrop = 80 // days from its sowing
	if first := firstBloom(s, p, variety); !first.IsZero() {
		return first.Add(untilSure)
	}
	return s.View.Today.Add(anyCrop)
}

// UsualUntil returns until when it can be from a day on: a season long, or until a week before the frost; what is hardy may bloom beyond that, but no
// more than four weeks of it are planned for where nobody asks.
func UsualUntil(s *look.Snapshot, from day.Day) day.Day {
	const whole = 12 * 7
	frost := s.FrostDates(from).First
	switch {
	case frost.IsZero() || !frost.Add(-untilFrost).Before(from.Add(whole)):
		return from.Add(whole)
	case frost.Sub(from) >= worth:
		return frost.Add(-untilFrost)
	default:
		return from.Add(worth)
	}
}

// A bloom is sure untilSure days after its first cut and over untilFrost days before the frost; less than worth days of it before the frost are not planned for. All in days.
const (
	untilSure  = 7
	untilFrost = 7
	worth      = 28
)

// firstBloom returns when the first sowing of a crop that can still be made, and blooms for some weeks before the frost, is usually first cut; zero where none in a year is.
func firstBloom(s *look.Snapshot, p *crop.Profile, variety string) day.Day {
	const (
		ahead = 370
		step  = 7
		tries = 6
		edge  = 28 // days by which what shall bloom after the winter is sown later than what might just bloom before it
	)
	g, err := GroundOf(s, p.ID, variety, "")
	if err != nil {
		return day.Day{}
	}
	method := p.PreferredStart
	if m := crop.Method(s.Book.SchoolOf(p.ID, "start")); m != "" && p.HasStart(m) {
		method = m
	}
	starts := startsOf(s, g, []crop.Method{method}, false)
	firstCut := func(w plan.Sowing) day.Day {
		until := min(ahead, look.FarthestSeason-w.Started.Sub(s.View.Today))
		first, _ := g.Coarse().Try([]plan.Sowing{w}, crop.Market, w.Started.Add(until)).Cuts(w)
		return first
	}
	before := untilSure + worth // days by which a bloom begins before the frost
	switch {
	case p.Overwinters && p.Daylength.Kind == "short":
		before = -ahead // its season is the autumn, whenever it is started
	case p.Overwinters:
		before = worth // it goes on for a while after the first
	}
	tried := 0
	var late day.Day // the first bloom that begins too late for that
	for d := s.View.Today; d.Sub(s.View.Today) < ahead && tried < tries; d = d.Add(step) {
		frost := s.FrostDates(d).First
		if !p.Overwinters && d.Before(frost) && frost.Sub(d) < p.TypicalDays[0]+untilSure+worth {
			continue // too late this year
		}
		for _, w := range starts.On(d) {
			first := firstCut(w)
			if first.IsZero() {
				tried++
				continue
			}
			if end := s.FrostDates(first).First; !end.IsZero() && end.Sub(first) < before {
				if late.IsZero() {
					late = first
				}
				continue
			}
			if d.Before(frost) && frost.Before(first) {
				for _, later := range starts.On(d.Add(edge)) {
					if first := firstCut(later); !first.IsZero() {
						return first
					}
				}
			}
			return first
		}
	}
	return late
}
