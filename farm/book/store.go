package book

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/promise"
)

// A StorePlace is where cut stems stand: a fridge, a cool room, open shade, a drying loft, a table.
type StorePlace struct {
	ID      string
	Kind    string  // one of PlaceKinds
	Celsius float64 // that it has, or is set to; what is measured goes before it
	Buckets *int    // that it holds
	Since   day.Day // from which on cut stems are accounted for
}

// Loft is the kind of place in which stems are hung to dry.
const Loft = "loft"

// PlaceKinds are what a place can be.
var PlaceKinds = []string{"fridge", "room", "shade", Loft, "table"}

// ReadStorePlace reads a place.
func ReadStorePlace(f *Fields) StorePlace {
	return StorePlace{ID: f.Key("place", "the place's name"), Kind: f.Word("kind", PlaceKinds...), Celsius: f.Number("celsius", -5, 45), Buckets: f.OptWhole("buckets", 1, 10_000),
		Since: f.Day("since")}
}

// Record returns the place as text.
func (p StorePlace) Record() Record {
	return Record{Places, [][]string{{p.ID, p.Kind, Decimal(p.Celsius), optWhole(p.Buckets), p.Since.String()}}}
}

// A Reading is what a thermometer showed in a place.
type Reading struct {
	ID, Place string
	At        day.Moment
	Celsius   float64
}

// ReadReading reads a reading.
func ReadReading(f *Fields) Reading {
	r := Reading{ID: f.ID("id"), Place: f.Name("place", "the place"), At: f.Moment("at"), Celsius: f.Number("celsius", -30, 60)}
	if r.ID == "" {
		r.ID = idOf(append([]string{Temperatures.Name}, r.Record().Lines[0]...)...)
	}
	return r
}

// Record returns the reading as text.
func (r Reading) Record() Record {
	return Record{Temperatures, [][]string{{r.Place, r.At.String(), Decimal(r.Celsius), r.ID}}}
}

// A Bought is a lot of stems that did not grow here.
type Bought struct {
	ID, Variety string
	Stems       int
	At          day.Moment
	Rung        crop.Rung
	Note        string
}

// ReadBought reads a lot that was bought.
func ReadBought(f *Fields) Bought {
	l := Bought{ID: f.ID("lot"), Variety: f.Name("variety", "the variety"), Stems: f.Whole("stems", 1, mostStems), At: f.Moment("bought_at"), Note: f.Note("note")}
	rung, err := crop.ParseRung(f.Raw("rung"))
	if err != nil {
		f.Fault("rung", "%v", err)
	}
	l.Rung = rung
	if l.ID == "" {
		l.ID = idOf(append([]string{Lots.Name}, l.Record().Lines[0]...)...)
	}
	return l
}

// Record returns the lot as text.
func (l Bought) Record() Record {
	return Record{Lots, [][]string{{l.ID, l.Variety, strconv.Itoa(l.Stems), l.At.String(), l.Rung.String(), l.Note}}}
}

// What becomes of stems of a lot.
const (
	ToPlace   = "to"      // another place; in a loft they are hung to dry
	MadeUp    = "made up" // into bouquets or bunches
	Sold      = "sold"
	Returned  = "returned" // brought back unsold
	Given     = "given"    // away
	Composted = "composted"
	Tinted    = "tinted" // another colour from then on
	Kept      = "kept"   // for an order, whoever else would want them
	Unsold    = "unsold" // taken along and brought back on the day: they are there still
)

var fates = []string{ToPlace, MadeUp, Sold, Returned, Given, Composted, Tinted, Kept, Unsold}

// Why stems were not sold: the note of what is unsold.
const (
	TooMany    = "too many of them"
	FewCame    = "few customers"
	Dear       = "the price"
	OtherHue   = "the colour"
	TooOpen    = "too far open"
	TooTight   = "too tight"
	TooShort   = "too short"
	WereMarked = "marked or wilting"
)

// UnsoldReasons are why stems come back.
var UnsoldReasons = []string{TooMany, FewCame, Dear, OtherHue, TooOpen, TooTight, TooShort, WereMarked}

