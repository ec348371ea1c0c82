package book

import (
	"dewcount/core/day"
	"dewcount/core/rounds"
)

// A JobState is what became of a job, or who does it.
type JobState string

// The states of a job.
const (
	JobDone    JobState = "done"
	JobMoved   JobState = "moved"
	JobDropped JobState = "dropped"
	JobGiven   JobState = "given" // to a person, and nothing else yet
)

// A JobRecord is what is on record of a job of the rounds.
type JobRecord struct {
	Job      string // its id, as rounds.Job has it
	Planting string
	Task     rounds.Task
	State    JobState
	On       day.Day // done or dropped on, or moved to; zero where it is only given
	Person   string  // who does it, or did
}

// ReadJob reads what is on record of a job.
func ReadJob(f *Fields) JobRecord {
	var tasks []string
	for _, t := range rounds.Tasks() {
		tasks = append(tasks, string(t))
	}
	j := JobRecord{Job: f.ID("job"), Planting: f.Name("planting", "the planting"), Task: rounds.Task(f.Word("task", tasks...)),
		State: JobState(f.Word("state", string(JobDone), string(JobMoved), string(JobDropped), string(JobGiven))), On: f.OptDay("on"), Person: f.Text("person")}
	if j.On.IsZero() && j.State != JobGiven && f.Raw("on") == "" {
		f.Fault("on", "a date is missing: write it as 2026-07-11")
	}
	return j
}

// Record returns it as text.
func (j JobRecord) Record() Record {
	return Record{Jobs, [][]string{{j.Job, j.Planting, string(j.Task), string(j.State), j.On.String(), j.Person}}}
}

// A JobSet is what somebody says of a job, and the mark of the record that its page showed of it, empty where it showed none.
type JobSet struct {
	JobRecord
	Shown string
}

// JobChange is the change that writes down what became of a job.
func (b *Book) JobChange(set JobSet) (Change, error) {
	j := set.JobRecord
	c := Change{Add: []Record{j.Record()}}
	if old, there := b.Record(Jobs, j.Job); there {
		if old.Equal(j.Record()) {
			return Change{}, nil // pressed twice
		}
		if old.Mark() != set.Shown {
			maker, _ := b.AuthorOf(Jobs, j.Job)
			return Change{}, &Changed{Now: old, By: maker.By}
		}
		if j.State == JobGiven && old.Field("state") == string(JobMoved) { // it stays where it was moved to
			j.State = JobMoved
			j.On, _ = day.Parse(old.Field("on"))
		}
		c = Change{Correct: []Record{j.Record()}}
	}
	if p, ok := b.Planting(j.Planting); ok && j.State == JobDone {
		old := p
		if date := dateOf(j.Task, &p); date != nil {
			*date = j.On
		}
		if p != old {
			c.Correct = append(c.Correct, p.Record())
		}
		if e, ok := j.event(); ok {
			if _, there := b.Record(Events, e.ID); !there {
				c.Add = append(c.Add, e.Record())
			}
		}
	}
	return c, nil
}

// dateOf returns the planting's own date that a task being done sets, nil if there is none.
func dateOf(t rounds.Task, p *Planting) *day.Day {
	switch t {
	case rounds.Sow:
		return &p.StartedOn
	case rounds.PlantOut:
		return &p.PlantedOutOn
	case rounds.Pinch:
		return &p.PinchedOn
	case rounds.PullOut:
		return &p.EndedOn
	}
	return nil
}

// event returns what a job that was done leaves among the dates seen, if it does.
func (j JobRecord) event() (Event, bool) {
	words := map[rounds.Task]string{rounds.PlantOut: PlantedOut, rounds.Pinch: Pinched}[j.Task]
	return Event{ID: idOf(Jobs.Name, j.Job, j.On.String()), Planting: j.Planting, Event: words, On: j.On}, words != ""
}
