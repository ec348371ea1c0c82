package plan

import (
	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/growth"
)

// A Frost is when frost ends and begins where a crop is grown: the last of spring and the first of autumn, in any year; zero where there is hardly any.
type Frost struct{ Last, First day.Day }

// comes tells whether frost is to be expected on a day.
func (f Frost) comes(d day.Day) bool {
	if f.Last.IsZero() || f.First.IsZero() {
		return false
	}
	const year = 365
	since := func(from day.Day) int { return ((d.YearDay()-from.YearDay())%year + year) % year }
	grows := ((f.First.YearDay()-f.Last.YearDay())%year + year) % year // days without frost
	return since(f.Last) >= grows
}

// What each kind of start waits for, in days before the last frost: tubers are potted a month before it, corms set three weeks before it, since their shoots need
// as long; a tender seed lies in the ground for about two.
const (
	tuberLead  = 30
	cormLead   = 21
	directLead = 14
	hardyLead  = 42 // for what bears a light frost
	rootedLead = 90 // for corms that bear one: they root in cold ground, and their first leaves stand some
)

// tenderC is the frost, in °C, that a tender crop does not bear.
const tenderC = -2.0

// Tender tells whether a crop does not bear the lightest frost.
func Tender(p *crop.Profile) bool { return p.FrostKillC >= tenderC && !p.Overwinters }

// bulbAirC is how warm the air is at most, on the mean of eleven days, when bulbs that want a winter are set.
const bulbAirC = 13.0

// InSeason tells whether a sowing is made in its season: nothing tender stands outdoors before the last frost or after the first, tubers and corms are not set long
// before it, and bulbs that want a winter are set in autumn, where a winter comes.
func (s *Starts) InSeason(w Sowing) bool {
	p := s.Profile
	const frozenC = 2 // ground in which nothing is set
	if !w.Method.Sown() && w.Method != crop.Cutting && w.Method != crop.Tuber && SoilC(s.Season, w.Started) < frozenC {
		return false
	}
	if p.ChillDays > 0 && (w.Method == crop.Bulb || w.Method == crop.Corm) {
		return Chills(s.Profile, s.Season) && SoilC(s.Season, w.Started) <= bulbAirC && falling(s.Season, w.Started)
	}
	if p.Overwinters || p.Steered() { // a steered crop is grown under a roof
		return true
	}
	lead := hardyLead
	switch {
	case !Tender(p) && w.Method == crop.Corm:
		lead = rootedLead
	case Tender(p):
		lead = map[crop.Method]int{crop.Tuber: tuberLead, crop.Corm: cormLead, crop.Direct: directLead}[w.Method]
	}
	if !s.Frost.comes(w.InBed().Add(lead)) {
		return true
	}
	return w.Method != crop.Tuber && !s.Frost.comes(w.InBed()) // before the autumn's: whether that is too late the weather tells
}

// Chills tells whether a usual winter of a place is as long as the crop wants it.
func Chills(p *crop.Profile, season climate.Season) bool {
	const year = 365
	cold := 0
	for d := range year {
		if e := season.On(d + 1); (e.TminC+e.TmaxC)/2 <= growth.ChillMeanC {
			cold++
		}
	}
	return cold >= p.ChillDays
}

// falling tells whether a place is colder some weeks after a day than on it: the greatest cold still lies ahead.
func falling(season climate.Season, d day.Day) bool {
	const ahead = 50
	return SoilC(season, d.Add(ahead)) < SoilC(season, d)
}
