package plan

import (
	"slices"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
)

// How far before its first cut a sowing may be made: beyond the crop's typical days for cold springs, and for what stands through the
// winter from the summer before.
const (
	slowSpring     = 1.6
	slowMore       = 25
	throughWinter  = 330
	quickestOfDays = 0.55
	longestLead    = 400
)

// Starts are the ways and days on which a crop may be started.
type Starts struct {
	Profile *crop.Profile
	Methods []crop.Method
	Season  climate.Season // of the place, for the warmth of the soil
	Frost   Frost          // of the place, under the cover that the crop has
	From    day.Day        // the first day on which anything can be done
	Pinch   bool           // whether a crop that may be pinched is tried so too
}

// Leads returns how many days before they are cut the crop's sowings are made: at least and at most.
func (s *Starts) Leads() (least, most int) {
	p := s.Profile
	least, most = int(quickestOfDays*float64(p.TypicalDays[0])), int(slowSpring*float64(p.TypicalDays[1]))+slowMore
	if p.Pinch.Policy == "optional" && s.Pinch {
		most += 20
	}
	if p.Overwinters || p.ChillDays > 0 {
		most = max(most, throughWinter)
	}
	return least, min(most, longestLead)
}

// Between returns the sowings every step days whose stems could be cut within a period, in order: in soil that is as warm as often as not,
// and raised for as long as the profile thinks best. Of a crop that is always pinched there are pinched ones alone.
func (s *Starts) Between(from, to day.Day, step int) []Sowing {
	least, most := s.Leads()
	first, last := from.Add(-most), to.Add(-least)
	if first.Before(s.From) {
		first = s.From
	}
	var sowings []Sowing
	for d := first; !d.After(last); d = d.Add(step) {
		sowings = append(sowings, s.On(d)...)
	}
	return sowings
}

// On returns the sowings that can be made on a day.
func (s *Starts) On(d day.Day) []Sowing {
	var sowings []Sowing
	for _, m := range s.Methods {
		sowing := Sowing{Method: m, Started: d}
		switch m {
		case crop.Direct:
			if SoilC(s.Season, d) < s.Profile.SoilMinC {
				continue
			}
		case crop.Tray:
			sowing.Out = d.Add(RaisedDays(s.Profile))
			if !s.Roots(sowing.Out) {
				continue
			}
		}
		if !s.InSeason(sowing) {
			continue
		}
		if s.Profile.Pinch.Policy != "always" {
			sowings = append(sowings, sowing)
		}
		if s.Profile.Pinch.Policy == "always" || s.Profile.Pinch.Policy == "optional" && s.Pinch {
			sowing.Pinched = true
			sowings = append(sowings, sowing)
		}
	}
	return sowings
}

// Roots tells whether what is planted out on a day finds ground in which it roots: for three weeks as warm as often as not as hardy plants need.
// What is steered stands under a roof.
func (s *Starts) Roots(out day.Day) bool {
	const (
		rootsC = 4 // a rule of thumb
		days   = 21
	)
	return s.Profile.Steered() || min(SoilC(s.Season, out), SoilC(s.Season, out.Add(days))) >= rootsC
}

// RaisedDays returns the age in days at which a crop is best planted out of its tray.
func RaisedDays(p *crop.Profile) int {
	return int(7*(p.Nursery.EarliestWeeks+p.Nursery.LatestWeeks)/2 + 0.5)
}

// SoilC returns the warmth of the soil in °C that is to be expected on a day: the mean of the air over the eleven days before it (Zheng
// et al. 1993, Climate Research 2:183-191).
func SoilC(season climate.Season, d day.Day) float64 {
	const days = 11
	sum := 0.0
	for i := range days {
		e := season.On(d.Add(-i).YearDay())
		sum += (e.TminC + e.TmaxC) / 2 / days
	}
	return sum
}

// Methods returns the ways in which a crop can be started again and again: those of the profile but what stands already.
func Methods(p *crop.Profile) []crop.Method {
	return slices.DeleteFunc(slices.Clone(p.Starts), func(m crop.Method) bool {
		return m == crop.Established || m == crop.Division
	})
}

// Succeeds tells whether successions of a crop make sense: what lasts or gives what buds it has is planted once.
func Succeeds(p *crop.Profile) bool {
	for _, m := range Methods(p) {
		if !p.Lasts(m) {
			return true
		}
	}
	return false
}

// PinchOn returns the day on which plants of a sowing are about high enough to be pinched: some weeks after they are up, or a week after
// they were planted out. A guess; the height in the crop table decides in the field.
func PinchOn(p *crop.Profile, s Sowing) day.Day {
	const afterOut, afterUp, usualUp = 7, 21, 14
	if !s.Out.IsZero() {
		return s.Out.Add(afterOut)
	}
	up := usualUp
	if s.Method.Sown() {
		up = int(p.Germination.Days[1])
	}
	return s.Started.Add(up + afterUp)
}
