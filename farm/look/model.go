package look

import (
	"cmp"
	"fmt"
	"slices"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/evidence"
	"dewcount/core/forecast"
	"dewcount/core/growth"
	"dewcount/farm/book"
)

// A View is from when the farm is looked at.
type View struct {
	From  day.Day // the first day that may be forecast: weather and forecasts are known up to the evening before it
	Upto  day.Day // the last day whose field records are known
	Today day.Day // hindsight about a row's end is used only from here on
	To    day.Day // the last pick day wanted
}

// Usual numbers of a forecast: how far it reaches and how many weathers and traits it weighs.
const (
	UsualDays    = 35
	usualMembers = 40
	usualDraws   = 64
	usualSeed    = 20_260_709
)

// Morning returns the view from a morning: the night before is known, and what was recorded today.
func Morning(today day.Day) View {
	return View{From: today, Upto: today, Today: today, To: today.Add(UsualDays)}
}

// Evening returns the view from the evening of a day, up to a pick day.
func Evening(asOf, today, to day.Day) View {
	return View{From: asOf.Add(1), Upto: asOf, Today: today, To: to}
}

// Tunnel and House are what the covers add to nights and days, in °C: the crop table's note on tunnels, and half as much again for a house.
var (
	Tunnel = forecast.Cover{NightC: 3, DayC: 4}
	House  = forecast.Cover{NightC: 4.5, DayC: 6}
)

var covers = map[string]forecast.Cover{"tunnel": Tunnel, "house": House}

// cutHour is the hour that a cut has whose hour was not written down.
const cutHour = 8

// ModelOf returns the farm as the core computes with it.
func ModelOf(b *book.Book, v View) (*forecast.Farm, error) {
	place, err := b.Place()
	if err != nil {
		return nil, fmt.Errorf("the farm's settings: %w", err)
	}
	m := &forecast.Farm{
		Outlook: climate.Outlook{Latitude: place.Latitude, ElevationM: place.ElevationM, Usual: place.Usual, From: v.From},
		Picks:   b.PickDays(place), PickHour: place.PickHour, Ahead: place.Picking == "ahead", From: v.From, To: v.To,
		Members: usualMembers, Draws: usualDraws, Seed: usualSeed, BoxCd: growth.BoxCd,
	}
	addWeather(b, &m.Outlook)
	seen := newSeen(b, place, v)
	for _, p := range b.Plantings {
		profile := b.ProfileOf(p)
		if profile == nil || book.CanStart(profile, p.Method) != "" {
			return nil, fmt.Errorf("planting %s cannot be grown by the model: %s", p.ID, p.Variety)
		}
		m.Plantings = append(m.Plantings, seen.row(p, profile))
	}
	return m, nil
}

// Row returns a planting as the core would compute with it, were it on record: with the records that name it.
func (s *Snapshot) Row(p book.Planting, profile *crop.Profile) (forecast.Planting, error) {
	place, err := s.Book.Place()
	if err != nil {
		return forecast.Planting{}, err
	}
	return newSeen(s.Book, place, s.View).row(p, profile), nil
}

// addWeather hands over what was observed before the outlook's From, the latest forecast that was issued by then, and what forecasts of the year
// before said of days that have come.
func addWeather(b *book.Book, o *climate.Outlook) {
	var issued day.Day
	came := make(map[day.Day]climate.Extremes)
	for _, w := range b.Weather {
		if w.IssuedOn.Before(o.From) && w.IssuedOn.After(issued) {
			issued = w.IssuedOn
		}
		if w.IssuedOn.IsZero() && w.Date.Before(o.From) {
			came[w.Date] = extremes(w)
		}
	}
	for _, w := range b.Weather {
		d := climate.Dated{Day: w.Date, Extremes: extremes(w)}
		observed, known := came[w.Date]
		switch {
		case w.IssuedOn.IsZero() && w.Date.Before(o.From):
			o.Observed = append(o.Observed, d)
		case !w.IssuedOn.IsZero() && w.IssuedOn == issued && !w.Date.Before(o.From):
			o.Issued = append(o.Issued, d)
		case known && o.From.Sub(w.Date) < 365:
			o.Foretold = append(o.Foretold, climate.Foretold{Dated: d, LeadDays: w.Date.Sub(w.IssuedOn), Came: observed})
		}
	}
	o.IssuedOn = issued
	byDay := func(x, y climate.Dated) int { return x.Day.Compare(y.Day) }
	slices.SortFunc(o.Observed, byDay)
	slices.SortFunc(o.Issued, byDay)
	slices.SortFunc(o.Foretold, func(x, y climate.Foretold) int {
		return cmp.Or(x.Day.Compare(y.Day), cmp.Compare(x.LeadDays, y.LeadDays))
	})
}

func extremes(w book.WeatherDay) climate.Extremes {
	return climate.Extremes{TminC: w.TminC, TmaxC: w.TmaxC}
}

// A seen is what was recorded in the field up to a view, by planting.
type seen struct {
	b      *book.Book
	place  book.Place
	view   View
	events map[string][]book.Event
	counts map[string][]book.Count
	cuts   map[string][]book.Cut
	sound  map[string]float64 // the share of cut stems that were kept, by crop
	eyes   map[string]evidence.Eye
}