// A Move is what became of some stems of a lot: of a cut, whose id is the lot's, or of one that was bought.
type Move struct {
	ID, Lot string
	At      day.Moment
	What    string
	Stems   int
	From    string // the place in which they stood; empty where nobody said
	Place   string // to which they were brought
	Colour  string // that they were tinted
	Order   string // for which they are made up, sold or kept
	Note    string
}

// ReadMove reads a move.
func ReadMove(f *Fields) Move {
	m := Move{ID: f.ID("id"), Lot: f.Name("lot", "the lot"), At: f.Moment("at"), What: f.Word("what", fates...), Stems: f.Whole("stems", 1, mostStems), From: f.Text("from"),
		Place: f.Text("place"), Colour: f.Text("colour"), Order: f.Text("order"), Note: f.Note("note")}
	switch {
	case m.What == ToPlace && m.Place == "":
		f.Fault("place", "write the place to which the stems were brought")
	case m.What == Kept && m.Order == "":
		f.Fault("order", "say for which order the stems are kept")
	case m.What == Unsold && m.Order == "":
		f.Fault("order", "say to which market or order the stems were taken")
	case m.What == Tinted && m.Colour == "":
		f.Fault("colour", "write the colour that the stems have now")
	}
	if m.ID == "" {
		m.ID = idOf(append([]string{Moves.Name}, m.Record().Lines[0]...)...)
	}
	return m
}

// Record returns the move as text.
func (m Move) Record() Record {
	return Record{Moves, [][]string{{m.Lot, m.At.String(), m.What, strconv.Itoa(m.Stems), m.From, m.Place, m.Colour, m.Order, m.Note, m.ID}}}
}

// MadeUpNote is the note of a move whose stems went into so many bouquets of a recipe.
func MadeUpNote(bouquets int, recipe string) string { return fmt.Sprintf("%d × %s", bouquets, recipe) }

// IsBouquet tells whether a move's stems went into bouquets of a recipe.
func (b *Book) IsBouquet(m Move) bool {
	return slices.ContainsFunc(b.RecipeLines, func(r RecipeLine) bool { return strings.HasSuffix(m.Note, "× "+r.Recipe) })
}

// VarietyOf returns the variety of a lot, empty where there is no such lot.
func (b *Book) VarietyOf(lot string) string {
	if c, ok := b.Cut(lot); ok {
		p, _ := b.Planting(c.Planting)
		return p.Variety
	}
	l, _ := Find(b.Bought, func(l Bought) bool { return l.ID == lot })
	return l.Variety
}

// MadeAhead is for how many days ahead bouquets and bunches are made up for an order: what was made up before that went to the day before.
const MadeAhead = 3

// MadeUp returns how many bouquets of a recipe were made up for an order on a day on which it is due, as is known on a day.
func (b *Book) MadeUp(order, recipe string, due, known day.Day) int {
	each, stems := 0, 0
	for _, r := range b.RecipeLines {
		if r.Recipe == recipe {
			each += r.Stems
		}
	}
	for _, m := range b.Moves {
		if m.What == MadeUp && m.Order == order && !m.At.Day().After(known) && strings.HasSuffix(m.Note, "× "+recipe) && due.Sub(m.At.Day()) >= 0 && due.Sub(m.At.Day()) <= MadeAhead {
			stems += m.Stems
		}
	}
	if each == 0 {
		return 0
	}
	return stems / each
}

// Out tells whether the stems left the farm's store.
func (m Move) Out() bool {
	return !slices.Contains([]string{ToPlace, Tinted, Kept, Returned, Unsold}, m.What)
}

// StorePlace returns a place by its id.
func (b *Book) StorePlace(id string) (StorePlace, bool) {
	return Find(b.StorePlaces, func(p StorePlace) bool { return p.ID == id })
}

// KeptSince returns the day from which on cut stems are accounted for, and whether the farm has a store at all.
func (b *Book) KeptSince() (day.Day, bool) {
	var first day.Day
	for _, p := range b.StorePlaces {
		if first.IsZero() || p.Since.Before(first) {
			first = p.Since
		}
	}
	return first, !first.IsZero()
}

