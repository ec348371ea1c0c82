// Package review holds what was forecast beside what came: how far a grower can trust the bounds, and whether they are better than
// the calendar.
package review

import (
	"math"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// Quantiles are the probabilities that a forecast is scored at.
var Quantiles = [5]float64{0.1, 0.25, 0.5, 0.75, 0.9}

// A Pick is one pick of one planting: what was forecast some time before, and what was cut.
type Pick struct {
	Planting, Crop string
	AsOf, Pick     day.Day
	Stems          [5]float64 // forecast, at Quantiles
	Said           [2]float64 // chances, 0 to 1, that were forecast of the middle half and of what lies between sure and best, ends included
	PIT            [2]float64 // chances, 0 to 1, that were forecast of fewer stems than came, and of no more
	Mean           float64    // expected
	Calendar       float64    // what the calendar method says
	Came           float64    // sound stems cut
}

// A Spread is how many stems are forecast, as it is scored.
type Spread interface {
	Bound(p float64) float64
	Mean() float64
	AtLeast(stems int) float64
}

// Foretell sets what was forecast, once it is known what came.
func (r *Pick) Foretell(s Spread) {
	r.Mean = s.Mean()
	for k, q := range Quantiles {
		r.Stems[k] = s.Bound(q)
	}
	for k := range r.Said {
		r.Said[k] = s.AtLeast(int(r.Stems[1-k])) - s.AtLeast(int(r.Stems[3+k])+1)
	}
	r.PIT = [2]float64{1 - s.AtLeast(int(r.Came)), 1 - s.AtLeast(int(r.Came)+1)}
}

// within returns the part, 0 to 1, of a pick that lies between two chances of its forecast: of a whole number at the band's end as much as is
// needed for a band that holds what it says, however few the stems are (the randomised probability integral transform without its dice:
// Czado et al. 2009, Biometrics 65:1254-1261, eq. 2).
func (r Pick) within(low, high float64) float64 {
	if r.PIT[0] == r.PIT[1] { // a number that was not thought of
		if low < r.PIT[0] && r.PIT[0] < high {
			return 1
		}
		return 0
	}
	return max(0, min(high, r.PIT[1])-max(low, r.PIT[0])) / (r.PIT[1] - r.PIT[0])
}

// Lead returns the weeks from AsOf to the pick, begun weeks counted whole: 1 for the next seven days.
func (r Pick) Lead() int { return (r.Pick.Sub(r.AsOf) + 6) / 7 }

// Counts tells whether the pick is worth scoring: something was possible or came.
func (r Pick) Counts() bool { return r.Stems[4] >= 1 || r.Came >= 1 }

// WIS returns the weighted interval score in stems, 0 for a forecast that was sure and right: the mean of the median's error and
// of the 50 % and 80 % intervals' widths and misses (Bracher et al. 2021, PLoS Comput. Biol. 17:e1008618, eq. 1). For a forecast of one
// number it is the absolute error.
func (r Pick) WIS() float64 {
	score := math.Abs(r.Came-r.Stems[2]) / 2
	for _, interval := range []struct{ low, high, alpha float64 }{{r.Stems[1], r.Stems[3], 0.5}, {r.Stems[0], r.Stems[4], 0.2}} {
		width := interval.high - interval.low
		missed := max(0, interval.low-r.Came) + max(0, r.Came-interval.high)
		score += interval.alpha/2*width + missed
	}
	return score / 2.5
}

// A Score adds up picks.
type Score struct {
	Picks, In50, In80 int
	WIS, Calendar     float64 // sums of scores, in stems
	Expected, Came    float64 // sums of stems
	Said50, Said80    float64 // picks that were to be In50 and In80: of few whole stems more than a half and four in five, since the ends are in
	Part50, Part80    float64 // picks in the middle half and in the middle four fifths of the forecast's chances, ends in part
}

// Add takes a row in.
func (s *Score) Add(r Pick) {
	s.Picks++
	s.WIS += r.WIS()
	s.Calendar += math.Abs(r.Came - r.Calendar)
	s.Expected += r.Mean
	s.Came += r.Came
	s.Said50 += r.Said[0]
	s.Said80 += r.Said[1]
	s.Part50 += r.within(0.25, 0.75)
	s.Part80 += r.within(0.1, 0.9)
	if r.Stems[1] <= r.Came && r.Came <= r.Stems[3] {
		s.In50++
	}
	if r.Stems[0] <= r.Came && r.Came <= r.Stems[4] {
		s.In80++
	}
}

// Skill returns by which part the forecast errs less than the calendar: 1 is perfect, 0 no better, below 0 worse.
func (s Score) Skill() float64 {
	if s.Calendar == 0 {
		return 0
	}
	return 1 - s.WIS/s.Calendar
}

// Bias returns by which part more was expected than came.
func (s Score) Bias() float64 {
	if s.Came == 0 {
		return 0
	}
	return s.Expected/s.Came - 1
}

// Share returns which part n is of the rows.
func (s Score) Share(n int) float64 { return float64(n) / float64(max(1, s.Picks)) }

// How the calendar method spreads a crop's stems: a day of bloom is so many degree-days, and a single flush so many days.
const (
	calendarDayCd   = 12
	calendarOneDays = 14
)

// Calendar returns the stems that a grower with a wall calendar expects of a planting on a pick that follows another on day
// before: the season's stems from the usual days after the start on, evenly over the usual bloom.
func Calendar(p *crop.Profile, plants int, started, before, pick day.Day) float64 {
	first := started.Add((p.TypicalDays[0] + p.TypicalDays[1]) / 2)
	span := calendarOneDays
	if p.Yield.Habit == crop.Again {
		span = int(math.Round(p.Yield.FloweringCd / calendarDayCd))
	}
	from, to := before.Add(1), pick
	if first.After(from) {
		from = first
	}
	if last := first.Add(span - 1); last.Before(to) {
		to = last
	}
	days := max(0, to.Sub(from)+1)
	return float64(plants) * p.Yield.SeasonStems * float64(days) / float64(span)
}
