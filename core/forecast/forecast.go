// Package forecast says how many stems will stand in the cut window on each pick day: for every planting, every possible weather
// (member) and every set of traits that its records leave possible (draw).
//
// What plantings have in common is drawn in common: sums over a crop or a variety are taken within a member and a draw, and
// only then turned into quantiles.
package forecast

import (
	"fmt"
	"reflect"
	"slices"
	"sync"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/evidence"
	"dewcount/core/growth"
)

// A Farm is all that a forecast needs to know.
type Farm struct {
	Outlook   climate.Outlook // From is the first day whose weather is not on record
	Picks     day.PickDays
	PickHour  float64 // of a pick day, 0 to 24
	Ahead     bool    // what would be over by the next pick is cut as well
	From      day.Day // the first pick day that may be forecast
	To        day.Day // the last pick day that is forecast
	Plantings []Planting
	Members   int  // weathers
	Draws     int  // sets of traits
	Paired    bool // each set of traits grows in one of the weathers, in turn, and not in all: as many samples as sets. Of so many samples these tell most
	Seed      uint64
	BoxCd     float64
	Reach     int               // days beyond From that the weather members reach; 0 for Horizon
	Lessons   *evidence.Lessons // of what is long over, to be kept from one forecast to the next; may be nil
}

// Samples returns how many samples a forecast has.
func (f *Farm) Samples() int {
	if f.Paired {
		return f.Draws
	}
	return f.Members * f.Draws
}

// sample returns the weather and the set of traits of a sample.
func (f *Farm) sample(at int) (member, draw int) {
	if f.Paired {
		return at % f.Members, at
	}
	return at / f.Draws, at % f.Draws
}

func (f *Farm) reach() int {
	if f.Reach > 0 {
		return f.Reach
	}
	return Horizon
}

// A Planting is one planting with what the farm has on record of it.
type Planting struct {
	ID, Variety string
	Growth      growth.Planting
	Bench       climate.Extremes // of the nursery
	Cover       Cover
	Ended       day.Day // pulled out on; zero while it stands
	Sound       float64 // share of cut stems that can be sold, 0 to 1
	Windows     [crop.Uses]crop.Window
	HasUse      [crop.Uses]bool
	Counts      []evidence.Count
	Cuts        []evidence.Cut
	Emerged     []day.Day // on which most plants were seen up; of a lasting plant perhaps in several years
	FirstBud    []day.Day // on which several plants were seen to have a tight bud
	Until       float64   // the instant up to which there are records of it; not after the end of From
	Alive       day.Day   // last day on which stems were counted or cut; zero if none
}

// Horizon is how many days beyond From the weather members reach, so that next year's flowers of what lasts are seen.
const Horizon = 400

// A Stand is a farm with its weather drawn and its plantings brought up to date: what forecasts and milestones start from.
type Stand struct {
	farm    *Farm
	sky     *sky
	lives   [][]*life // by planting, then by season
	made    *Forecast // nil before it was asked for
	before  *Stand    // what the forecast can take over from; nil once it is made
	Bridged int       // days missing from the weather record since the first planting was started
}

// A life is one season of a planting brought up to date. It is not changed any more, so that stands can share it.
type life struct {
	season growth.Season
	course *growth.Course
	known  evidence.Known
	later  func() evidence.Known // of what is long over, for who asks after all; nil otherwise
	clocks *clocksOf
	frost  []day.Day // by member: the first day that kills; zero if none
	dead   bool      // killed by a frost on record
	died   day.Day   // on that day

	dated sync.Once // dates and over, once they are asked for
	dates Milestones
	over  bool
}

// New draws the weather and brings every planting up to date. What is the same as in a stand before, which may be nil, is taken
// from there: the weather if nothing of it has changed, and then the plantings of all crops of which nothing has.
func New(farm *Farm, before *Stand) *Stand {
	s := &Stand{farm: farm, lives: make([][]*life, len(farm.Plantings))}
	seasons := make([][]growth.Season, len(farm.Plantings))
	first := farm.Outlook.From
	for i := range farm.Plantings {
		seasons[i] = farm.seasons(&farm.Plantings[i])
		for _, season := range seasons[i] {
			if begins := season.Begins(); begins.Before(first) {
				first = begins
			}
		}
	}
	if before != nil && before.hasSky(farm, first) {
		s.sky, s.Bridged = before.sky, before.Bridged
	} else {
		before = nil
		s.sky, s.Bridged = newSky(farm, first)
	}
	s.before = before
	same := farm.sameCrops(before)
	var fresh []*life // nil where a row is taken over and only its records teach
	var known []evidence.Planting
	taught := farm.sameRecords(before)
	for i := range farm.Plantings {
		p := &farm.Plantings[i]
		if same[p.Growth.Profile.ID] {
			s.lives[i] = before.lives[before.index(p.ID)]
			continue
		}
		if taught[p.Growth.Profile.ID] {
			if at := before.index(p.ID); at >= 0 && reflect.DeepEqual(before.farm.Plantings[at], *p) {
				s.lives[i] = before.lives[at]
				for _, r := range s.lives[i] {
					fresh, known = append(fresh, nil), append(known, farm.evidence(p, r))
				}
				continue
			}
		}
		for _, season := range seasons[i] {
			r := &life{season: season, clocks: s.sky.clocks(p.Growth.Profile, p.Cover)}
			place := growth.Place{Latitude: farm.Outlook.Latitude, Lengths: s.sky.lengths, Shapes: s.sky.shapes, Bench: p.Bench}
			r.course = growth.NewCourse(season.Planting, place, farm.BoxCd)
			over := farm.isOver(p, &r.season)
			r.died, r.frost = s.sky.frosts(p, r, over)
			r.dead = !r.died.IsZero()
			s.lives[i] = append(s.lives[i], r)
			of := farm.evidence(p, r)
			if over {
				of.Over = s.sky.restsOn(p, r, of.Until)
			}
			fresh, known = append(fresh, r), append(known, of)
		}
	}
	all, later := evidence.StandingOf(known, func(i int) bool { return fresh[i] != nil && known[i].Over == nil }, farm.Lessons, farm.Draws, farm.Seed)
	for i, r := range fresh {
		switch {
		case r == nil:
		case known[i].Over != nil:
			r.later = sync.OnceValue(func() evidence.Known { return later(i) })
		default:
			r.known = all[i]
		}
	}
	return s
}

