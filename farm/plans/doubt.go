package plans

import (
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/look"
)

// A Doubt is what is wrong with when a planting is started, as somebody wrote it down. It is not forbidden: they may know better.
type Doubt struct {
	Early    bool    // it comes into the open before its season, or is set in none
	Cold     bool    // it is planted out into ground in which it does not root
	Late     bool    // it will hardly flower before the frost
	LastSafe day.Day // of one that is late, the last day on which it could have been started, or can be next; zero where there is none
	NoWinter bool    // it stands for years where no usual winter is as cold as it wants it
	Frost    day.Day // the last frost of spring that it should wait for; zero where that is not what is wrong
}

// justStarted is for how many days after its start a planting is still told that it is late: later nobody can do anything about it.
const justStarted = 21

// DoubtOf returns what is wrong with the start of planting i, which is still to come or was lately; nothing where it stands for years.
func DoubtOf(s *look.Snapshot, i int) Doubt {
	return look.Once(s, doubtKey{i}, func() Doubt { return doubtOf(s, i) })
}

type doubtKey struct{ planting int }

func doubtOf(s *look.Snapshot, i int) (d Doubt) {
	g := &s.Model.Plantings[i].Growth
	if g.Profile.Lasts(g.Method) && !s.Over(i) && !plan.Chills(g.Profile, s.Model.Outlook.Season()) {
		d.NoWinter = true
		return d
	}
	if g.Method == crop.Established || g.Profile.Lasts(g.Method) || s.View.Today.Sub(g.Started) > justStarted || s.Over(i) {
		return d
	}
	ground, err := GroundOf(s, g.Profile.ID, "", s.Book.BedOf(s.Model.Plantings[i].ID))
	if err != nil {
		return d
	}
	starts := startsOf(s, ground, []crop.Method{g.Method}, false)
	in := plan.Sowing{Method: g.Method, Started: g.Started}
	if g.Method == crop.Tray || g.Method == crop.Cutting {
		in.Out = g.Out()
	}
	if !starts.InSeason(in) {
		d.Early = true
		if plan.Tender(g.Profile) {
			d.Frost = s.FrostDates(in.InBed()).Last
		}
		return d
	}
	if g.Method == crop.Tray && !starts.Roots(in.Out) {
		d.Cold = true
		return d
	}
	if first := s.Stand.Milestones(i).FirstCut; first.Likely.IsZero() {
		const season = 200 // days within which a sowing of this year flowers
		d.Late = true
		d.LastSafe, _ = lastSafe(s, ground, starts, g.Method, g.Started.Add(-season/2), g.Started.Add(season))
	}
	return d
}
