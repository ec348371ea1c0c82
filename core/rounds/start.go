package rounds

import (
	"fmt"
	"math"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// What starting takes, in minutes of one person: guesses that a farm will know better.
const (
	sowMinutes     = 15
	sowAPlant      = 0.08
	potOnAPlant    = 0.5
	plantOutAPlant = 0.35
	thinAPlant     = 0.12
	trayMinutes    = 3 // to carry the first tray
	trayAPlant     = 0.04
)

// StartWords say how a planting is begun, by its method.
var StartWords = map[crop.Method]string{crop.Direct: "Sow", crop.Tray: "Sow in trays", crop.Tuber: "Start tubers", crop.Bulb: "Set bulbs", crop.Corm: "Set corms", crop.Cutting: "Start cuttings", crop.Division: "Set divisions"}

// starting adds what a planting needs until it stands in its bed at its final distance.
func (r *round) starting() {
	if r.Method == crop.Established {
		return
	}
	switch {
	case !r.Bought.IsZero():
		r.receive()
	case r.toStart():
		r.sow()
	}
	r.rooting()
	if r.Raising != nil && !r.IsOut {
		r.raise()
	}
	if r.Method == crop.Direct {
		r.thin()
	}
}

// toStart tells whether the planting is still to be begun.
func (r *round) toStart() bool { return !maxDay(r.Started, r.StartBy).Before(r.today) && !r.done(Sow) }

// receive: the same kinds are sold as dwarfs for bedding, which look the same until it is too late.
func (r *round) receive() {
	if r.IsOut || !r.open(Receive, r.Bought.Add(3)) {
		return
	}
	r.add(Job{Task: Receive, Earliest: r.Bought, Best: r.Bought, Latest: r.Bought.Add(3), Harm: 0.8, Minutes: trayMinutes + trayAPlant*float64(r.Plants),
		Reason: Sentence{"bought as plugs: see that the label says at least ", CM(r.Profile.HeightCM[0]), " high, look under the leaves, water, and keep them bright and out of the wind"},
		Cost:   Sentence{"dwarf forms look the same as seedlings and never make a stem; plugs that dry out stand still"}})
}

func (r *round) sow() {
	j := Job{Task: Sow, Earliest: r.Started.Add(-3), Best: r.Started, Latest: r.Started.Add(7), Harm: 0.5,
		Minutes: sowMinutes + sowAPlant*float64(r.Plants), Reason: Sentence{"planned for ", r.Started},
		Cost: Sentence{"every day later is about a day's bloom later, less in summer's warmth"}}
	if r.waitsForSoil() {
		j.Best, j.Latest = r.SoilWarm, r.SoilWarm.Add(7)
		j.Reason = append(j.Reason, ", but the soil has its ", Celsius(r.Profile.SoilMinC), " only about ", r.SoilWarm)
	}
	j.Reason = append(j.Reason, r.sowing()...)
	if r.Method == crop.Direct && r.SoilWarm.After(j.Earliest) {
		j.Earliest = r.SoilWarm
	}
	r.add(j)
}

// raise adds what a tray needs.
func (r *round) raise() {
	t := r.Raising
	if d := t.OffHeat; !d.IsZero() && r.open(OffHeat, d.Add(1)) && r.Out.After(r.today) {
		r.add(Job{Task: OffHeat, Earliest: d, Best: d, Latest: d.Add(1), Harm: 0.9, Minutes: trayMinutes + trayAPlant*float64(r.Plants),
			Reason: Sentence{"most are up by then: take the tray off the heat and into full light"}, Cost: Sentence{"warm and dark they draw up thin, for good; drawn ones are planted up to their seed leaves, come a week later, and a third of them fall over"}})
	}
	if d := t.PotOn; !d.IsZero() && r.open(PotOn, d.Add(7)) {
		r.add(Job{Task: PotOn, Earliest: d.Add(-4), Best: d, Latest: d.Add(7), Harm: 0.5, Minutes: potOnAPlant * float64(r.Plants),
			Reason: Sentence{"the roots will have filled their cells"}, Cost: Sentence{"root-bound plants stand still, and a tray that has dried out stands in water for a quarter of an hour: what is limp the next morning is lost"}})
	}
	if len(t.Harden) > 0 && r.open(Harden, t.Out.Add(-4)) {
		first := t.Harden[0].Day
		r.add(Job{Task: Harden, Earliest: first.Add(-2), Best: first, Latest: maxDay(first, t.Out.Add(-4)), Harm: 0.5, Minutes: trayMinutes + 2*trayAPlant*float64(r.Plants), // out and in again
			Reason: Sentence{fmt.Sprintf("%d days until it is planted out: out by day, in by night, a little longer each day", len(t.Harden))}, Cost: Sentence{"soft plants burn and stand still in the bed"}})
	}
	r.plantOut()
}

// plantOut prefers a dull or wet day near the one that was planned.
func (r *round) plantOut() {
	t := r.Raising
	latest := t.Latest
	if latest.IsZero() {
		latest = t.Out.Add(14)
	}
	latest = maxDay(latest, t.Out)
	if !r.open(PlantOut, latest) || !r.Counted.IsZero() || !r.Cut.IsZero() {
		return
	}
	j := Job{Task: PlantOut, Earliest: minDay(t.Earliest, t.Out), Latest: latest, Harm: 0.4, Minutes: plantOutAPlant * float64(r.Plants)}
	dull := false
	j.Best, dull = r.dullest(maxDay(t.Out.Add(-2), j.Earliest), minDay(t.Out.Add(3), latest), t.Out)
	j.Reason = Sentence{"planned for ", t.Out}
	switch {
	case dull && j.Best != t.Out:
		j.Reason = append(j.Reason, ", and duller on ", j.Best)
	case dull:
		j.Reason = append(j.Reason, ", a dull day")
	default:
		j.Reason = append(j.Reason, "; take a dull or wet day, or the evening")
	}
	if t.Stunts {
		j.Harm = 1
		j.Cost = Sentence{"kept longer than ", latest, ", " + plants(r.Plants) + " bud at a hand's height and never make a stem: throw the tray away then and sow again"}
	} else {
		j.Cost = Sentence{"kept longer they stand still for a while"}
	}
	r.add(j)
}

// A day is dull when it rains so much or when its temperature swings so little.
const (
	wetMM      = 1.5
	dullSwingC = 7
	aDayAway   = 0.8 // °C of swing that a day away from the plan is worth
)

// dullest returns the dullest of some days, the nearest to a planned one where they are alike, and whether it is dull.
func (r *round) dullest(from, to, planned day.Day) (day.Day, bool) {
	best, least, dull := planned, math.Inf(1), false
	for d := maxDay(from, r.today); !d.After(to); d = d.Add(1) {
		e := r.sky.Extremes(d)
		swing := e.TmaxC - e.TminC
		mm, known := r.sky.Rain(d)
		wet := known && mm >= wetMM
		if wet {
			swing -= 2 * wetMM
		}
		if bad := swing + aDayAway*math.Abs(float64(d.Sub(planned))); bad < least {
			best, least, dull = d, bad, wet || swing <= dullSwingC
		}
	}
	return best, dull
}

// The parts of the way from emergence to the first bud at which a direct-sown row is thinned: when true leaves show, and to its final
// distance.
const (
	firstThin  = 0.12
	secondThin = 0.28
)

func (r *round) thin() {
	up, bud := r.up(), r.Dates.FirstBud.Likely
	first, second := r.on(up, bud, firstThin), r.on(up, bud, secondThin)
	if first.IsZero() {
		return
	}
	second = maxDay(second, r.rises()) // winter takes some
	minutes := thinAPlant * float64(r.Plants)
	if r.open(Thin, first.Add(6)) && !r.done(ThinMore) && r.today.Before(second.Add(-3)) { // later once is enough
		r.add(Job{Task: Thin, Earliest: first.Add(-2), Best: first, Latest: first.Add(6), Harm: 0.3, Minutes: minutes,
			Reason: Sentence{"true leaves show"}, Cost: Sentence{"crowded seedlings draw up and fall over"}})
	}
	if r.open(ThinMore, second.Add(8)) {
		r.add(Job{Task: ThinMore, Earliest: maxDay(second.Add(-3), r.Done[Thin].Add(1)), Best: second, Latest: second.Add(8), Harm: 0.4, Minutes: minutes,
			Reason: Sentence{"to their final distance of ", CM(r.Profile.SpacingCM)}, Cost: Sentence{"thin stems, mildew, and a row that falls in the first gale"}})
	}
}

func maxDay(a, b day.Day) day.Day {
	if a.Before(b) {
		return b
	}
	return a
}

func minDay(a, b day.Day) day.Day {
	if b.Before(a) {
		return b
	}
	return a
}