func newSeen(b *book.Book, place book.Place, v View) *seen {
	s := &seen{b: b, place: place, view: v, events: make(map[string][]book.Event), counts: make(map[string][]book.Count), cuts: make(map[string][]book.Cut), eyes: make(map[string]evidence.Eye)}
	for _, e := range b.Events {
		if !e.On.After(v.Upto) {
			s.events[e.Planting] = append(s.events[e.Planting], e)
		}
	}
	for _, c := range b.Counts {
		if !c.CountedAt.Day().After(v.Upto) {
			s.counts[c.Planting] = append(s.counts[c.Planting], c)
		}
	}
	for _, c := range b.Cuts {
		if !c.CutAt.Day().After(v.Upto) {
			s.cuts[c.Planting] = append(s.cuts[c.Planting], c)
		}
	}
	s.sound = s.soundShares()
	return s
}

// soundShares returns the share of cut stems that were kept, by crop: the farm's cuts, and twenty stems' worth of usual loss.
func (s *seen) soundShares() map[string]float64 {
	const usualCulled, usualStems = 1, 20
	culled, taken := make(map[string]float64), make(map[string]float64)
	for _, p := range s.b.Plantings {
		if profile := s.b.ProfileOf(p); profile != nil {
			for _, c := range s.cuts[p.ID] {
				culled[profile.ID] += float64(book.OrZero(c.Culled))
				taken[profile.ID] += float64(c.Taken())
			}
		}
	}
	shares := make(map[string]float64)
	for _, p := range s.b.Crops() {
		shares[p.ID] = 1 - (culled[p.ID]+usualCulled)/(taken[p.ID]+usualStems)
	}
	return shares
}

// row returns a planting as the core computes with it.
func (s *seen) row(p book.Planting, profile *crop.Profile) forecast.Planting {
	v := s.view
	out := forecast.Planting{
		ID: p.ID, Variety: p.Variety, Sound: s.b.SoundOf(p.ID, s.sound[profile.ID], v.Upto), Until: v.From.At(0),
		Growth: growth.Planting{Profile: profile, Method: p.Method, Plants: p.Plants, Started: p.StartedOn, PlantedOut: p.PlantedOutOn,
			Pinched: p.PinchedOn, PinchedShare: p.PinchedPart(), KeepBuds: p.CutStyle == "keep-buds" || p.CutStyle == "" && s.b.SchoolOf(profile.ID, "side-buds") == "keep-buds",
			Disbudded: profile.LargeHeads() && s.b.SchoolOf(profile.ID, "disbud") == "always"},
		Bench: climate.Extremes{TminC: profile.Nursery.Night, TmaxC: profile.Nursery.Day},
	}
	if s.place.Bench != nil {
		out.Bench = *s.place.Bench
	}
	if bed, ok := s.b.Bed(p.Bed); ok {
		out.Cover = covers[bed.Cover]
	}
	if !p.EndedOn.IsZero() && (!p.EndedOn.After(v.Upto) || p.EndedOn.After(v.Today)) {
		out.Ended = p.EndedOn
	}
	out.Windows, out.HasUse = s.b.Windows(profile)
	out.Growth.Market = out.Windows[crop.Market]
	for _, e := range s.events[p.ID] {
		switch e.Event {
		case book.Emerged:
			out.Emerged = append(out.Emerged, e.On)
		case book.FirstBud:
			out.FirstBud = append(out.FirstBud, e.On)
		case book.ShortDays:
			out.Growth.ShortDays = e.On
		}
	}
	out.Cover.Laid = laidOver(s.events[p.ID])
	s.addRecords(&out)
	return out
}

// countEvidence returns a count as the core has it: never on more plants than the planting has, and with the necks that were tried of the
// stems in the market's window.
func countEvidence(c book.Count, eye evidence.Eye, at float64, p *forecast.Planting) evidence.Count {
	e := evidence.Count{At: at, Plants: min(c.PlantsCount, p.Growth.Plants), Stems: c.Stems, Counter: c.Counter, Eye: eye}
	for k, firm := range c.Firm {
		if firm != nil && p.Growth.Market.Holds(crop.Rung(k)) {
			e.Tried += c.Stems[k]
			e.Firm += *firm
		}
	}
	return e
}

// addRecords adds the counts and cuts of a planting.
func (s *seen) addRecords(out *forecast.Planting) {
	note := func(at float64, d day.Day, stems int) {
		out.Until = max(out.Until, at)
		if stems > 0 && d.After(out.Alive) {
			out.Alive = d
		}
	}
	for _, c := range s.counts[out.ID] {
		at := c.CountedAt.Instant(book.CountHour)
		out.Counts = append(out.Counts, countEvidence(c, s.eyeOf(c.Counter), at, out))
		note(at, c.CountedAt.Day(), c.Total())
	}
	for _, c := range s.cuts[out.ID] {
		at := c.CutAt.Instant(cutHour)
		note(at, c.CutAt.Day(), c.Taken())
		left := evidence.LeftNone
		switch {
		case c.Left != nil:
			left = *c.Left
		case s.place.Picking == "sold":
			left = evidence.LeftUnknown
		}
		same := slices.IndexFunc(out.Cuts, func(e evidence.Cut) bool { return e.At == at })
		if same < 0 {
			out.Cuts = append(out.Cuts, evidence.Cut{At: at, Taken: c.Taken(), Left: left})
			continue
		}
		out.Cuts[same].Taken += c.Taken() // a further reason for culling is a further row of the same cut
		if left != evidence.LeftNone {
			out.Cuts[same].Left = left
		}
	}
}
