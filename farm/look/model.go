package look

import (
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

// What the covers add to nights and days, in °C: the crop table's note on tunnels, and half as much again for a house.
var Covers = map[string]forecast.Cover{
	"tunnel": {NightC: 3, DayC: 4},
	"house":  {NightC: 4.5, DayC: 6},
}

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
	sound := SoundShares(b, v.Upto)
	for _, p := range b.Plantings {
		profile := b.ProfileOf(p)
		if profile == nil || book.CanStart(profile, p.Method) != "" {
			return nil, fmt.Errorf("planting %s cannot be grown by the model: %s", p.ID, p.Variety)
		}
		m.Plantings = append(m.Plantings, PlantingOf(b, p, profile, place, v, sound[profile.ID]))
	}
	return m, nil
}

// addWeather hands over what was observed before the outlook's From and the latest forecast that was issued by then.
func addWeather(b *book.Book, o *climate.Outlook) {
	var issued day.Day
	for _, w := range b.Weather {
		if w.IssuedOn.Before(o.From) && w.IssuedOn.After(issued) {
			issued = w.IssuedOn
		}
	}
	for _, w := range b.Weather {
		d := climate.Dated{Day: w.Date, Extremes: climate.Extremes{TminC: w.TminC, TmaxC: w.TmaxC}}
		switch {
		case w.IssuedOn.IsZero() && w.Date.Before(o.From):
			o.Observed = append(o.Observed, d)
		case !w.IssuedOn.IsZero() && w.IssuedOn == issued && !w.Date.Before(o.From):
			o.Issued = append(o.Issued, d)
		}
	}
	o.IssuedOn = issued
	byDay := func(x, y climate.Dated) int { return x.Day.Compare(y.Day) }
	slices.SortFunc(o.Observed, byDay)
	slices.SortFunc(o.Issued, byDay)
}

// SoundShares returns the share of cut stems that were kept, by crop: the farm's cuts, and twenty stems' worth of usual loss.
func SoundShares(b *book.Book, upto day.Day) map[string]float64 {
	const usualCulled, usualStems = 1, 20
	culled, taken := make(map[string]float64), make(map[string]float64)
	for _, c := range b.Cuts {
		if p, ok := b.Planting(c.Planting); ok && !c.CutAt.Day().After(upto) {
			if profile := b.ProfileOf(p); profile != nil {
				culled[profile.ID] += float64(book.OrZero(c.Culled))
				taken[profile.ID] += float64(c.Taken())
			}
		}
	}
	shares := make(map[string]float64)
	for _, p := range b.Crops() {
		id := p.ID
		shares[id] = 1 - (culled[id]+usualCulled)/(taken[id]+usualStems)
	}
	return shares
}

func PlantingOf(b *book.Book, p book.Planting, profile *crop.Profile, place book.Place, v View, sound float64) forecast.Planting {
	out := forecast.Planting{
		ID: p.ID, Variety: p.Variety, Sound: b.SoundOf(p.ID, sound, v.Upto), Until: v.From.At(0),
		Growth: growth.Planting{Profile: profile, Method: p.Method, Plants: p.Plants, Started: p.StartedOn, PlantedOut: p.PlantedOutOn,
			Pinched: p.PinchedOn, PinchedShare: p.PinchedPart(), KeepBuds: p.CutStyle == "keep-buds"},
		Bench: climate.Extremes{TminC: profile.Nursery.Night, TmaxC: profile.Nursery.Day},
	}
	if place.Bench != nil {
		out.Bench = *place.Bench
	}
	if bed, ok := b.Bed(p.Bed); ok {
		out.Cover = Covers[bed.Cover]
	}
	if !p.EndedOn.IsZero() && (!p.EndedOn.After(v.Upto) || p.EndedOn.After(v.Today)) {
		out.Ended = p.EndedOn
	}
	out.Windows, out.HasUse = b.Windows(profile)
	out.Growth.Market = out.Windows[crop.Market]
	for _, e := range b.Events {
		switch {
		case e.Planting != p.ID || e.On.After(v.Upto):
		case e.Event == book.Emerged:
			out.Emerged = append(out.Emerged, e.On)
		case e.Event == book.FirstBud:
			out.FirstBud = append(out.FirstBud, e.On)
		case e.Event == book.ShortDays:
			out.Growth.ShortDays = e.On
		}
	}
	addSeen(b, &out, place, v)
	return out
}

// countEvidence returns a count as the core has it: never on more plants than the planting has, and with the necks that were tried of the
// stems in the market's window.
func countEvidence(c book.Count, at float64, p *forecast.Planting) evidence.Count {
	e := evidence.Count{At: at, Plants: min(c.PlantsCount, p.Growth.Plants), Stems: c.Stems, Counter: c.Counter}
	for k, firm := range c.Firm {
		if firm != nil && p.Growth.Market.Holds(crop.Rung(k)) {
			e.Tried += c.Stems[k]
			e.Firm += *firm
		}
	}
	return e
}

// addSeen adds the counts and cuts that are known of a planting.
func addSeen(b *book.Book, out *forecast.Planting, place book.Place, v View) {
	known := func(planting string, d day.Day) bool { return planting == out.ID && !d.After(v.Upto) }
	note := func(at float64, d day.Day, stems int) {
		out.Until = max(out.Until, at)
		if stems > 0 && d.After(out.Alive) {
			out.Alive = d
		}
	}
	for _, c := range b.Counts {
		if known(c.Planting, c.CountedAt.Day()) {
			at := c.CountedAt.Instant(book.CountHour)
			out.Counts = append(out.Counts, countEvidence(c, at, out))
			note(at, c.CountedAt.Day(), c.Total())
		}
	}
	for _, c := range b.Cuts {
		if !known(c.Planting, c.CutAt.Day()) {
			continue
		}
		at := c.CutAt.Instant(cutHour)
		note(at, c.CutAt.Day(), c.Taken())
		left := evidence.LeftNone
		switch {
		case c.Left != nil:
			left = *c.Left
		case place.Picking == "sold":
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
