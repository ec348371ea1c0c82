package farm

import (
	"context"

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
	j := JobRecord{Job: f.Name("job", "the job"), Planting: f.Name("planting", "the planting"), Task: rounds.Task(f.Word("task", tasks...)),
		State: JobState(f.Word("state", string(JobDone), string(JobMoved), string(JobDropped), string(JobGiven))), On: f.OptDay("on"), Person: f.Text("person")}
	if j.On.IsZero() && j.State != JobGiven && f.raw("on") == "" {
		f.Fault("on", "a date is missing: write it as 2026-07-11")
	}
	return j
}

// Record returns it as text.
func (j JobRecord) Record() Record {
	return Record{&Jobs, [][]string{{j.Job, j.Planting, string(j.Task), string(j.State), j.On.String(), j.Person}}}
}

// SetJob writes down what became of a job. What is done is written down with the planting too, where growth goes by it: its sowing, that it
// was planted out, pinched or pulled out.
func (f *Farm) SetJob(ctx context.Context, who string, j JobRecord) error {
	book, _, err := f.load(ctx)
	if err != nil {
		return err
	}
	c := Change{Add: []Record{j.Record()}}
	if old, there := book.Record(&Jobs, j.Job); there {
		if old.Equal(j.Record()) {
			return nil // pressed twice
		}
		c = Change{Correct: []Record{j.Record()}}
	}
	if p, ok := book.Planting(j.Planting); ok && j.State == JobDone {
		old := p
		event := ""
		switch j.Task {
		case rounds.Sow:
			p.StartedOn = j.On
		case rounds.PlantOut:
			p.PlantedOutOn, event = j.On, PlantedOut
		case rounds.Pinch:
			p.PinchedOn, event = j.On, Pinched
		case rounds.PullOut:
			p.EndedOn = j.On
		}
		if p != old {
			c.Correct = append(c.Correct, p.Record())
		}
		if event != "" {
			e := Event{ID: idOf(Jobs.Name, j.Job, j.On.String()), Planting: p.ID, Event: event, On: j.On}
			if _, there := book.Record(&Events, e.ID); !there {
				c.Add = append(c.Add, e.Record())
			}
		}
	}
	return f.keep(ctx, who, c)
}
