package book

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
)

// CanStart tells why a crop cannot be started in a way, empty if it can.
func CanStart(p *crop.Profile, m crop.Method) string {
	if !p.HasStart(m) {
		return fmt.Sprintf("%s is not started as %s: choose %s", p.Name, m, p.PreferredStart)
	}
	return ""
}

// Strictness is how strictly stems are held against what could stand: the multiple of what the model thinks the most.
type Strictness float64

// A form asks again at what is hardly possible; a notebook is refused only where it cannot be.
const (
	OfForm     Strictness = 1
	OfNotebook Strictness = 2
)

// Check tells what is wrong with a record of the book in the light of all others.
func (b *Book) Check(r Record, how Strictness) error {
	f := fieldsOf(r.Kind, r.Lines[0])
	r.Kind.in.check(b, f, r, how)
	return f.Faults()
}

func (b *Book) checkVariety(f *Fields, v Variety, _ Strictness) {
	if b.Crop(v.Crop) == nil {
		f.Fault("crop", "%q is no crop of the table: choose one from the list, or add it to crops.json", v.Crop)
	}
}

func (b *Book) checkPlanting(f *Fields, p Planting, how Strictness) {
	b.checkGrowable(f, p)
	if how == OfForm { // in a notebook it is the count or cut that is named
		b.checkAgainstRecords(f, p)
	}
}

// checkGrowable holds a planting against its variety, crop, bed and tray.
func (b *Book) checkGrowable(f *Fields, p Planting) {
	v, ok := b.Variety(p.Variety)
	if !ok {
		f.Fault("variety", "%q is no variety on record: add it to the varieties first", p.Variety)
		return
	}
	if _, ok := b.Bed(p.Bed); !ok && p.Bed != "" {
		f.Fault("bed", "%q is no bed on record: choose one, or leave this empty", p.Bed)
	}
	if _, ok := b.Tray(p.Tray); !ok && p.Tray != "" {
		f.Fault("tray", "%q is no tray on record: choose one, or leave this empty", p.Tray)
	}
	b.checkSquares(f, p)
	profile := b.Crop(v.Crop)
	if profile == nil {
		f.Fault("variety", "the crop %q of this variety is not in the table", v.Crop)
		return
	}
	if why := CanStart(profile, p.Method); why != "" {
		f.Fault("method", "%s", why)
	}
}

// checkSquares holds the place of a planting against its bed.
func (b *Book) checkSquares(f *Fields, p Planting) {
	if p.Squares == "" {
		return
	}
	grid, ok := b.Grid(p.Bed)
	if !ok {
		f.Fault("squares", "squares want a bed whose length and width are on record: choose one, or leave this empty")
		return
	}
	if _, err := plan.ParsePatch(p.Squares, grid); err != nil {
		f.Fault("squares", "%v", err)
	}
}

// checkAgainstRecords holds a planting that is corrected against what is on record of it.
func (b *Book) checkAgainstRecords(f *Fields, p Planting) {
	started := func(on day.Day, done string) {
		if on.Before(p.StartedOn) && f.Faults() == nil {
			f.Fault("started_on", "%s was %s on %s already: check the date", p.ID, done, on)
		}
	}
	for _, c := range b.Counts {
		if c.Planting != p.ID {
			continue
		}
		started(c.CountedAt.Day(), "counted")
		if c.PlantsCount > p.Plants && f.Faults() == nil {
			f.Fault("plants", "%d plants were counted on %s: write that many or more", c.PlantsCount, c.CountedAt.Day())
		}
	}
	for _, c := range b.Cuts {
		if c.Planting == p.ID {
			started(c.CutAt.Day(), "cut")
		}
	}
}

// checkAfterStart returns the planting of a record, if it is there and the record is not older than it.
func (b *Book) checkAfterStart(f *Fields, id, field string, on day.Day, done string) (Planting, *crop.Profile, bool) {
	p, ok := b.Planting(id)
	if !ok {
		f.Fault("planting", "%q is no planting on record: check its name", id)
		return p, nil, false
	}
	if on.Before(p.StartedOn) {
		f.Fault(field, "%s on %s, before %s was started on %s: check the date and the row", done, on, id, p.StartedOn)
		return p, nil, false
	}
	profile := b.ProfileOf(p)
	return p, profile, profile != nil
}

// moreCounted is by how much more plants a notebook may have counted than are said to bear: some that were given up live.
const moreCounted = 1.5

// ladderFlushes is how many times the most of one flush can be seen at once, spent heads and all.
const ladderFlushes = 3

func (b *Book) checkCount(f *Fields, c Count, how Strictness) {
	p, profile, ok := b.checkAfterStart(f, c.Planting, "counted_at", c.CountedAt.Day(), "counted")
	if !ok {
		return
	}
	bearing := float64(p.Plants)
	if how == OfNotebook {
		bearing *= moreCounted
	}
	if float64(c.PlantsCount) > bearing {
		f.Fault("plants_counted", "%d plants counted, but %s has %d: check the number, or the planting's plants", c.PlantsCount, p.ID, p.Plants)
	}
	most := ladderFlushes * float64(how) * profile.MostStems(c.PlantsCount, p.PinchedPart())
	if float64(c.Total()) > math.Max(most, 3) {
		f.Fault("stems", "%d stems on %d plants cannot stand there (%.0f at the most): was a trio counted as three, or another row?",
			c.Total(), c.PlantsCount, most)
	}
}

