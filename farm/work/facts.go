package work

import (
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/core/rounds"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// roundOf returns what the rounds need to know of a planting.
func roundOf(s *look.Season, i int, record book.Planting, sky *seasonSky) rounds.Planting {
	m, profile := &s.Model.Plantings[i], s.Model.Plantings[i].Growth.Profile
	standing := s.Stand.Standing(i)
	p := rounds.Planting{
		ID: m.ID, Profile: profile, Method: record.Method, Plants: record.Plants, Started: record.StartedOn, StartBy: startBy(s.Book, record, s.View.Today), Bought: record.BoughtOn, Out: m.Growth.Out(), Dates: s.Dates[i],
		PinchOn: record.PinchedOn, Standing: standing.Rungs, Done: make(map[rounds.Task]day.Day),
	}
	if profile.Lasts(record.Method) && !p.Dates.Emerged.Likely.IsZero() {
		p.Method = crop.Established // its first year's jobs are behind it
	}
	p.Finished = standing.Finished() && !s.Dates[i].Emerged.Likely.IsZero() && s.Dates[i].Emerged.Likely.Before(s.View.Today)
	if record.Method == crop.Tray {
		up := s.Dates[i].Emerged.Likely
		if up.IsZero() {
			up = record.StartedOn.Add(int(profile.Germination.Days[1]))
		}
		r := plan.RaisingOf(profile, record.StartedOn, up, p.Out, s.FrostFree(profile))
		if !record.BoughtOn.IsZero() {
			r = r.Bought(record.BoughtOn)
		}
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
	p.Steered = steeredToday(s, i)
	picksOf(s, i, &p)
	doneOn(s, &p, record)
	schoolsOf(s, &p, record)
	return p
}

// steeredToday returns the light that a steered crop is to have today under its roof; zero outdoors, before it is planted, and once its buds show colour.
func steeredToday(s *look.Season, i int) plan.SteeredDay {
	g, today := &s.Model.Plantings[i].Growth, s.View.Today
	place, err := s.Book.Place()
	bed, _ := s.Book.Bed(s.Book.BedOf(s.Model.Plantings[i].ID))
	if err != nil || !g.Profile.Steered() || bed.Cover != "tunnel" && bed.Cover != "house" || g.Out().After(today) {
		return plan.SteeredDay{}
	}
	short := g.ShortDays
	if short.IsZero() {
		short = today.Add(1) // nobody has begun them yet
	}
	colour := s.Dates[i].FirstCut.Likely
	const opens = 7 // days from colour to the cut
	if !colour.IsZero() && !colour.Add(-opens).After(today) {
		return plan.SteeredDay{}
	}
	days := plan.ProgrammeOf(g.Profile, place.Latitude, today, short, today.Add(1), false).Days
	return days[0]
}

// picksOf adds what the next picks will take.
func picksOf(s *look.Season, i int, p *rounds.Planting) {
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
		over, known := 0, false
		if at, k := s.Morning.Index(p.ID), slices.Index(s.Morning.Forecast.PickDays, on); at >= 0 && k >= 0 {
			likely := s.Morning.Forecast.Plantings[at].ByPick[k][crop.Market].Likely()
			stems = float64(likely)
			if k+1 < len(s.Morning.Forecast.PickDays) {
				over, _, known = leftUncut(s.Morning, at, on, float64(s.Morning.Forecast.PickDays[k+1].Sub(on)), likely)
			}
		}
		p.Picks = append(p.Picks, rounds.Pick{On: on, Over: over, Known: known, Stems: stems, Hours: stems / s.Book.StemsAnHour(place, s.Model.Plantings[i].Growth.Profile)})
	}
}

// startBy returns the last day on which somebody is asked to begin a planting: for a week where it was planned or put off, else until the crew works next, since
// who writes down a day that has passed has mostly begun it.
func startBy(b *book.Book, p book.Planting, today day.Day) day.Day {
	const week = 7
	by, asked := p.StartedOn, p.Succession != ""
	for _, j := range b.Jobs {
		if j.Planting == p.ID && j.Task == rounds.Sow {
			by, asked = maxDay(by, j.On), true
		}
	}
	if asked {
		return by.Add(week)
	}
	if today.Sub(by) > week {
		return by // long ago, as of most
	}
	place, err := b.Place()
	for range week {
		if err != nil || place.CrewHours[(int(by.Weekday())+6)%week] > 0 {
			break
		}
		by = by.Add(1)
	}
	return by
}

// doneOn adds when each task was done last, from jobs, counts, cuts, scoutings and dates seen.
func doneOn(s *look.Season, p *rounds.Planting, record book.Planting) {
	note := func(t rounds.Task, on day.Day) {
		if on.After(p.Done[t]) {
			p.Done[t] = on
		}
	}
	for _, j := range s.Book.Jobs {
		p.Ticked = p.Ticked || j.State == book.JobDone
		if j.Planting == p.ID && (j.State == book.JobDone || j.State == book.JobDropped) {
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
		p.CountFor = CountFor(s.Morning, at)
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
			p.Pinched = p.Pinched || e.Event == book.Pinched
			p.IsOut = p.IsOut || e.Event == book.PlantedOut
		}
	}
	today := s.View.Today
	p.IsOut = p.IsOut || !record.PlantedOutOn.IsZero() && record.PlantedOutOn.Before(today)
}

// beetleDays is for how long beetles that somebody saw are about.
const beetleDays = 60

// schoolsOf adds what the farm chose where growers disagree, and the events that want prime flowers of it.
func schoolsOf(s *look.Season, p *rounds.Planting, record book.Planting) {
	b, profile := s.Book, p.Profile
	switch b.Chosen(profile, "feed") {
	case "spring":
		p.Feeding = crop.SpringFeed
	case "weeks":
		p.Feeding = crop.WeeksFeed
	case "table":
		p.Feeding = profile.Feeding
	}
	winter := b.Chosen(profile, "winter")
	p.LiftAll, p.Leave = winter == "lift", winter == "leave"
	if b.Chosen(profile, "pests") == "bags" && profile.Beetles {
		p.Bags = slices.ContainsFunc(b.Scoutings, func(x book.Scouting) bool { return x.OfBeetles() && s.View.Today.Sub(x.On) <= beetleDays })
	}
	p.Disbud = profile.LargeHeads() && b.Chosen(profile, "disbud") != "never"
	if !p.Disbud {
		return
	}
	if b.Chosen(profile, "disbud") == "always" {
		const first, every = 12, 14 // days: as long before a flower as its side buds are wiped off
		for on := p.Dates.FirstBud.Likely.Add(first); !p.Dates.FirstBud.Likely.IsZero() && !on.After(p.Dates.LastCut.Likely); on = on.Add(every) {
			p.Events = append(p.Events, on)
		}
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
func followers(s *look.Season) map[string]day.Day {
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
