package review

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/croptable"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// A Value is what a crop's profile says that a farm's records can say otherwise.
type Value string

// The values that records tell of. What they say is a factor of what the profile has, but for the length, which is in cm.
const (
	Warmth Value = "warmth" // every thermal time, from the start to the last rung
	Stems  Value = "stems"  // of the first flush, and so of the season
	Shoots Value = "shoots" // that follow a cut
	Length Value = "length" // of stems as they are cut
)

// A Proposal is another value for a crop, out of a farm's own records, with what it rests on: a grower takes it or leaves it.
type Proposal struct {
	Crop      string
	Value     Value
	Factor    float64    // of what the profile has
	Bounds    [2]float64 // nine times in ten more than the first, one time in ten more than the last; of a length none
	Plantings int        // that tell of it
	Stems     int        // of a length: that were measured
	Years     int
}

// A value is proposed from so many plantings on, where it is as far off as this, and where its bounds leave out what the profile has.
const (
	enoughPlantings = 2
	enoughMeasured  = 40 // stems
)

var leastOff = map[Value]float64{Warmth: 0.03, Stems: 0.10, Shoots: 0.10, Length: 0.08}

// Proposals returns what the records on which a morning rests say of a crop's values otherwise than its profile does.
func Proposals(s *look.Snapshot, cropID string) []Proposal {
	logs := make(map[Value][]float64)
	wide := make(map[Value][]float64)
	years := make(map[int]bool)
	place, err := s.Book.Place()
	if err != nil {
		return nil // a snapshot was made of it, so it is sound
	}
	plantings := 0
	for i := range s.Model.Plantings {
		m := &s.Model.Plantings[i]
		if m.Growth.Profile.ID != cropID || len(m.Counts)+len(m.Cuts) == 0 {
			continue
		}
		record, _ := s.Book.Planting(m.ID)
		if v, ok := s.Book.Variety(record.Variety); !ok || v.Days != nil {
			continue // it was read by its packet's days, not by the card
		}
		l, ok := s.Stand.Learned(i)
		if !ok || l.Strained {
			continue
		}
		plantings++
		years[look.SeasonYear(record.StartedOn, place.Latitude)] = true
		for v, b := range map[Value][3]float64{Warmth: l.Pace, Stems: l.Stems, Shoots: l.Regrow} {
			logs[v] = append(logs[v], math.Log(b[1]))
			wide[v] = append(wide[v], (math.Log(b[2])-math.Log(b[0]))/2)
		}
	}
	var all []Proposal
	if plantings >= enoughPlantings {
		for _, v := range []Value{Warmth, Stems, Shoots} {
			// Rows of a crop share most of what they taught, so that their mean is hardly surer than one of them.
			mid, half := mean(logs[v]), mean(wide[v])
			p := Proposal{Crop: cropID, Value: v, Factor: math.Exp(mid), Bounds: [2]float64{math.Exp(mid - half), math.Exp(mid + half)}, Plantings: plantings, Years: len(years)}
			if math.Abs(p.Factor-1) >= leastOff[v] && (p.Bounds[0] > 1 || p.Bounds[1] < 1) && tells(s.Book.Crop(cropID), v) {
				all = append(all, p)
			}
		}
	}
	if p, ok := lengthOf(s.Book, cropID); ok {
		all = append(all, p)
	}
	return slices.DeleteFunc(all, func(p Proposal) bool { return answered(s.Book, p) })
}

// tells tells whether a crop has a value at all: one of a single stem has no other number, and only what comes again has shoots after a cut.
func tells(p *crop.Profile, v Value) bool {
	return v == Warmth || v == Stems && !p.OneStem() || v == Shoots && p.Yield.Habit == crop.Again
}

func mean(values []float64) float64 {
	sum := 0.0
	for _, v := range values {
		sum += v
	}
	return sum / float64(len(values))
}

// lengthOf returns what stems that were measured say of a crop's length.
func lengthOf(b *book.Book, cropID string) (Proposal, bool) {
	p := Proposal{Crop: cropID, Value: Length}
	sum, years := 0.0, make(map[int]bool)
	rows := make(map[string]bool)
	for _, c := range b.Cuts {
		record, _ := b.Planting(c.Planting)
		v, _ := b.Variety(record.Variety)
		if v.Crop != cropID || v.StemCM != nil || c.LengthCM == nil || c.Stems == 0 {
			continue
		}
		sum += *c.LengthCM * float64(c.Stems)
		p.Stems += c.Stems
		rows[c.Planting] = true
		year, _, _ := c.CutAt.Day().Date()
		years[year] = true
	}
	profile := b.Crop(cropID)
	if profile == nil || p.Stems < enoughMeasured {
		return p, false
	}
	p.Plantings, p.Years = len(rows), len(years)
	p.Factor = sum / float64(p.Stems) / ((profile.Stem.FirstCM + profile.Stem.LaterCM) / 2)
	return p, math.Abs(p.Factor-1) >= leastOff[Length]
}

// Take returns a crop's profile with a value as it was proposed.
func Take(e croptable.Entry, p Proposal) croptable.Entry {
	f := p.Factor
	round := func(v, steps float64) float64 { return math.Round(v*f*steps) / steps } // to so many steps a unit
	switch p.Value {
	case Warmth:
		t := &e.Thermal
		t.EmergeCd, t.BudCd = round(t.EmergeCd, 1), round(t.BudCd, 1)
		for k := range t.RungsCd {
			t.RungsCd[k] = math.Max(1, round(t.RungsCd[k], 1))
		}
		e.TypicalDays = [2]int{int(math.Round(float64(e.TypicalDays[0]) * f)), int(math.Round(float64(e.TypicalDays[1]) * f))}
		if cd := e.Yield.RegrowCd; cd != nil {
			now := round(*cd, 1)
			e.Yield.RegrowCd = &now
		}
	case Stems:
		e.Yield.FirstStems, e.Yield.SeasonStems = math.Max(1, round(e.Yield.FirstStems, 10)), math.Max(1, round(e.Yield.SeasonStems, 10))
	case Shoots:
		if n := e.Yield.ShootsPerCut; n != nil {
			now := round(*n, 100)
			e.Yield.ShootsPerCut = &now
		}
	case Length:
		e.StemCM.First, e.StemCM.Later = round(e.StemCM.First, 1), round(e.StemCM.Later, 1)
	}
	return e
}

// Answer returns the note by which a proposal is remembered as taken or left, in words that stand behind it; while it stands the value is not proposed again in the year.
func Answer(p Proposal, year int, took bool, words string) string {
	did := "left as it is"
	if took {
		did = "taken"
	}
	return fmt.Sprintf("%s, %s in %d: %s", answerKey(p), did, year, words)
}

// answerKey begins the note of an answer.
func answerKey(p Proposal) string { return "Own records on " + string(p.Value) }

// answered tells whether a proposal was left in the year of the latest records: those of another year may say something else.
func answered(b *book.Book, p Proposal) bool {
	latest := 0
	for _, c := range b.Cuts {
		year, _, _ := c.CutAt.Day().Date()
		latest = max(latest, year)
	}
	return slices.ContainsFunc(b.NotesOn(book.AboutCrop, p.Crop), func(n book.Note) bool {
		return strings.HasPrefix(n.Words, fmt.Sprintf("%s, left as it is in %d:", answerKey(p), latest))
	})
}
