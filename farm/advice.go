package farm

// An Advice is an error that a person reads: one sentence that says what to do. Err is its cause, for the log.
type Advice struct {
	Words string
	Err   error
}

// Error returns the words.
func (a *Advice) Error() string { return a.Words }

// Unwrap returns the cause.
func (a *Advice) Unwrap() error { return a.Err }
