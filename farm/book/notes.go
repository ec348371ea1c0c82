package book

import (
	"slices"

	"dewcount/core/day"
)

// What a note can be about; empty for nothing but its day.
const (
	AboutPlanting = "planting"
	AboutBed      = "bed"
	AboutOrder    = "order"
	AboutCrop     = "crop"
)

// A Note is something worth keeping that is no number: about a row, a bed, an order, a crop, or the day alone.
type Note struct {
	ID      string
	On      day.Day
	About   string // one of those above
	Subject string // its name or id
	Words   string
}

// ReadNote reads a note.
func ReadNote(f *Fields) Note {
	r := Note{ID: f.ID("id"), On: f.Day("on"), About: f.Word("about", "", AboutPlanting, AboutBed, AboutOrder, AboutCrop), Subject: f.Text("subject"), Words: f.Note("words")}
	if r.Words == "" {
		f.Fault("words", "write what is worth keeping")
	}
	if (r.About == "") != (r.Subject == "") {
		f.Fault("subject", "say what the note is about, by its kind and its name, or leave both out")
	}
	if r.ID == "" {
		r.ID = idOf(append([]string{Notes.Name}, r.Record().Lines[0]...)...)
	}
	return r
}

// Record returns the note as text.
func (r Note) Record() Record {
	return Record{Notes, [][]string{{r.On.String(), r.About, r.Subject, r.Words, r.ID}}}
}

func (b *Book) checkNote(f *Fields, r Note, how Strictness) {
	if how != OfForm {
		return // what a note was about may have been withdrawn since
	}
	there := true
	switch r.About {
	case AboutPlanting:
		_, there = b.Planting(r.Subject)
	case AboutBed:
		_, there = b.Bed(r.Subject)
	case AboutOrder:
		_, there = b.Order(r.Subject)
	case AboutCrop:
		there = b.Crop(r.Subject) != nil
	}
	if !there {
		f.Fault("subject", "%q is no %s on record: it may have been withdrawn", r.Subject, r.About)
	}
}

// NotesOn returns the notes about something, the latest first.
func (b *Book) NotesOn(about, subject string) []Note {
	var all []Note
	for i := len(b.Notes) - 1; i >= 0; i-- { // as they were written down, the last first
		if r := b.Notes[i]; r.About == about && r.Subject == subject {
			all = append(all, r)
		}
	}
	slices.SortStableFunc(all, func(x, y Note) int { return y.On.Compare(x.On) })
	return all
}
