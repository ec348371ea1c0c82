package parts

import (
	"net/url"

	"dewcount/farm/book"
	"dewcount/say"
)

// A NotesView is what was written about something, the latest first, and where more is written.
type NotesView struct {
	Write string
	Notes []NoteView
}

// A NoteView is one note.
type NoteView struct{ When, Words, Who, Href string }

// NewNotes returns the notes about something, as book.Note has it.
func NewNotes(snap *say.Snapshot, about, subject string) NotesView {
	v := NotesView{Write: "/notes/write?" + url.Values{"about": {about}, "subject": {subject}}.Encode()}
	for _, n := range snap.Book.NotesOn(about, subject) {
		made, _ := snap.Book.AuthorOf(book.Notes, n.ID)
		v.Notes = append(v.Notes, NoteView{snap.FullDate(n.On), n.Words, made.By, "/notes/" + url.PathEscape(n.ID)})
	}
	return v
}
