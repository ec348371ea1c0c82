package web

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/web/ladder"
)

func fullDay(d day.Day) string { return d.Midnight().Format("Monday 2 January 2006") }

// bounds says how many stems there will be, as growers do.
func bounds(sure, likely, best int) string {
	switch {
	case best == 0:
		return "none"
	case sure == best:
		return fmt.Sprintf("%d sure", sure)
	default:
		return fmt.Sprintf("%d sure, %d likely, %d at best", sure, likely, best)
	}
}

// tenths says a chance as growers do.
func tenths(chance float64) string {
	switch n := int(math.Round(10 * chance)); {
	case chance >= 0.985:
		return "as good as certain"
	case n <= 1:
		return "1 time in 10 or less"
	default:
		return fmt.Sprintf("%d times in 10", min(9, n))
	}
}

// when says a date with its bounds.
func when(w forecast.When, now day.Day) string {
	switch {
	case w.Likely.IsZero():
		return "hardly this season"
	case w.Early == w.Late:
		return spokenYear(w.Likely, now)
	default:
		return fmt.Sprintf("%s (%s to %s)", spokenYear(w.Likely, now), w.Early.Midnight().Format("2 Jan"), w.Late.Midnight().Format("2 Jan"))
	}
}

// stems writes a number of stems.
func stems(n int) string {
	if n == 1 {
		return "1 stem"
	}
	return strconv.Itoa(n) + " stems"
}

// A spreadView is how many stems there may be: in numbers, in words and drawn.
type spreadView struct {
	Sure, Likely, AtBest int
	Words                string
	Sole                 bool // the words have no three numbers
	Band                 bandView
}

// newSpreadView draws a spread on a scale that ends at most stems; want marks what is wanted, 0 for nothing.
func newSpreadView(s forecast.Spread, most float64, want int) spreadView {
	v := spreadView{Sure: s.Sure(), Likely: s.Likely(), AtBest: s.AtBest()}
	v.Words, v.Sole = bounds(v.Sure, v.Likely, v.AtBest), v.Sure == v.AtBest
	v.Band = newBand(s.Quantile(0.1), s.Quantile(0.25), s.Quantile(0.5), s.Quantile(0.75), s.Quantile(0.9), most, want)
	v.Band.Title = v.Words
	return v
}

// A scale maps values linearly to places on a drawing: d0 to r0, d1 to r1. d0 and d1 must differ.
type scale struct{ d0, d1, r0, r1 float64 }

func (s scale) at(v float64) float64 { return s.r0 + (v-s.d0)/(s.d1-s.d0)*(s.r1-s.r0) }

// A bandView is a spread drawn as a band that fades to its bounds, on a drawing of bandWidth units.
type bandView struct {
	Title         string
	Outer, OuterW string // from the sure to the best
	Inner, InnerW string // the middle half
	Likely        string
	Want          string // empty where nothing is wanted
}

const bandWidth = 200

func newBand(p10, p25, p50, p75, p90, most float64, want int) bandView {
	x := scale{0, max(1, most, float64(want)), 2, bandWidth - 2}
	place := func(v float64) string { return strconv.FormatFloat(x.at(v), 'f', 1, 64) }
	width := func(a, b float64) string { return strconv.FormatFloat(max(1, x.at(b)-x.at(a)), 'f', 1, 64) }
	b := bandView{Outer: place(p10), OuterW: width(p10, p90), Inner: place(p25), InnerW: width(p25, p75), Likely: place(p50)}
	if want > 0 {
		b.Want = place(float64(want))
	}
	if p90 == 0 {
		b.Outer, b.Inner, b.Likely = "", "", ""
	}
	return b
}

// A rungView is a rung of the ladder with what stands on it.
type rungView struct {
	Form, ID, Words string // Words as the form shows it
	Number          int
	Stems           string
	InWindow        bool
}

// ladderOf shows stems on each rung of a flower form, those of a window marked.
func ladderOf(form string, on [crop.Rungs]float64, w crop.Window) []rungView {
	rungs := make([]rungView, crop.Rungs)
	for k := range rungs {
		r := crop.Rung(k)
		rungs[k] = newRung(form, r)
		rungs[k].Stems, rungs[k].InWindow = strconv.Itoa(int(math.Round(on[k]))), w.Holds(r)
	}
	return rungs
}

func newRung(form string, r crop.Rung) rungView {
	return rungView{Form: ladder.Known(form), ID: r.String(), Words: crop.Sign(form, r), Number: int(r)}
}

// rungsOf returns the silhouettes of a cut window.
func rungsOf(form string, w crop.Window) []rungView {
	var rungs []rungView
	for r := w.From; r <= w.To; r++ {
		rungs = append(rungs, newRung(form, r))
	}
	return rungs
}

// list writes names as a sentence does.
func list(names []string) string {
	switch len(names) {
	case 0:
		return ""
	case 1:
		return names[0]
	default:
		return strings.Join(names[:len(names)-1], ", ") + " and " + names[len(names)-1]
	}
}

// spokenYear writes a date, with its year where it is not the same as that of another.
func spokenYear(d, now day.Day) string {
	year, _, _ := d.Date()
	if other, _, _ := now.Date(); year == other {
		return d.Spoken()
	}
	return d.Midnight().Format("Mon 2 January 2006")
}

// spokenMoment is spokenYear with the hour.
func spokenMoment(m day.Moment, now day.Day) string {
	if clock := m.Clock(); clock != "" {
		return spokenYear(m.Day(), now) + ", " + clock
	}
	return spokenYear(m.Day(), now)
}
