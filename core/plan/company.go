package plan

import (
	"dewcount/core/day"
)

// A Guest is a planting in a bed as far as it matters to its company.
type Guest struct {
	Stay
	Crop       string  // id
	HighCM     float64 // as it grows for cutting
	Netted     bool    // wants a net or stakes
	MoistUntil day.Day // a seed bed: moist every day from the stay's first day to before this one; zero for others
	DryUntil   day.Day // tubers: dry from the stay's first day to before this one; zero for others
}

// Leaves tubers need to have before they are watered come so many days after planting.
const tuberDryDays = 28

// DryUntil returns the day from which newly planted tubers may be watered: when two or three pairs of leaves show. A guess; the leaves
// decide.
func DryUntil(planted day.Day) day.Day { return planted.Add(tuberDryDays) }

// A Trouble is what does not go well together.
type Trouble int

const (
	Shading      Trouble = iota // A stands between the noon sun and B, which is lower
	TallAndShort                // A and B are of one crop, tall and short, and not told apart from afar
	WindAndHigh                 // A is high and nothing holds it, or must be held early, in wind
	WaterClash                  // A must be moist and B dry, on one line
)

// A Note is a trouble between two guests, or of one, and when.
type Note struct {
	Trouble
	A, B        Guest // B is the zero Guest where A stands alone
	From, Until day.Day
}

// common returns the days on which two stays are in their beds, and whether there are any; until is zero where it does not end.
func common(a, b Stay) (from, until day.Day, ok bool) {
	from = a.From
	if b.From.After(from) {
		from = b.From
	}
	until = a.Until
	if until.IsZero() || !b.Until.IsZero() && b.Until.Before(until) {
		until = b.Until
	}
	return from, until, until.IsZero() || from.Before(until)
}

// What counts as high in wind, and as tall beside short of one crop, in cm.
const (
	highInWindCM = 90
	unlikeCM     = 40
)

// NotesOn returns what does not go well among the guests of one bed, which runs in a compass direction at a latitude in degrees north;
// windy is whether it lies so.
func (g Grid) NotesOn(guests []Guest, bearingDeg, latitude float64, windy bool) []Note {
	var notes []Note
	for i, a := range guests {
		if windy && (a.Netted || a.HighCM >= highInWindCM) {
			notes = append(notes, Note{WindAndHigh, a, Guest{}, a.From, a.Until})
		}
		for j, b := range guests {
			from, until, ok := common(a.Stay, b.Stay)
			if i == j || !ok || a.Patch == (Patch{}) || b.Patch == (Patch{}) {
				continue
			}
			switch {
			case i < j && a.Crop == b.Crop && (a.HighCM-b.HighCM >= unlikeCM || b.HighCM-a.HighCM >= unlikeCM):
				notes = append(notes, Note{TallAndShort, a, b, from, until})
			case g.Shades(a.Patch, b.Patch, a.HighCM, b.HighCM, bearingDeg, latitude, from.Add(30).YearDay()):
				notes = append(notes, Note{Shading, a, b, from, until})
			}
		}
	}
	return notes
}

// WaterClashes returns where guests on one watering line want it moist and dry on the same days.
func WaterClashes(guests []Guest) []Note {
	var notes []Note
	for _, a := range guests {
		for _, b := range guests {
			if a.MoistUntil.IsZero() || b.DryUntil.IsZero() {
				continue
			}
			moist, dry := Stay{From: a.From, Until: a.MoistUntil}, Stay{From: b.From, Until: b.DryUntil}
			if from, until, ok := common(moist, dry); ok {
				notes = append(notes, Note{WaterClash, a, b, from, until})
			}
		}
	}
	return notes
}

// A Fill is what an idle strip is good for.
type Fill int

const (
	Mulch       Fill = iota // too short for anything to grow
	GreenManure             // long enough for a cover that is dug in or cut down
	Sow                     // long enough for a crop to flower
)

// How long green manure and the quickest crops take, in days.
const (
	manureDays = 35
	cropDays   = 75
)

// FillOf returns what a strip that lies idle for some days is good for; warm is whether the season lets things grow then.
func FillOf(days int, warm bool) Fill {
	switch {
	case warm && days >= cropDays:
		return Sow
	case days >= manureDays && warm:
		return GreenManure
	default:
		return Mulch
	}
}