// Holding returns where the farm holds its stems.
func (b *Book) Holding() promise.Rule {
	var r promise.Rule
	for _, p := range b.StorePlaces {
		if p.Kind != Loft {
			r.Places = append(r.Places, p.Celsius)
		}
	}
	return r
}

// LotOf returns the stems with which a lot began and when that was, and whether there is such a lot.
func (b *Book) LotOf(id string) (stems int, at day.Moment, ok bool) {
	if c, ok := b.Cut(id); ok {
		return c.Stems, c.CutAt, true
	}
	if l, ok := Find(b.Bought, func(l Bought) bool { return l.ID == id }); ok {
		return l.Stems, l.At, true
	}
	return 0, day.Moment{}, false
}

// gone returns how many stems of a lot have left the store and did not come back, but for one move.
func (b *Book) gone(lot, but string) int {
	n := 0
	for _, m := range b.Moves {
		switch {
		case m.Lot != lot || m.ID == but:
		case m.Out():
			n += m.Stems
		case m.What == Returned:
			n -= m.Stems
		}
	}
	return n
}

func (b *Book) checkReading(f *Fields, r Reading, _ Strictness) {
	if _, ok := b.StorePlace(r.Place); !ok {
		f.Fault("place", "%q is no place on record: add it to the store first", r.Place)
	}
}

func (b *Book) checkBought(f *Fields, l Bought, _ Strictness) {
	if _, ok := b.Variety(l.Variety); !ok {
		f.Fault("variety", "%q is no variety on record: add it to the varieties first", l.Variety)
	}
	b.checkLot(f, "stems", l.ID, l.Stems)
}

// checkLot holds a lot that is corrected against what became of its stems.
func (b *Book) checkLot(f *Fields, field, lot string, stems int) {
	if gone := b.gone(lot, ""); gone > stems {
		f.Fault(field, "%d stems of it were sold, made up or given away already: write that many or more, or withdraw those first", gone)
	}
}

func (b *Book) checkMove(f *Fields, m Move, _ Strictness) {
	stems, at, ok := b.LotOf(m.Lot)
	if !ok {
		f.Fault("lot", "%q is no lot on record: it may have been withdrawn", m.Lot)
		return
	}
	if m.At.Day().Before(at.Day()) {
		f.Fault("at", "on %s these stems were not cut yet: check the date", m.At.Day())
	}
	for name, place := range map[string]string{"place": m.Place, "from": m.From} {
		if _, ok := b.StorePlace(place); place != "" && !ok {
			f.Fault(name, "%q is no place on record: add it to the store first", place)
		}
	}
	gone := b.gone(m.Lot, m.ID)
	switch left := stems - gone; {
	case (m.Out() || m.What == Kept || m.What == Unsold) && m.Stems > left:
		f.Fault("stems", "%d stems cannot have been %s: %d of the lot's %d are left", m.Stems, m.What, left, stems)
	case m.What == Returned && m.Stems > gone:
		f.Fault("stems", "%d stems cannot have come back: %d have left", m.Stems, gone)
	case m.Stems > stems: // what left since may still have been there
		f.Fault("stems", "%d stems cannot be there: the lot has %d", m.Stems, stems)
	}
}

func (b *Book) holdsStorePlace(id string) (n int, what, todo string) {
	n = number(b.Moves, func(m Move) bool { return m.Place == id || m.From == id }) + number(b.Readings, func(r Reading) bool { return r.Place == id })
	return n, "records", "it has to stay, or they would speak of nowhere"
}

func (b *Book) holdsLot(id string) (n int, what, todo string) {
	return number(b.Moves, func(m Move) bool { return m.Lot == id }), "moves of its stems", "withdraw those first"
}

// holdsMove keeps stems that came back as long as they were needed for what left again.
func (b *Book) holdsMove(id string) (n int, what, todo string) {
	m, _ := Find(b.Moves, func(m Move) bool { return m.ID == id })
	stems, _, _ := b.LotOf(m.Lot)
	if m.What != Returned || b.gone(m.Lot, id) <= stems {
		return 0, "", ""
	}
	return 1, "move of what came back", "withdraw what left afterwards first"
}
