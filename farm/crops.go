package farm

import (
	"context"
	"slices"

	"dewcount/croptable"
	"dewcount/farm/book"
	"dewcount/fault"
)

// AddCrop keeps the profile of a new crop of the farm's own.
func (f *Farm) AddCrop(ctx context.Context, who string, e croptable.Entry) error {
	return f.change(ctx, who, func(b *book.Book) (book.Change, error) {
		if _, _, there := b.Entry(e.ID); there {
			return book.Change{}, fault.List{{Field: "id", Advice: "a crop of this id is there already: give the new one its own"}}
		}
		return book.Change{SetCrops: []croptable.Entry{e}}, nil
	})
}

// SetCrop keeps other values of a crop, which are the farm's own from then on. Where the form showed other values than hold now, as CropMark
// has them, a *Changed is returned; shown is empty where that does not matter.
func (f *Farm) SetCrop(ctx context.Context, who, shown string, e croptable.Entry) error {
	return f.change(ctx, who, func(b *book.Book) (book.Change, error) {
		if now, _, _ := b.Entry(e.ID); shown != "" && shown != book.CropMark(now) {
			return book.Change{}, &book.Changed{}
		}
		return book.Change{SetCrops: []croptable.Entry{e}}, nil
	})
}

// DropCrop takes a profile of the farm's own away: a shipped one of its id holds again. A crop that varieties are of stays.
func (f *Farm) DropCrop(ctx context.Context, who, id string) error {
	return f.change(ctx, who, func(b *book.Book) (book.Change, error) {
		shipped := slices.ContainsFunc(croptable.Shipped(), func(e croptable.Entry) bool { return e.ID == id })
		if !shipped && slices.ContainsFunc(b.Varieties, func(v book.Variety) bool { return v.Crop == id }) {
			return book.Change{}, fault.List{{Field: "crop", Advice: "varieties on record are of this crop: withdraw them first"}}
		}
		return book.Change{DropCrop: id}, nil
	})
}

// ChooseSchool writes down which school the farm follows in a question of a crop; an empty one goes back to the default. Where another was
// chosen than the form showed, a *Changed is returned.
func (f *Farm) ChooseSchool(ctx context.Context, who, cropID, question, shown, school string) error {
	record := book.School{Crop: cropID, Question: question, School: school}.Record()
	return f.change(ctx, who, func(b *book.Book) (book.Change, error) {
		now, there := b.Record(book.Schools, record.ID())
		switch {
		case there && shown != now.Field("school") || !there && shown != "":
			maker, _ := b.AuthorOf(book.Schools, record.ID())
			return book.Change{}, &book.Changed{Now: now, By: maker.By}
		case school == "" && there:
			return book.Change{Withdraw: []book.Record{record}}, nil
		case school == "":
			return book.Change{}, nil
		case there:
			return book.Change{Correct: []book.Record{record}}, nil
		}
		return book.Change{Add: []book.Record{record}}, nil
	})
}
