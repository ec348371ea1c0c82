package look

import (
	"math"
	"slices"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/evidence"
	"dewcount/core/forecast"
	"dewcount/core/plan"
	"dewcount/farm/book"
)

// A Season is a whole growing year of the farm: every planting's dates, and its stems week by week. It is drawn from fewer weathers
// and traits than a morning's forecast, since it is looked at from afar. It is not changed once made.
type Season struct {
	Book        *book.Book
	View        View
	From, Until day.Day // of the year that is shown; Until is the first day after it
	Model       *forecast.Farm
	Stand       *forecast.Stand
	Forecast    *forecast.Forecast
	Dates       []forecast.Milestones // by planting, as Model has them
	Frosts      climate.FrostRisk

	Morning  *Snapshot // of the same records, where the farm has one drawn from more weathers: one number for one thing on all pages
	revision int64
	weekly   Memo // stems of single plantings by week, worked out when they are asked for
}

// How finely a season is drawn.
const (
	seasonMembers = 20
	seasonDraws   = 16
	// farthestSeason is how many days from today a season may reach.
	FarthestSeason = 820
)

// SeasonYears returns the growing years that can be looked at from a day: that of the day and the next, by the year in which they begin.
func SeasonYears(today day.Day, latitude float64) []int {
	first := SeasonYear(today, latitude)
	return []int{first - 1, first, first + 1}
}

// SeasonYear returns the year in which the growing year of a day begins: the calendar year in the north, July to June in the south.
func SeasonYear(d day.Day, latitude float64) int {
	year, month, _ := d.Date()
	if latitude < 0 && month < 7 {
		return year - 1
	}
	return year
}

// Span returns the days of a growing year: the calendar year in the north, July to June in the south.
func Span(year int, latitude float64) (from, until day.Day) {
	if latitude < 0 {
		return day.Of(year, 7, 1), day.Of(year+1, 7, 1)
	}
	return day.Of(year, 1, 1), day.Of(year+1, 1, 1)
}

// NewSeason works a growing year of a book out, taking over from one before, which may be nil, what is the same.
func NewSeason(b *book.Book, today day.Day, year int, before *Season) (*Season, error) {
	lessons := evidence.NewLessons()
	if before != nil {
		lessons = before.Model.Lessons
	}
	return newSeason(b, today, year, before, lessons)
}

// Season works out a growing year of the farm as it stands, taking over from one before, which may be nil, what is the same.
func (s *Snapshot) Season(year int, before *Season) (*Season, error) {
	season, err := newSeason(s.Book, s.View.Today, year, before, s.Model.Lessons)
	if err == nil {
		season.Morning, season.revision = s, s.Revision
	}
	return season, err
}

// AsKnown works out a growing year from an earlier evening, by a book of the farm as it could be known then. What long past plantings taught is taken over from the morning.
func (s *Snapshot) AsKnown(b *book.Book, evening day.Day, year int) (*Season, error) {
	return newSeason(b, evening, year, nil, s.Model.Lessons)
}

func newSeason(b *book.Book, today day.Day, year int, before *Season, lessons *evidence.Lessons) (*Season, error) {
	place, err := b.Place()
	if err != nil {
		return nil, err
	}
	s := &Season{Book: b}
	s.From, s.Until = Span(year, place.Latitude)
	last := s.Until.Add(-1)
	if end := today.Add(FarthestSeason); last.After(end) {
		last = end
	}
	if last.Before(today) {
		last = today
	}
	s.View = View{From: today, Upto: today, Today: today, To: last}
	if s.Model, err = ModelOf(b, s.View); err != nil {
		return nil, err
	}
	s.Model.Members, s.Model.Draws, s.Model.Lessons = seasonMembers, seasonDraws, lessons
	s.Model.Reach = max(forecast.Horizon, last.Sub(today)+3)
	for i := range s.Model.Plantings {
		p := &s.Model.Plantings[i]
		for u := range p.HasUse {
			p.HasUse[u] = crop.Use(u) == crop.Market
		}
	}
	var stood *forecast.Stand
	if before != nil && before.From == s.From {
		stood = before.Stand
	}
	s.Stand = forecast.New(s.Model, stood)
	s.Forecast = s.Stand.Forecast()
	s.Dates = s.Stand.AllMilestones(func(i int) bool { return !s.isBefore(i) })
	s.Morning = &Snapshot{Book: b, View: s.View, Model: s.Model, Stand: s.Stand, Forecast: s.Forecast}
	for i := range s.Dates {
		if s.isBefore(i) {
			continue
		}
		s.Dates[i] = s.Morning.onRecord(i, s.Dates[i])
	}
	s.Frosts = s.Stand.Frosts(0, s.From.Add(182))
	if before != nil {
		s.takeOver(before)
	}
	return s, nil
}

// isBefore tells whether planting i was pulled out before the season.
func (s *Season) isBefore(i int) bool {
	ended := s.Model.Plantings[i].Ended
	return !ended.IsZero() && ended.Before(s.From)
}

