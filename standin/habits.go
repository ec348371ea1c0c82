package standin

import (
	"math"

	"dewcount/core/crop"
)

// Habits are how a variety grows on this field where a crop table has no number, or gives one that another field does not keep: drawn
// for each crop, and a little for each variety.
type habits struct {
	heat           heat
	rungSD, stemSD float64 // of the log warmth of one rung, rung by rung, and of a stem's own speed
	flush          float64 // over which part of a regrowth, or of the bloom where nothing comes again, a plant's first flush comes
	regrowSD       float64 // of the log warmth until a cut plant has buds again
	bend, level    float64 // of vigour over a plant's bloom: level (1 - x^bend)
	bloomSD        float64 // of the log of a plant's own length of bloom
	pinchLoss      float64 // part of the gain of a pinched plant, in the logarithm, that its second flush loses again
	lost           float64 // share of the plants that bear nothing
	dimH, darkRate float64 // sun hours at which stems and shoots are half way to darkRate, the least pace in the dark
	soilC          float64 // by how much sun warms a seed bed over the air
}

// evenHabits are those that all crops shared on the first field that forecasts were held against: it had much in common with the core.
func evenHabits(p *crop.Profile) habits {
	h := habits{heat: newHeat(p, 17), rungSD: 0.14, flush: 1. / 3, regrowSD: 0.22, bend: 1, level: 1, pinchLoss: 0.7, darkRate: 1}
	if p.Yield.Habit != crop.Again {
		h.flush = 0.5
	}
	return h
}

// habitsOf draws the habits of a variety of a crop that is cut on a window of rungs.
func habitsOf(seed uint64, r *Row) habits {
	p := r.Profile
	if r.Even {
		return evenHabits(p)
	}
	of, own := stream(seed, "habits", p.ID), stream(seed, "habits of", r.Variety)
	between := func(low, high float64) float64 { return low + (high-low)*of.Float64() }
	h := habits{
		rungSD: 0.12 * math.Pow(3, of.Float64()) * lognormal(own, 0.1), stemSD: between(0, 0.12) * lognormal(own, 0.1),
		flush: between(1./3, 1), regrowSD: between(0.12, 0.35),
		bend: math.Pow(2, between(-0.7, 1)), bloomSD: between(0.05, 0.25), pinchLoss: between(0.3, 1),
		lost: between(0, 0.06) + 0.04*own.Float64(), dimH: between(9, 10.8), darkRate: between(0.3, 0.8), soilC: between(0.5, 3.5),
	}
	if p.Yield.Habit != crop.Again {
		h.flush = between(0.25, 0.75)
	}
	table := p.Response
	h.heat = shifted(p, 0.7*of.NormFloat64(), 0.7*of.NormFloat64(), of.NormFloat64(), lognormal(of, 0.15), table.BaseC+between(0.45, 0.8)*(table.OptC-table.BaseC))
	if p.Yield.Habit == crop.Again {
		h.level = levelFor(p, r.Market, h.bend, p.Yield.SeasonStems*lognormal(of, 0.1)) * lognormal(own, 0.04)
	}
	return h
}

// A heat is how a crop answers to temperature: the beta function of Yan & Hunt (1999), Annals of Botany 84:607-614, more or less
// curved, brought to the scale of degree-days at one temperature.
type heat struct{ base, opt, ceiling, curve, scale float64 }

func newHeat(p *crop.Profile, agreesC float64) heat { return shifted(p, 0, 0, 0, 1, agreesC) }

// shifted returns an answer whose cardinal temperatures lie beside the table's, in °C, and which agrees with the table's at one.
func shifted(p *crop.Profile, base, opt, ceiling, curve, agreesC float64) heat {
	t := p.Response
	h := heat{base: t.BaseC + base, opt: t.OptC + opt, ceiling: t.CeilingC + ceiling, curve: curve, scale: 1}
	h.ceiling = math.Max(h.ceiling, h.opt+3)
	h.scale = degrees(p, agreesC) / h.at(agreesC)
	return h
}

// degrees are those above the table's base that a temperature counts for: straight up to the optimum and straight down from it.
func degrees(p *crop.Profile, celsius float64) float64 {
	t := p.Response
	if celsius <= t.OptC {
		return celsius - t.BaseC
	}
	return (t.OptC - t.BaseC) * (t.CeilingC - celsius) / (t.CeilingC - t.OptC)
}

func (h heat) at(celsius float64) float64 {
	if celsius <= h.base || celsius >= h.ceiling {
		return 0
	}
	shape := (h.opt - h.base) / (h.ceiling - h.opt)
	return h.scale * math.Pow((h.ceiling-celsius)/(h.ceiling-h.opt)*math.Pow((celsius-h.base)/(h.opt-h.base), shape), h.curve)
}

// levelFor returns the level of vigour at which a plant that is cut as soon as its stems are ready gives so many stems in all, within
// bounds: nothing answers a cut with three times what another does.
func levelFor(p *crop.Profile, market crop.Window, bend, season float64) float64 {
	const least, most = 0.6, 1.8
	low, high := least, most
	for range 20 {
		middle := (low + high) / 2
		if seasonOf(p, market, bend, middle) < season {
			low = middle
		} else {
			high = middle
		}
	}
	return (low + high) / 2
}

// seasonOf returns the stems that a plant gives until its vigour ends, walked through in steps of warmth since its first colour.
func seasonOf(p *crop.Profile, market crop.Window, bend, level float64) float64 {
	const stepCd = 10
	y := p.Yield
	toMarket := 0.0
	for _, cd := range p.RungsCd[:market.From] {
		toMarket += cd
	}
	again := int((y.RegrowCd + toMarket) / stepCd)
	first := int(toMarket / stepCd)
	n := int(y.FloweringCd/stepCd) + first
	ready := make([]float64, n+again+1)
	ready[first] = y.FirstStems
	sum := 0.0
	for i := range n {
		sum += ready[i]
		x := math.Min(1, float64(i)*stepCd/y.FloweringCd)
		ready[i+again] += ready[i] * y.ShootsPerCut * level * (1 - math.Pow(x, bend))
	}
	return sum
}

// dim returns the share (darkRate to 1) of the usual pace of stems that hours of sun leave.
func (h *habits) dim(sunH float64) float64 {
	return h.darkRate + (1-h.darkRate)*h.lit(sunH)
}

// lit returns which share (0 to 1) of the shoots that a plant could set it feeds at so many hours of sun.
func (h *habits) lit(sunH float64) float64 {
	if h.darkRate == 1 {
		return 1
	}
	const widthH = 0.5
	return 1 / (1 + math.Exp((h.dimH-sunH)/widthH))
}
