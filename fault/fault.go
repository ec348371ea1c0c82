// Package fault is what goes wrong because of what somebody wrote, as one sentence that says what is wrong and what to do: of a field, of a
// place in a file, or of what was asked for as a whole.
package fault

import "fmt"

// An Advice is an error that a person reads. Err is its cause, for the log; it may be nil.
type Advice struct {
	Words string
	Err   error
}

// Error returns the words.
func (a *Advice) Error() string { return a.Words }

// Unwrap returns the cause.
func (a *Advice) Unwrap() error { return a.Err }

// An InField is one thing wrong in what a person wrote: the field, by its name in the notebook and on the form, what to do, and
// for a record of several lines which of them, from 0.
type InField struct {
	Field, Advice string
	Part          int
}

// Error returns the advice.
func (f InField) Error() string { return f.Advice }

// A List is all that is wrong in one record, at least one thing.
type List []InField

// Error returns the first advice.
func (l List) Error() string { return l[0].Advice }

// OrNil returns the faults as an error, nil if there are none.
func (l List) OrNil() error {
	if len(l) == 0 {
		return nil
	}
	return l
}

// An InFile is one thing wrong in a file. Its Error reads "counts.csv:14:9: " and the advice.
type InFile struct {
	File         string
	Line, Column int // from 1
	Advice       string
	Err          error // what caused it, for Unwrap; may be nil
}

// Error names the place and says what to do.
func (f *InFile) Error() string {
	return fmt.Sprintf("%s:%d:%d: %s", f.File, f.Line, f.Column, f.Advice)
}

// Unwrap returns the cause.
func (f *InFile) Unwrap() error { return f.Err }
