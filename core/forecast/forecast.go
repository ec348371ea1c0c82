// Package forecast says how many stems will stand in the cut window on each pick day: for every planting, every possible weather
// (member) and every set of traits that its records leave possible (draw).
//
// What plantings have in common is drawn in common: sums over a crop or a variety are taken within a member and a draw, and
// only then turned into quantiles.
package forecast

import (
	"sync"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/evidence"
	"dewcount/core/growth"
)

// A Farm is all that a forecast needs to know.
type Farm struct {
	Outlook   climate.Outlook // From is the first day whose weather is not on record
	Picks     day.PickDays
	PickHour  float64 // of a pick day, 0 to 24
	From      day.Day // the first pick day that may be forecast
	To        day.Day // the last pick day that is forecast
	Plantings []Planting
	Members   int // weathers
	Draws     int // sets of traits
	Seed      uint64
	BoxCd     float64
}

// A Planting is one planting with what the farm has on record of it.
type Planting struct {
	ID, Variety string
	Growth      growth.Planting
	Bench       climate.Extremes // of the nursery
	Cover       Cover
	Ended       day.Day // pulled out on; zero while it stands
	Sound       float64 // share of cut stems that can be sold, 0 to 1
	Windows     [crop.Uses]crop.Window
	HasUse      [crop.Uses]bool
	Counts      []evidence.Count
	Cuts        []evidence.Cut
	FirstBud    float64 // instant; 0 where not seen
	Until       float64 // the instant up to which there are records of it; not after the end of From
	Alive       day.Day // last day on which stems were counted or cut; zero if none
}

// A Cover is what stands over a bed, by how much warmer its nights and days are than outdoors, in °C.
type Cover struct{ NightC, DayC float64 }

// Horizon is how many days beyond From the weather members reach, so that late flowers and the end of a season are seen.
const Horizon = 270

// A Stand is a farm with its weather drawn and its plantings brought up to date: what forecasts and milestones start from.
type Stand struct {
	farm    *Farm
	courses []*growth.Course
	runs    [][]*growth.Run // by planting and draw
	clocks  []*clocksOf     // by planting; plantings of a crop under a cover share theirs
	frost   [][]day.Day     // by planting and member: the first day that kills; zero if none
	dead    []bool          // killed by a frost on record
	Bridged int             // days missing from the weather record since the first planting was started
}

// clockKey is what plantings must have in common to share a clock.
type clockKey struct {
	response  climate.Response
	daylength crop.Daylength
	cover     Cover
}

// New draws the weather and brings every planting up to date.
func New(farm *Farm) *Stand {
	s := &Stand{farm: farm}
	first := farm.Outlook.From
	for _, p := range farm.Plantings {
		if p.Growth.Started.Before(first) {
			first = p.Growth.Started
		}
	}
	lengths := climate.DayLengthsAt(farm.Outlook.Latitude)
	past, bridged := farm.Outlook.Past(first)
	s.Bridged = bridged
	members := farm.Outlook.Members(farm.Members, Horizon, farm.Seed)
	const margin = 2 // days beyond the last pick
	sky := newSky(farm.Outlook.Latitude, past, members, min(Horizon, max(margin, farm.To.Sub(farm.From)+margin)))

	clocks := make(map[clockKey]*clocksOf)
	var known []evidence.Planting
	for i := range farm.Plantings {
		p := &farm.Plantings[i]
		key := clockKey{p.Growth.Profile.Response, p.Growth.Profile.Daylength, p.Cover}
		if clocks[key] == nil {
			clocks[key] = sky.clocks(p.Growth.Profile, p.Cover, lengths)
		}
		course := growth.NewCourse(p.Growth, growth.Place{Lengths: lengths, Bench: p.Bench}, farm.BoxCd)
		s.courses = append(s.courses, course)
		s.clocks = append(s.clocks, clocks[key])
		known = append(known, evidence.Planting{
			ID: p.ID, Variety: p.Variety, Course: course, Clock: clocks[key].sofar,
			Counts: p.Counts, Cuts: p.Cuts, Picks: farm.silentPicks(p), FirstBud: p.FirstBud, Until: p.Until,
		})
		dead, frost := sky.frosts(p)
		s.dead = append(s.dead, dead)
		s.frost = append(s.frost, frost)
	}
	s.runs = evidence.Standing(known, farm.Draws, farm.Seed)
	return s
}

