package plan

import (
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// A Raising is the life of a tray: when it comes off the heat, is potted on and hardened off, and when it is planted out.
type Raising struct {
	Sown     day.Day
	OffHeat  day.Day // when most seedlings are up; zero where warmth does no harm
	PotOn    day.Day // zero where the tray is planted out before it needs it
	Harden   []HardenDay
	Earliest day.Day // to plant out
	Out      day.Day // as it is planned
	Latest   day.Day // to plant out; zero for a crop that bears waiting
	Stunts   bool    // after Latest it never makes a stem
}

// A HardenDay is how many hours of a day a tray stands outdoors; Night tells whether it stays out overnight.
type HardenDay struct {
	day.Day
	Hours int
	Night bool
}

// What a tray takes beyond the crop table: it is potted on halfway where it stays for longer than weeksInCell in it.
const (
	weeksInCell    = 6
	nightsOutdoors = 2
	firstHoursOut  = 2
	daylightHours  = 12
)

// RaisingOf returns the life of a tray of a crop that is sown on a day, comes up on another and is to be planted out on a third. The plants
// must not stand outdoors before frostFree, which is zero where they bear frost.
func RaisingOf(p *crop.Profile, sown, up, out, frostFree day.Day) Raising {
	r := Raising{Sown: sown, Out: out, Stunts: p.Nursery.RootBound == crop.Stunts}
	r.Earliest = sown.Add(int(7 * p.Nursery.EarliestWeeks))
	if r.Earliest.Before(frostFree) {
		r.Earliest = frostFree
	}
	if p.Nursery.RootBound != crop.Tolerates {
		r.Latest = sown.Add(int(7 * p.Nursery.LatestWeeks))
	}
	if p.Nursery.OffHeat {
		r.OffHeat = up
	}
	if out.Sub(sown) > 7*weeksInCell {
		r.PotOn = up.Add(out.Sub(up) / 2)
	}
	r.Harden = hardening(out, p.Nursery.HardenDays)
	return r
}

// Bought returns the life of young plants that were raised elsewhere and come on a day: what was done before is not done here.
func (r Raising) Bought(on day.Day) Raising {
	r.OffHeat, r.Sown = day.Day{}, on
	if r.PotOn.Before(on) {
		r.PotOn = day.Day{}
	}
	r.Harden = slices.DeleteFunc(slices.Clone(r.Harden), func(h HardenDay) bool { return h.Day.Before(on) })
	if r.Earliest.Before(on) {
		r.Earliest = on
	}
	return r
}

// PlugStart returns the day on which plugs that come on a day were sown, where nobody says: they are sold at the youngest age at which the crop
// is planted out.
func PlugStart(p *crop.Profile, on day.Day) day.Day { return on.Add(-int(7 * p.Nursery.EarliestWeeks)) }

// hardening returns the days before planting out: a little longer each day, in by night until the last nights.
func hardening(out day.Day, days int) []HardenDay {
	var all []HardenDay
	for i := range days {
		h := HardenDay{Day: out.Add(i - days), Hours: firstHoursOut + (daylightHours-firstHoursOut)*i/max(1, days-1)}
		if days-i <= nightsOutdoors {
			h.Night = true
		}
		all = append(all, h)
	}
	return all
}

// A BenchWeek is how many trays stand in the nursery in a week: on the heat, on the bench and outdoors to harden off.
type BenchWeek struct {
	Week
	Heat, Bench, Harden int
}

// A BenchTray is trays that are raised alike.
type BenchTray struct {
	Raising
	Up    day.Day // most seedlings are
	Trays int
}

// Bench returns the trays of each week in which any stands in the nursery, in order; a week counts the most that stand on one of its
// days in each place.
func Bench(trays []BenchTray) []BenchWeek {
	first, last := day.Day{}, day.Day{}
	for _, t := range trays {
		if first.IsZero() || t.Sown.Before(first) {
			first = t.Sown
		}
		if t.Out.After(last) {
			last = t.Out
		}
	}
	if first.IsZero() {
		return nil
	}
	var weeks []BenchWeek
	for w := WeekOf(first); !w.Monday.After(last); w = (Week{w.Monday.Add(7)}) {
		b := BenchWeek{Week: w}
		for i := range 7 {
			d := w.Monday.Add(i)
			heat, bench, harden := 0, 0, 0
			for _, t := range trays {
				outdoors := t.Out
				if len(t.Raising.Harden) > 0 {
					outdoors = t.Raising.Harden[0].Day
				}
				switch {
				case d.Before(t.Sown) || !d.Before(t.Out):
				case d.Before(t.Up):
					heat += t.Trays
				case d.Before(outdoors):
					bench += t.Trays
				default:
					harden += t.Trays
				}
			}
			b.Heat, b.Bench, b.Harden = max(b.Heat, heat), max(b.Bench, bench), max(b.Harden, harden)
		}
		if b.Heat+b.Bench+b.Harden > 0 {
			weeks = append(weeks, b)
		}
	}
	return weeks
}
