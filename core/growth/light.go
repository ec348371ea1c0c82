package growth

import "dewcount/core/climate"

// How light that gets low in autumn thins and slows what blooms. That plants set fewer flowers, and later, the less light a day brings
// below a level that summer never falls short of is well known (Pramuk & Runkle 2005, J. Amer. Soc. Hort. Sci. 130:813-818; Faust et al.
// 2005, HortScience 40:645-649); the curve, over the sun's energy above the air, is a guess of ours: half of the shoots are left in
// the first days of November at 47 degrees, and stems take up to nearly twice their warmth.
const (
	halfLitMJ   = 14
	slowestPace = 0.55
)

// lit returns the share (0 to 1) of the shoots that a plant feeds at so much sun, in MJ per m² and day.
func lit(sunMJ float64) float64 {
	cubed := halfLitMJ / max(sunMJ, 0.1)
	cubed *= cubed * cubed
	return 1 / (1 + cubed*cubed)
}

// inLight returns the pace (slowestPace to 1) of stems at so much sun, in MJ per m² and day.
func inLight(sunMJ float64) float64 { return slowestPace + (1-slowestPace)*lit(sunMJ) }

// lights are the shares that plants feed by day of the year at a latitude, from 1 January on.
type lights [366]float64

func newLights(lengths *climate.DayLengths) *lights {
	var l lights
	for i := range l {
		l[i] = lit(lengths.SunMJ(i + 1))
	}
	return &l
}
