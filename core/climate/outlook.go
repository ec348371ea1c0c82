package climate

import (
	"math"
	"math/rand/v2"

	"dewcount/core/day"

	"gonum.org/v1/gonum/stat"
)

// An Outlook is what is known of a place's weather on a day: where it lies, what was observed, and the latest forecast issued.
type Outlook struct {
	Latitude, ElevationM float64
	Usual                *Season    // to expect before anything is on record; nil where nothing but latitude and height is known
	Observed             []Dated    // in order, gaps allowed; all before From
	Issued               []Dated    // in order, from From on; may be empty
	IssuedOn             day.Day    // the evening on which they were; zero for that before From
	Foretold             []Foretold // what was issued of days that are observed, by which the service is known
	From                 day.Day    // the first day that is not observed
}

// Season returns the place's seasonal mean: the one to expect of it, corrected by the days on record.
func (o Outlook) Season() Season {
	if o.Usual != nil {
		return o.Usual.Fitted(o.Observed)
	}
	return likelySeason(o.Latitude, o.ElevationM, o.Observed)
}

// Past returns the weather from first up to the day before From, and which of those days were not on record. Gaps are
// bridged by the seasonal mean and a straight line between the anomalies at their ends.
func (o Outlook) Past(first day.Day) (series Series, bridged []bool) {
	season := o.Season()
	series = Series{first, make([]Extremes, max(0, o.From.Sub(first)))}
	bridged = make([]bool, len(series.Days))
	for i := range bridged {
		bridged[i] = true
	}
	last := -1 // index of the last observed day before the gap
	bridge := func(to int, end anomaly, known bool) {
		start := end
		if last >= 0 {
			start = season.anomaly(first.Add(last), series.Days[last])
		}
		if !known {
			end = anomaly{}
		}
		for i := last + 1; i < to; i++ {
			part := float64(i-last) / float64(to-last)
			series.Days[i] = season.with(first.Add(i), anomaly{
				start.middle + part*(end.middle-start.middle), start.span + part*(end.span-start.span)})
		}
	}
	for _, d := range o.Observed {
		i := d.Day.Sub(first)
		if i < 0 || i >= len(series.Days) {
			continue
		}
		bridge(i, season.anomaly(d.Day, d.Extremes), true)
		series.Days[i] = d.Extremes
		last = i
		bridged[i] = false
	}
	bridge(len(series.Days), anomaly{}, false)
	return series, bridged
}

// oddC is how far in °C the middle of a day may lie from the seasonal mean before it is more likely a slip of the pen.
const oddC = 17

// Odd returns the days on record from first on that can hardly have been so.
func (o Outlook) Odd(first day.Day) []Dated {
	season := o.Season()
	var odd []Dated
	for _, d := range o.Observed {
		if !d.Day.Before(first) && math.Abs(season.anomaly(d.Day, d.Extremes).middle) > oddC {
			odd = append(odd, d)
		}
	}
	return odd
}

// A habit is how a place's weather wanders about its season: standard deviation in °C and the share that stays overnight.
type habit struct{ sdC, persistence float64 }

// habits are those of the middles of days and of their ranges, and the correlation of the two. Where warm days have the wider range, as in most
// summers, nights differ less than days do, and frosts are told too early and too often by middles and ranges that know nothing of each other.
type habits struct {
	middle, span habit
	together     float64
}

// usualHabits are a guess by eye at temperate places, and habitDays is how many days on record it takes to replace them.
var usualHabits = habits{habit{3.3, 0.75}, habit{3.4, 0.40}, 0.3}

const habitDays = 120

func (o Outlook) habits(season Season) habits {
	var m, s []float64
	for _, d := range o.Observed {
		a := season.anomaly(d.Day, d.Extremes)
		m, s = append(m, a.middle), append(s, a.span)
	}
	if len(m) < habitDays {
		calm, h := season.calm(), usualHabits
		h.middle.sdC *= calm
		h.span.sdC *= calm
		return h
	}
	return habits{habitOf(m), habitOf(s), correlation(m, s)}
}

// next returns tomorrow's anomaly after today's. The two first-order autoregressions keep their correlation when what is new in them has that
// times (1 - ab) / √((1 - a²)(1 - b²)), a and b being what stays of each.
func (h habits) next(today anomaly, random *rand.Rand) anomaly {
	a, b := h.middle.persistence, h.span.persistence
	const most = 0.98
	shared := max(-most, min(most, h.together*(1-a*b)/math.Sqrt((1-a*a)*(1-b*b))))
	middle, span := random.NormFloat64(), random.NormFloat64()
	return anomaly{h.middle.next(today.middle, middle), h.span.next(today.span, shared*middle+math.Sqrt(1-shared*shared)*span)}
}

// calm is how much less than usual the days of a place differ whose seasons hardly do, 0 to 1: where summer and winter lie usualSwingC
// apart or more, not at all. A guess by eye, since tropical highlands have no cold spells.
func (s Season) calm() float64 {
	const least, usualSwingC = 0.35, 18.0
	low, high := math.Inf(1), math.Inf(-1)
	for yearDay := 15; yearDay < 366; yearDay += 30 {
		e := s.On(yearDay)
		low, high = min(low, (e.TminC+e.TmaxC)/2), max(high, (e.TminC+e.TmaxC)/2)
	}
	return min(1, least+(1-least)*(high-low)/usualSwingC)
}

