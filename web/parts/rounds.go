package parts

import (
	"cmp"
	"fmt"
	"net/url"
	"slices"
	"strings"

	"dewcount/core/day"
	"dewcount/core/rounds"
	"dewcount/farm/work"
	"dewcount/say"
	"dewcount/web/page"
)

// A roundsView is the jobs of the week, a day under the other.
type roundsView struct {
	Find    page.FindView
	Days    []shiftView
	PutOff  []groupView
	Short   string // the hours that the week lacks
	Later   []jobView
	People  []page.Option
	Person  string // whose jobs are shown, empty for all
	Path    string // of this page
	Nothing bool
}

// A shiftView is a day of the rounds: what time it takes, and what time there is.
type shiftView struct {
	Heading, Hours string
	Full           bool
	Groups         []groupView
}

// A groupView is the jobs of a task on a day.
type groupView struct {
	Name, Minutes string
	Rows          string // their names
	Caution       string
	Jobs          []jobView
	Link, Words   string // where it is recorded, if it is not ticked off here
	Late          bool
}

type jobView struct {
	ID, Planting, Variety, Bed, Task string
	Value                            string // what a form sends: the job, its planting and its task
	Window, Reason, Cost, Late, Part string
	Person                           string
	Tomorrow                         string
	Moved                            string
	Best                             string
}

// NewRounds shows the week's jobs, or those of them that are given to a person or found: the days are those on which everybody's fit in.
func NewRounds(snap *say.Snapshot, season *say.Season, person string, find *page.FindView) roundsView {
	v := roundsView{Person: person, Nothing: true}
	today := snap.View.Today
	all := work.Rounds(season.Season, today.Add(roundAhead))
	byID := make(map[string]work.Round)
	for _, r := range all {
		if person != "" && r.Person != person {
			continue
		}
		if planting, _ := snap.Book.Planting(r.Planting); find != nil && !find.Takes(planting.Bed, planting.ID, planting.Variety, snap.TaskWord(r.Job)) {
			continue
		}
		v.Nothing = false
		byID[r.ID()] = r
		if r.Best.Sub(today) >= work.RoundDays && !again[r.Task] {
			v.Later = append(v.Later, newJobView(snap, r, today))
		}
	}
	week := work.Week(season.Season, all)
	theirs := func(parts []rounds.Part) []rounds.Part {
		return slices.DeleteFunc(parts, func(p rounds.Part) bool { _, ok := byID[p.ID()]; return !ok })
	}
	for i, shift := range week.Shifts {
		d := shiftView{Heading: snap.Date(shift.Day), Hours: fmt.Sprintf("%s of %s", say.SpokenHours(shift.Taken()), say.SpokenHours(shift.Minutes))}
		d.Full = shift.Minutes > 0 && shift.Minutes-shift.Taken() < 30
		if shift.Minutes == 0 {
			d.Hours = "a day off"
		}
		shift.Jobs = theirs(shift.Jobs)
		if person != "" && shift.Minutes > 0 {
			d.Hours, d.Full = "", false
			if taken := shift.Taken(); taken > 0 {
				d.Hours = say.SpokenHours(taken)
			}
		}
		switch i {
		case 0:
			d.Heading = "Today, " + d.Heading
		case 1:
			d.Heading = "Tomorrow, " + d.Heading
		}
		d.Groups = groupsOf(snap, shift.Jobs, byID, today)
		v.Days = append(v.Days, d)
	}
	week.PutOff = theirs(week.PutOff)
	v.PutOff = groupsOf(snap, week.PutOff, byID, today)
	lacking := 0.0
	for _, p := range week.PutOff {
		lacking += p.Minutes
	}
	v.Short = say.SpokenHours(lacking)
	return v
}

