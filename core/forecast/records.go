package forecast

import (
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/evidence"
	"dewcount/core/growth"
)

// seasons returns the seasons of a planting that somebody will ask for or that left records, with the dates seen in them.
func (f *Farm) seasons(p *Planting) []growth.Season {
	all := p.Growth.Seasons(f.Outlook.Latitude, p.Growth.Started, f.From.Add(f.reach()-1))
	var wanted []growth.Season
	for _, s := range all {
		seen := !s.Until.IsZero() && s.Holds(f.From) || s.From.After(f.From) || s.Until.IsZero()
		for _, d := range p.Emerged {
			if s.Holds(d) {
				s.Emerged, seen = d, true
			}
		}
		inBud := func(d day.Day) {
			if s.Holds(d) && (s.InBud.IsZero() || d.Before(s.InBud)) {
				s.InBud = d
			}
		}
		for _, d := range p.FirstBud {
			inBud(d)
		}
		for _, c := range p.Counts {
			seen = seen || s.Holds(day.On(c.At))
			if alive := c.Stems; alive != [crop.Rungs]int{crop.Spent: alive[crop.Spent]} { // spent heads may be last year's
				inBud(day.On(c.At))
			}
		}
		for _, c := range p.Cuts {
			seen = seen || s.Holds(day.On(c.At))
			if c.Taken > 0 {
				inBud(day.On(c.At))
			}
		}
		if seen {
			wanted = append(wanted, s)
		}
	}
	return wanted
}

// evidence returns what is on record of one season of a planting.
func (f *Farm) evidence(p *Planting, r *life) evidence.Planting {
	known := evidence.Planting{ID: p.ID, Variety: p.pool(), Course: r.course, Clock: r.clocks.sofar, Until: p.Until}
	if s := r.season; !s.From.IsZero() {
		known.ID += " " + s.From.String()
		known.Until = max(s.From.At(0), known.Until)
		if !s.Until.IsZero() {
			known.Until = min(s.Until.At(0), known.Until)
		}
	}
	for _, d := range p.FirstBud {
		if r.season.Holds(d) {
			known.FirstBud = d.At(12)
		}
	}
	for _, c := range p.Counts {
		if r.season.Holds(day.On(c.At)) {
			known.Counts = append(known.Counts, c)
		}
	}
	for _, c := range p.Cuts {
		if r.season.Holds(day.On(c.At)) {
			c.Ahead = f.ahead(day.On(c.At))
			known.Cuts = append(known.Cuts, c)
		}
	}
	known.Picks, known.Unwritten = f.silentPicks(p, &r.season), !f.writesCuts() && len(p.Counts) == 0
	return known
}

// silentPicks returns the pick days of a season up to now that left no record of a planting: it is taken that what was ready was
// cut.
func (f *Farm) silentPicks(p *Planting, season *growth.Season) []evidence.Cut {
	recorded := make(map[day.Day]bool)
	for _, c := range p.Cuts {
		recorded[day.On(c.At)] = true
	}
	first, last := p.Growth.Started.Add(1), f.From.Add(-1)
	if season.From.After(first) {
		first = season.From
	}
	ends := []day.Day{p.Ended, season.Until}
	if season.Until.IsZero() {
		ends = append(ends, p.wornOut())
	}
	for _, end := range ends {
		if !end.IsZero() && end.Before(last) {
			last = end
		}
	}
	var silent []evidence.Cut
	for _, d := range f.Picks.Between(first, last) {
		if !recorded[d] {
			silent = append(silent, evidence.Cut{At: d.At(f.PickHour), Ahead: f.ahead(d)})
		}
	}
	return silent
}

// ahead returns the instant of the pick after a day, where the farm cuts what would be over by then, and 0 otherwise.
func (f *Farm) ahead(d day.Day) float64 {
	const farthest = 14
	if f.Ahead {
		for next := d.Add(1); next.Sub(d) <= farthest; next = next.Add(1) {
			if f.Picks.Has(next) {
				return next.At(f.PickHour)
			}
		}
	}
	return 0
}
