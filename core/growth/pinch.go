package growth

import "math"

// A pinching is what the pinch of a planting does to a run. Plants that carry a bud by then are spared: they flower as if nobody had
// pinched, and who pinches late pinches few.
type pinching struct {
	byCd     float64 // the way to the bud when the row is pinched, for a pace of 1; 0 before any plant can carry one
	laterCd  float64 // the way by which pinched plants would be as far
	spared   float64 // share (0 to 1) of the plants that carry a bud by then
	gain     float64 // stems of the first flush, as pinched ÷ with nothing pinched
	onceLess float64 // what cuts of the first flush are followed by, of what those of later ones are
}

// pinchedShare returns the share of the plants that were meant to be pinched.
func (c *Course) pinchedShare() float64 {
	if c.p.Pinched.IsZero() || c.p.Profile.Pinch.StemsFactor == 0 {
		return 0
	}
	return c.p.PinchedShare
}

// FirstFlush returns the stems of the first flush that the profile expects of the planting, pinched before any plant has a bud.
func (c *Course) FirstFlush() float64 {
	return c.firstFlush * (1 + c.pinchedShare()*(c.p.Profile.Pinch.StemsFactor-1))
}

// FirstFlush returns the stems of the first flush where the run's stems are the table's.
func (r *Run) FirstFlush() float64 { return r.firstFlush * r.pinching.gain }

// Spared returns the share (0 to 1) of the plants to be pinched that carried a bud by then, and flower as they are.
func (r *Run) Spared() float64 { return r.pinching.spared }

// pinch works out what the pinch does, where that is not past.
func (r *Run) pinch() {
	p := &r.pinching
	if r.pinched == nil {
		p.gain, p.onceLess = 1, 1
		return
	}
	at := r.p.Pinched.At(12)
	if p.gain > 0 && at <= r.at {
		return
	}
	*p = pinching{}
	if at > r.growsFrom {
		plain, later := r.plain.of(r.traits.Spread), r.pinched.of(r.traits.Spread)
		p.byCd = (r.clock.light.At(at) - r.sinceCd) / r.traits.Pace
		if p.spared = plain.carry(p.byCd); p.spared > 0 {
			p.laterCd = later.leadCd + (p.byCd-plain.leadCd)*math.Sqrt(later.leadVar/plain.leadVar)
		}
	}
	p.gain = r.flush(math.Inf(1))
	p.onceLess = math.Pow(p.gain, -laterFlush)
}

// flush returns the stems of the first flush that have budded on a way, beside all those of a row with nothing pinched.
func (r *Run) flush(way float64) float64 {
	plain := r.plain.of(r.traits.Spread)
	if r.pinched == nil {
		return plain.at(way)
	}
	share, later := r.pinchedShare(), r.pinched.of(r.traits.Spread)
	unpinched, pinched := (1-share)*plain.at(way), later.at(way)
	if r.pinching.spared > 0 {
		unpinched += share * plain.of(r.pinching.byCd, way)
		pinched -= later.of(r.pinching.laterCd, way)
	}
	return unpinched + share*r.p.Profile.Pinch.StemsFactor*pinched
}
