package book

import (
	"strconv"
	"strings"

	"dewcount/core/day"
)

// A Scouting is what pests or damage have done to a row: of so many stems looked at, how many are spoiled, and what was done.
type Scouting struct {
	ID, Planting string
	On           day.Day
	Cause        string
	Stems        int  // looked at
	Spoiled      *int // of them; nil where only the pest was seen
	Done, Note   string
}

// ReadScouting reads a scouting.
func ReadScouting(f *Fields) Scouting {
	s := Scouting{ID: f.ID("id"), Planting: f.Name("planting", "the planting"), On: f.Day("on"), Cause: f.Name("cause", "the pest or the damage"),
		Stems: f.Whole("stems", 1, mostStems), Spoiled: f.OptWhole("spoiled", 0, mostStems), Done: f.Text("done"), Note: f.Note("note")}
	if s.Spoiled != nil && *s.Spoiled > s.Stems && s.Stems > 0 {
		f.Fault("spoiled", "%d spoiled of %d stems looked at cannot be: count the spoiled ones among them", *s.Spoiled, s.Stems)
	}
	if s.ID == "" {
		s.ID = idOf(append([]string{Scoutings.Name}, s.Record().Lines[0]...)...)
	}
	return s
}

// Record returns the scouting as text.
func (s Scouting) Record() Record {
	return Record{Scoutings, [][]string{{s.Planting, s.On.String(), s.Cause, strconv.Itoa(s.Stems), optWhole(s.Spoiled), s.Done, s.Note, s.ID}}}
}

// OfBeetles tells whether it was beetles that somebody saw.
func (s Scouting) OfBeetles() bool { return strings.Contains(strings.ToLower(s.Cause), "beetle") }

// A Spray is a treatment of a row with the waiting times of the product's label, which whoever sprayed has read there.
type Spray struct {
	ID, Planting string
	SprayedAt    day.Moment
	Product      string
	WaitDays     int // from then on no stem is cut
	EntryH       int // from then on nobody goes in, in hours
	Note         string
}

// mostWaitDays is the longest waiting time that a label can have here.
const mostWaitDays = 365

// ReadSpray reads a spray.
func ReadSpray(f *Fields) Spray {
	s := Spray{ID: f.ID("id"), Planting: f.Name("planting", "the planting"), SprayedAt: f.Moment("sprayed_at"), Product: f.Name("product", "the product"),
		WaitDays: f.Whole("wait_days", 0, mostWaitDays), EntryH: f.Whole("entry_h", 0, 24*mostWaitDays), Note: f.Note("note")}
	if s.ID == "" {
		s.ID = idOf(append([]string{Sprays.Name}, s.Record().Lines[0]...)...)
	}
	return s
}

// Record returns the spray as text.
func (s Spray) Record() Record {
	return Record{Sprays, [][]string{{s.Planting, s.SprayedAt.String(), s.Product, strconv.Itoa(s.WaitDays), strconv.Itoa(s.EntryH), s.Note, s.ID}}}
}

// Waiting returns the spray for which a planting must not be cut on a day, and the first day on which it may be; false where it may.
func (b *Book) Waiting(planting string, on day.Day) (Spray, day.Day, bool) {
	var of Spray
	var until day.Day
	for _, s := range b.Sprays {
		sprayed := s.SprayedAt.Day()
		if free := sprayed.Add(s.WaitDays); s.Planting == planting && !sprayed.After(on) && free.After(on) && free.After(until) {
			of, until = s, free
		}
	}
	return of, until, !until.IsZero()
}

// scoutingDays is for how long what was seen spoiled tells about the stems to come.
const scoutingDays = 10

// SoundOf returns the share of a planting's stems that will be sound: the crop's, as far as the last scoutings say nothing else.
func (b *Book) SoundOf(planting string, cropShare float64, upto day.Day) float64 {
	const weight = 20 // stems' worth that the crop's share has
	looked, spoiled := 0.0, 0.0
	for _, s := range b.Scoutings {
		if s.Planting == planting && s.Spoiled != nil && !s.On.After(upto) && upto.Sub(s.On) <= scoutingDays {
			looked += float64(s.Stems)
			spoiled += float64(*s.Spoiled)
		}
	}
	return 1 - (weight*(1-cropShare)+spoiled)/(weight+looked)
}