func habitOf(values []float64) habit {
	return habit{max(0.5, stat.StdDev(values, nil)), min(0.95, max(0, correlation(values[1:], values[:len(values)-1])))}
}

// correlation is 0 where a record never changes.
func correlation(x, y []float64) float64 {
	r := stat.Correlation(x, y, nil)
	if math.IsNaN(r) {
		return 0
	}
	return r
}

// seasonSdC is how uncertain the seasonal mean itself is, as a standard deviation in °C.
const seasonSdC = 0.7

// Members returns count possible weathers from From on, of so many days each: the issued forecast with an error that grows with its
// lead, as far as the service has erred on record, then what the past years on record brought from that date on (ensemble streamflow prediction, Day 1985), each year for a
// tenth of the members. With fewer than ten years the rest are anomalies about the seasonal mean that die away and arise anew as a
// first-order autoregression, middles and ranges together (after Richardson 1981, Water Resources Research 17:182-190). The same seed gives the same members.
func (o Outlook) Members(count, days int, seed uint64) []Series {
	season := o.Season()
	habits := o.habits(season)
	service := o.service(habits)
	var today anomaly
	if n := len(o.Observed); n > 0 && o.From.Sub(o.Observed[n-1].Day) <= 3 {
		today = season.anomaly(o.Observed[n-1].Day, o.Observed[n-1].Extremes)
	}
	issued := make(map[day.Day]anomaly, len(o.Issued))
	for _, d := range o.Issued {
		issued[d.Day] = season.anomaly(d.Day, d.Extremes)
	}
	members := make([]Series, count)
	stale := 0 // days that the forecast is older than last evening's
	if !o.IssuedOn.IsZero() {
		stale = max(0, o.From.Sub(o.IssuedOn)-1)
	}
	years := o.pastYears(season)
	for m := range members {
		random := rand.New(rand.NewPCG(seed, uint64(m)))
		shift := random.NormFloat64() * seasonSdC
		members[m] = Series{o.From, make([]Extremes, days)}
		state, missed := today, anomaly{}
		lasting := 1.0 // the share of the season's own error that this lead has
		year := pastYear(nil)
		if place := m % max(enoughYears, len(years)); place < len(years) {
			year = years[place]
		}
		var known anomaly // by how much the last day that was known, or foretold, differs from the past year's
		for i := range days {
			d := o.From.Add(i)
			past, remembered := year.on(i)
			if centre, ok := issued[d]; ok {
				missed.middle = service.middle.after(missed.middle, stale+i, habits.middle.persistence, random)
				missed.span = service.span.after(missed.span, stale+i, habits.span.persistence, random)
				state = anomaly{centre.middle + service.middle.biasC + missed.middle, centre.span + service.span.biasC + missed.span}
				lasting = 0
				known = anomaly{state.middle - past.middle, state.span - past.span}
			} else if remembered {
				if i == 0 {
					known = anomaly{today.middle - past.middle, today.span - past.span}
				}
				known.middle *= habits.middle.persistence
				known.span *= habits.span.persistence
				state = anomaly{past.middle + known.middle, past.span + known.span}
			} else {
				lasting = min(1, lasting+1-habits.middle.persistence)
				state = habits.next(state, random)
				state.middle += shift * lasting * (1 - habits.middle.persistence)
			}
			members[m].Days[i] = season.with(d, state)
		}
	}
	return members
}

// enoughYears is how many past years on record do without made-up weathers.
const enoughYears = 10

// A pastYear is the anomalies of a year on record from the calendar day of From on; it ends where the record does.
type pastYear []anomaly

func (y pastYear) on(i int) (anomaly, bool) {
	if i >= len(y) {
		return anomaly{}, false
	}
	return y[i], true
}

// leastPastDays is how much of a past year must be on record to follow it, and mostGaps the share of it that may be missing.
const (
	leastPastDays = 90
	mostGaps      = 0.05
)

// pastYears returns the past years on record that can be followed, the latest first.
func (o Outlook) pastYears(season Season) []pastYear {
	if len(o.Observed) == 0 {
		return nil
	}
	series, bridged := o.Past(o.Observed[0].Day)
	year, month, date := o.From.Date()
	var years []pastYear
	for back := 1; ; back++ {
		from := day.Of(year-back, month, date)
		start := from.Sub(series.First)
		if start < 0 {
			return years
		}
		end := min(len(series.Days), start+366)
		var past pastYear
		gaps := 0
		for i := start; i < end; i++ {
			past = append(past, season.anomaly(series.First.Add(i), series.Days[i]))
			if bridged[i] {
				gaps++
			}
		}
		if len(past) >= leastPastDays && float64(gaps) <= mostGaps*float64(len(past)) {
			years = append(years, past)
		}
	}
}

// next returns tomorrow's value after today's, given what is new in it in standard deviations.
func (h habit) next(value, news float64) float64 {
	return h.persistence*value + h.sdC*math.Sqrt(1-h.persistence*h.persistence)*news
}
