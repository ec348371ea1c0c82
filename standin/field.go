package standin

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
)

// A Row is a planting as the field has it: what was sown, and where.
type Row struct {
	Planting, Variety string
	Profile           *crop.Profile
	Method            crop.Method
	Market            crop.Window
	Plants            int
	Started, Out      day.Day // Out: in its bed from then on; Started where it was never under cover
	Pinched           day.Day
	PinchedShare      float64
	Ended             day.Day
	WarmerC           float64 // than outdoors, under its cover
	Wild              float64 // by how much more than usual its traits scatter; 0 for as usual
	Luck              uint64  // other plants of the same traits; 0 for the usual ones
	Fate              uint64  // other traits, in the same weather; 0 for the usual ones
	Even              bool    // with the habits that all crops shared on the first field
}

// A row of the field lives day by day. Its plants each have a pace and a strength of their own, its stems each their own time
// on every rung.
type row struct {
	Row
	random     *rand.Rand
	habits     habits
	light      climate.DayLengths
	sunH       float64 // today's hours of sun
	plants     []plant
	stems      []stem
	pace, rich float64
	culls      float64
	dead       bool
	cold       float64 // chill gathered, in days
	needsCold  bool
	first      int     // stems of the first flush this season, as far as plants have set them
	lasts      bool    // it comes again year after year
	wakes      day.Day // plants that were set in autumn lie until their year turns; zero for others
	south      bool
}

type plant struct {
	need          float64 // warmth to the next step of its life
	emerged       bool
	pinched       bool
	budded        bool
	barren        bool // it was lost before it bore
	speed, vigour float64
	bloom         float64 // °Cd that it flowers for
	flowering     float64 // warmth since its first colour
	tired         float64 // 0 to 1: heads left to seed
}

type stem struct {
	plant int
	wait  float64 // warmth until the bud is tight; then until the next rung
	slow  float64 // its own way up the ladder, as a factor
	rung  int     // -1 before
	flush int     // 0 for the plant's first
}

// The field's own spreads, as standard deviations of logarithms.
const (
	cropPaceSD, varietyPaceSD, rowPaceSD    = 0.05, 0.03, 0.035
	cropStemsSD, varietyStemsSD, rowStemsSD = 0.18, 0.08, 0.15
	plantVigourSD, emergeSD                 = 0.30, 0.12
)

func newRow(seed uint64, r Row, lengths *climate.DayLengths) *row {
	wild := r.Wild
	if wild == 0 {
		wild = 1
	}
	seed += r.Fate
	cropTraits, varietyTraits := stream(seed, "crop", r.Profile.ID), stream(seed, "variety", r.Variety)
	own := stream(seed, "planting", r.Planting)
	f := &row{Row: r, random: own, habits: habitsOf(seed, &r), light: *lengths}
	f.lasts = r.Profile.Lasts(r.Method)
	f.south = lengths.On(172) < lengths.On(355)
	f.needsCold = r.Profile.ChillDays > 0
	for d := r.Started; f.set() && d.Sub(r.Started) < 100; d = d.Add(1) {
		if f.turns(d, time.January) {
			f.wakes = d
		}
	}
	f.pace = lognormal(cropTraits, wild*cropPaceSD) * lognormal(varietyTraits, wild*varietyPaceSD) * lognormal(own, wild*rowPaceSD)
	f.rich = lognormal(cropTraits, wild*cropStemsSD) * lognormal(varietyTraits, wild*varietyStemsSD) * lognormal(own, wild*rowStemsSD)
	f.culls = 0.03 + 0.06*cropTraits.Float64()
	if r.Luck != 0 {
		f.random = stream(seed+r.Luck, "luck", r.Planting)
	}
	f.plants = make([]plant, r.Plants)
	for i := range f.plants {
		f.plants[i] = plant{
			need:   r.Profile.EmergeCd * f.pace * lognormal(f.random, emergeSD),
			speed:  lognormal(f.random, r.Profile.SpreadCV),
			vigour: lognormal(f.random, plantVigourSD),
			bloom:  r.Profile.Yield.FloweringCd,
		}
		if !r.Even {
			f.plants[i].bloom *= lognormal(f.random, f.habits.bloomSD)
			f.plants[i].barren = f.random.Float64() < f.habits.lost
		}
	}
	return f
}

