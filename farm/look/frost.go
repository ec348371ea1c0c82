package look

import (
	"fmt"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
)

// How frost dates are reckoned: weathers of a whole growing year, drawn once for all days of it.
const (
	frostMembers = 60
	frostRisk    = 0.1
	frostDays    = 366
)

// A FrostDates is when frost ends and begins in a growing year: one spring in ten still has frost after Last, one autumn in ten already before
// First. What the farm has written down goes before what the weather tells. Zero where there is hardly any.
type FrostDates struct{ Last, First day.Day }

// FrostDates returns the dates of the growing year in which a day lies. They rest on the weather on record up to the start of today's growing
// year, so that they are the same on every page and every day of it.
func (s *Snapshot) FrostDates(in day.Day) FrostDates {
	usual := s.frosts()
	place, err := s.Book.Place()
	if err != nil {
		return usual // a snapshot was made of it, so it is sound
	}
	from, _ := Span(SeasonYear(in, place.Latitude), place.Latitude)
	same := func(written string, d day.Day) day.Day {
		year, _, _ := from.Date()
		for _, y := range []int{year, year + 1} {
			if on, err := day.Parse(fmt.Sprintf("%04d-%s", y, written)); written != "" && err == nil && !on.Before(from) {
				return on
			}
		}
		if d.IsZero() {
			return d
		}
		return inYear(d, from)
	}
	return FrostDates{Last: same(place.LastFrost, usual.Last), First: same(place.FirstFrost, usual.First)}
}

// frosts returns what the weather tells, in the growing year of today.
func (s *Snapshot) frosts() FrostDates {
	return s.FrostsUnder(0)
}

// FrostsUnder returns what the weather tells under a cover whose nights are so much warmer, in °C, in the growing year of today.
func (s *Snapshot) FrostsUnder(nightC float64) FrostDates {
	risk := s.cold(-nightC)
	return FrostDates{Last: risk.Last(frostRisk), First: risk.First(frostRisk)}
}

// ColdBefore returns the chance, 0 to 1, that the autumn of a day's growing year brings a night of so many °C or less before that day.
func (s *Snapshot) ColdBefore(celsius float64, d day.Day) float64 {
	latitude := s.Model.Outlook.Latitude
	from, _ := Span(SeasonYear(s.View.Today, latitude), latitude)
	return s.cold(celsius).Before(inYear(d, from))
}

// coldNights is the key of what the weather tells of nights.
type coldNights struct{ celsius float64 }

// cold returns when nights are so cold in the growing year of today.
func (s *Snapshot) cold(celsius float64) climate.FrostRisk {
	return Once(s, coldNights{celsius}, func() climate.FrostRisk {
		o := s.Model.Outlook
		from, _ := Span(SeasonYear(s.View.Today, o.Latitude), o.Latitude)
		o.From, o.Issued, o.IssuedOn, o.Observed = from, nil, day.Day{}, nil
		for _, w := range s.Model.Outlook.Observed {
			if w.Day.Before(from) {
				o.Observed = append(o.Observed, w)
			}
		}
		return climate.Frosts(climate.Series{First: from}, o.Members(frostMembers, frostDays, usualSeed), celsius, o.Latitude, from.Add(182))
	})
}

// FrostDates returns when frost ends and begins in the season.
func (s *Season) FrostDates() FrostDates { return s.Morning.FrostDates(s.From.Add(182)) }

// FrostFree returns the day from which a crop can stand outdoors: the last frost for what bears none, for others the day after which one spring in ten still has what
// kills them; zero where none has.
func (s *Season) FrostFree(p *crop.Profile) day.Day {
	if plan.Tender(p) {
		return s.FrostDates().Last
	}
	last := s.Morning.FrostsUnder(-p.FrostKillC).Last
	if last.IsZero() {
		return last
	}
	return inYear(last, s.From)
}

// inYear returns the day of the same month and date that lies in the year from a day on.
func inYear(d, from day.Day) day.Day {
	_, month, date := d.Date()
	year, _, _ := from.Date()
	same := day.Of(year, month, date)
	if same.Before(from) {
		same = day.Of(year+1, month, date)
	}
	return same
}

// WeekNo returns the week after the last frost that a day falls in: 1 for the seven days from it on, 0 for the seven before it, and so
// on back.
func WeekNo(week1, d day.Day) int {
	const far = 7 * 1000 // so that the division rounds down before the frost too
	return (d.Sub(week1)+far)/7 - far/7 + 1
}

// Week1 returns the day from which weeks are counted after the last frost, in the growing year that a day lies in: the farm's own, or that
// after which one spring in ten still has frost; the first day of the growing year where there is none.
func (s *Snapshot) Week1(in day.Day) day.Day {
	if last := s.FrostDates(in).Last; !last.IsZero() {
		return last
	}
	place, err := s.Book.Place()
	if err != nil {
		return day.Day{} // a snapshot was made of it, so it is sound
	}
	from, _ := Span(SeasonYear(in, place.Latitude), place.Latitude)
	return from
}
