package book

import (
	"dewcount/core/crop"
	"dewcount/croptable"
)

// Entry returns a crop's profile as the table writes it, and whether it is the farm's own.
func (b *Book) Entry(id string) (e croptable.Entry, own, ok bool) {
	if e, ok := Find(b.OwnCrops, func(e croptable.Entry) bool { return e.ID == id }); ok {
		return e, true, true
	}
	e, ok = Find(croptable.Shipped(), func(e croptable.Entry) bool { return e.ID == id })
	return e, false, ok
}

// CropMark names what a profile says, as Mark does for a record.
func CropMark(e croptable.Entry) string {
	var parts []string
	for _, l := range e.Leaves() {
		parts = append(parts, l.Path, l.Text)
	}
	return idOf(parts...)
}

// Chosen returns the school that the farm follows in a question of a crop: its own choice, or the default.
func (b *Book) Chosen(p *crop.Profile, question string) string {
	if school := b.SchoolOf(p.ID, question); school != "" {
		return school
	}
	for _, q := range p.Questions() {
		if q.ID == question {
			return q.Choices[0].ID
		}
	}
	return ""
}

// Windows returns the rungs on which stems of a crop are cut for each use on this farm.
func (b *Book) Windows(p *crop.Profile) (windows [crop.Uses]crop.Window, has [crop.Uses]bool) {
	school := b.SchoolOf(p.ID, "cut")
	for u := range crop.Use(crop.Uses) {
		windows[u], has[u] = p.Window(u, school)
	}
	return windows, has
}