// twilightH is how many hours of a photoperiod are twilight, about.
const twilightH = 1.1

// steps is how often a day the field looks at the temperature.
const steps = 8

// live lets the row live through the hours of a day from one to another.
func (f *row) live(d day.Day, weather Day, fromHour, toHour float64) {
	if d.Before(f.Started) || !f.Ended.IsZero() && !d.Before(f.Ended) {
		return
	}
	if fromHour == 0 {
		f.season(d, weather)
	}
	if f.dead {
		return
	}
	if d == f.Pinched && fromHour == 0 {
		f.pinch()
	}
	day, night := f.warmth(d, weather)
	light := f.lightRate(d)
	f.sunH = f.light.On(d.YearDay()) - twilightH
	for s := range steps {
		hour := (float64(s) + 0.5) * 24 / steps
		if hour < fromHour || hour >= toHour {
			continue
		}
		celsius := (day+night)/2 + (day-night)/2*math.Sin(2*math.Pi*(hour-9)/24)
		f.grow(d, f.habits.heat.at(celsius)/steps, light, f.habits.dim(f.sunH))
	}
}

func (f *row) warmth(d day.Day, weather Day) (day, night float64) {
	if d.Before(f.Out) {
		if !f.plants[0].emerged && f.Method == crop.Tray {
			return f.Profile.SoilOptC, f.Profile.SoilOptC
		}
		return f.Profile.Nursery.Day, f.Profile.Nursery.Night
	}
	if f.Method == crop.Direct && !f.plants[0].emerged { // a seed bed in the sun
		return weather.TmaxC + f.WarmerC + 2*f.habits.soilC, weather.TminC + f.WarmerC
	}
	return weather.TmaxC + f.WarmerC, weather.TminC + f.WarmerC
}

// lightRate is the day's multiplier on the way to the bud: a smooth step where the crop table has a ramp.
func (f *row) lightRate(d day.Day) float64 {
	rule := f.Profile.Daylength
	if rule.Kind == "neutral" || rule.WidthH == 0 || f.Profile.Steered() {
		return 1
	}
	if rule.Kind == "short" && f.Profile.Life == crop.Perennial && f.light.On(d.YearDay()) > f.light.On(d.Add(-1).YearDay()) {
		return rule.Slowest // its long days come first
	}
	x := 4 * (f.light.On(d.YearDay()) - rule.CriticalH) / rule.WidthH
	if rule.Kind == "short" {
		x = -x
	}
	return rule.Slowest + (1-rule.Slowest)/(1+math.Exp(-x))
}

func (f *row) pinch() {
	n := int(math.Round(f.PinchedShare * float64(len(f.plants))))
	for i := range f.plants[:n] {
		p := &f.plants[i]
		if !p.budded {
			p.pinched = true
			if p.emerged {
				p.need += f.Profile.Pinch.DelayCd * f.pace
			}
		}
	}
}

func (f *row) grow(d day.Day, cd, light, sun float64) {
	for i := range f.plants {
		p := &f.plants[i]
		if p.flowering > 0 {
			p.flowering += cd
		}
		switch {
		case p.budded || !f.moves(d, p):
		case !p.emerged:
			if p.need -= cd * p.speed; p.need <= 0 {
				p.emerged = true
				p.need = f.Profile.BudCd * f.pace
				if p.pinched {
					p.need += f.Profile.Pinch.DelayCd * f.pace
				}
			}
		default:
			if p.need -= cd * light * p.speed; p.need <= 0 {
				p.budded = true
				if !p.barren {
					f.flush(i)
				}
			}
		}
	}
	for i := range f.stems {
		s := &f.stems[i]
		if s.rung >= int(crop.Spent) {
			continue
		}
		s.wait -= cd * sun
		for s.wait <= 0 && s.rung < int(crop.Spent) {
			s.rung++
			if s.rung == int(crop.Spent) {
				p := &f.plants[s.plant]
				p.tired = math.Min(1, p.tired+0.5/f.Profile.Yield.FirstStems)
				break
			}
			s.wait += f.Profile.RungsCd[s.rung] * f.pace * s.slow * f.differs(f.habits.rungSD)
		}
		if p := &f.plants[s.plant]; p.flowering == 0 && s.rung >= int(crop.Colour) {
			p.flowering = cd
		}
	}
}

