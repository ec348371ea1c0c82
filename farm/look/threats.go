package look

import (
	"dewcount/core/climate"
	"dewcount/core/day"
)

// What the weather must come to before it is warned of.
const (
	warnDays    = 5   // how far ahead
	hotC        = 30  // °C: stems open too fast to be left until the next morning
	frostChance = 0.1 // that a frost kills a row
	oddDays     = 60  // how far back readings are doubted
	gapDays     = 3   // days of late without a reading that still tell little
)

// A FrostThreat is a frost that may kill rows.
type FrostThreat struct {
	Plantings []int   // by their place in the model, those that may die
	Chance    float64 // of the one most threatened, 0 to 1
	Night     day.Day // by which it is likely enough to be told
}

// FrostThreat returns the frost of the next nights that has a chance of one in ten or more to kill a row that somebody can still save: the night before a morning is
// over, and what lies bare until spring has nothing to lose.
func (s *Snapshot) FrostThreat() (FrostThreat, bool) {
	var t FrostThreat
	soonest := warnDays
	for i := range s.Model.Plantings {
		chance := s.Stand.FrostWithin(i, s.View.Upto, warnDays)
		if chance < frostChance || s.Over(i) || s.Rests(i, s.View.Upto.Add(warnDays)) {
			continue
		}
		t.Plantings, t.Chance = append(t.Plantings, i), max(t.Chance, chance)
		for soonest > 1 && s.Stand.FrostWithin(i, s.View.Upto, soonest-1) >= frostChance {
			soonest--
		}
	}
	t.Night = s.View.Upto.Add(soonest)
	return t, t.Plantings != nil
}

// HeatThreat returns the hottest of the next days, in which stems open too fast to be left as long as usual.
func (s *Snapshot) HeatThreat() (climate.Dated, bool) {
	var hottest climate.Dated
	for i := range warnDays {
		d := s.View.From.Add(i)
		if e := s.Stand.Weather(d); e.TmaxC >= hotC && e.TmaxC > hottest.TmaxC {
			hottest = climate.Dated{Day: d, Extremes: e}
		}
	}
	return hottest, !hottest.Day.IsZero()
}

// DoubtfulWeather returns the readings of the last two months that can hardly have been so.
func (s *Snapshot) DoubtfulWeather() []climate.Dated {
	return s.Model.Outlook.Odd(s.View.Today.Add(-oddDays))
}

// WeatherGap returns for how many days up to today no weather is on record, 0 where the gap tells little; none is true where there is no
// weather at all.
func (s *Snapshot) WeatherGap() (days int, none bool) {
	o := s.Model.Outlook
	if len(o.Observed) == 0 {
		return 0, true
	}
	if days := o.From.Sub(o.Observed[len(o.Observed)-1].Day) - 1; days > gapDays {
		return days, false
	}
	return 0, false
}
