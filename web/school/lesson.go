package school

import (
	"math/rand/v2"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/school"
	"dewcount/farm/book"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A lessonView is a lesson: its tasks one after the other, and what is known of the eye that answers them.
type lessonView struct {
	Tasks    []taskView
	Person   string // who is signed in, empty where nobody is
	Consents bool
	Again    string // address of another lesson
	Eye      *eyeView
	Others   []otherView
	Fault    string
	NameIs   string // that was typed
	Season   bool   // a season can be played beside the farm
	SeasonAt string // its address, once it is started
}

// lessonTasks is how many stems a lesson has: five minutes.
const lessonTasks = 16

func (s view) lesson(c *echo.Context, snap *say.Snapshot) error {
	return s.show(c, http.StatusOK, snap, "", nil)
}

func (s view) show(c *echo.Context, code int, snap *say.Snapshot, typed string, faults map[string]string) error {
	v := lessonView{Person: page.By(c), NameIs: typed, Season: s.Season != nil && page.Who(c).Role.May(page.Own)}
	who := v.Person
	if who == "" {
		who = typed
	}
	answers, consents := snap.Book.AnswersOf(who, snap.View.Today)
	v.Consents = consents
	more, _ := strconv.Atoi(c.QueryParam("more")) // what is no number is the first lesson
	v.Again = "/school?more=" + strconv.Itoa(more+1)
	year, month, on := snap.View.Today.Date()
	random := rand.New(rand.NewPCG(uint64(year*10000+int(month)*100+on), uint64(len(answers)*100+more)))
	for i, task := range school.Lesson(subjects(snap), answers, lessonTasks, random) {
		v.Tasks = append(v.Tasks, newTask(snap, task, i+1))
	}
	if len(answers) > 0 {
		v.Eye = newEye(answers, consents)
	}
	if page.Who(c).Role.May(page.Own) || v.Person == "" {
		v.Others = others(snap, who)
	}
	for _, field := range []string{"person", "answers", ""} {
		if v.Fault == "" {
			v.Fault = faults[field]
		}
	}
	v.SeasonAt, _ = c.Get(seasonKey).(string)
	return s.Show(c, code, "school", "/school", "Stem school", snap, v)
}

// seasonKey is where a request has the address of a season that it has started.
const seasonKey = "season"

// season starts a season to be played beside the farm, and says where it is.
func (s view) season(c *echo.Context, snap *say.Snapshot) error {
	if s.Season == nil {
		return echo.ErrNotFound
	}
	address, err := s.Season()
	if err != nil {
		return err
	}
	c.Set(seasonKey, address+"/play")
	return s.show(c, http.StatusOK, snap, "", nil)
}

// subjects are the crops of the farm in the colours that it grows; all crops of the table where it has none yet.
func subjects(snap *say.Snapshot) []school.Subject {
	var all []school.Subject
	add := func(p *crop.Profile, colour string) {
		one := school.Subject{Crop: p, Colour: colour, School: snap.Book.SchoolOf(p.ID, "cut")}
		if !slices.ContainsFunc(all, func(o school.Subject) bool { return o.Crop.ID == p.ID && o.Colour == colour }) {
			all = append(all, one)
		}
	}
	for _, v := range snap.Book.Varieties {
		p := snap.Book.Crop(v.Crop)
		if p == nil || len(p.Cut) == 0 {
			continue
		}
		for _, colour := range v.Colours() {
			add(p, colour)
		}
		if len(v.Colours()) == 0 {
			add(p, "")
		}
	}
	if all == nil {
		for _, p := range snap.Book.Crops() {
			add(p, "")
		}
	}
	return all
}

// keep writes down what was answered.
func (s view) keep(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	person := page.By(c)
	if person == "" {
		person = strings.TrimSpace(from("person"))
	}
	f := book.NewFields(func(name string) string {
		switch name {
		case "person":
			return person
		case "at":
			return s.now(snap).String()
		}
		return from(name)
	})
	l := book.ReadLesson(f)
	err := f.Faults()
	if err == nil {
		err = s.Farm.Add(c.Request().Context(), page.By(c), l.Record())
	}
	if faults, only := page.FaultsBy(err); only {
		return s.show(c, http.StatusUnprocessableEntity, snap, person, faults)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, page.AddressOf("recorded", l.Record(), "school"))
}

// now is the farm's time; of a demo, whose clock stands, the morning of its day.
func (s view) now(snap *say.Snapshot) day.Moment {
	if place, err := snap.Book.Place(); err == nil && !place.DemoDay.IsZero() {
		return day.At(snap.View.Today, 6, 0)
	}
	return s.Farm.Now(snap.Snapshot)
}
