package growth

import (
	"dewcount/core/crop"
	"dewcount/core/day"
)

// A Course is what a planting's life takes whatever its traits and its weather turn out to be. Many runs share it.
type Course struct {
	p              Planting
	place          Place
	plain, pinched *flushes // pinched is nil where nothing is
	firstFlush     float64  // stems, unpinched
	regrowth       float64  // shoots a cut stem is followed by, at full vigour
	vigour         *vigour  // nil for what does not come again
	lit            *lights  // nil for what does not come again
	regrowCd       float64
	perBloomCd     float64 // 1 ÷ the table's length of bloom; 0 where nothing comes again
	firstBudCd     float64 // the way to the bud of the plants' first tenth,
	plainBudCd     float64 // and of that where nothing is pinched
	boxCd          float64
	chillFrom      day.Day // since when cold days are counted
	chillNeed      float64 // days; 0 for none
	sights         []sight // of what its chill had held back
}

// BoxCd is the usual width of a box in °Cd: less than a day's warmth in summer, and shorter than the shortest rung.
const BoxCd = 12

// NewCourse returns the course of a planting in its place, with boxes of boxCd °Cd (above 0).
func NewCourse(p Planting, place Place, boxCd float64) *Course {
	y := p.Profile.Yield
	checkCd, fewer := p.rootBound()
	c := &Course{p: p, place: place, boxCd: boxCd, plain: place.Shapes.flushesOf(p.Profile, checkCd)}
	if from, needs := p.chillFrom(place.Latitude); needs {
		c.chillFrom, c.chillNeed = from, float64(p.Profile.ChillDays)
	}
	perPlant := y.FirstStems
	if y.Habit == crop.Branching || y.Habit == crop.Fixed {
		perPlant = y.SeasonStems
	}
	c.firstFlush = float64(p.Plants) * perPlant * fewer
	c.regrowth, c.regrowCd = y.ShootsPerCut, y.RegrowCd
	if c.vigour = place.Shapes.vigourOf(p.Profile, p.Market.From); c.vigour != nil {
		c.lit, c.perBloomCd = place.Shapes.lightsOf(place.Lengths), 1/y.FloweringCd
	}
	if p.KeepBuds {
		c.regrowth, c.regrowCd = c.regrowth*crop.HighCutMore, c.regrowCd*crop.HighCutSooner
	}
	if p.Disbudded { // as much less as side buds that are kept are more: a guess
		c.regrowth /= crop.HighCutMore
	}
	if c.pinchedShare() > 0 {
		c.pinched = place.Shapes.flushesOf(p.Profile, checkCd+p.Profile.Pinch.DelayCd)
	}
	const tenth = 0.1
	c.plainBudCd = c.plain.of(Usual).plantsCd(tenth)
	if plain := 1 - c.pinchedShare(); plain > tenth {
		c.firstBudCd = c.plain.of(Usual).plantsCd(tenth / plain)
	} else {
		c.firstBudCd = c.pinched.of(Usual).plantsCd(tenth)
	}
	if c.chillNeed > 0 {
		c.look()
	}
	return c
}

// Planting returns what the course was made of.
func (c *Course) Planting() *Planting { return &c.p }

// What a week in the tray beyond a good age costs: a check in °Cd before the bud, and of a crop that is stunted for good a share of
// its stems. The table says which crops suffer and not how much; a usual check at planting out is in its thermal times.
const (
	checkWeekCd   = 35
	mostCheckCd   = 140
	stuntedWeek   = 0.25
	leastUnharmed = 0.15
)

// rootBound returns the check in °Cd and the share of the stems that is left to what was kept in its tray too long.
func (p *Planting) rootBound() (checkCd, left float64) {
	weeks := float64(p.Out().Sub(p.Started))/7 - p.Profile.Nursery.LatestWeeks
	if weeks <= 0 || p.Method != crop.Tray || !p.Turn.IsZero() || p.Profile.Nursery.RootBound == crop.Tolerates {
		return 0, 1
	}
	checkCd, left = min(mostCheckCd, checkWeekCd*weeks), 1
	if p.Profile.Nursery.RootBound == crop.Stunts {
		left = max(leastUnharmed, 1-stuntedWeek*weeks)
	}
	return checkCd, left
}

