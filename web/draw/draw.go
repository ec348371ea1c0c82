// Package draw is what the pages draw: stems as bands, rungs of the ladder, rows, beds and the year. Go computes the places, a template writes
// the elements, the style sheet gives the colours.
package draw

import (
	"strconv"

	"dewcount/core/forecast"
	"dewcount/say"
)

// A SpreadView is how many stems there may be: in numbers, in words and drawn.
type SpreadView struct {
	Sure, Likely, AtBest int
	Words                string
	Sole                 bool // the words have no three numbers
	Band                 BandView
}

// NewSpreadView draws a spread on a scale that ends at most stems; want marks what is wanted, 0 for nothing.
func NewSpreadView(s forecast.Spread, most float64, want int) SpreadView {
	v := SpreadView{Sure: s.Sure(), Likely: s.Likely(), AtBest: s.AtBest()}
	v.Words, v.Sole = say.Bounds(v.Sure, v.Likely, v.AtBest), v.Sure == v.AtBest
	v.Band = NewBand(s.Bound(0.1), s.Bound(0.25), s.Bound(0.5), s.Bound(0.75), s.Bound(0.9), most, want)
	v.Band.Title = v.Words
	return v
}

// A Scale maps values linearly to places on a drawing: d0 to r0, d1 to r1. d0 and d1 must differ.
type Scale struct{ d0, d1, r0, r1 float64 }

// NewScale returns the scale on which d0 lies at r0 and d1 at r1.
func NewScale(d0, d1, r0, r1 float64) Scale { return Scale{d0, d1, r0, r1} }

// At returns the place of a value.
func (s Scale) At(v float64) float64 { return s.r0 + (v-s.d0)/(s.d1-s.d0)*(s.r1-s.r0) }

// A BandView is a spread drawn as a band that fades to its bounds, on a drawing of bandWidth units.
type BandView struct {
	Title         string
	Outer, OuterW string // from the sure to the best
	Inner, InnerW string // the middle half
	Likely        string
	Want          string // empty where nothing is wanted
}

const bandWidth = 200

func NewBand(p10, p25, p50, p75, p90, most float64, want int) BandView {
	x := Scale{0, max(1, most, float64(want)), 2, bandWidth - 2}
	place := func(v float64) string { return strconv.FormatFloat(x.At(v), 'f', 1, 64) }
	width := func(a, b float64) string { return strconv.FormatFloat(max(1, x.At(b)-x.At(a)), 'f', 1, 64) }
	b := BandView{Outer: place(p10), OuterW: width(p10, p90), Inner: place(p25), InnerW: width(p25, p75), Likely: place(p50)}
	if want > 0 {
		b.Want = place(float64(want))
	}
	if p90 == 0 {
		b.Outer, b.Inner, b.Likely = "", "", ""
	}
	return b
}
