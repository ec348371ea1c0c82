// Package book is the farm as recorded: its kinds of records in one table, each read from text, checked in the light of all others and written
// as text again, and its settings. It computes nothing about the future.
package book

import (
	"maps"
	"slices"
	"sync"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/croptable"
)

// A Book is everything that a farm has on record and that stands now, with the history of what stood before.
type Book struct {
	Settings    []Setting
	Weather     []WeatherDay
	Beds        []Bed
	Trays       []Tray
	OwnCrops    []croptable.Entry
	Varieties   []Variety
	Plantings   []Planting
	Events      []Event
	Counts      []Count
	Cuts        []Cut
	Scoutings   []Scouting
	Sprays      []Spray
	Jobs        []JobRecord
	Schools     []School
	Orders      []Order
	OrderLines  []OrderLine
	OrderDays   []OrderDay
	RecipeLines []RecipeLine
	ExtraPicks  []day.Day
	StorePlaces []StorePlace
	Readings    []Reading
	Bought      []Bought
	Moves       []Move
	Inquiries   []Inquiry
	Stock       []StockCount
	Notes       []Note
	Lessons     []Lesson
	Authors     []Author
	History     []Version

	crops map[string]*crop.Profile
}

// NewBook returns an empty book that knows the shipped crops and the farm's own, which replace those of the same id.
func NewBook(own []croptable.Entry) *Book {
	b := &Book{OwnCrops: own, crops: make(map[string]*crop.Profile)}
	maps.Copy(b.crops, shippedCrops())
	for i := range own {
		b.crops[own[i].ID] = own[i].Profile()
	}
	return b
}

// shippedCrops are the profiles that come with the program, by id.
var shippedCrops = sync.OnceValue(func() map[string]*crop.Profile {
	crops := make(map[string]*crop.Profile)
	entries := croptable.Shipped()
	for i := range entries {
		crops[entries[i].ID] = entries[i].Profile()
	}
	return crops
})

// WithCrops returns a book with the same records and further crops of the farm's own.
func (b *Book) WithCrops(more []croptable.Entry) *Book {
	own := slices.Clone(b.OwnCrops)
	for _, e := range more {
		if !slices.ContainsFunc(own, func(o croptable.Entry) bool { return o.ID == e.ID }) {
			own = append(own, e)
		}
	}
	c := *b
	c.OwnCrops, c.crops = own, NewBook(own).crops
	return &c
}

// Crop returns a crop's profile, nil if there is none of that id.
func (b *Book) Crop(id string) *crop.Profile { return b.crops[id] }

// Crops returns all profiles, by name.
func (b *Book) Crops() []*crop.Profile {
	var crops []*crop.Profile
	for _, p := range b.crops {
		crops = append(crops, p)
	}
	slices.SortFunc(crops, func(x, y *crop.Profile) int { return CompareFold(x.Name, y.Name) })
	return crops
}

// Variety returns a variety by its name.
func (b *Book) Variety(name string) (Variety, bool) {
	return Find(b.Varieties, func(v Variety) bool { return v.Name == name })
}

// Planting returns a planting by its id.
func (b *Book) Planting(id string) (Planting, bool) {
	return Find(b.Plantings, func(p Planting) bool { return p.ID == id })
}

// BedOf returns the bed of a planting, empty where it has none.
func (b *Book) BedOf(planting string) string {
	p, _ := b.Planting(planting)
	return p.Bed
}

// Bed returns a bed by its id.
func (b *Book) Bed(id string) (Bed, bool) {
	return Find(b.Beds, func(x Bed) bool { return x.ID == id })
}

// Tray returns a tray by its id.
func (b *Book) Tray(id string) (Tray, bool) {
	return Find(b.Trays, func(t Tray) bool { return t.ID == id })
}

// Order returns an order by its id.
func (b *Book) Order(id string) (Order, bool) {
	return Find(b.Orders, func(o Order) bool { return o.ID == id })
}

// Count returns a count by its id.
func (b *Book) Count(id string) (Count, bool) {
	return Find(b.Counts, func(c Count) bool { return c.ID == id })
}

// LastCount returns the last count of a planting, and whether there is one.
func (b *Book) LastCount(planting string) (last Count, ok bool) {
	for _, c := range b.Counts {
		if c.Planting == planting && (!ok || c.CountedAt.Instant(CountHour) >= last.CountedAt.Instant(CountHour)) {
			last, ok = c, true
		}
	}
	return last, ok
}