// flush sets the stems of a plant's first flush: one leads, the others follow.
func (f *row) flush(i int) {
	p, y := &f.plants[i], f.Profile.Yield
	mean := y.FirstStems
	if y.Habit == crop.Branching || y.Habit == crop.Fixed {
		mean = y.SeasonStems
	}
	if p.pinched {
		mean *= f.Profile.Pinch.StemsFactor
	}
	n := 1
	switch {
	case y.Habit != crop.Single:
		n = max(1, poisson(f.random, mean*f.rich*p.vigour-1)+1)
	case p.pinched:
		n += poisson(f.random, mean-1)
	}
	f.first += n
	late := 0.0
	for range n {
		f.stems = append(f.stems, f.stem(i, late*f.pace, 0))
		switch {
		case y.Habit == crop.Again:
			late += f.random.ExpFloat64() * y.RegrowCd * f.habits.flush / mean
		default:
			late += f.random.ExpFloat64() * y.FloweringCd * f.habits.flush / mean
		}
	}
}

// ready returns the places of the stems in the cut window, the ripest first.
func (f *row) ready() []int {
	var ready []int
	for i, s := range f.stems {
		if s.rung >= 0 && f.Market.Holds(crop.Rung(s.rung)) {
			ready = append(ready, i)
		}
	}
	slices.SortStableFunc(ready, func(a, b int) int { return cmp.Compare(f.stems[b].rung, f.stems[a].rung) })
	return ready
}

// cut takes so many stems, the ripest ready ones first, then whatever bud is next.
func (f *row) cut(n int) {
	taken := f.ready()
	if len(taken) > n {
		taken = taken[:n]
	}
	for rung := int(f.Market.From) - 1; rung >= 0 && len(taken) < n; rung-- {
		for i, s := range f.stems {
			if s.rung == rung && len(taken) < n {
				taken = append(taken, i)
			}
		}
	}
	y := f.Profile.Yield
	gone := make(map[int]bool, len(taken))
	for _, i := range taken {
		gone[i] = true
		if y.Habit != crop.Again {
			continue
		}
		s := f.stems[i]
		for range poisson(f.random, y.ShootsPerCut*f.strength(&s)) {
			f.stems = append(f.stems, f.stem(s.plant, y.RegrowCd*f.pace*f.differs(f.habits.regrowSD), s.flush+1))
		}
	}
	kept := f.stems[:0]
	for i, s := range f.stems {
		if !gone[i] {
			kept = append(kept, s)
		}
	}
	f.stems = kept
}

// strength is how many of the shoots of the table a plant sets where a stem is cut.
func (f *row) strength(s *stem) float64 {
	p, h := &f.plants[s.plant], &f.habits
	spent := math.Min(1, p.flowering/p.bloom)
	strength := h.level * (1 - math.Pow(spent, h.bend)) * (1 - 0.7*p.tired) * math.Pow(p.vigour, 0.3) * h.lit(f.sunH)
	if p.pinched && (s.flush == 0 || f.Even) {
		strength /= math.Pow(f.Profile.Pinch.StemsFactor, h.pinchLoss)
	}
	return strength
}

// stem is a new one of a plant.
func (f *row) stem(plant int, wait float64, flush int) stem {
	s := stem{plant: plant, wait: wait, slow: 1, rung: -1, flush: flush}
	if f.habits.stemSD > 0 {
		s.slow = f.differs(f.habits.stemSD)
	}
	return s
}

// differs is by which factor a stem differs from the table's mean; on the first field the table had the middle.
func (f *row) differs(sd float64) float64 {
	if f.Even {
		return lognormal(f.random, sd)
	}
	return meanOne(f.random, sd)
}
