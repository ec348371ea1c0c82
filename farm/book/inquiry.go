package book

import (
	"strconv"

	"dewcount/core/day"
)

// An Inquiry is what somebody asked for and was not promised: for a day, or whenever there is some, on the waiting list.
type Inquiry struct {
	ID             string
	AskedOn        day.Day
	Customer, What string // what: in words, as it was asked for
	Stems          int
	DueOn          day.Day // zero for whenever there is some
	Note           string
	DoneOn         day.Day // on which they were rung up, or it was dropped; zero while it is open
}

// ReadInquiry reads an inquiry.
func ReadInquiry(f *Fields) Inquiry {
	q := Inquiry{ID: f.ID("id"), AskedOn: f.Day("asked_on"), Customer: f.Name("customer", "who asked"), What: f.Name("what", "what was asked for"), Stems: f.Whole("stems", 1, mostStems),
		DueOn: f.OptDay("due_on"), Note: f.Note("note"), DoneOn: f.OptDay("done_on")}
	if q.ID == "" {
		q.ID = idOf(append([]string{Inquiries.Name}, q.Record().Lines[0]...)...)
	}
	return q
}

// Record returns the inquiry as text.
func (q Inquiry) Record() Record {
	return Record{Inquiries, [][]string{{q.AskedOn.String(), q.Customer, q.What, strconv.Itoa(q.Stems), q.DueOn.String(), q.Note, q.DoneOn.String(), q.ID}}}
}
