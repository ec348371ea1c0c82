package growth

import (
	"math"

	"dewcount/core/crop"

	"gonum.org/v1/gonum/mathext"
)

// A flush is how the tight buds of a planting's first flush come over the light-weighted warmth since emergence: the share of
// stems that have budded, for a pace of 1. It is worked out once a profile and kept in steps.
type flush struct {
	stepCd, perCd   float64 // width of a step, and 1 ÷ that
	share           []float64
	plants          []float64 // integral, in °Cd, of the share of plants that carry a bud
	leadCd          float64   // mean of the plants' first bud
	leadVar         float64
	beginsCd        float64 // before it no stem buds
	earlyCd, lateCd float64 // over which a plant's stems follow its first, and its later side stems do
	lateShare       float64 // of the stems, that are such
}

// leastShare of a flush is as good as none.
const leastShare = 1e-9

// flushSteps is the fineness of a flush; a hundredth of the phase is well under a day.
const flushSteps = 240

// newFlush returns the flush of a profile whose buds are held back by delayCd. Plants differ by the profile's spread of the
// time to the first bud; a plant's further stems follow its first within staggerCd, evenly.
func newFlush(p *crop.Profile, delayCd float64, spread Spread) *flush {
	mean := p.BudCd + delayCd
	sd := p.SpreadCV * (p.EmergeCd + mean)
	early, late, lateShare := spread.of(p).stagger(p)
	f := &flush{leadCd: mean, leadVar: sd * sd, earlyCd: early, lateCd: late, lateShare: lateShare}
	f.stepCd = (mean + 5*sd + late) / (flushSteps - 1)
	f.perCd = 1 / f.stepCd
	shape, scale := mean*mean/f.leadVar, f.leadVar/mean

	// The integral of the gamma distribution up to x is x G(x; k) - k θ G(x; k+1), which makes an even stagger exact.
	integral := func(x float64) float64 {
		if x <= 0 {
			return 0
		}
		return x*mathext.GammaIncReg(shape, x/scale) - mean*mathext.GammaIncReg(shape+1, x/scale)
	}
	over := func(x, width float64) float64 {
		if width == 0 {
			return mathext.GammaIncReg(shape, math.Max(0, x)/scale)
		}
		return (integral(x) - integral(x-width)) / width
	}
	f.share, f.plants = make([]float64, flushSteps), make([]float64, flushSteps)
	for i := range f.share {
		x := float64(i) * f.stepCd
		f.plants[i] = integral(x)
		f.share[i] = (1-lateShare)*over(x, early) + lateShare*over(x, late)
	}
	last := f.share[flushSteps-1]
	for i := range f.share {
		if f.share[i] /= last; f.share[i] < leastShare {
			f.share[i], f.beginsCd = 0, float64(i)*f.stepCd
		}
	}
	return f
}

// stagger returns over how many °Cd a plant's stems of the first flush follow each other, over how many its later side stems
// come where it does not come again, and the share that those are.
func (u unevenness) stagger(p *crop.Profile) (early, late, lateShare float64) {
	switch p.Yield.Habit {
	case crop.Single:
		return 0, 0, 0
	case crop.Again:
		return u.ofRegrowth * p.Yield.RegrowCd, 0, 0
	default:
		later := 1 - p.Yield.FirstStems/p.Yield.SeasonStems
		return u.ofBloom * p.Yield.FloweringCd, p.Yield.FloweringCd, max(0, later)
	}
}

// at returns the share of the stems that have budded after cd degree-days of a pace of 1.
func (f *flush) at(cd float64) float64 {
	place := cd * f.perCd
	switch {
	case !(place > 0):
		return 0
	case place >= flushSteps-1:
		return 1
	}
	i := int(place)
	return f.share[i] + (place-float64(i))*(f.share[i+1]-f.share[i])
}

// of returns the share of all stems that have budded after cd degree-days on those plants that carried a bud after byCd of them: theirs
// alone go on to come.
func (f *flush) of(byCd, cd float64) float64 {
	if cd <= byCd {
		return f.at(cd)
	}
	share := f.carry(byCd)
	if share == 0 {
		return 0
	}
	over := func(width float64) float64 {
		since := cd - width
		if since >= byCd {
			return share
		}
		return (f.sum(byCd) + share*(cd-byCd) - f.sum(since)) / width
	}
	return (1-f.lateShare)*over(f.earlyCd) + f.lateShare*over(f.lateCd)
}

// carry returns the share of the plants that carry a bud after cd degree-days.
func (f *flush) carry(cd float64) float64 {
	if cd <= f.beginsCd {
		return 0
	}
	return mathext.GammaIncReg(f.leadCd*f.leadCd/f.leadVar, cd*f.leadCd/f.leadVar)
}

// sum returns the integral of carry up to cd.
func (f *flush) sum(cd float64) float64 {
	place := cd * f.perCd
	switch {
	case !(place > 0):
		return 0
	case place >= flushSteps-1:
		return f.plants[flushSteps-1] + cd - (flushSteps-1)*f.stepCd
	}
	i := int(place)
	return f.plants[i] + (place-float64(i))*(f.plants[i+1]-f.plants[i])
}

// plantsCd returns the degree-days after which a share of the plants carries its first tight bud.
func (f *flush) plantsCd(share float64) float64 {
	shape := f.leadCd * f.leadCd / f.leadVar
	return mathext.GammaIncRegInv(shape, share) * f.leadVar / f.leadCd
}
