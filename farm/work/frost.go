package work

import (
	"cmp"
	"math"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/cutting"
	"dewcount/core/day"
	"dewcount/core/postharvest"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// A FrostEvening is what to cut on the evening before a frost that may kill rows, as the rows stand today.
type FrostEvening struct {
	look.FrostThreat
	Evening day.Day
	Rows    []FrostRow // what is worth most first
	Minutes float64    // that one person takes for all of it
	Crew    float64    // minutes that the crew has that day
	Light   cutting.Span
	Hands   int // that are done within the last hours of light
	Buckets int
	Room    int // buckets that the farm's places hold; 0 where it has not said
}

// A FrostRow is a row that the frost may kill.
type FrostRow struct {
	Planting int
	Stems    int // that can be used, now or once they have opened in water
	Wanted   int // of these, those that somebody waits for within the days that they can be held
	Holds    int // for how many days they can be held
	Minutes  float64
	NoTime   bool // the crew's hours do not reach for it
}

// frostHours is how long before dark the cutting before a frost begins: an afternoon.
const frostHours = 4

// FrostEveningOf returns what to cut before the frost that threatens, and whether one does.
func FrostEveningOf(s *look.Snapshot) (FrostEvening, bool) {
	threat, ok := s.FrostThreat()
	place, err := s.Book.Place()
	if !ok || err != nil {
		return FrostEvening{}, false
	}
	e := FrostEvening{FrostThreat: threat, Evening: maxDay(threat.Night.Add(-1), s.View.Today)}
	e.Crew = 60 * place.CrewHours[(int(e.Evening.Weekday())+6)%7]
	wanted := wantedAfter(s, e.Evening)
	var batches []postharvest.Batch
	for _, i := range threat.Plantings {
		p := &s.Model.Plantings[i]
		profile := p.Growth.Profile
		row := FrostRow{Planting: i, Stems: usable(profile, p.Growth.Market, s.Stand.Standing(i).Rungs), Holds: int(profile.Store.MaxDays)}
		if row.Stems == 0 {
			continue
		}
		row.Wanted = min(row.Stems, wanted[i])
		row.Minutes = 60 * float64(row.Stems) / s.Book.StemsAnHour(place, profile)
		e.Minutes += row.Minutes
		e.Rows = append(e.Rows, row)
		batches = append(batches, postharvest.Batch{Crop: s.Book.Crop(profile.ID), Way: s.Book.Chosen(profile, "condition"), Stems: row.Stems})
	}
	slices.SortStableFunc(e.Rows, func(a, b FrostRow) int {
		share := func(r FrostRow) float64 { return float64(r.Wanted) / float64(r.Stems) }
		return cmp.Or(cmp.Compare(share(b), share(a)), cmp.Compare(b.Holds, a.Holds))
	})
	left := e.Crew
	for k := range e.Rows {
		e.Rows[k].NoTime = e.Crew > 0 && e.Rows[k].Minutes > left
		if !e.Rows[k].NoTime {
			left -= e.Rows[k].Minutes
		}
	}
	if spans := s.Stand.CuttingHours(e.Evening, place.CutUntilC).Spans; len(spans) > 0 {
		dark := spans[len(spans)-1].To
		e.Light = cutting.Span{From: dark - frostHours, To: dark} // that it is warm still is no reason to lose them
		e.Hands = int(math.Ceil(e.Minutes / 60 / frostHours))
	}
	for _, w := range postharvest.Waters(batches) {
		e.Buckets += w.Buckets
	}
	for _, p := range s.Book.StorePlaces {
		if p.Buckets != nil {
			e.Room += *p.Buckets
		}
	}
	return e, true
}

// usable returns how many stems of a row are worth cutting before it dies: those in the window or past it that are not over, and of crops that open in water
// those that show colour.
func usable(p *crop.Profile, window crop.Window, standing [crop.Rungs]float64) int {
	from := window.From
	if p.InWater.Opens != "no" {
		from = min(from, crop.Colour)
	}
	stems := 0.0
	for k := from; k <= crop.Open; k++ {
		stems += standing[k]
	}
	return int(math.Round(stems))
}

// wantedAfter returns how many stems of each planting somebody waits for after a day, as long as they can be held from it.
func wantedAfter(s *look.Snapshot, from day.Day) map[int]int {
	wanted := make(map[int]int)
	for _, d := range market.Dues(s) {
		if !d.On.After(from) {
			continue
		}
		for _, w := range d.Lines {
			for _, part := range market.PartsOf(s, w.OrderLine) {
				if held := d.On.Sub(from); float64(held) <= s.Model.Plantings[part.Planting].Growth.Profile.Store.MaxDays {
					wanted[part.Planting] += w.Wanted
				}
			}
		}
	}
	return wanted
}
