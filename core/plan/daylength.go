package plan

import (
	"math"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
)

// A Programme is how a crop that is steered by day length is flowered for a date: lamps keep it growing until its short days begin, and
// from then on blackout makes it bud.
type Programme struct {
	Planted   day.Day
	ShortFrom day.Day
	PinchBy   day.Day // zero where it is not pinched
	ColourOn  day.Day // from which blackout does nothing more
	LongH     float64 // hours of light that keep it from budding
	ShortH    float64 // hours of light on which it buds fastest
	Days      []SteeredDay
}

// A SteeredDay is one day of a programme: the natural hours of light with civil twilight, those that lamps add and those that blackout
// takes away.
type SteeredDay struct {
	day.Day
	NaturalH, LampsH, BlackoutH float64
}

// LongDays is how many long days a steered crop is given in its bed before the short ones, as the crop table's notes have it.
const LongDays = 18

// The hours of light that a steered crop is given. Below and above the ramp of the crop table more or less light changes nothing.
const (
	usualShortH  = 12.0 // as the crop table's notes have it
	pinchRests   = 10   // days from a pinch to the short days, so that side shoots have begun
	steeredHours = 0.5  // lamps and blackout are set by half hours
)

// ProgrammeOf returns the programme of a steered crop that is planted on a day at a latitude in degrees north, whose short days begin on
// another and whose buds show colour on a third.
func ProgrammeOf(p *crop.Profile, latitude float64, planted, shortFrom, colour day.Day, pinched bool) Programme {
	g := Programme{Planted: planted, ShortFrom: shortFrom, ColourOn: colour,
		LongH:  halfUp(p.Daylength.CriticalH + p.Daylength.WidthH/2),
		ShortH: min(usualShortH, halfDown(p.Daylength.CriticalH-p.Daylength.WidthH/2))}
	if pinched {
		g.PinchBy = shortFrom.Add(-pinchRests)
		if g.PinchBy.Before(planted) {
			g.PinchBy = planted
		}
	}
	for d := planted; d.Before(colour); d = d.Add(1) {
		s := SteeredDay{Day: d, NaturalH: climate.Photoperiod(latitude, d.YearDay())}
		if d.Before(shortFrom) {
			s.LampsH = halfUp(max(0, g.LongH-s.NaturalH))
		} else {
			s.BlackoutH = halfUp(max(0, s.NaturalH-g.ShortH))
		}
		g.Days = append(g.Days, s)
	}
	return g
}

func halfUp(h float64) float64   { return math.Ceil(h/steeredHours-roundUp) * steeredHours }
func halfDown(h float64) float64 { return math.Floor(h/steeredHours+roundUp) * steeredHours }
