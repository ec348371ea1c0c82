package work

import (
	"fmt"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/rounds"
	"dewcount/farm/look"
	"dewcount/farm/plans"
)

// An Appointment is something that a season has on a day: for calendars.
type Appointment struct {
	ID    string // the same as long as it is the same thing, whatever its day
	On    day.Day
	What  string
	Where string          // the bed, empty for none
	Note  rounds.Sentence // empty for none
}

// yearsEnd is how many days ahead the present season's calendar reaches, also beyond its end: in December January's sowings are near.
const yearsEnd = 60

// Appointments returns what the season has on its days: sowings, plantings out, pinches, market days and orders, in order.
func Appointments(s *look.Season) []Appointment {
	var all []Appointment
	until := s.Until
	if isPresent(s) {
		until = maxDay(until, s.View.Today.Add(yearsEnd))
	}
	add := func(a Appointment) {
		if !a.On.IsZero() && !a.On.Before(s.From) && a.On.Before(until) {
			all = append(all, a)
		}
	}
	raisings := make(map[string]plans.SeedSowing)
	for _, l := range plans.Seeds(s) {
		for _, w := range l.Sowings {
			raisings[w.Planting.ID] = w
		}
	}
	for _, p := range s.Book.Plantings {
		name := p.ID + " " + p.Variety
		if p.Method == crop.Established {
			continue
		}
		note := rounds.Sentence{fmt.Sprintf("%d plants", p.Plants)}
		w := raisings[p.ID]
		if w.Seeds > 0 {
			note = append(note, fmt.Sprintf(", %d seeds", w.Seeds))
		}
		if w.Trays > 0 {
			note = append(note, fmt.Sprintf(" in %d trays of %s", w.Trays, w.Tray.ID))
		}
		if p.Squares != "" {
			note = append(note, ", squares "+p.Squares)
		}
		add(Appointment{"start " + p.ID, p.StartedOn, rounds.StartWords[p.Method] + " " + name, p.Bed, note})
		out := p.PlantedOutOn
		if w.Raising != nil {
			out = w.Raising.Out
			note = rounds.Sentence{"on a dull or wet day"}
			if !w.Raising.Latest.IsZero() {
				note = append(note, ", no later than ", w.Raising.Latest)
			}
			if len(w.Raising.Harden) > 0 {
				add(Appointment{"harden " + p.ID, w.Raising.Harden[0].Day, "Begin to harden off " + name, "", words("out by day, in by night, a little longer each day")})
			}
		}
		add(Appointment{"out " + p.ID, out, "Plant out " + name, p.Bed, note})
		share := ""
		if part := p.PinchedPart(); part > 0 && part < 1 {
			share = fmt.Sprintf("%.0f in 100 of the plants", 100*part)
		}
		add(Appointment{"pinch " + p.ID, p.PinchedOn, "Pinch " + name, p.Bed, words(share)})
	}
	for _, o := range s.Book.Orders {
		for _, on := range o.Between(s.From, until.Add(-1)) {
			add(Appointment{"order " + o.ID + " " + on.String(), on, o.ID, "", words(o.Note)})
		}
	}
	all = append(all, roundAppointments(s)...)
	slices.SortFunc(all, func(a, b Appointment) int {
		if c := a.On.Compare(b.On); c != 0 {
			return c
		}
		return strings.Compare(a.ID, b.ID)
	})
	return all
}

// isPresent tells whether the farm is looked at in this season.
func isPresent(s *look.Season) bool {
	return !s.View.Today.Before(s.From) && s.View.Today.Before(s.Until)
}

// roundsAhead is how many days of the rounds a calendar shows: beyond them the weather moves too much.
const roundsAhead = 14

// What comes back every few days is one appointment a day and task; what the plan itself has a date for is among the others.
var (
	gathered = map[rounds.Task]string{rounds.Weed: "Weed", rounds.Water: "Water", rounds.Steer: "Lamps and blackout", rounds.Feed: "Feed", rounds.Scout: "Look for pests", rounds.Count: "Count", rounds.Cut: "Cut", rounds.Deadhead: "Deadhead"}
	single   = map[rounds.Task]string{rounds.OffHeat: "Take off the heat", rounds.PotOn: "Pot on", rounds.Thin: "Thin", rounds.ThinMore: "Thin to the final distance", rounds.Net: "Net or stake",
		rounds.RaiseNet: "Raise the net of", rounds.Strip: "Strip low leaves of", rounds.Disbud: "Disbud", rounds.Bag: "Bag buds of", rounds.SeedHead: "Take seed heads of", rounds.Frost: "Cut before frost", rounds.PullOut: "Pull out",
		rounds.Lift: "Lift", rounds.Cover: "Cover for winter"}
)

// roundAppointments returns the rounds of the next days, where the season is the present one, on the days that the crew has hours for them.
func roundAppointments(s *look.Season) []Appointment {
	if !isPresent(s) {
		return nil
	}
	today := s.View.Today
	jobs := Rounds(s, today.Add(roundsAhead))
	planned := make(map[string]day.Day) // by job, as the week has room for it
	week := Week(s, jobs)
	for _, p := range week.PutOff {
		planned[p.ID()] = today.Add(RoundDays)
	}
	for i := len(week.Shifts) - 1; i >= 0; i-- { // of a job in parts the first tells
		for _, p := range week.Shifts[i].Jobs {
			planned[p.ID()] = week.Shifts[i].Day
		}
	}
	var all []Appointment
	rows := make(map[string]int) // place of a gathered appointment
	for _, r := range jobs {
		on, ok := planned[r.ID()]
		if !ok {
			on = r.Best
		}
		p, _ := s.Book.Planting(r.Planting)
		if what, ok := gathered[r.Task]; ok {
			id := "round " + string(r.Task) + " " + on.String()
			if at, there := rows[id]; there {
				all[at].What += ", " + r.Planting
				continue
			}
			rows[id] = len(all)
			all = append(all, Appointment{ID: id, On: on, What: what + ": " + r.Planting})
			continue
		}
		if what, ok := single[r.Task]; ok {
			note := append(rounds.Sentence{r.Earliest, " to ", r.Latest, ": "}, r.Reason...)
			if r.Person != "" {
				note = append(rounds.Sentence{r.Person + ", "}, note...)
			}
			all = append(all, Appointment{"round " + r.ID(), on, what + " " + r.Planting + " " + p.Variety, p.Bed, note})
		}
	}
	return all
}

// words are a note without dates and measures, none where they are empty.
func words(s string) rounds.Sentence {
	if s == "" {
		return nil
	}
	return rounds.Sentence{s}
}