// emergence returns when half of the plants are up, and whether that comes within the days of the clock.
func (c *Course) emergence(clock felt, pace float64) (float64, bool) {
	if !c.p.Emerged.IsZero() {
		return c.p.Emerged.At(12), true
	}
	need := c.p.Profile.EmergeCd * pace
	start, out := c.p.Started.At(12), c.p.Out().At(12)
	if !c.p.Method.Sown() || !c.p.Turn.IsZero() {
		chilled, ok := c.chilled(clock)
		if !ok {
			return 0, false
		}
		if chilled > out || !c.p.Turn.IsZero() {
			begins := max(chilled, c.p.Turn.At(0))
			if c.chillNeed > 0 {
				begins = chilled
			}
			if c.p.Method != crop.Established {
				begins = max(start, begins)
			}
			return clock.warmth.When(clock.warmth.At(begins) + need)
		}
	}
	if out > start {
		perDay := c.coverCd()
		if start+need/perDay <= out {
			return start + need/perDay, true
		}
		need -= perDay * (out - start)
	}
	if c.p.Method == crop.Direct {
		return seedBed(clock, start, need)
	}
	return clock.warmth.When(clock.warmth.At(out) + need)
}

// The sun warms the bare soil of a seed bed over the mean of the air, by day most of all. Guesses of ours: seedBedC °Cd a day more, and less
// on days that bring less than seedBedFullCd, much of which lie below the crop's base.
const (
	seedBedC      = 2
	seedBedFullCd = 4
)

// seedBed returns when seed sown at an instant has felt so much warmth in its bed, and whether that comes within the days of the clock.
func seedBed(clock felt, at, needCd float64) (float64, bool) {
	for end := clock.warmth.End().At(0); at < end; at++ {
		air := clock.warmth.At(at+1) - clock.warmth.At(at)
		bed := air + seedBedC*min(1, air/seedBedFullCd)
		if bed >= needCd {
			return at + needCd/bed, true
		}
		needCd -= bed
	}
	return 0, false
}

// chilled returns when the planting's need of chill is met, an instant long ago where it has none, and whether that comes within
// the days of the clock. What was seen of it proves that it was met, however mild the winter.
func (c *Course) chilled(clock felt) (float64, bool) {
	if c.chillNeed == 0 {
		return 0, true
	}
	from := c.chillFrom.At(0)
	at, met := clock.chill.When(clock.chill.At(from) + c.chillNeed)
	for _, seen := range c.sights {
		const soonest = 0.65 // of the table's way: the first plant of the quickest row has its bud by then
		gathered := clock.warmth.At(seen.at) - clock.warmth.At(from)
		if gathered < soonest*seen.needCd {
			continue // it has not grown since: last year's heads, or a slip
		}
		latest, _ := clock.warmth.When(clock.warmth.At(seen.at) - soonest*seen.needCd)
		if !met || at > latest {
			at, _ = clock.warmth.When(clock.warmth.At(seen.at) - min(gathered, seen.needCd))
			met = true
		}
	}
	return at, met
}

// A sight is an instant by which a planting had felt so much warmth since its need of chill was met.
type sight struct{ at, needCd float64 }

// look notes what was seen of a planting that its chill had held back.
func (c *Course) look() {
	toBud := c.firstBudCd
	if !c.p.Method.Sown() || !c.p.Turn.IsZero() { // its shoots wait for it too
		toBud += c.p.Profile.EmergeCd
		if !c.p.Emerged.IsZero() {
			c.sights = append(c.sights, sight{c.p.Emerged.At(12), c.p.Profile.EmergeCd})
		}
	}
	if !c.p.InBud.IsZero() {
		c.sights = append(c.sights, sight{c.p.InBud.At(12), toBud})
	}
}

// held returns the instant before which the way to the bud does not run, whatever the warmth: unmet chill, or a steered crop's
// long days.
func (c *Course) held(clock felt) (float64, bool) {
	if c.p.Profile.Steered() {
		short := c.p.ShortDays
		if short.IsZero() {
			short = c.p.Out().Add(steeredDays)
		}
		return short.At(12), true
	}
	return c.chilled(clock)
}

// steeredDays is how many long days a steered crop is given in its bed before the short ones, as the crop table's notes have it.
const steeredDays = 18

// coverCd returns the °Cd of a day under cover before emergence: a tray stands on a bench as warm as the seed likes best, a
// potted tuber as warm as the nursery is.
func (c *Course) coverCd() float64 {
	if c.p.Method == crop.Tray {
		return max(1, c.p.Profile.Response.Rate(c.p.Profile.SoilOptC))
	}
	return max(1, c.p.Profile.Response.SteadyDegreeDays(c.place.Bench))
}

// benchCd returns the light-weighted °Cd that a raised planting has gathered between emergence and planting out.
func (c *Course) benchCd(emerged float64) float64 {
	out := c.p.Out()
	perDay := c.p.Profile.Response.SteadyDegreeDays(c.place.Bench)
	gathered := 0.0
	for d := day.On(emerged); d.Before(out); d = d.Add(1) {
		part := min(1, d.At(24)-emerged)
		gathered += part * perDay * c.p.Profile.LightRate(c.place.Lengths.On(d.YearDay()), c.place.Lengths.Lengthen(d.YearDay()))
	}
	return gathered
}
