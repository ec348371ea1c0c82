package growth

import (
	"math"

	"dewcount/core/crop"

	"gonum.org/v1/gonum/mathext"
)

// A flush is how the tight buds of a planting's first flush come over the light-weighted warmth since emergence: the share of
// stems that have budded, for a pace of 1. It is worked out once a profile and kept in steps.
type flush struct {
	stepCd, perCd float64 // width of a step, and 1 ÷ that
	share         []float64
	leadCd        float64 // mean of the plants' first bud
	leadVar       float64
	beginsCd      float64 // before it no stem buds
	parts         []part
}

// A part of a flush is stems that follow their plant's first bud followCd after it on average, the longer after it the fewer: the
// waiting times are exponential, since strong plants go on for longer than weak ones and the last stems straggle.
type part struct {
	of, followCd float64   // of: its share of the stems
	behind       []float64 // share of it that is still to come on the plants that carry a bud, in the flush's steps
}

// leastShare of a flush is as good as none.
const leastShare = 1e-9

// flushSteps is the fineness of a flush; a hundredth of the phase is well under a day.
const flushSteps = 240

// newFlush returns the flush of a profile whose buds are held back by delayCd. Plants differ by the profile's spread of the
// time to the first bud.
func newFlush(p *crop.Profile, delayCd float64, spread Spread) *flush {
	mean := p.BudCd + delayCd
	sd := p.SpreadCV * (p.EmergeCd + mean)
	f := &flush{leadCd: mean, leadVar: sd * sd, parts: spread.of(p).stagger(p)}
	longest := 0.0
	for _, part := range f.parts {
		longest = max(longest, part.followCd)
	}
	const tail = 5 // times the average wait: less than a hundredth of the stems waits longer
	f.stepCd = (mean + 5*sd + tail*longest) / (flushSteps - 1)
	f.perCd = 1 / f.stepCd
	f.share = make([]float64, flushSteps)
	for k := range f.parts {
		f.parts[k].fill(f)
	}
	last := f.share[flushSteps-1]
	for i := range f.share {
		if f.share[i] /= last; f.share[i] < leastShare {
			f.share[i], f.beginsCd = 0, float64(i)*f.stepCd
		}
	}
	return f
}

// fill adds the part's stems to those of its flush. Plants that come to bud within a step do so evenly.
func (p *part) fill(f *flush) {
	p.behind = make([]float64, flushSteps)
	var left, ofNew float64 // what of those behind still is a step later, and of those whose plants came to bud meanwhile
	if p.followCd > 0 {
		left = math.Exp(-f.stepCd / p.followCd)
		ofNew = (1 - left) * p.followCd / f.stepCd
	}
	before := 0.0
	for i := range p.behind {
		carry := f.carry(float64(i) * f.stepCd)
		if i > 0 {
			p.behind[i] = left*p.behind[i-1] + ofNew*(carry-before)
		}
		f.share[i] += p.of * (carry - p.behind[i])
		before = carry
	}
}

// lateOfBloom is the average wait of later side stems as a part of the bloom: all but one in twenty of them come within it.
const lateOfBloom = 1. / 3

// stagger returns how a plant's stems of the first flush follow each other, and its later side stems where it does not come again.
func (u unevenness) stagger(p *crop.Profile) []part {
	switch p.Yield.Habit {
	case crop.Single:
		return []part{{of: 1}}
	case crop.Again:
		return []part{{of: 1, followCd: u.ofRegrowth * p.Yield.RegrowCd}}
	default:
		late := max(0, 1-p.Yield.FirstStems/p.Yield.SeasonStems)
		return []part{{of: 1 - late, followCd: u.ofBloom * p.Yield.FloweringCd}, {of: late, followCd: lateOfBloom * p.Yield.FloweringCd}}
	}
}

// at returns the share of the stems that have budded after cd degree-days of a pace of 1.
func (f *flush) at(cd float64) float64 {
	if cd*f.perCd >= flushSteps-1 {
		return 1
	}
	return f.step(f.share, cd)
}

// step returns what a table has after cd degree-days.
func (f *flush) step(table []float64, cd float64) float64 {
	place := cd * f.perCd
	switch {
	case !(place > 0):
		return 0
	case place >= flushSteps-1:
		return table[flushSteps-1]
	}
	i := int(place)
	return table[i] + (place-float64(i))*(table[i+1]-table[i])
}

// of returns the share of all stems that have budded after cd degree-days on those plants that carried a bud after byCd of them: theirs
// alone go on to come.
func (f *flush) of(byCd, cd float64) float64 {
	if cd <= byCd {
		return f.at(cd)
	}
	share := f.carry(byCd)
	for i := range f.parts {
		if part := &f.parts[i]; part.followCd > 0 {
			share -= part.of * f.step(part.behind, byCd) * math.Exp((byCd-cd)/part.followCd)
		}
	}
	return share
}

// carry returns the share of the plants that carry a bud after cd degree-days.
func (f *flush) carry(cd float64) float64 {
	if !(cd > f.beginsCd) {
		return 0
	}
	return mathext.GammaIncReg(f.leadCd*f.leadCd/f.leadVar, cd*f.leadCd/f.leadVar)
}

// plantsCd returns the degree-days after which a share of the plants carries its first tight bud.
func (f *flush) plantsCd(share float64) float64 {
	shape := f.leadCd * f.leadCd / f.leadVar
	return mathext.GammaIncRegInv(shape, share) * f.leadVar / f.leadCd
}
