package web

import (
	"cmp"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"dewcount/core/day"
	"dewcount/core/rounds"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/work"

	"github.com/labstack/echo/v5"
)

// A roundsView is the jobs of the week, a day under the other.
type roundsView struct {
	Find    findView
	Days    []shiftView
	PutOff  []groupView
	Short   string // the hours that the week lacks
	Later   []jobView
	People  []option
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

var taskWords = map[rounds.Task]string{rounds.Sow: "Sow", rounds.OffHeat: "Take off the heat", rounds.PotOn: "Pot on", rounds.Harden: "Begin to harden off", rounds.PlantOut: "Plant out",
	rounds.Thin: "Thin", rounds.ThinMore: "Thin to the final distance", rounds.Water: "Water", rounds.Net: "Net or stake", rounds.RaiseNet: "Raise the net", rounds.Pinch: "Pinch",
	rounds.Strip: "Strip low leaves", rounds.Feed: "Feed", rounds.Disbud: "Disbud", rounds.Bag: "Bag buds", rounds.Scout: "Look for pests", rounds.Count: "Count", rounds.Cut: "Cut",
	rounds.Deadhead: "Deadhead", rounds.Frost: "Cut before frost", rounds.PullOut: "Pull out and cover", rounds.Lift: "Lift", rounds.Cover: "Cover for winter"}

// cautions stand once where the work is done.
var cautions = map[rounds.Task]string{
	rounds.Cut: "Knives: cut away from yourself. A full bucket weighs as much as 15 kg.", rounds.Water: "In the heat: hat, water, shade.",
}

// roundAhead is how many days of the rounds are spoken of.
const roundAhead = 21

func (s *server) rounds(c *echo.Context, snap *look.Snapshot) error {
	season, ok, err := s.seasonOf(c, snap, "/rounds", "Rounds", currentYear(snap))
	if !ok {
		return err
	}
	find := newFind(c, "/rounds", "row, variety, job", snap.Book.Beds)
	v := newRounds(snap, season, c.QueryParam("person"), &find)
	v.Find = find
	if v.Person != "" {
		v.Find.Kept = []linkView{{Name: "person", Href: v.Person}}
	}
	v.Path = c.Request().URL.RequestURI()
	if s.doors != nil {
		all, err := s.doors.All(c.Request().Context())
		if err != nil {
			return err
		}
		for _, p := range all {
			v.People = append(v.People, option{Value: p.Name, Label: p.Name, Chosen: p.Name == v.Person})
		}
	}
	return s.show(c, http.StatusOK, "rounds", "/rounds", "Rounds", snap, v)
}

// newRounds shows the week's jobs, or those of them that are given to a person or found: the days are those on which everybody's fit in.
func newRounds(snap *look.Snapshot, season *look.Season, person string, find *findView) roundsView {
	v := roundsView{Person: person, Nothing: true}
	today := snap.View.Today
	all := work.Rounds(season, today.Add(roundAhead))
	byID := make(map[string]work.Round)
	for _, r := range all {
		if person != "" && r.Person != person {
			continue
		}
		if planting, _ := snap.Book.Planting(r.Planting); find != nil && !find.takes(planting.Bed, planting.ID, planting.Variety, taskWords[r.Task]) {
			continue
		}
		v.Nothing = false
		byID[r.ID()] = r
		if r.Best.Sub(today) >= work.RoundDays && !again[r.Task] {
			v.Later = append(v.Later, newJobView(snap, r, today))
		}
	}
	week := work.Week(season, all)
	theirs := func(parts []rounds.Part) []rounds.Part {
		return slices.DeleteFunc(parts, func(p rounds.Part) bool { _, ok := byID[p.ID()]; return !ok })
	}
	for i, shift := range week.Shifts {
		d := shiftView{Heading: shift.Day.Spoken(), Hours: fmt.Sprintf("%s of %s", spokenHours(shift.Taken()), spokenHours(shift.Minutes))}
		d.Full = shift.Minutes > 0 && shift.Minutes-shift.Taken() < 30
		if shift.Minutes == 0 {
			d.Hours = "a day off"
		}
		shift.Jobs = theirs(shift.Jobs)
		if person != "" && shift.Minutes > 0 {
			d.Hours, d.Full = "", false
			if taken := shift.Taken(); taken > 0 {
				d.Hours = spokenHours(taken)
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
	v.Short = spokenHours(lacking)
	return v
}

// again are the tasks that come back every few days: those of next week need not be spoken of today.
var again = map[rounds.Task]bool{rounds.Water: true, rounds.Feed: true, rounds.Scout: true, rounds.Count: true, rounds.Cut: true, rounds.Deadhead: true}

// currentYear returns the growing year of today.
func currentYear(snap *look.Snapshot) int {
	place, err := snap.Book.Place()
	if err != nil {
		return 0
	}
	return look.SeasonYears(snap.View.Today, place.Latitude)[1]
}

// groupsOf gathers the jobs of a day by their tasks.
func groupsOf(snap *look.Snapshot, parts []rounds.Part, byID map[string]work.Round, today day.Day) []groupView {
	var groups []groupView
	minutes := make(map[string]float64)
	for _, p := range parts {
		name := taskWords[p.Task]
		if p.Task == rounds.Water && strings.Contains(p.Reason, "by hand") {
			name = "Water by hand"
		}
		if n := len(groups); n == 0 || groups[n-1].Name != name {
			if at := slices.IndexFunc(groups, func(g groupView) bool { return g.Name == name }); at >= 0 {
				groups[at].Jobs = append(groups[at].Jobs, newPartView(snap, p, byID, today))
				groups[at].Late = groups[at].Late || p.Late > 0
				minutes[name] += p.Minutes
				continue
			}
			g := groupView{Name: name, Caution: cautions[p.Task]}
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
		at := slices.IndexFunc(groups, func(g groupView) bool { return g.Name == taskWords[rounds.Cut] })
		for _, h := range profile.Handling() {
			if words := profile.Name + ": " + h; !strings.Contains(groups[at].Caution, words) {
				groups[at].Caution += " " + words
			}
		}
	}
	for i := range groups {
		groups[i].Minutes = spokenHours(minutes[groups[i].Name])
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

func newPartView(snap *look.Snapshot, p rounds.Part, byID map[string]work.Round, today day.Day) jobView {
	v := newJobView(snap, byID[p.ID()], today)
	if p.Of > 1 {
		v.Part = fmt.Sprintf("part %d of %d", p.Part, p.Of)
	}
	if p.Late > 0 {
		v.Late = days(p.Late) + " late"
	}
	return v
}

func days(n int) string {
	if n == 1 {
		return "1 day"
	}
	return fmt.Sprintf("%d days", n)
}

func newJobView(snap *look.Snapshot, r work.Round, today day.Day) jobView {
	v := jobView{ID: r.ID(), Planting: r.Planting, Task: taskWords[r.Task], Value: r.Planting + "|" + string(r.Task) + "|" + r.Mark + "|" + r.ID(), Reason: sentence(r.Reason), Cost: sentence(r.Cost),
		Person: r.Person, Tomorrow: today.Add(1).String(), Best: r.Best.Spoken(), Bed: bedOf(snap, r.Planting)}
	if p, ok := snap.Book.Planting(r.Planting); ok {
		v.Variety = p.Variety
	}
	short := func(d day.Day) string { return d.Midnight().Format("2 Jan") }
	switch {
	case r.Earliest == r.Latest:
		v.Window = "on " + r.Best.Spoken()
	default:
		v.Window = fmt.Sprintf("%s to %s, best %s", short(r.Earliest), short(r.Latest), short(r.Best))
	}
	if !r.MovedTo.IsZero() {
		v.Moved = "moved to " + r.MovedTo.Spoken()
	}
	return v
}

// spokenHours says minutes as growers do: in quarters of an hour.
func spokenHours(minutes float64) string {
	if minutes < 53 {
		return fmt.Sprintf("%.0f min", math.Max(5, 5*math.Round(minutes/5)))
	}
	quarters := int(math.Round(minutes / 15))
	part := []string{"", "¼", "½", "¾"}[quarters%4]
	if quarters == 4 {
		return "1 hour"
	}
	return fmt.Sprintf("%d%s hours", quarters/4, part)
}

// setJobs writes down what became of jobs: done, moved, dropped, or given to somebody.
func (s *server) setJobs(c *echo.Context) error {
	if err := c.Request().ParseForm(); err != nil {
		return echo.NewHTTPError(http.StatusBadRequest, "this form cannot be read: go back and send it again")
	}
	today, err := s.today(c)
	if err != nil {
		return err
	}
	form := c.Request().PostForm
	var ids []string
	var jobs []book.JobSet
	for _, value := range form["job"] {
		parts := strings.SplitN(value, "|", 4)
		if len(parts) != 4 {
			return book.ErrNoSuchRecord
		}
		on, person := today.String(), form.Get("person")
		if form.Get("do") == string(book.JobMoved) {
			on = form.Get("on")
		}
		if person == "" && form.Get("do") == string(book.JobDone) {
			person = by(c)
		}
		f := book.NewFields(func(name string) string {
			return map[string]string{"job": parts[3], "planting": parts[0], "task": parts[1], "state": form.Get("do"), "on": on, "person": person}[name]
		})
		job := book.ReadJob(f)
		ids, jobs = append(ids, job.Job), append(jobs, book.JobSet{JobRecord: job, Shown: parts[2]})
		if err := f.Faults(); err != nil {
			return err
		}
	}
	if err := s.farm.SetJobs(c.Request().Context(), by(c), jobs...); err != nil {
		return err
	}
	to := inside(form.Get("back"))
	mark := "?"
	if strings.Contains(to, "?") {
		mark = "&"
	}
	if len(ids) > 0 {
		to += mark + "done=" + url.QueryEscape("recorded:jobs:"+strings.Join(ids, "\t"))
	}
	return c.Redirect(http.StatusSeeOther, to)
}
