package plans

import (
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// An Unplanned is a crop that orders want and of which nothing will come.
type Unplanned struct {
	Profile *crop.Profile
	Variety string  // the one that the farm has of it; empty where it has none or several
	Stems   int     // wanted in the week that wants most
	Until   day.Day // the end of the last week that wants any
}

// UnplannedOf returns the crops that the orders of the rest of a season want, that can be sown again and again, and of which all plantings on record together are expected to give less than a stem in it.
func UnplannedOf(s *look.Season) []Unplanned {
	const one = 1 // stem, on the mean
	wanted, coming := make(map[string]bool), make(map[string]float64)
	for _, call := range market.Calls(s, s.View.Today) {
		for _, id := range call.Crops {
			wanted[id] = true
		}
	}
	for i := range s.Model.Plantings {
		for j, d := range s.Forecast.PickDays {
			if !d.Before(s.View.Today) {
				coming[s.Model.Plantings[i].Growth.Profile.ID] += s.Forecast.Plantings[i].ByPick[j][crop.Market].Mean()
			}
		}
	}
	var all []Unplanned
	weeks := s.Weeks()
	for _, p := range s.Book.Crops() {
		if !wanted[p.ID] || coming[p.ID] >= one || !plan.Succeeds(p) {
			continue
		}
		u := Unplanned{Profile: p}
		for w, stems := range market.Wanted(s, p.ID) {
			if end := weeks[w].Monday.Add(6); stems > 0 && !end.Before(s.View.Today) {
				u.Stems, u.Until = max(u.Stems, int(stems+0.5)), end
			}
		}
		if u.Stems == 0 {
			continue
		}
		if v, ok := s.Book.Variety(s.Book.AnyVariety(p)); ok {
			u.Variety = v.Name
		}
		all = append(all, u)
	}
	return all
}