func (b *Book) checkCut(f *Fields, c Cut, how Strictness) {
	p, profile, ok := b.checkAfterStart(f, c.Planting, "cut_at", c.CutAt.Day(), "cut")
	if !ok {
		return
	}
	if how == OfForm {
		b.checkLot(f, "stems", c.ID, c.Stems)
	}
	most := float64(how) * profile.MostStems(p.Plants, p.PinchedPart())
	before := 0
	if profile.Yield.Habit == crop.Single {
		for _, other := range b.Cuts {
			if other.Planting == c.Planting && other.ID != c.ID {
				before += other.Taken()
			}
		}
		most *= 1.2 // some give a second stem, and rows are counted with an error
	}
	if taken := float64(before + c.Taken()); taken > math.Max(most, 3) {
		already := ""
		if before > 0 {
			already = fmt.Sprintf(" after the %d already cut", before)
		}
		f.Fault("stems", "%d stems%s cannot have stood on the %d plants of %s (%.0f at the most): check the number and the row",
			c.Taken(), already, p.Plants, p.ID, most)
	}
}

func (b *Book) checkEvent(f *Fields, e Event, _ Strictness) {
	b.checkAfterStart(f, e.Planting, "on", e.On, "seen")
}

func (b *Book) checkScouting(f *Fields, s Scouting, _ Strictness) {
	b.checkAfterStart(f, s.Planting, "on", s.On, "scouted")
}

func (b *Book) checkSpray(f *Fields, s Spray, _ Strictness) {
	b.checkAfterStart(f, s.Planting, "sprayed_at", s.SprayedAt.Day(), "sprayed")
}

func (b *Book) checkJob(f *Fields, j JobRecord, _ Strictness) {
	if _, ok := b.Planting(j.Planting); j.Planting != "" && !ok {
		f.Fault("planting", "%q is no planting on record: check its name", j.Planting)
	}
}

func (b *Book) checkOrderDay(f *Fields, d OrderDay, _ Strictness) {
	o, ok := b.Order(d.Order)
	if _, there := Find(b.OrderLines, func(l OrderLine) bool { return l.Order == d.Order && l.Line == d.Line }); !ok || !there {
		f.Fault("line", "%s has no line %d: add it first", d.Order, d.Line)
		return
	}
	standing := o
	standing.CancelledOn = day.Day{}
	if len(standing.Between(d.On, d.On)) == 0 {
		f.Fault("on", "%s is not due on %s: choose one of its days", d.Order, d.On)
	}
}

func (b *Book) checkRecipeLine(f *Fields, l RecipeLine, _ Strictness) {
	b.checkCrops(f, l.Crop, l.Substitutes)
}

func (b *Book) checkCrops(f *Fields, crop, substitutes string) {
	if crop != "" && b.Crop(crop) == nil {
		f.Fault("crop", "%q is no crop of the table: choose one from the list", crop)
	}
	for _, id := range Substitutes(substitutes) {
		if b.Crop(id) == nil {
			f.Fault("substitutes", "%q is no crop of the table: choose from the list, several with a stroke between them", id)
		}
	}
}

func (b *Book) checkSchool(f *Fields, s School, _ Strictness) {
	profile := b.Crop(s.Crop)
	if profile == nil {
		f.Fault("crop", "%q is no crop of the table: choose one from the list", s.Crop)
		return
	}
	if s.Question != "cut" {
		return
	}
	var ids []string
	for _, known := range profile.Schools {
		ids = append(ids, known.ID)
	}
	switch {
	case len(ids) == 0:
		f.Fault("school", "growers agree on when to cut %s: there is no school to choose", profile.Name)
	case !slices.Contains(ids, s.School):
		f.Fault("school", "%q is no school for %s: choose one of %s", s.School, profile.Name, strings.Join(ids, ", "))
	}
}

func (b *Book) checkOrderLine(f *Fields, l OrderLine, _ Strictness) {
	if _, ok := b.Order(l.Order); !ok {
		f.Fault("order", "%q is no order on record: add it first", l.Order)
	}
	if _, ok := b.Variety(l.Variety); l.Variety != "" && !ok {
		f.Fault("variety", "%q is no variety on record: choose one from the list", l.Variety)
	}
	b.checkCrops(f, l.Crop, l.Substitutes)
	if l.Recipe != "" && !slices.ContainsFunc(b.RecipeLines, func(r RecipeLine) bool { return r.Recipe == l.Recipe }) {
		f.Fault("recipe", "%q is no recipe on record: add it first", l.Recipe)
	}
}