// standing returns what the records leave of a row.
func (r *life) standing() evidence.Known {
	if r.later != nil {
		return r.later()
	}
	return r.known
}

// longOver is for how many days after its end a row is looked at as those that grow are; after them it only teaches.
const longOver = 60

// LongOver tells whether planting i has ended so long ago that it only teaches: it has no stems on any pick day.
func (s *Stand) LongOver(i int) bool {
	return !slices.ContainsFunc(s.lives[i], func(r *life) bool { return r.later == nil })
}

// isOver tells whether a season of a planting has ended so long ago that nothing more is asked of it.
func (f *Farm) isOver(p *Planting, s *growth.Season) bool {
	end := p.Ended
	if !s.Until.IsZero() && (end.IsZero() || s.Until.Before(end)) {
		end = s.Until
	}
	if end.IsZero() && !p.Growth.Profile.Lasts(p.Growth.Method) {
		end = p.wornOut()
	}
	return !end.IsZero() && f.From.Sub(end) > longOver
}

// hasSky tells whether a farm has the weather, its first day, the pick days and the fineness of the stand.
func (s *Stand) hasSky(f *Farm, first day.Day) bool {
	o := s.farm
	return o.From == f.From && o.To == f.To && o.PickHour == f.PickHour && o.Ahead == f.Ahead && o.Members == f.Members && o.Draws == f.Draws && o.Paired == f.Paired &&
		o.Seed == f.Seed && o.BoxCd == f.BoxCd && o.Reach == f.Reach && s.sky.past.First == first &&
		o.writesCuts() == f.writesCuts() && reflect.DeepEqual(o.Picks, f.Picks) && reflect.DeepEqual(o.Outlook, f.Outlook)
}

// sameCrops returns the crops of which every planting is as it was in a stand before: plantings learn only from their crop.
func (f *Farm) sameCrops(before *Stand) map[string]bool {
	return f.same(before, func(*Planting) bool { return true })
}

// sameRecords returns the crops of which every planting with records is as it was in a stand before: plantings without records teach the
// others nothing.
func (f *Farm) sameRecords(before *Stand) map[string]bool {
	return f.same(before, func(p *Planting) bool { return len(p.Counts)+len(p.Cuts)+len(p.Emerged)+len(p.FirstBud) > 0 })
}

// same returns the crops of which every planting that counts is as it was in a stand before.
func (f *Farm) same(before *Stand, counts func(*Planting) bool) map[string]bool {
	same := make(map[string]bool)
	if before == nil || before.made == nil {
		return same
	}
	byCrop := func(f *Farm) map[string][]Planting {
		crops := make(map[string][]Planting)
		for i := range f.Plantings {
			p := &f.Plantings[i]
			of := crops[p.Growth.Profile.ID]
			if counts(p) {
				of = append(of, *p)
			}
			crops[p.Growth.Profile.ID] = of
		}
		return crops
	}
	was := byCrop(before.farm)
	for id, plantings := range byCrop(f) {
		same[id] = reflect.DeepEqual(plantings, was[id])
	}
	return same
}

func (s *Stand) index(planting string) int {
	return slices.IndexFunc(s.farm.Plantings, func(p Planting) bool { return p.ID == planting })
}

// writesCuts tells whether any cut is on record.
func (f *Farm) writesCuts() bool {
	return slices.ContainsFunc(f.Plantings, func(p Planting) bool { return len(p.Cuts) > 0 })
}

// pool names what a planting shares its variety's traits with: the same variety under the same cover. Of unlike places only the crop
// teaches.
func (p *Planting) pool() string {
	if p.Cover.NightC == 0 && p.Cover.DayC == 0 {
		return p.Variety
	}
	return fmt.Sprintf("%s under {%v %v}", p.Variety, p.Cover.NightC, p.Cover.DayC)
}

// mostDays is how long after its start an annual can still be cut: autumn sowings flower in the next summer, and what is sown in
// summer for a bloom after the winter takes longest.
const mostDays = 520

// wornOut returns the day by which an annual is taken to be over where nobody has ended it: no earlier than stems were last seen on it.
func (p *Planting) wornOut() day.Day {
	end := p.Growth.Started.Add(mostDays)
	if p.Alive.After(end) {
		return p.Alive
	}
	return end
}

// on returns the season of planting i that a day falls in, nil if there is none.
func (s *Stand) on(i int, d day.Day) *life {
	for _, r := range s.lives[i] {
		if r.season.Holds(d) {
			return r
		}
	}
	return nil
}

// Season returns the season of planting i that the day from which the farm is looked at falls in, and whether there is one.
func (s *Stand) Season(i int) (growth.Season, bool) {
	if r := s.on(i, s.farm.From); r != nil {
		return r.season, true
	}
	return growth.Season{}, false
}
