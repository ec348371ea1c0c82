package standin

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
)

// A Row is a planting as the field has it: what was sown, and where.
type Row struct {
	Planting, Variety string
	Profile           *crop.Profile
	Market            crop.Window
	Plants            int
	Started, Out      day.Day // Out: in its bed from then on; Started where it was never under cover
	Pinched           day.Day
	PinchedShare      float64
	Ended             day.Day
	WarmerC           float64 // than outdoors, under its cover
}

// A row of the field lives day by day. Its plants each have a pace and a strength of their own, its stems each their own time
// on every rung.
type row struct {
	Row
	random     *rand.Rand
	heat       heat
	light      climate.DayLengths
	plants     []plant
	stems      []stem
	pace, rich float64
	culls      float64
	dead       bool
	flowering  float64 // warmth since the row's first colour
}

type plant struct {
	need          float64 // warmth to the next step of its life
	emerged       bool
	pinched       bool
	budded        bool
	speed, vigour float64
	tired         float64 // 0 to 1: heads left to seed
}

type stem struct {
	plant int
	wait  float64 // warmth until the bud is tight; then until the next rung
	rung  int     // -1 before
}

// A heat is how a crop answers to temperature: the beta function of Yan & Hunt (1999), Annals of Botany 84:607-614, brought
// to the scale of degree-days at a usual summer temperature.
type heat struct{ base, opt, ceiling, scale float64 }

func newHeat(p *crop.Profile) heat {
	h := heat{p.Response.BaseC, p.Response.OptC, p.Response.CeilingC, 1}
	const usual = 17
	h.scale = p.Response.Rate(usual) / h.at(usual)
	return h
}

func (h heat) at(celsius float64) float64 {
	if celsius <= h.base || celsius >= h.ceiling {
		return 0
	}
	shape := (h.opt - h.base) / (h.ceiling - h.opt)
	return h.scale * (h.ceiling - celsius) / (h.ceiling - h.opt) * math.Pow((celsius-h.base)/(h.opt-h.base), shape)
}

// The field's own spreads, as standard deviations of logarithms.
const (
	cropPaceSD, varietyPaceSD, rowPaceSD    = 0.05, 0.03, 0.035
	cropStemsSD, varietyStemsSD, rowStemsSD = 0.18, 0.08, 0.15
	plantVigourSD, rungSD, emergeSD         = 0.30, 0.14, 0.12
)

func newRow(seed uint64, r Row, lengths *climate.DayLengths) *row {
	cropTraits, varietyTraits := stream(seed, "crop", r.Profile.ID), stream(seed, "variety", r.Variety)
	own := stream(seed, "planting", r.Planting)
	f := &row{Row: r, random: own, heat: newHeat(r.Profile), light: *lengths}
	f.pace = lognormal(cropTraits, cropPaceSD) * lognormal(varietyTraits, varietyPaceSD) * lognormal(own, rowPaceSD)
	f.rich = lognormal(cropTraits, cropStemsSD) * lognormal(varietyTraits, varietyStemsSD) * lognormal(own, rowStemsSD)
	f.culls = 0.03 + 0.06*cropTraits.Float64()
	f.plants = make([]plant, r.Plants)
	for i := range f.plants {
		f.plants[i] = plant{
			need:   r.Profile.EmergeCd * f.pace * lognormal(own, emergeSD),
			speed:  lognormal(own, r.Profile.SpreadCV),
			vigour: lognormal(own, plantVigourSD),
		}
	}
	return f
}

// steps is how often a day the field looks at the temperature.
const steps = 8

// live lets the row live through the hours of a day from one to another.
func (f *row) live(d day.Day, weather Day, fromHour, toHour float64) {
	if d.Before(f.Started) || !f.Ended.IsZero() && !d.Before(f.Ended) {
		return
	}
	if !d.Before(f.Out) && weather.TminC+f.WarmerC <= f.Profile.FrostKillC && fromHour == 0 {
		f.dead = true
	}
	if f.dead {
		return
	}
	if d == f.Pinched && fromHour == 0 {
		f.pinch()
	}
	day, night := f.warmth(d, weather)
	light := f.lightRate(d)
	for s := range steps {
		hour := (float64(s) + 0.5) * 24 / steps
		if hour < fromHour || hour >= toHour {
			continue
		}
		celsius := (day+night)/2 + (day-night)/2*math.Sin(2*math.Pi*(hour-9)/24)
		f.grow(f.heat.at(celsius)/steps, light)
	}
}

func (f *row) warmth(d day.Day, weather Day) (day, night float64) {
	if d.Before(f.Out) {
		if !f.plants[0].emerged && f.Profile.PreferredStart == crop.Tray {
			return f.Profile.SoilOptC, f.Profile.SoilOptC
		}
		return f.Profile.Nursery.Day, f.Profile.Nursery.Night
	}
	return weather.TmaxC + f.WarmerC, weather.TminC + f.WarmerC
}

// lightRate is the day's multiplier on the way to the bud: a smooth step where the crop table has a ramp.
func (f *row) lightRate(d day.Day) float64 {
	rule := f.Profile.Daylength
	if rule.Kind == "neutral" || rule.WidthH == 0 {
		return 1
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

func (f *row) grow(cd, light float64) {
	blooming := false
	for i := range f.plants {
		p := &f.plants[i]
		switch {
		case p.budded:
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
				f.flush(i)
			}
		}
	}
	for i := range f.stems {
		s := &f.stems[i]
		if s.rung >= int(crop.Spent) {
			continue
		}
		s.wait -= cd
		for s.wait <= 0 && s.rung < int(crop.Spent) {
			s.rung++
			if s.rung == int(crop.Spent) {
				p := &f.plants[s.plant]
				p.tired = math.Min(1, p.tired+0.5/f.Profile.Yield.FirstStems)
				break
			}
			s.wait += f.Profile.RungsCd[s.rung] * f.pace * lognormal(f.random, rungSD)
		}
		blooming = blooming || s.rung >= int(crop.Colour)
	}
	if blooming || f.flowering > 0 {
		f.flowering += cd
	}
}

// flush sets the stems of a plant's first flush: one leads, the others follow.
func (f *row) flush(i int) {
	p, y := &f.plants[i], f.Profile.Yield
	mean := y.FirstStems
	if y.Habit == crop.Branching {
		mean = y.SeasonStems
	}
	if p.pinched {
		mean *= f.Profile.Pinch.StemsFactor
	}
	n := 1
	if y.Habit != crop.Single {
		n = max(1, poisson(f.random, mean*f.rich*p.vigour-1)+1)
	}
	late := 0.0
	for range n {
		f.stems = append(f.stems, stem{plant: i, wait: late * f.pace, rung: -1})
		switch {
		case y.Habit == crop.Again:
			late += f.random.ExpFloat64() * y.RegrowCd / (3 * mean)
		default:
			late += f.random.ExpFloat64() * y.FloweringCd / (2 * mean)
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
		p := &f.plants[f.stems[i].plant]
		strength := math.Max(0, 1-f.flowering/y.FloweringCd) * (1 - 0.7*p.tired) * math.Pow(p.vigour, 0.3)
		if p.pinched {
			strength /= math.Pow(f.Profile.Pinch.StemsFactor, 0.7)
		}
		for range poisson(f.random, y.ShootsPerCut*strength) {
			f.stems = append(f.stems, stem{plant: f.stems[i].plant, wait: y.RegrowCd * f.pace * lognormal(f.random, 0.22), rung: -1})
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
