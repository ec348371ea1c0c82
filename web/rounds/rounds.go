package rounds

import (
	"net/http"
	"net/url"
	"strings"

	"dewcount/farm/book"
	"dewcount/say"
	"dewcount/web/page"
	"dewcount/web/parts"

	"github.com/labstack/echo/v5"
)

func (s view) rounds(c *echo.Context, snap *say.Snapshot) error {
	season, ok, err := s.SeasonOf(c, snap, "/rounds", "Rounds", page.CurrentYear(snap))
	if !ok {
		return err
	}
	find := page.NewFind(c, "/rounds", "row, variety, job", snap.Book.Beds)
	v := parts.NewRounds(snap, season, c.QueryParam("person"), &find)
	v.Find = find
	if v.Person != "" {
		v.Find.Kept = []page.LinkView{{Name: "person", Href: v.Person}}
	}
	v.Path = c.Request().URL.RequestURI()
	if s.People != nil {
		all, err := s.People.All(c.Request().Context())
		if err != nil {
			return err
		}
		for _, p := range all {
			v.People = append(v.People, page.Option{Value: p.Name, Label: p.Name, Chosen: p.Name == v.Person})
		}
	}
	return s.Show(c, http.StatusOK, "rounds", "/rounds", "Rounds", snap, v)
}

// setJobs writes down what became of jobs: done, moved, dropped, or given to somebody.
func (s view) setJobs(c *echo.Context) error {
	if err := c.Request().ParseForm(); err != nil {
		return echo.NewHTTPError(http.StatusBadRequest, "this form cannot be read: go back and send it again")
	}
	today, err := s.Today(c)
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
			person = page.By(c)
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
	if err := s.Farm.SetJobs(c.Request().Context(), page.By(c), jobs...); err != nil {
		return err
	}
	to := page.Inside(form.Get("back"))
	mark := "?"
	if strings.Contains(to, "?") {
		mark = "&"
	}
	if len(ids) > 0 {
		to += mark + "done=" + url.QueryEscape("recorded:jobs:"+strings.Join(ids, "\t"))
	}
	return c.Redirect(http.StatusSeeOther, to)
}