// groupsOf gathers the jobs of a day by their tasks.
func groupsOf(snap *say.Snapshot, parts []rounds.Part, byID map[string]work.Round, today day.Day) []groupView {
	var groups []groupView
	minutes := make(map[string]float64)
	for _, p := range parts {
		name := snap.TaskWord(p.Job)
		if n := len(groups); n == 0 || groups[n-1].Name != name {
			if at := slices.IndexFunc(groups, func(g groupView) bool { return g.Name == name }); at >= 0 {
				groups[at].Jobs = append(groups[at].Jobs, newPartView(snap, p, byID, today))
				groups[at].Late = groups[at].Late || p.Late > 0
				minutes[name] += p.Minutes
				continue
			}
			g := groupView{Name: name, Caution: snap.Caution(p.Task)}
			switch p.Task {
			case rounds.Count:
				g.Link, g.Words = "/count?row="+url.QueryEscape(p.Planting), "Count"
			case rounds.Cut:
				g.Link, g.Words = "/?pick="+p.Best.String(), "What to cut"
			}
			groups = append(groups, g)
		}
		last := &groups[len(groups)-1]
		last.Jobs = append(last.Jobs, newPartView(snap, p, byID, today))
		last.Late = last.Late || p.Late > 0
		minutes[name] += p.Minutes
	}
	for _, p := range parts {
		planting, _ := snap.Book.Planting(p.Planting)
		profile := snap.Book.ProfileOf(planting)
		if p.Task != rounds.Cut || profile == nil {
			continue
		}
		at := slices.IndexFunc(groups, func(g groupView) bool { return g.Name == snap.TaskWord(p.Job) })
		for _, h := range profile.Handling() {
			if words := profile.Name + ": " + h; !strings.Contains(groups[at].Caution, words) {
				groups[at].Caution += " " + words
			}
		}
	}
	for i := range groups {
		groups[i].Minutes = say.SpokenHours(minutes[groups[i].Name])
		var ids []string
		for _, j := range groups[i].Jobs {
			ids = append(ids, j.Planting)
		}
		slices.Sort(ids)
		groups[i].Rows = strings.Join(slices.Compact(ids), ", ")
		slices.SortStableFunc(groups[i].Jobs, func(a, b jobView) int { return cmp.Compare(a.Bed+a.Planting, b.Bed+b.Planting) })
	}
	return groups
}

func newPartView(snap *say.Snapshot, p rounds.Part, byID map[string]work.Round, today day.Day) jobView {
	v := newJobView(snap, byID[p.ID()], today)
	switch {
	case p.Pieces == p.Of:
	case p.Pieces > 1:
		v.Part = fmt.Sprintf("%d parts of %d", p.Pieces, p.Of)
	default:
		v.Part = fmt.Sprintf("part %d of %d", p.Part, p.Of)
	}
	if p.Late > 0 {
		v.Late = say.Days(p.Late) + " late"
	}
	return v
}

func newJobView(snap *say.Snapshot, r work.Round, today day.Day) jobView {
	v := jobView{ID: r.ID(), Planting: r.Planting, Task: snap.TaskWord(r.Job), Value: r.Planting + "|" + string(r.Task) + "|" + r.Mark + "|" + r.ID(), Reason: snap.Sentence(r.Reason), Cost: snap.Sentence(r.Cost),
		Person: r.Person, Tomorrow: today.Add(1).String(), Best: snap.Date(r.Best), Bed: snap.Book.BedOf(r.Planting)}
	if p, ok := snap.Book.Planting(r.Planting); ok {
		v.Variety = p.Variety
	}
	short := func(d day.Day) string { return snap.Short(d) }
	switch {
	case r.Earliest == r.Latest:
		v.Window = "on " + snap.Date(r.Best)
	default:
		v.Window = fmt.Sprintf("%s to %s, best %s", short(r.Earliest), short(r.Latest), short(r.Best))
	}
	if !r.MovedTo.IsZero() {
		v.Moved = "moved to " + snap.Date(r.MovedTo)
	}
	return v
}

// roundAhead is how many days of the rounds are spoken of.
const roundAhead = 21

// again are the tasks that come back every few days: those of next week need not be spoken of today.
var again = map[rounds.Task]bool{rounds.Weed: true, rounds.Water: true, rounds.Steer: true, rounds.Feed: true, rounds.Scout: true, rounds.Count: true, rounds.Cut: true, rounds.Deadhead: true}
