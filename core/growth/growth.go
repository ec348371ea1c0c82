// Package growth moves a planting through its life, from the start over shoots and tight buds up the bud ladder, with
// pinching, cutting and what grows again.
//
// A planting is a cohort of stems in a train of boxes (Goudriaan & van Roermund 1993). The boxes here lie still: each holds the
// stems whose tight bud formed within the same few degree-days, and it is the present that moves past them. How far a box
// has come up the ladder is then the warmth since, with no step from day to day and nothing lost on the way. How the stems
// are spread over the boxes is a distributed delay (Manetsch 1976): the gamma distribution that a chain of boxes of the same
// spread would leave.
//
// Instants are days as day.Day.At gives them, thermal times °Cd, shares 0 to 1, stems may be parts of a stem: they are
// expectations.
package growth

import (
	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
)

// A Planting is one variety started in one place, as far as its growth is concerned.
type Planting struct {
	Profile      *crop.Profile
	Market       crop.Window // what is cut on pick days
	Method       crop.Method
	Plants       int // live plants that will bear
	Started      day.Day
	PlantedOut   day.Day // zero: in its bed from the start, or for a tray at the age that the profile thinks best
	Pinched      day.Day // zero: not pinched
	PinchedShare float64 // of the plants, 0 to 1
	KeepBuds     bool    // cut high, which keeps side buds, rather than long
	Disbudded    bool    // its side buds are wiped off all season
	Emerged      day.Day // zero: not seen; otherwise most plants were up
	InBud        day.Day // zero: none seen; otherwise the first day on which a bud or a stem was
	ShortDays    day.Day // of a steered crop: on which its short days begin; zero: steeredDays after it stands in its bed
	Rested       day.Day // of an established season: since when it has been at rest; zero otherwise
	Turn         day.Day // of an established season: the turn of the year, before which nothing moves; zero otherwise
}

// Out returns the day on which the planting stands in its bed: Started where it was never under cover.
func (p *Planting) Out() day.Day {
	switch {
	case p.Method == crop.Direct || !p.Turn.IsZero():
		return p.Started
	case !p.PlantedOut.IsZero():
		return p.PlantedOut
	case p.Method == crop.Tray:
		weeks := (p.Profile.Nursery.EarliestWeeks + p.Profile.Nursery.LatestWeeks) / 2
		return p.Started.Add(int(7*weeks + 0.5))
	default:
		return p.Started
	}
}

// Begins returns the day from which the planting's warmth and chill are wanted.
func (p *Planting) Begins() day.Day {
	if p.Rested.IsZero() {
		return p.Started
	}
	return p.Rested
}

// Traits are what nobody knows of a planting beforehand: multipliers of the profile's values, and its spread.
type Traits struct {
	Pace   float64 // of every thermal time: 1.1 is a tenth slower
	Stems  float64 // of the stems of the first flush
	Regrow float64 // of the shoots that follow a cut half way through the bloom
	Fade   float64 // log of how many more of them follow at its end than at its beginning, beside the table; 0 for as the table has it
	Spread Spread
	Answer climate.Answer // to the temperature
}

// A Place is what surrounds a planting beside its weather.
type Place struct {
	Latitude float64 // degrees north
	Lengths  *climate.DayLengths
	Shapes   *Shapes          // shared with other plantings; may be nil
	Bench    climate.Extremes // of the nursery after emergence
}

// A Clock is what a crop has felt in its bed under one weather, with each answer to the temperature that it may have.
type Clock struct {
	by    [len(climate.Answers)]felt
	curve *climate.Curve
}

// What was felt is in °Cd of the crop's response: warmth moves it until its shoots show, light on the way to the bud, where day length has
// its say, and bloom from the bud on, where low light does. Chill counts cold days for a crop that needs them, and is nil for others.
type felt struct{ warmth, light, bloom, chill *climate.Sum }

// as returns what was felt with an answer.
func (c *Clock) as(a climate.Answer) felt { return c.by[a-climate.Answers[0]] }

// ChillMeanC is the mean temperature in °C up to which a day counts as cold, as the crop table has it.
const ChillMeanC = 9

// regrowCV is the coefficient of variation of the warmth until a cut plant has buds again; the table gives the mean.
const regrowCV = 0.25

// laterFlush is the part of a pinched plant's gain in stems that what follows its first flush loses again, in the logarithm: the plant feeds
// hardly more shoots than before.
const laterFlush = 0.75

// Clocks returns the clock of a crop's response, day length and chill over hours; it goes on from past where that is given.
func Clocks(p *crop.Profile, lengths *climate.DayLengths, past *Clock, weather *climate.Hourly) Clock {
	next := func(past *climate.Sum) *climate.Sum {
		if past != nil {
			return past.Continue(len(weather.Hours))
		}
		return climate.NewSum(weather.First, 0, len(weather.Hours))
	}
	if past == nil {
		past = &Clock{curve: p.Response.Curve()}
	}
	clock := Clock{curve: past.curve}
	sunless := p.Daylength.Kind == "neutral" || p.Steered()
	for a := range clock.by {
		was, now := &past.by[a], &clock.by[a]
		now.warmth, now.bloom = next(was.warmth), next(was.bloom)
		now.light = now.warmth
		if !sunless {
			now.light = next(was.light)
		}
	}
	for i := range weather.Hours {
		yearDay := weather.First.Add(i).YearDay()
		inBloom, toBud := inLight(lengths.SunMJ(yearDay)), p.LightRate(lengths.On(yearDay), lengths.Lengthen(yearDay))
		for a, warmth := range clock.curve.Warmth(&weather.Hours[i]) {
			f := &clock.by[a]
			f.warmth.Add(warmth, 1)
			f.bloom.Add(warmth, inBloom)
			if !sunless {
				f.light.Add(warmth, toBud)
			}
		}
	}
	if p.ChillDays > 0 {
		chill := next(past.by[0].chill) // the same with any answer
		for _, middle := range weather.Middles {
			cold := 0.0
			if middle <= ChillMeanC {
				cold = 1
			}
			chill.AddEven(cold)
		}
		for a := range clock.by {
			clock.by[a].chill = chill
		}
	}
	return clock
}
