// Package promise says which cut stems can serve whom, and shares them out to all who want some, so that no stem is promised twice.
package promise

import (
	"math"

	"dewcount/core/crop"
	"dewcount/core/postharvest"
)

// A Rule is where a farm holds its stems. The zero Rule has a cool place and open shade.
type Rule struct {
	Places []float64 // °C of the farm's own places; nil until it has any
}

// Where stems are held until the farm says more: a cool place, set as coolC within what is usual for one, and open shade.
const (
	coolC     = 4.5
	warmestC  = 6.0 // that such a place can be set to for a crop that bears no more cold
	shadeC    = 18.0
	overnight = 1.0 // day that stems rest before they go out; it is no holding
)

// leastLeft is how many days of vase life at 20 °C somebody is promised: a week at a stranger's home, less for a florist, who sells on, and for one day.
var leastLeft = map[crop.Use]float64{crop.Market: 7, crop.Florist: 3, crop.Event: 1, crop.Drying: 0}

// Celsius returns how warm a crop is held: in the coolest place that does it no harm, in open shade where there is none.
func (r Rule) Celsius(p *crop.Profile) float64 {
	limit := p.Store.ChillBelowC
	if r.Places == nil {
		if limit > warmestC {
			return shadeC
		}
		return max(coolC, limit)
	}
	if c, ok := postharvest.Coolest(p, r.Places...); ok && c >= limit {
		return c
	}
	return shadeC
}

// A Right is on which rungs stems are right for a use: those on which they are cut for it, or one alone, such as tight buds that were asked for.
type Right struct {
	Use    crop.Use
	Window crop.Window
	Alone  bool // nothing further open will do
}

// A Stem is one that is cut: on which rung, how many days ago, and what it has been through since.
type Stem struct {
	Cut     crop.Rung
	Days    float64
	History postharvest.History
}

// Serves tells whether a stem of a crop, held for so many days more, is right for a use: it is rested, it was held no longer than the crop bears, it was cut
// no further open than for that use, its rung on the day lies between the first of a window and the further of its last and the last to which the crop opens in water, at most open, and it has the days
// left that the use is promised, or the least of the crop's where that is less. It may have opened as little as in the coolest place or as far as in
// open shade: a grower brings stems out in time. A green bud that shows no colour never opens in water.
func (r Rule) Serves(p *crop.Profile, right Right, s Stem, days float64) bool {
	if s.Cut > right.Window.To {
		return false
	}
	held := s.Days + days
	if held > max(overnight, p.Store.MaxDays)+1e-9 {
		return false
	}
	after := func(celsius float64) postharvest.Stem {
		history := append(append(postharvest.History{}, s.History...), postharvest.Stay{Days: days, Celsius: celsius})
		return postharvest.After(p, s.Cut, history)
	}
	cool, shade := after(r.Celsius(p)), after(shadeC)
	last := right.Window.To
	if p.InWater.Opens != "no" && !right.Alone {
		last = max(last, min(p.InWater.To, crop.Open))
	}
	opens := shade.Rung > s.Cut && s.Cut >= crop.Colour
	furthest := s.Cut
	if opens {
		furthest = shade.Rung
	}
	if furthest < right.Window.From || cool.Rung > last {
		return false
	}
	need := math.Min(leastLeft[right.Use], p.Vase.Days[0])
	return cool.Left[1] >= need-1e-9
}
