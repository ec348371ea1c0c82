package work

import (
	"dewcount/core/crop"
	"dewcount/core/cutting"
	"dewcount/core/day"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// Calls are what to do today with a stem of a planting in the hand, for one use.
type Calls struct {
	Use     crop.Use
	Window  crop.Window
	ByRung  [crop.Rungs]cutting.Call
	Failing []cutting.Call // on the first rung of the window, for each test that is asked for, in its order
}

// shadeC is how warm stems stand that are to open, in °C: open shade, until the farm says otherwise.
const shadeC = 18.0

// callDays is over how many days the warmth of the days to come is taken on the mean.
const callDays = 4

// CallsOf returns the calls for each use that planting i has, the market first.
func CallsOf(s *look.Snapshot, i int) []Calls {
	p := &s.Model.Plantings[i]
	profile := p.Growth.Profile
	school := s.Book.SchoolOf(profile.ID, "cut")
	days := cutting.Days{CdADay: s.Stand.CdADay(i, s.View.Today, callDays), NextPick: float64(daysToPick(s)), HeldC: shadeC}
	waited := look.Once(s, wantedBy{}, func() map[rowUse]day.Day { return firstWanted(s) })
	var all []Calls
	for u := range crop.Use(crop.Uses) {
		window, ok := profile.Window(u, school)
		if !ok {
			continue
		}
		days.Wanted = -1
		if on, ok := waited[rowUse{i, u}]; ok {
			days.Wanted = float64(on.Sub(s.View.Today))
		}
		stem := cutting.Stem{Crop: profile, Use: u, School: school}
		calls := Calls{Use: u, Window: window}
		for k := range calls.ByRung {
			stem.Rung = crop.Rung(k)
			calls.ByRung[k] = cutting.Of(stem, days)
		}
		stem.Rung = window.From
		for _, t := range profile.Judged(u) {
			stem.Failed = []crop.Test{t}
			calls.Failing = append(calls.Failing, cutting.Of(stem, days))
		}
		all = append(all, calls)
	}
	return all
}

// daysToPick returns how many days it is to the first pick day after today, 0 where none is known.
func daysToPick(s *look.Snapshot) int {
	for _, d := range s.Forecast.PickDays {
		if d.After(s.View.Today) {
			return d.Sub(s.View.Today)
		}
	}
	return 0
}

// wantedBy is the key of when stems of each row and use are wanted first, and rowUse one of them.
type (
	wantedBy struct{}
	rowUse   struct {
		planting int
		use      crop.Use
	}
)

// firstWanted returns the first day after today on which somebody wants stems of a planting for a use.
func firstWanted(s *look.Snapshot) map[rowUse]day.Day {
	first := make(map[rowUse]day.Day)
	for _, d := range market.Dues(s) {
		if !d.On.After(s.View.Today) {
			continue
		}
		for _, w := range d.Lines {
			for _, part := range market.PartsOf(s, w.OrderLine) {
				key := rowUse{part.Planting, market.UseOf(w.OrderLine, d.Order)}
				if _, known := first[key]; !known && w.Wanted > 0 {
					first[key] = d.On
				}
			}
		}
	}
	return first
}
