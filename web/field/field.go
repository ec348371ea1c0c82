package field

import (
	"encoding/json"
	"errors"
	"net/http"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/fault"
	"dewcount/say"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A fieldRecord is what a phone sends: a kind of record and its fields as they were typed, its id among them.
type fieldRecord struct {
	Kind   string            `json:"kind"`
	Fields map[string]string `json:"fields"`
}

// token hands out a fresh token for the next record.
func (s view) token(c *echo.Context) error {
	token, _ := c.Get("csrf").(string)
	c.Response().Header().Set("Cache-Control", "no-store")
	return c.JSON(http.StatusOK, map[string]string{"token": token})
}

// addField takes one record that was made in the field. Sent again it is acknowledged again, and kept once.
func (s view) addField(c *echo.Context) error {
	var r fieldRecord
	if err := json.NewDecoder(c.Request().Body).Decode(&r); err != nil {
		return echo.NewHTTPError(http.StatusBadRequest, "this is no record: load the page anew and count again")
	}
	err := s.keepField(c, r)
	var faults fault.List
	if errors.As(err, &faults) {
		return c.JSON(http.StatusUnprocessableEntity, page.Refusal{Advice: say.Sentence(faults[0].Advice), Field: faults[0].Field})
	}
	if err != nil {
		return err
	}
	return c.JSON(http.StatusOK, map[string]bool{"kept": true})
}

func (s view) keepField(c *echo.Context, r fieldRecord) error {
	ctx, from := c.Request().Context(), page.Typed(func(name string) string { return r.Fields[name] })
	if from("id") == "" {
		return fault.List{{Field: "id", Advice: "this record has no id: load the page anew and count again"}}
	}
	locale := page.LocaleOf(c)
	var err error
	locale.Today, err = s.Today(c)
	if err != nil {
		return err
	}
	if r.Kind == book.Events.Name {
		f := book.NewFields(from)
		event := book.ReadEvent(f)
		notToComeDay(f, "on", event.On, locale)
		if err := f.Faults(); err != nil {
			return err
		}
		return s.Farm.Saw(ctx, page.By(c), event)
	}
	if r.Kind == book.Jobs.Name {
		return s.keepJob(c, from, locale)
	}
	reads, ok := map[string]rowReader{book.Counts.Name: readCount, book.Cuts.Name: readCut, book.Moves.Name: readMove, book.Temperatures.Name: readReading, book.Scoutings.Name: readScouting, book.Lessons.Name: readLesson}[r.Kind]
	if !ok {
		return fault.List{{Field: "kind", Advice: "this kind of record is not made in the field: load the page anew"}}
	}
	made, err := reads(from, locale)
	if err != nil {
		return err
	}
	return s.Farm.Add(ctx, page.By(c), made)
}

// keepJob takes what became of a job of the rounds. Who has seen less of it than is on record by now is told so.
func (s view) keepJob(c *echo.Context, from page.Typed, locale say.Locale) error {
	f := book.NewFields(from)
	job := book.ReadJob(f)
	if job.State == book.JobDone {
		notToComeDay(f, "on", job.On, locale)
		if job.Person == "" {
			job.Person = page.By(c)
		}
	}
	if err := f.Faults(); err != nil {
		return err
	}
	err := s.Farm.SetJobs(c.Request().Context(), page.By(c), book.JobSet{JobRecord: job, Shown: from("shown")})
	var changed *book.Changed
	if errors.As(err, &changed) {
		return fault.List{{Field: "job", Advice: "something else is on record of this job by now: look at the rounds"}}
	}
	return err
}

func readMove(from page.Typed, locale say.Locale) (book.Record, error) {
	f := book.NewFields(from).For(locale)
	m := book.ReadMove(f)
	notToCome(f, "at", m.At, locale)
	return m.Record(), f.Faults()
}

func readReading(from page.Typed, locale say.Locale) (book.Record, error) {
	f := book.NewFields(from).For(locale)
	r := book.ReadReading(f)
	notToCome(f, "at", r.At, locale)
	return r.Record(), f.Faults()
}

func readLesson(from page.Typed, locale say.Locale) (book.Record, error) {
	f := book.NewFields(from)
	l := book.ReadLesson(f)
	notToCome(f, "at", l.At, locale)
	return l.Record(), f.Faults()
}

func notToComeDay(f *book.Fields, name string, d day.Day, locale say.Locale) {
	if d.After(locale.Today) {
		f.Fault(name, "%s has not come yet: today is %s", locale.Date(d), locale.Date(locale.Today))
	}
}