// Cut returns a cut by its id.
func (b *Book) Cut(id string) (Cut, bool) {
	return Find(b.Cuts, func(c Cut) bool { return c.ID == id })
}

func Find[T any](all []T, is func(T) bool) (T, bool) {
	if i := slices.IndexFunc(all, is); i >= 0 {
		return all[i], true
	}
	var none T
	return none, false
}

// ProfileOf returns the crop of a planting, nil where its variety is not on record.
func (b *Book) ProfileOf(p Planting) *crop.Profile {
	v, ok := b.Variety(p.Variety)
	if !ok {
		return nil
	}
	return b.CropOf(v)
}

// CropOf returns the crop of a variety as it is on this farm: with the days that its packet says, and with flower food where that is the farm's school; nil where
// the crop is not known.
func (b *Book) CropOf(v Variety) *crop.Profile {
	p := b.Crop(v.Crop)
	if p == nil {
		return nil
	}
	if v.Days != nil {
		p = p.OfDays(*v.Days)
	}
	if b.SchoolOf(p.ID, "additive") == "food" {
		p = p.Fed()
	}
	return p
}

// StemsAnHour returns how many stems of a crop one person cuts in an hour and brings into water: as the farm has it of all, and more or fewer by the crop's
// schools.
func (b *Book) StemsAnHour(place Place, p *crop.Profile) float64 {
	more := crop.HandSeconds(func(question string) string { return b.SchoolOf(p.ID, question) })
	return 3600 / (3600/place.StemsAnHour + more)
}

// SchoolOf returns the school that the farm has chosen for a question of a crop, empty if none.
func (b *Book) SchoolOf(cropID, question string) string {
	s, _ := Find(b.Schools, func(s School) bool { return s.Crop == cropID && s.Question == question })
	return s.School
}

// Place returns the farm's settings; a fault names the setting.
func (b *Book) Place() (Place, error) {
	return ReadPlace(func(key string) string {
		s, _ := Find(b.Settings, func(s Setting) bool { return s.Key == key })
		return s.Value
	})
}

// PickDays returns the days on which the farm cuts.
func (b *Book) PickDays(p Place) day.PickDays {
	return day.PickDays{Weekly: p.PickDays, Extra: b.ExtraPicks}
}

// Read reads a record of a kind from lines of text in the order of its columns, adds it to the book and returns it as it is
// written. Faults name the field and the line; the book is then as it was.
func (b *Book) Read(k *Kind, lines [][]string) (Record, error) {
	return b.read(k, lines, fieldsOf(k, lines[0]))
}

// Restore is Read for what is on record already: what yesterday's rules let in is not lost by those of today.
func (b *Book) Restore(k *Kind, lines [][]string) error {
	f := fieldsOf(k, lines[0])
	f.kept = true
	_, err := b.read(k, lines, f)
	return err
}

func (b *Book) read(k *Kind, lines [][]string, f *Fields) (Record, error) {
	record, keep := k.in.read(f, lines)
	if err := f.Faults(); err != nil {
		return Record{}, err
	}
	keep(b)
	return record, nil
}

func fieldsOf(k *Kind, line []string) *Fields {
	return NewFields(func(name string) string {
		if i := slices.Index(k.Columns, name); i >= 0 {
			return line[i]
		}
		return ""
	})
}

// readCount reads the lines of a count, of which f is the first line; faults of the others are noted in f with their place.
func readCount(f *Fields, lines [][]string) Count {
	c := ReadCountHead(f)
	seen := make(map[crop.Rung]bool)
	for i, line := range lines {
		g := fieldsOf(Counts, line)
		g.kept = f.kept
		rung := ReadCountLine(g, &c)
		if seen[rung] && len(g.faults) == 0 {
			g.Fault("rung", "%s stands twice in this count: add the stems up in one line", rung)
		}
		seen[rung] = true
		for _, fault := range g.faults {
			fault.Part = i
			f.faults = append(f.faults, fault)
		}
	}
	return c.WithID()
}

// Records returns the book's records of a kind, in field order where they have a time, otherwise by key.
func (b *Book) Records(k *Kind) []Record { return k.in.records(b) }

// Own returns a book whose lists can be added to without changing b's.
func (b *Book) Own() *Book {
	c := *b
	for _, k := range kinds {
		k.in.own(&c)
	}
	c.OwnCrops, c.History = slices.Clip(b.OwnCrops), slices.Clip(b.History)
	return &c
}
