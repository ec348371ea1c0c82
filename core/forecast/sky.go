package forecast

import (
	"slices"
	"sync"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/growth"
)

// A sky is the weather on record and the members, as hours by cover, and as clocks by crop.
type sky struct {
	near     int // days that every forecast needs; what lies beyond is worked out when a date is asked for
	latitude float64
	lengths  *climate.DayLengths
	past     climate.Series
	cold     climate.Series // the past as a frost may have come in it unseen
	members  []climate.Series
	hourly   map[Cover]*hours
	byCrop   map[clockKey]*clocksOf
}

// clockKey is what plantings must have in common to share a clock.
type clockKey struct {
	response  climate.Response
	daylength crop.Daylength
	cover     Cover
}

type hours struct {
	past    [][24]float64
	members [][][24]float64
}

// newSky draws the weather of a farm, and returns it with the number of days that were missing from its record.
func newSky(f *Farm) (*sky, int) {
	const margin = 2 // days beyond the last pick
	past, bridged := f.Outlook.Past(f.firstStart())
	cold, missing, gap := climate.Series{First: past.First, Days: slices.Clone(past.Days)}, 0, 0
	for i, unseen := range bridged {
		if !unseen {
			gap = 0
			continue
		}
		missing++
		if gap++; gap > coldGapDays {
			cold.Days[i].TminC -= unseenColdC
		}
	}
	return &sky{
		near:     min(Horizon, max(margin, f.To.Sub(f.From)+margin)),
		latitude: f.Outlook.Latitude, lengths: climate.DayLengthsAt(f.Outlook.Latitude),
		past: past, cold: cold, members: f.Outlook.Members(f.Members, Horizon, f.Seed),
		hourly: make(map[Cover]*hours), byCrop: make(map[clockKey]*clocksOf),
	}, missing
}

// unseenColdC is by how much the nights of a long gap in the record may have been colder than the line that bridges it, in °C:
// about what the coldest night of some weeks lies below the mean. In a gap of up to coldGapDays nobody would miss a frost.
const (
	unseenColdC = 5
	coldGapDays = 10
)

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

func (s *sky) clocks(p *crop.Profile, c Cover) *clocksOf {
	key := clockKey{p.Response, p.Daylength, c}
	if clocks := s.byCrop[key]; clocks != nil {
		return clocks
	}
	h := s.under(c)
	past := growth.Clocks(p, s.lengths, nil, s.past.First, h.past)
	from := s.past.End()
	clocks := &clocksOf{sofar: growth.Clocks(p, s.lengths, &past, from, h.members[0][:1])}
	s.byCrop[key] = clocks
	for _, m := range h.members {
		clocks.members = append(clocks.members, growth.Clocks(p, s.lengths, &past, from, m))
	}
	clocks.extend = func(member int) growth.Clock {
		m := s.members[member]
		later := climate.Series{First: from.Add(s.near), Days: m.Days[s.near:]}
		return growth.Clocks(p, s.lengths, &clocks.members[member], later.First, later.Warmer(c.NightC, c.DayC).Hourly(s.latitude))
	}
	return clocks
}

// frosts tells whether a frost on record, or one in a gap of it, has killed a planting that stands in its bed, and when one will
// in each member. A planting that was counted or cut after a frost has survived it.
func (s *sky) frosts(p *Planting) (dead bool, frost []day.Day) {
	kills := p.Growth.Profile.FrostKillC - p.Cover.NightC
	from := p.Growth.Out()
	if p.Alive.After(from) {
		from = p.Alive
	}
	_, dead = s.cold.FirstAtOrBelow(kills, from)
	for _, m := range s.members {
		d, _ := m.FirstAtOrBelow(kills, from)
		frost = append(frost, d)
	}
	return dead, frost
}