// silentPicks returns the pick days up to now that left no record of a planting: it is taken that what was ready was cut.
func (f *Farm) silentPicks(p *Planting) []float64 {
	recorded := make(map[day.Day]bool)
	for _, c := range p.Cuts {
		recorded[day.On(c.At)] = true
	}
	last := f.From.Add(-1)
	for _, end := range []day.Day{p.Ended, p.Growth.Started.Add(mostDays)} {
		if !end.IsZero() && end.Before(last) {
			last = end
		}
	}
	var silent []float64
	for _, d := range f.Picks.Between(p.Growth.Started.Add(1), last) {
		if !recorded[d] {
			silent = append(silent, d.At(f.PickHour))
		}
	}
	return silent
}

// mostDays is how long after its start an annual can still be cut: autumn sowings flower in the next summer.
const mostDays = 450

// A sky is the weather on record and the members, as hours and by cover.
type sky struct {
	near     int // days that every forecast needs; what lies beyond is worked out when a date is asked for
	latitude float64
	past     climate.Series
	members  []climate.Series
	hourly   map[Cover]*hours
}

type hours struct {
	past    [][24]float64
	members [][][24]float64
}

func newSky(latitude float64, past climate.Series, members []climate.Series, near int) *sky {
	return &sky{near, latitude, past, members, make(map[Cover]*hours)}
}

func (s *sky) under(c Cover) *hours {
	if s.hourly[c] == nil {
		h := &hours{past: s.past.Warmer(c.NightC, c.DayC).Hourly(s.latitude)}
		for _, m := range s.members {
			near := climate.Series{First: m.First, Days: m.Days[:s.near]}
			h.members = append(h.members, near.Warmer(c.NightC, c.DayC).Hourly(s.latitude))
		}
		s.hourly[c] = h
	}
	return s.hourly[c]
}

// clocksOf are the clocks of one crop under one cover. The records of a morning are looked at by sofar, whose last day is the
// members' first as the first of them has it: what is felt before the pick of that day hardly differs.
type clocksOf struct {
	sofar   growth.Clock
	members []growth.Clock // for the days that every forecast needs

	whole  sync.Once
	season []growth.Clock // for all days
	extend func(member int) growth.Clock
}

// toHorizon returns the members' clocks for all their days.
func (c *clocksOf) toHorizon() []growth.Clock {
	c.whole.Do(func() {
		for m := range c.members {
			c.season = append(c.season, c.extend(m))
		}
	})
	return c.season
}

func (s *sky) clocks(p *crop.Profile, c Cover, lengths *climate.DayLengths) *clocksOf {
	h := s.under(c)
	past := growth.Clocks(p, lengths, nil, s.past.First, h.past)
	from := s.past.End()
	clocks := &clocksOf{sofar: growth.Clocks(p, lengths, &past, from, h.members[0][:1])}
	for _, m := range h.members {
		clocks.members = append(clocks.members, growth.Clocks(p, lengths, &past, from, m))
	}
	clocks.extend = func(member int) growth.Clock {
		m := s.members[member]
		later := climate.Series{First: from.Add(s.near), Days: m.Days[s.near:]}
		return growth.Clocks(p, lengths, &clocks.members[member], later.First, later.Warmer(c.NightC, c.DayC).Hourly(s.latitude))
	}
	return clocks
}

// frosts tells whether a frost on record has killed a planting that stands in its bed, and when one will in each member. A
// planting that was counted or cut after a frost has survived it.
func (s *sky) frosts(p *Planting) (dead bool, frost []day.Day) {
	kills := p.Growth.Profile.FrostKillC - p.Cover.NightC
	from := p.Growth.Out()
	if p.Alive.After(from) {
		from = p.Alive
	}
	_, dead = s.past.FirstAtOrBelow(kills, from)
	for _, m := range s.members {
		d, _ := m.FirstAtOrBelow(kills, from)
		frost = append(frost, d)
	}
	return dead, frost
}
