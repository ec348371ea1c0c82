package rounds

import (
	"math"
	"strings"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
)

// Thirst returns the water in mm that a well-watered lawn would lose on a day at a latitude in degrees north: the reference
// evapotranspiration of Hargreaves & Samani (1985), Applied Engineering in Agriculture 1:96-99, as Allen et al. (1998), FAO Irrigation and
// Drainage Paper 56, eq. 52 gives it, from the day's extremes alone.
func Thirst(e climate.Extremes, latitude float64, yearDay int) float64 {
	const mmPerMJ = 0.408
	mean := (e.TminC + e.TmaxC) / 2
	return max(0, 0.0023*(mean+17.8)*math.Sqrt(max(0, e.TmaxC-e.TminC))*mmPerMJ*climate.Sunlight(latitude, yearDay))
}

// What beds bear before they are watered, in mm lost, and how much of a lawn's thirst they have. Round numbers of ours: a seed bed must
// stay moist on top, fresh roots reach a few centimetres, established ones a spade's depth.
const (
	seedBedMM   = 2
	freshMM     = 6
	potMM       = 6
	deepMM      = 18
	heavyMM     = 28  // in heavy soil
	youngCover  = 0.5 // of a lawn's thirst
	freshDays   = 18  // for which transplants are watered by hand: two to three weeks
	growingDays = 10  // after half are up, for which the others still come and a seed bed stays moist on top
	tubersDryTo = 14  // days after the shoots show, until they have two or three pairs of leaves
	soaking     = 3   // mm of rain from which a seed bed is moist through
)

// Sunflowers drink in the weeks before bloom; watered in bloom they fall over.
const sunflowerDays = 26

func (r *round) isSunflower() bool {
	return strings.HasPrefix(r.Profile.Botanical, "Helianthus ")
}

// A drink is how a planting is watered at its stage.
type drink struct {
	bears  float64 // mm
	cover  float64
	byHand bool
	why    string
}

// stage returns how a planting wants to be watered on a day, and whether it does.
func (r *round) stage(d day.Day) (drink, bool) {
	up, bed := r.up(), r.inBed()
	ends := r.Dates.LastCut.Likely
	switch {
	case d.Before(r.Started) || !ends.IsZero() && d.After(ends) || r.Finished:
		return drink{}, false
	case r.Method == crop.Direct && (up.IsZero() || d.Before(up)):
		return drink{seedBedMM, youngCover, true, "seed must lie moist until it is up"}, true
	case r.Method == crop.Direct && d.Sub(up) < growingDays:
		return drink{seedBedMM, youngCover, true, "seedlings root a finger deep, and the late ones still come up"}, true
	case r.Method == crop.Direct && d.Sub(up) < growingDays+freshDays:
		return drink{freshMM, youngCover, false, "seedlings reach a hand's depth"}, true
	case r.Raising != nil && d.Before(r.Out):
		return drink{}, false // in its tray, which is watered daily on its bench
	case r.Method == crop.Tuber && (up.IsZero() || d.Before(up.Add(tubersDryTo))):
		return drink{}, false // it rots in wet soil
	case r.Method != crop.Direct && r.Out.After(r.Started) && !d.Before(r.Out) && d.Sub(r.Out) < freshDays:
		return drink{freshMM, youngCover, true, "fresh transplants reach a hand's depth"}, true
	case r.isSunflower():
		bloom := r.Dates.FirstCut.Likely
		if bloom.IsZero() || d.Before(bloom.Add(-sunflowerDays)) || !d.Before(bloom) {
			return drink{}, false
		}
		return drink{deepMM, 1, false, "in the weeks before bloom, and hardly in bloom"}, true
	case bed.IsZero() || d.Before(bed):
		return drink{}, false
	case r.Pot:
		return drink{potMM, 1, true, "a pot holds little"}, true
	case r.Heavy:
		return drink{heavyMM, 1, false, "deep and seldom: this soil holds water"}, true
	default:
		return drink{deepMM, 1, false, "deep and seldom"}, true
	}
}

// What watering takes, in minutes.
const (
	waterMinutes = 2 // a tap is opened and shut
	handMinutes  = 4
	handAPlant   = 0.05
)

// lookBack is for how many days thirst is added up, lookAhead for how many it is foreseen.
const (
	lookBack  = 14
	lookAhead = 10
)

// watering finds the day on which the planting will have lost what its bed bears, by the heat and rain of the days on record and foreseen.
func (r *round) watering() {
	if r.toStart() && (r.Ticked || !r.Started.Before(r.today)) {
		return // nothing lies in the bed yet; where nobody writes down what is done it may
	}
	lost, wet := 0.0, day.Day{}
	assumed := r.Done[Water].IsZero() // nobody writes waterings down here: it is taken that each was done
	for d := r.today.Add(-lookBack); d.Sub(r.today) < lookAhead; d = d.Add(1) {
		drink, wants := r.stage(d)
		if !wants {
			lost = 0
			continue
		}
		rain := 0.0
		if mm, known := r.sky.Rain(d); known && !r.Under {
			rain = mm
		}
		if rain >= soaking {
			wet = d
		}
		lost = max(0, lost+drink.cover*Thirst(r.sky.Extremes(d), r.sky.Latitude(), d.YearDay())-rain)
		if d == r.Done[Water] || lost >= drink.bears && d.Before(r.today) && assumed { // in the evening, after the day's thirst
			lost, wet = 0, d
		}
		if lost < drink.bears || d.Before(r.today) {
			continue
		}
		j := Job{Task: Water, After: r.Done[Water], Earliest: d.Add(-1), Best: d, Latest: d.Add(2), Harm: 0.5, Minutes: waterMinutes,
			Reason: Sentence{"about ", MM(min(lost, 99)), " lost"}, Cost: Sentence{"stems stay short, and buds drop"}}
		if !wet.IsZero() {
			j.Reason = append(j.Reason, " since ", wet)
		}
		j.Reason = append(j.Reason, ": "+drink.why)
		if drink.byHand {
			j.Latest, j.Minutes, j.Harm = d, handMinutes+handAPlant*float64(r.Plants), 0.8
			j.ByHand, j.Reason = true, append(j.Reason, "; by hand, not with the drip line")
			j.Cost = Sentence{"seed that dries out after it has swollen is dead, and fresh roots with it"}
		}
		r.add(j)
		return
	}
}
