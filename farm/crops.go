package farm

import (
	"context"
	"slices"

	"dewcount/core/crop"
	"dewcount/croptable"
)

// Entry returns a crop's profile as the table writes it, and whether it is the farm's own.
func (b *Book) Entry(id string) (e croptable.Entry, own, ok bool) {
	if e, ok := find(b.OwnCrops, func(e croptable.Entry) bool { return e.ID == id }); ok {
		return e, true, true
	}
	e, ok = find(croptable.Shipped(), func(e croptable.Entry) bool { return e.ID == id })
	return e, false, ok
}

// SetCrop keeps a profile of the farm's own: a new crop, or in the place of the shipped one of its id.
func (f *Farm) SetCrop(ctx context.Context, who string, e croptable.Entry) error {
	return f.keep(ctx, who, Change{SetCrops: []croptable.Entry{e}})
}

// DropCrop takes a profile of the farm's own away: a shipped one of its id holds again. A crop that varieties are of stays.
func (f *Farm) DropCrop(ctx context.Context, who, id string) error {
	book, _, err := f.load(ctx)
	if err != nil {
		return err
	}
	shipped := slices.ContainsFunc(croptable.Shipped(), func(e croptable.Entry) bool { return e.ID == id })
	if !shipped && slices.ContainsFunc(book.Varieties, func(v Variety) bool { return v.Crop == id }) {
		return Faults{{Field: "crop", Advice: "varieties on record are of this crop: withdraw them first"}}
	}
	return f.keep(ctx, who, Change{DropCrop: id})
}

// ChooseSchool writes down which school the farm follows in a question of a crop; an empty one goes back to the default.
func (f *Farm) ChooseSchool(ctx context.Context, who, cropID, question, school string) error {
	book, _, err := f.load(ctx)
	if err != nil {
		return err
	}
	record := School{Crop: cropID, Question: question, School: school}.Record()
	_, there := book.Record(&Schools, record.ID())
	switch {
	case school == "" && there:
		return f.keep(ctx, who, Change{Withdraw: []Record{record}})
	case school == "":
		return nil
	case there:
		return f.keep(ctx, who, Change{Correct: []Record{record}})
	default:
		return f.keep(ctx, who, Change{Add: []Record{record}})
	}
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
