package forecast

import (
	"slices"
	"sync"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/growth"
)

// A sky is the weather on record and the members, as hours by cover, and as clocks by crop. Stands that follow each other share one, at the
// same time too: what it works out when it is asked for is kept under its lock.
type sky struct {
	near     int // days that every forecast needs; what lies beyond is worked out when a date is asked for
	latitude float64
	lengths  *climate.DayLengths
	shapes   *growth.Shapes
	past     climate.Series
	cold     climate.Series // the past as a frost may have come in it unseen
	members  []climate.Series

	mu     sync.Mutex
	hourly map[Cover]*hours
	byCrop map[clockKey]*clocksOf
}

// clockKey is what plantings must have in common to share a clock.
type clockKey struct {
	response  climate.Response
	daylength crop.Daylength
	chilled   bool
	steered   bool
	cover     Cover
}

type hours struct {
	past    *climate.Hourly
	members []*climate.Hourly
}

// newSky draws the weather of a farm from a first day on, and returns it with the number of days that were missing from its record.
func newSky(f *Farm, first day.Day) (*sky, int) {
	const margin = 2 // days beyond the last pick
	past, bridged := f.Outlook.Past(first)
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
		near:     min(f.reach(), max(margin, f.To.Sub(f.From)+margin)),
		latitude: f.Outlook.Latitude, lengths: climate.DayLengthsAt(f.Outlook.Latitude), shapes: growth.NewShapes(),
		past: past, cold: cold, members: f.Outlook.Members(f.Members, f.reach(), f.Seed),
		hourly: make(map[Cover]*hours), byCrop: make(map[clockKey]*clocksOf),
	}, missing
}

// unseenColdC is by how much the nights of a long gap in the record may have been colder than the line that bridges it, in °C:
// about what the coldest night of some weeks lies below the mean. In a gap of up to coldGapDays nobody would miss a frost.
const (
	unseenColdC = 5
	coldGapDays = 10
)

// under returns the hours of the weather under a cover; the caller holds the lock.
func (s *sky) under(c Cover) *hours {
	if s.hourly[c] == nil {
		h := &hours{past: c.warm(s.past).Hourly(s.latitude)}
		for _, m := range s.members {
			near := climate.Series{First: m.First, Days: m.Days[:s.near]}
			h.members = append(h.members, c.warm(near).Hourly(s.latitude))
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
	s.mu.Lock()
	defer s.mu.Unlock()
	key := clockKey{p.Response, p.Daylength, p.ChillDays > 0, p.Steered(), c}
	if clocks := s.byCrop[key]; clocks != nil {
		return clocks
	}
	h := s.under(c)
	past := growth.Clocks(p, s.lengths, nil, h.past)
	clocks := &clocksOf{sofar: growth.Clocks(p, s.lengths, &past, h.members[0].To(1))}
	s.byCrop[key] = clocks
	for _, m := range h.members {
		clocks.members = append(clocks.members, growth.Clocks(p, s.lengths, &past, m))
	}
	clocks.extend = func(member int) growth.Clock {
		m := s.members[member]
		later := climate.Series{First: m.First.Add(s.near), Days: m.Days[s.near:]}
		return growth.Clocks(p, s.lengths, &clocks.members[member], c.warm(later).Hourly(s.latitude))
	}
	return clocks
}

// frosts returns the day on which a frost on record, or one in a gap of it, has killed a row, zero if none has, and the day of each
// member on which one will. A planting
// that was counted or cut after a frost has survived it.
//
// Frost kills top growth: what never stands through a winter from its emergence in the bed on, and what does from its first buds
// on; before them a rosette bears some degrees more, and an established plant comes again from below.
//
// What is over dies of no frost to come.
func (s *sky) frosts(p *Planting, r *life, over bool) (died day.Day, frost []day.Day) {
	kills := p.Growth.Profile.FrostKillC - p.Cover.NightC
	laid := Cover{Laid: p.Cover.Laid}
	first := func(series climate.Series, clock growth.Clock) day.Day {
		run := r.course.NewRun(clock, growth.Traits{Pace: 1, Stems: 1, Regrow: 1})
		tops, up := run.Emerged()
		buds, budding := run.FirstBud()
		since := func(instant float64) day.Day {
			d := day.On(instant)
			if out := r.season.Out(); out.After(d) {
				d = out
			}
			if p.Alive.After(d) {
				d = p.Alive
			}
			return d
		}
		var killed day.Day
		note := func(celsius, from float64) {
			if d, ok := laid.warm(series).FirstAtOrBelow(celsius, since(from)); ok && (killed.IsZero() || d.Before(killed)) {
				killed = d
			}
		}
		switch {
		case !p.Growth.Profile.Overwinters && !p.Growth.Profile.Lasts(p.Growth.Method):
			if up {
				note(kills, tops)
			}
		default:
			if up && p.Growth.Method.Sown() && r.season.Turn.IsZero() {
				note(kills-rosetteC, tops)
			}
			if budding {
				note(kills, buds)
			}
		}
		return killed
	}
	died = first(s.cold, r.clocks.sofar)
	if over {
		return died, nil
	}
	for m, series := range s.members {
		frost = append(frost, first(series, r.clocks.members[m]))
	}
	return died, frost
}

// restsOn returns what a planting that is long over rests on beside its course and records: its cover, and its weather up to an instant.
func (s *sky) restsOn(p *Planting, r *life, until float64) any {
	type weather struct {
		cover    Cover
		bench    climate.Extremes
		latitude float64
		days     []climate.Extremes
	}
	from, to := r.season.Begins().Sub(s.past.First), day.On(until).Sub(s.past.First)+1
	from, to = max(0, from), min(len(s.past.Days), to)
	return &weather{p.Cover, p.Bench, s.latitude, s.past.Days[min(from, to):to]}
}

// rosetteC is by how many °C a sown plant that overwinters bears more frost before it buds than after: it lies low, and often under
// snow. A guess; the crop table gives one number.
const rosetteC = 8
