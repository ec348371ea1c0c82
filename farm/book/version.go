package book

import (
	"encoding/json"
	"fmt"
	"slices"
)

// A Version is a record as it was before it was corrected or withdrawn.
type Version struct {
	Kind, ID, Content string // content: the record's lines as JSON
	Ended             string // superseded or withdrawn
	EndedAt           string // stamp, UTC
	EndedBy           string
}

// ReadVersion reads a line of the history.
func ReadVersion(f *Fields) Version {
	p := Version{Kind: f.Raw("kind"), ID: f.Raw("id"), Content: f.get("content"), Ended: f.Word("ended", "superseded", "withdrawn"),
		EndedAt: f.Raw("ended_at"), EndedBy: f.Text("ended_by")}
	if KindNamed(p.Kind) == nil {
		f.Fault("kind", "%q is no kind of record: write the name of a notebook file, such as counts", p.Kind)
	} else if _, err := p.Record(); err != nil {
		f.Fault("content", "%v", err)
	}
	return p
}

// Line returns the version as text, in the order of the columns of History.
func (p Version) Line() []string {
	return []string{p.Kind, p.ID, p.Content, p.Ended, p.EndedAt, p.EndedBy}
}

// Record returns the record as it was. Of an older program it has its values in the places of the columns that there were, which newer ones
// only follow.
func (p Version) Record() (Record, error) {
	r := Record{Kind: KindNamed(p.Kind)}
	wrong := fmt.Errorf("this is no record of %s: copy it from an export", p.Kind)
	if r.Kind == nil {
		return Record{}, wrong
	}
	var named []map[string]string
	if err := json.Unmarshal([]byte(p.Content), &named); err != nil {
		var places [][]string
		if err := json.Unmarshal([]byte(p.Content), &places); err != nil {
			return Record{}, wrong
		}
		for _, line := range places {
			if len(line) > len(r.Kind.Columns) {
				return Record{}, fmt.Errorf("this record of %s has %d fields, not %d: copy it from an export", p.Kind, len(line), len(r.Kind.Columns))
			}
			r.Lines = append(r.Lines, append(line, make([]string, len(r.Kind.Columns)-len(line))...))
		}
	}
	for _, values := range named {
		line := make([]string, len(r.Kind.Columns))
		for column, value := range values {
			at := slices.Index(r.Kind.Columns, column)
			if at < 0 {
				return Record{}, fmt.Errorf("this record of %s has a column %s that is not known here: copy it from an export", p.Kind, column)
			}
			line[at] = value
		}
		r.Lines = append(r.Lines, line)
	}
	if len(r.Lines) == 0 {
		return Record{}, wrong
	}
	return r, nil
}

// Content returns a record's lines as JSON, as the history keeps them: what is written down by the names of its columns.
func (r Record) Content() string {
	named := make([]map[string]string, len(r.Lines))
	for i, line := range r.Lines {
		named[i] = make(map[string]string)
		for j, value := range line {
			if value != "" {
				named[i][r.Kind.Columns[j]] = value
			}
		}
	}
	text, err := json.Marshal(named)
	if err != nil {
		panic("farm: text that is no JSON: " + err.Error()) // strings always are
	}
	return string(text)
}
