// Package work is what there is to do on a day: the rounds, what is worth counting, the way along the rows, and the appointments of a
// calendar.
package work

import (
	"slices"
	"strings"

	"dewcount/core/day"
	"dewcount/core/rounds"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// A Round is a job of the rounds with what is on record of it.
type Round struct {
	rounds.Job
	Person  string
	MovedTo day.Day // by somebody; zero if not
	Mark    string  // of what is on record of it, empty where nothing is
}

// Rounds returns the jobs of all plantings from today on until a day, in the order of their best days; what was done or dropped is not
// among them.
func Rounds(s *look.Season, last day.Day) []Round {
	sky := newSeasonSky(s)
	today := s.View.Today
	records := make(map[string]book.JobRecord)
	for _, r := range s.Book.Jobs {
		records[r.Job] = r
	}
	nextHere := followers(s)
	var jobs []rounds.Job
	for i := range s.Model.Plantings {
		record, ok := s.Book.Planting(s.Model.Plantings[i].ID)
		if !ok || s.Stand.Dead(i) {
			continue
		}
		if ended := record.EndedOn; !ended.IsZero() && !ended.After(today) {
			p := rounds.Planting{ID: record.ID, Profile: s.Model.Plantings[i].Growth.Profile, Method: record.Method, Plants: record.Plants, NextHere: nextHere[record.ID], Done: make(map[rounds.Task]day.Day)}
			if bed, ok := s.Book.Bed(record.Bed); ok {
				p.Pot = bed.Cover == "pot"
			}
			if j, ok := rounds.Fill(&p, sky, ended, today); ok {
				jobs = append(jobs, j)
			}
			continue
		}
		p := roundOf(s, i, record, sky)
		p.NextHere = nextHere[p.ID]
		jobs = append(jobs, rounds.Of(&p, sky, today, last)...)
	}
	var all []Round
	for _, j := range jobs {
		r := Round{Job: j}
		if on, ok := records[j.ID()]; ok {
			if on.State == book.JobDone || on.State == book.JobDropped {
				continue
			}
			r.Person, r.Mark = on.Person, on.Record().Mark()
			if on.State == book.JobMoved && !on.On.Before(today) {
				r.MovedTo = on.On
				r.Earliest, r.Best, r.Latest = on.On, on.On, maxDay(on.On, j.Latest)
			}
		}
		all = append(all, r)
	}
	slices.SortStableFunc(all, func(a, b Round) int {
		if c := a.Best.Compare(b.Best); c != 0 {
			return c
		}
		return strings.Compare(a.ID(), b.ID())
	})
	return all
}

// RoundDays is how many days the rounds are spread over.
const RoundDays = 7

// Week spreads rounds over the next days by the hours that the crew has.
func Week(s *look.Season, all []Round) rounds.Week {
	place, err := s.Book.Place()
	if err != nil {
		return rounds.Week{}
	}
	jobs := make([]rounds.Job, len(all))
	for i, r := range all {
		jobs[i] = r.Job
	}
	return rounds.Spread(jobs, func(d day.Day) float64 { return 60 * place.CrewHours[(int(d.Weekday())+6)%7] }, s.View.Today, RoundDays)
}

func maxDay(a, b day.Day) day.Day {
	if a.Before(b) {
		return b
	}
	return a
}
