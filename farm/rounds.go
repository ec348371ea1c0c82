package farm

import (
	"slices"
	"strings"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/core/plan"
	"dewcount/core/rounds"
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
func (s *Season) Rounds(last day.Day) []Round {
	sky := newSeasonSky(s)
	today := s.View.Today
	records := make(map[string]JobRecord)
	for _, r := range s.Book.Jobs {
		records[r.Job] = r
	}
	nextHere := s.followers()
	var jobs []rounds.Job
	for i := range s.Model.Plantings {
		record, ok := s.Book.Planting(s.Model.Plantings[i].ID)
		if !ok || !record.EndedOn.IsZero() && !record.EndedOn.After(today) || s.Stand.Dead(i) {
			continue
		}
		p := s.roundOf(i, record, sky)
		p.NextHere = nextHere[p.ID]
		jobs = append(jobs, rounds.Of(&p, sky, today, last)...)
	}
	var all []Round
	for _, j := range jobs {
		r := Round{Job: j}
		if on, ok := records[j.ID()]; ok {
			if on.State == JobDone || on.State == JobDropped {
				continue
			}
			r.Person, r.Mark = on.Person, on.Record().Mark()
			if on.State == JobMoved && !on.On.Before(today) {
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
func (s *Season) Week(all []Round) rounds.Week {
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

// roundOf returns what the rounds need to know of a planting.
func (s *Season) roundOf(i int, record Planting, sky *seasonSky) rounds.Planting {
	m, profile := &s.Model.Plantings[i], s.Model.Plantings[i].Growth.Profile
	standing := s.Stand.Standing(i)
	p := rounds.Planting{
		ID: m.ID, Profile: profile, Method: record.Method, Plants: record.Plants, Started: record.StartedOn, Out: m.Growth.Out(), Dates: s.Dates[i],
		PinchOn: record.PinchedOn, Standing: standing.Rungs, Done: make(map[rounds.Task]day.Day),
	}
	if profile.Lasts(record.Method) && !p.Dates.Emerged.Likely.IsZero() {
		p.Method = crop.Established // its first year's jobs are behind it
	}
	p.Finished = standing.Likely < 1 && standing.ToCome < 1 && !s.Dates[i].Emerged.Likely.IsZero() && s.Dates[i].Emerged.Likely.Before(s.View.Today)
	if record.Method == crop.Tray {
		up := s.Dates[i].Emerged.Likely
		if up.IsZero() {
			up = record.StartedOn.Add(int(profile.Germination.Days[1]))
		}
		r := plan.RaisingOf(profile, record.StartedOn, up, p.Out, s.frostFree(profile))
		p.Raising = &r
	}
	if record.Method == crop.Direct && record.StartedOn.Add(14).After(s.View.Today) {
		if warm, ok := s.Stand.SoilWarm(profile.SoilMinC); ok && warm.After(s.View.Today) {
			p.SoilWarm = warm
		}
	}
	if bed, ok := s.Book.Bed(record.Bed); ok {
		p.Under, p.Pot = bed.Cover == "tunnel" || bed.Cover == "house", bed.Cover == "pot"
	}
	if place, err := s.Book.Place(); err == nil {
		p.Heavy = place.Heavy
	}
	s.picksOf(i, &p)
	s.doneOn(&p, record)
	s.schoolsOf(&p, record)
	return p
}

// picksOf adds what the next picks will take.
func (s *Season) picksOf(i int, p *rounds.Planting) {
	place, err := s.Book.Place()
	if err != nil {
		return
	}
	const ahead = 14
	for j, on := range s.Forecast.PickDays {
		if on.Sub(s.View.Today) > ahead {
			break
		}
		if _, _, waits := s.Book.Waiting(p.ID, on); waits {
			continue
		}
		stems := float64(s.Forecast.Plantings[i].ByPick[j][crop.Market].Likely())
		if at, k := s.Morning.Index(p.ID), slices.Index(s.Morning.Forecast.PickDays, on); at >= 0 && k >= 0 {
			stems = float64(s.Morning.Forecast.Plantings[at].ByPick[k][crop.Market].Likely())
		}
		p.Picks = append(p.Picks, rounds.Pick{On: on, Stems: stems, Hours: stems / place.StemsAnHour})
	}
}

// doneOn adds when each task was done last, from jobs, counts, cuts, scoutings and dates seen.
func (s *Season) doneOn(p *rounds.Planting, record Planting) {
	note := func(t rounds.Task, on day.Day) {
		if on.After(p.Done[t]) {
			p.Done[t] = on
		}
	}
	for _, j := range s.Book.Jobs {
		if j.Planting == p.ID && (j.State == JobDone || j.State == JobDropped) {
			on := j.On
			if j.Task == rounds.Disbud { // what it was done for tells one event from the next
				if words := strings.Fields(j.Job); len(words) > 0 {
					on, _ = day.Parse(words[len(words)-1])
				}
			}
			note(j.Task, on)
		}
	}
	if last, ok := s.Book.LastCount(p.ID); ok {
		p.Counted = last.CountedAt.Day()
	}
	if at := s.Morning.Index(p.ID); at >= 0 {
		p.CountFor = s.Morning.CountFor(at)
	}
	for _, c := range s.Book.Cuts {
		if c.Planting == p.ID && c.CutAt.Day().After(p.Cut) {
			p.Cut = c.CutAt.Day()
		}
	}
	for _, x := range s.Book.Scoutings {
		if x.Planting == p.ID {
			note(rounds.Scout, x.On)
		}
	}
	for _, e := range s.Book.Events {
		if e.Planting == p.ID {
			p.Pinched = p.Pinched || e.Event == Pinched
			p.IsOut = p.IsOut || e.Event == PlantedOut
		}
	}
	today := s.View.Today
	p.IsOut = p.IsOut || !record.PlantedOutOn.IsZero() && record.PlantedOutOn.Before(today)
}

// beetleDays is for how long beetles that somebody saw are about.
const beetleDays = 60

// schoolsOf adds what the farm chose where growers disagree, and the events that want prime flowers of it.
func (s *Season) schoolsOf(p *rounds.Planting, record Planting) {
	b, profile := s.Book, p.Profile
	entry, _, _ := b.Entry(profile.ID)
	care := strings.ToLower(strings.Join(entry.Care, " "))
	switch b.Chosen(profile, "feed") {
	case "spring":
		p.Feeding = rounds.SpringFeed
	case "weeks":
		p.Feeding = rounds.WeeksFeed
	case "table":
		switch {
		case strings.Contains(care, "every three weeks"):
			p.Feeding = rounds.WeeksFeed
		case strings.Contains(care, "feed little") || strings.Contains(care, "lean soil") || !strings.Contains(care, "feed"):
		default:
			p.Feeding = rounds.SpringFeed
		}
	}
	winter := b.Chosen(profile, "winter")
	p.LiftAll, p.Leave = winter == "lift", winter == "leave"
	if b.Chosen(profile, "pests") == "bags" && slices.ContainsFunc(entry.Pests, func(x string) bool { return strings.Contains(x, "beetle") }) {
		p.Bags = slices.ContainsFunc(b.Scoutings, func(x Scouting) bool {
			return strings.Contains(strings.ToLower(x.Cause), "beetle") && s.View.Today.Sub(x.On) <= beetleDays
		})
	}
	large := profile.Form == "double-daisy" || profile.Form == "ruffle"
	p.Disbud = large && profile.Life != crop.TenderAnnual && profile.Life != crop.HardyAnnual && b.Chosen(profile, "disbud") != "never"
	if !p.Disbud {
		return
	}
	v, _ := b.Variety(record.Variety)
	for _, o := range b.Orders {
		if o.Kind != "event" || o.DueOn.Before(s.View.Today) {
			continue
		}
		for _, l := range b.OrderLines {
			if l.Order == o.ID && (l.Variety == record.Variety || l.Variety == "" && l.Crop == profile.ID && (l.Colour == "" || v.ColourShare(l.Colour) > 0)) {
				p.Events = append(p.Events, o.DueOn)
				break
			}
		}
	}
}

// followers returns when the place of each planting is wanted by another.
func (s *Season) followers() map[string]day.Day {
	next := make(map[string]day.Day)
	for _, stays := range s.Stays() {
		for _, a := range stays {
			for _, b := range stays {
				if a.Patch == (plan.Patch{}) || b.Patch == (plan.Patch{}) || !b.From.After(a.From) || !a.Patch.Overlaps(b.Patch) {
					continue
				}
				if first := next[a.Planting]; first.IsZero() || b.From.Before(first) {
					next[a.Planting] = b.From
				}
			}
		}
	}
	return next
}

// A seasonSky is the weather of a season as the rounds ask for it.
type seasonSky struct {
	stand    *forecast.Stand
	today    day.Day
	latitude float64
	rain     map[day.Day]float64
	seen     map[day.Day]climate.Extremes
}

func newSeasonSky(s *Season) *seasonSky {
	sky := &seasonSky{stand: s.Stand, today: s.View.Today, latitude: s.Model.Outlook.Latitude, rain: make(map[day.Day]float64), seen: make(map[day.Day]climate.Extremes)}
	issued := make(map[day.Day]day.Day) // the latest forecast of each day
	for _, w := range s.Book.Weather {
		if w.RainMM == nil || w.IssuedOn.After(s.View.Today) {
			continue
		}
		observed := w.IssuedOn.IsZero()
		if last, ok := issued[w.Date]; ok && !observed && (last.IsZero() || w.IssuedOn.Before(last)) {
			continue
		}
		issued[w.Date], sky.rain[w.Date] = w.IssuedOn, *w.RainMM
	}
	return sky
}

// Extremes returns a day's lowest and highest temperature, on record or the mean of the weathers that are possible.
func (s *seasonSky) Extremes(d day.Day) climate.Extremes {
	e, ok := s.seen[d]
	if !ok {
		e = s.stand.Weather(d)
		s.seen[d] = e
	}
	return e
}

// Rain returns a day's rain in mm, and whether it is on record or foretold.
func (s *seasonSky) Rain(d day.Day) (float64, bool) {
	mm, known := s.rain[d]
	return mm, known
}

// NightBelow returns the chance that the minimum of a day is at or below celsius.
func (s *seasonSky) NightBelow(d day.Day, celsius float64) float64 {
	return s.stand.NightBelow(d, celsius)
}

// FirstBelow returns the likely day of the coming winter's first such minimum, zero if none is likely.
func (s *seasonSky) FirstBelow(celsius float64) day.Day {
	first := s.stand.Frosts(celsius, s.today).First(0.5)
	if first.Before(s.today) {
		return day.Day{}
	}
	return first
}

// WinterC returns the expected lowest temperature of the year to come.
func (s *seasonSky) WinterC() float64 { return s.stand.WinterC() }

// Latitude returns the farm's, in degrees north.
func (s *seasonSky) Latitude() float64 { return s.latitude }
