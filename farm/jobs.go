package farm

import (
	"context"
	"fmt"

	"dewcount/farm/book"
	"dewcount/fault"
)

// SetJobs writes down what became of some jobs, all of it or nothing. What is done is written down with the planting too, where growth goes by
// it: its sowing, that it was planted out, pinched or pulled out.
func (f *Farm) SetJobs(ctx context.Context, who string, jobs ...book.JobSet) error {
	if len(jobs) > MostUndone {
		return fault.List{{Field: "job", Advice: fmt.Sprintf("no more than %d jobs can be written down at once: tick off one day after the other", MostUndone)}}
	}
	byID := make(map[string]book.JobSet)
	var ids []string
	for _, j := range jobs {
		byID[j.Job] = j
		ids = append(ids, j.Job)
	}
	return f.change(ctx, who, func(b *book.Book) (book.Change, error) {
		return b.Each(ids, func(b *book.Book, id string) (book.Change, error) { return b.JobChange(byID[id]) })
	})
}
