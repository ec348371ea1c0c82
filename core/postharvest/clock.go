// Package postharvest is the clocks of a stem once it is cut: how far it opens in water and how long it still lasts, by the temperatures
// that it has been through.
//
// A cut stem lives on what it carries and breathes it away; between the freezing point and the warmth of a room its respiration, and with
// it the pace at which it ages, grows by a factor q10 for every ten degrees, and what vase life is left falls in step with what was breathed
// (Celikel & Reid 2002, HortScience 37:148-150; van't Hoff's rule, as in Kader 2002, Postharvest Technology of Horticultural Crops, ch. 4). So a
// day at any temperature is worth so many days at 20 °C, and a history of them is summed.
package postharvest

import (
	"math"

	"dewcount/core/crop"
)

// A Stay is some time at one temperature.
type Stay struct{ Days, Celsius float64 }

// A History is what a stem has been through since it was cut, in order.
type History []Stay

// Days returns how long a history is.
func (h History) Days() float64 {
	sum := 0.0
	for _, s := range h {
		sum += s.Days
	}
	return sum
}

// roomC is the temperature in °C at which vase lives are told.
const roomC = 20

// pace returns how many days at 20 °C a day at so many °C is worth, where cold does no harm.
func pace(p *crop.Profile, celsius float64) float64 { return math.Pow(p.Vase.Q10, (celsius-roomC)/10) }

// chillCost is what every degree below the limit of a crop that cold hurts costs in a day, in days at 20 °C. A guess of ours: two degrees
// too cold are as dear as a day in a warm room, and worse than any place that is too warm for a fridge.
const chillCost = 0.3

// Ages returns how many days of a crop's vase life at 20 °C a day at so many °C costs. Where cold hurts, a day below the limit costs what
// the limit would and more for every degree.
func Ages(p *crop.Profile, celsius float64) float64 {
	limit := p.Store.ChillBelowC
	if celsius >= limit {
		return pace(p, celsius)
	}
	return pace(p, limit) + chillCost*(limit-celsius)
}

// someOpens is how far a crop that opens a little comes while one that opens goes a rung.
const someOpens = 0.5

// opens returns by how many rungs of a ladder a crop opens in a day at so many °C, as long as it may.
func opens(p *crop.Profile, celsius float64) float64 {
	switch p.InWater.Opens {
	case "yes":
		return pace(p, celsius) / p.InWater.DaysPerRung
	case "some":
		return someOpens * pace(p, celsius) / p.InWater.DaysPerRung
	default:
		return 0
	}
}

// A Stem is a cut stem after some time.
type Stem struct {
	Rung crop.Rung // on which it stands in water
	// Left is how many days at 20 °C it still lasts: nine times in ten more than the first, the middle, one time in ten more than the
	// last. None is below 0.
	Left   [3]float64
	Opened float64 // by how many rungs it came on in water, with the part of the one that it is on
	Hurt   float64 // days that it stood colder than it bears
}

// Fresh returns the furthest rung of a crop on which a stem that is cut has all its vase life before it: the end of its furthest window for
// the market, events or florists, those of its schools among them.
func Fresh(p *crop.Profile) crop.Rung {
	furthest := crop.Tight
	for u, w := range p.Cut {
		if u != crop.Drying {
			furthest = max(furthest, w.To)
		}
	}
	for _, s := range p.Schools {
		furthest = max(furthest, s.Window.To)
	}
	return min(furthest, crop.Open)
}

// After returns what a stem of a crop that was cut on a rung is after a history.
//
// A stem cut further open than any window has spent some of its life on the plant: the warmth of the rungs between, in days at 20 °C. One that
// is going over has none left.
func After(p *crop.Profile, cut crop.Rung, h History) Stem {
	s := Stem{Rung: cut}
	spent := 0.0
	for k := Fresh(p); k < cut; k++ {
		spent += p.RungsCd[k] / p.Response.Rate(roomC)
	}
	room := max(0, float64(p.InWater.To)-float64(cut)) // rungs that it may still open
	for _, stay := range h {
		spent += stay.Days * Ages(p, stay.Celsius)
		s.Opened = min(room, s.Opened+stay.Days*opens(p, stay.Celsius))
		if stay.Celsius < p.Store.ChillBelowC {
			s.Hurt += stay.Days
		}
	}
	const hair = 1e-9
	s.Rung += crop.Rung(s.Opened + hair)
	if cut < crop.Over {
		low, high := p.Vase.Days[0], p.Vase.Days[1]
		for i, whole := range [3]float64{low, (low + high) / 2, high} {
			s.Left[i] = max(0, whole-spent)
		}
	}
	return s
}

// Coolest returns the coolest of some temperatures in °C that does a crop no harm, and the warmest of them where each does; false if
// there are none.
func Coolest(p *crop.Profile, celsius ...float64) (float64, bool) {
	best, warmest, found := math.Inf(1), math.Inf(-1), false
	for _, c := range celsius {
		warmest = max(warmest, c)
		if c >= p.Store.ChillBelowC {
			best, found = min(best, c), true
		}
	}
	if !found {
		return warmest, len(celsius) > 0
	}
	return best, true
}

// Until returns after how many days at one temperature in °C a crop cut on a rung stands on a further one in water, and whether it ever does.
func Until(p *crop.Profile, cut, wanted crop.Rung, celsius float64) (float64, bool) {
	if wanted <= cut {
		return 0, true
	}
	each := opens(p, celsius)
	if each == 0 || wanted > p.InWater.To {
		return 0, false
	}
	return float64(wanted-cut) / each, true
}