// takeOver takes the stems by week from a season before, of the plantings that have not changed.
func (s *Season) takeOver(before *Season) {
	was := make(map[string]int)
	for j, p := range before.Model.Plantings {
		was[p.ID] = j
	}
	for i, p := range s.Model.Plantings {
		if j, ok := was[p.ID]; ok && s.From == before.From && s.Forecast.Shares(i, before.Forecast, j) {
			if weekly, ok := before.weekly.known.Load(j); ok && len(s.Book.Cuts) == len(before.Book.Cuts) {
				s.weekly.known.Store(i, weekly)
			}
		}
	}
}

// IsOf tells whether the season is that of a morning's state.
func (s *Season) IsOf(now *Snapshot) bool {
	return s.revision == now.Revision && s.View.Today == now.View.Today
}

// IsNewer tells whether the season is of a later revision than another.
func (s *Season) IsNewer(than *Season) bool { return s.revision > than.revision }

// With returns the season as it would be with a planting in the place of the one of its id, or beside all others where there is none.
// Faults say what is wrong with it.
func (s *Season) With(p book.Planting) (*Season, error) {
	b := *s.Book
	b.Plantings = slices.Clone(b.Plantings) // in their order, so that what is the same is seen to be
	if i := slices.IndexFunc(b.Plantings, func(o book.Planting) bool { return o.ID == p.ID }); i >= 0 {
		b.Plantings[i] = p
	} else {
		b.Plantings = append(b.Plantings, p)
	}
	if err := b.Check(p.Record(), book.OfForm); err != nil {
		return nil, err
	}
	year, _, _ := s.From.Date()
	moved, err := NewSeason(&b, s.View.Today, year, s)
	if err == nil {
		moved.Morning = s.Morning // the frost is that of the farm as it stands
	}
	return moved, err
}

// Index returns the place of a planting in Model, Dates and Forecast, -1 if there is none.
func (s *Season) Index(planting string) int {
	return slices.IndexFunc(s.Model.Plantings, func(p forecast.Planting) bool { return p.ID == planting })
}

// A WeekStems is how many stems of something there are in a week: cut already, and to be cut.
type WeekStems struct {
	plan.Week
	Sure, Likely, AtBest float64
}

// Gap tells whether a week that is not over will likely have fewer stems than are wanted.
func (w WeekStems) Gap(wanted float64, today day.Day) bool {
	return w.Likely < wanted && !w.Monday.Add(6).Before(today)
}

// Bare tells whether nothing is cut in a week.
func (w WeekStems) Bare() bool { return w.AtBest < 0.5 }

// Moved tells whether a week has clearly more or fewer stems than before.
func (w WeekStems) Moved(before WeekStems) bool {
	const clearly = 2 // stems
	return math.Abs(w.Likely-before.Likely) >= clearly
}

// Weeks returns the weeks that the season touches.
func (s *Season) Weeks() []plan.Week {
	var weeks []plan.Week
	for w := plan.WeekOf(s.From); w.Monday.Before(s.Until); w = (plan.Week{Monday: w.Monday.Add(7)}) {
		weeks = append(weeks, w)
	}
	return weeks
}

// Stems returns the stems of some plantings together, week by week of the season: what was cut, and from today on what can be.
func (s *Season) Stems(plantings []int) []WeekStems {
	weeks := s.Weeks()
	out := make([]WeekStems, len(weeks))
	for i, w := range weeks {
		out[i].Week = w
	}
	at := func(d day.Day) int {
		i := d.Sub(weeks[0].Monday) / 7
		if d.Before(weeks[0].Monday) || i >= len(weeks) {
			return -1
		}
		return i
	}
	samples := make([][]float64, len(weeks))
	for _, p := range plantings {
		id := s.Model.Plantings[p].ID
		for _, c := range s.Book.Cuts {
			if i := at(c.CutAt.Day()); c.Planting == id && i >= 0 && !c.CutAt.Day().After(s.View.Upto) {
				out[i].Sure, out[i].Likely, out[i].AtBest = out[i].Sure+float64(c.Stems), out[i].Likely+float64(c.Stems), out[i].AtBest+float64(c.Stems)
			}
		}
		for j, d := range s.Forecast.PickDays {
			i := at(d)
			if i < 0 {
				continue
			}
			for k, n := range s.Forecast.Samples(p, j, crop.Market) {
				if samples[i] == nil {
					samples[i] = make([]float64, seasonMembers*seasonDraws)
				}
				samples[i][k] += float64(n)
			}
		}
	}
	for i, of := range samples {
		if of == nil {
			continue
		}
		slices.Sort(of)
		quantile := func(p float64) float64 { return of[int(p*float64(len(of)))] }
		out[i].Sure += quantile(0.1)
		out[i].Likely += quantile(0.5)
		out[i].AtBest += quantile(0.9)
	}
	return out
}

// StemsOf returns the stems of one planting, by its place, week by week of the season.
func (s *Season) StemsOf(planting int) []WeekStems {
	return once(&s.weekly, planting, func() []WeekStems { return s.Stems([]int{planting}) })
}
