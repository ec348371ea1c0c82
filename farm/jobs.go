package farm

import (
	"context"
	"fmt"
)

// SetJobs writes down what became of some jobs, all of it or nothing. What is done is written down with the planting too, where growth goes by
// it: its sowing, that it was planted out, pinched or pulled out.
func (f *Farm) SetJobs(ctx context.Context, who string, jobs ...JobSet) error {
	if len(jobs) > MostUndone {
		return Faults{{Field: "job", Advice: fmt.Sprintf("no more than %d jobs can be written down at once: tick off one day after the other", MostUndone)}}
	}
	byID := make(map[string]JobSet)
	var ids []string
	for _, j := range jobs {
		byID[j.Job] = j
		ids = append(ids, j.Job)
	}
	return f.change(ctx, who, func(b *Book) (Change, error) {
		return b.each(ids, func(b *Book, id string) (Change, error) { return b.setting(byID[id]) })
	})
}
