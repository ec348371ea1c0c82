package growth

import (
	"math"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// A Run is a planting under one set of traits and one weather, at one instant. It is moved forward only.
type Run struct {
	*Course
	traits            Traits
	clock             felt
	emerged           float64 // instant; +Inf if not within the clock
	sinceCd           float64 // what light stood at when the way to the bud began, less what the bench gave
	growsFrom         float64 // instant from which buds can form
	budsFrom          float64 // instant before which none does under this weather
	pinching          pinching
	budded            float64 // stems of the first flush, beside those of an unpinched row
	atFirst, atLast   float64 // by which factors more shoots than usual follow at the bloom's beginning and at its end
	colourCd          float64 // the warmth at which the average plant showed colour; +Inf before
	at, nowCd         float64
	gone              float64 // stems that Cut has taken
	answered          float64 // stems that Regrow was told of
	firstCut, lastCut float64 // instants; 0 before
	heldCd            float64 // warmth for which stems in the window are left to firm up
	forgetCd          float64 // shoots that bud beyond this warmth are not grown; +Inf for all
	cohort            cohort
}

// NewRun returns the planting on the morning it is started, under a weather.
func (c *Course) NewRun(weather Clock, traits Traits) *Run {
	clock := weather.as(traits.Answer)
	r := &Run{Course: c, traits: traits, atFirst: math.Exp(-traits.Fade / 2), atLast: math.Exp(traits.Fade / 2), at: c.p.Begins().At(0), colourCd: math.Inf(1), forgetCd: math.Inf(1)}
	r.cohort = newCohort(c.p.Profile, clock.bloom.At(max(c.p.Out().At(0), c.p.Begins().At(0))), c.boxCd, traits)
	r.follow(clock)
	return r
}

// CopyTo makes to the same run under another weather that shares r's past; to keeps nothing of its own but memory.
func (r *Run) CopyTo(to *Run, weather Clock) {
	boxes := to.cohort
	*to = *r
	to.cohort = boxes
	to.cohort.copyFrom(&r.cohort, r.nowCd)
	to.follow(weather.as(r.traits.Answer))
}

func (r *Run) follow(clock felt) {
	r.clock = clock
	r.nowCd = clock.bloom.At(r.at)
	defer r.pinch()
	if r.budsFrom > 0 && r.budsFrom <= r.at {
		return // it began in the past that both weathers share
	}
	var ok bool
	if r.emerged, ok = r.emergence(clock, r.traits.Pace); !ok {
		r.emerged, r.growsFrom, r.budsFrom = math.Inf(1), math.Inf(1), math.Inf(1)
		return
	}
	out := r.p.Out().At(12)
	held, ok := r.held(clock)
	if !ok {
		r.growsFrom, r.budsFrom = math.Inf(1), math.Inf(1)
		return
	}
	r.growsFrom = max(out, r.emerged, held)
	r.sinceCd = clock.light.At(r.growsFrom)
	if r.emerged < out && held < r.emerged {
		r.sinceCd -= r.benchCd(r.emerged)
	}
	r.budsFrom = r.growsFrom
	if at, ok := clock.light.When(r.sinceCd + r.plain.of(r.traits.Spread).beginsCd*r.traits.Pace); ok {
		r.budsFrom = max(r.budsFrom, at)
	} else {
		r.budsFrom = math.Inf(1)
	}
}

// Emerged returns when most plants are up, and whether that comes within the weather's days.
func (r *Run) Emerged() (float64, bool) { return r.emerged, !math.IsInf(r.emerged, 1) }

// FirstBud returns when a tenth of the plants carries a tight bud, and whether that comes within the weather's days.
func (r *Run) FirstBud() (float64, bool) {
	if math.IsInf(r.growsFrom, 1) {
		return 0, false
	}
	way := r.firstBudCd
	if r.plainBudCd <= r.pinching.byCd {
		way = r.plainBudCd
	}
	at, ok := r.clock.light.When(r.sinceCd + way*r.traits.Pace)
	return max(at, r.growsFrom), ok
}

// budStepDays is how long a run may go without a look at what has budded: between two looks buds come evenly over the warmth. From one
// pick to the next of a week's two there is one look.
const budStepDays = 4

// To moves the run to an instant, forming the buds that come until then.
func (r *Run) To(instant float64) {
	if r.at < r.budsFrom {
		r.at = min(instant, max(r.at, r.growsFrom, math.Floor(r.budsFrom)))
		r.nowCd = r.clock.bloom.At(r.at)
	}
	for r.at < instant && r.growing() {
		step := min(instant, r.at+budStepDays)
		if step <= r.growsFrom {
			step = min(instant, r.growsFrom)
		}
		r.bud(step)
	}
	if r.at < instant {
		r.at, r.nowCd = instant, r.clock.bloom.At(instant)
	}
}

// growing tells whether buds of the first flush are still to come under this weather.
func (r *Run) growing() bool {
	return r.budded < r.pinching.gain && !math.IsInf(r.growsFrom, 1)
}

func (r *Run) bud(until float64) {
	cd := r.clock.bloom.At(until)
	if until >= r.growsFrom {
		light := r.clock.light.At(until)
		way := (light - r.sinceCd) / r.traits.Pace
		from := r.nowCd
		if r.at < r.growsFrom {
			from = cd // what budded on the bench stands there on the first day in the bed
		}
		if all := r.flush(way); all > r.budded {
			r.cohort.bud(from, cd, (all-r.budded)*r.firstFlush*r.traits.Stems)
			r.budded = all
		}
		if math.IsInf(r.colourCd, 1) {
			if lead := r.leadCd(); way >= lead {
				r.colourCd = cd + r.cohort.reached(1, crop.Colour)
				if before := (r.clock.light.At(r.at) - r.sinceCd) / r.traits.Pace; before < lead { // part of the way since the last look
					r.colourCd -= (cd - from) * (way - lead) / (way - before)
				}
			}
		}
	}
	r.at, r.nowCd = until, cd
}

// leadCd returns the way of the average plant to its first bud.
func (r *Run) leadCd() float64 {
	return r.plain.of(r.traits.Spread).leadCd + r.pinchedShare()*(1-r.pinching.spared)*r.p.Profile.Pinch.DelayCd
}

// Standing returns the stems on the rungs of a window where the run stands.
func (r *Run) Standing(w crop.Window) float64 { return r.cohort.on(w, r.nowCd) }

// Ready returns the stems on the rungs of a window where the run stands that a picker would cut: those with firm necks, and with an
// instant ahead (0 for none) those too that would be past the window by then.
func (r *Run) Ready(w crop.Window, ahead float64) float64 {
	return r.cohort.ready(w, r.nowCd, r.reach(ahead))
}

func (r *Run) reach(ahead float64) reach {
	by := reach{heldCd: r.heldCd}
	if ahead > r.at {
		by.aheadCd = r.clock.bloom.At(ahead)
	}
	return by
}

// Hold leaves stems that have come into the window of the market to firm up for so much warmth, up to firmCd, that a share of those
// that stand in it now (0 to 1) is not cut: the share that failed the test of the neck.
func (r *Run) Hold(share float64) {
	standing := r.cohort.on(r.p.Market, r.nowCd)
	r.heldCd = 0
	const step = 2
	for r.heldCd < firmCd && r.cohort.ready(r.p.Market, r.nowCd, reach{heldCd: r.heldCd}) > (1-share)*standing {
		r.heldCd += step
	}
}

// firmCd is how long necks take to firm up after a flower looks ready, in °Cd: about two days of summer. The table gives no number
// for it.
const firmCd = 30

// Rungs returns the stems on each rung where the run stands.
func (r *Run) Rungs() [crop.Rungs]float64 {
	var stems [crop.Rungs]float64
	for k := range stems {
		stems[k] = r.Standing(crop.Window{From: crop.Rung(k), To: crop.Rung(k)})
	}
	return stems
}

// ToCome returns the stems of the first flush that have not budded yet and those that cuts have set off.
func (r *Run) ToCome() float64 {
	return r.Left() - r.Standing(crop.Window{From: crop.Tight, To: crop.Spent})
}

// Left returns the stems that are still to bud, stand on the ladder or have gone over.
func (r *Run) Left() float64 {
	return (r.pinching.gain-r.budded)*r.firstFlush*r.traits.Stems + r.cohort.total()
}

// Cut takes a share of the stems on the rungs of a window where the run stands, lets the plants answer, and returns how many
// were taken.
func (r *Run) Cut(w crop.Window, share float64) float64 {
	taken := r.Take(w, share, 0)
	r.gone += taken
	if r.firstCut == 0 && r.gone >= firstCutShare*r.FirstFlush()*r.traits.Stems && r.gone > 0 {
		r.firstCut = r.at
	}
	if taken >= 1 {
		r.lastCut = r.at
	}
	r.Regrow(taken)
	return taken
}

// firstCutShare is the part of the first flush that must have been cut for the first cut to count.
const firstCutShare = 1. / 20

// FirstCut returns the instant of the Cut by which a twentieth of the first flush had been taken, 0 if none was.
func (r *Run) FirstCut() float64 { return r.firstCut }

// LastCut returns the instant of the last Cut that took a stem or more, 0 if none did.
func (r *Run) LastCut() float64 { return r.lastCut }

// Stems returns the run's multiplier of the stems of the first flush.
func (r *Run) Stems() float64 { return r.traits.Stems }

// Grown tells whether the whole first flush has budded.
func (r *Run) Grown() bool { return !r.growing() && !math.IsInf(r.growsFrom, 1) }

// Take is Cut without the plants' answer, for where it is known better how many stems were taken; with an instant ahead (0 for none)
// it takes those too that would be past the window by then.
func (r *Run) Take(w crop.Window, share, ahead float64) float64 {
	return r.cohort.cut(w, r.nowCd, share, r.reach(ahead))
}

// Regrow lets the plants answer to so many stems cut where the run stands: a crop that comes again sets new shoots, fewer as
// its vigour falls, as the light does, and where what is cut is the first flush of a pinched row.
func (r *Run) Regrow(stems float64) {
	spent := r.Spent()
	r.RegrowPart(stems, (1-spent)*r.atFirst+spent*r.atLast)
}

// Spent returns the part of the average plant's bloom that is over where the run stands, 0 to 1.
func (r *Run) Spent() float64 {
	spent := (r.nowCd - r.colourCd) * r.perBloomCd
	switch {
	case !(spent > 0):
		return 0
	case spent > 1:
		return 1
	}
	return spent
}

// RegrowPart is Regrow for a part of the shoots that the table lets follow there, whatever the traits say of how that fades.
func (r *Run) RegrowPart(stems, part float64) {
	if r.regrowth == 0 || stems <= 0 {
		return
	}
	full := stems
	if r.pinching.onceLess < 1 {
		full -= (1 - r.pinching.onceLess) * min(stems, max(0, r.FirstFlush()-r.answered))
	}
	r.answered += stems
	shoots := full * part * r.regrowth * r.traits.Regrow * r.vigour.at(r.nowCd-r.colourCd) *
		r.lit[day.On(r.at).YearDay()-1]
	mean := r.regrowCd * r.traits.Pace
	half := math.Sqrt(3) * regrowCV * mean // an even spread with that coefficient of variation
	if r.nowCd+mean-half > r.forgetCd {
		return
	}
	r.cohort.bud(r.nowCd+mean-half, r.nowCd+mean+half, shoots)
}

// Forget spares the run the shoots that reach a rung only after an instant: nobody will look at them.
func (r *Run) Forget(after float64, rung crop.Rung) {
	const fastest = 0
	r.forgetCd = r.clock.bloom.At(after) - r.cohort.reached(fastest, rung)
}

// Correct makes the stems on each rung where the run stands as many as given.
func (r *Run) Correct(to [crop.Rungs]float64) { r.cohort.correct(to, r.nowCd) }

// Drift changes the pace from where the run stands on by a factor (above 0), and leaves every stem and bud where it is.
func (r *Run) Drift(factor float64) {
	if !math.IsInf(r.growsFrom, 1) && r.at > r.growsFrom {
		light := r.clock.light.At(r.at)
		r.sinceCd = light - (light-r.sinceCd)*factor
	}
	r.traits.Pace *= factor
	r.cohort.stretch(factor, r.nowCd)
	r.budsFrom = min(r.budsFrom, max(r.growsFrom, r.at))
	r.pinch()
}
