package draw

import (
	"fmt"
	"strconv"

	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/say"
)

// A LifeView draws a planting's life as a line of days, from its start to its last cut, with the bounds of each date.
type LifeView struct {
	Title         string
	Width         int
	Today         string
	TodayLeft     bool // its word stands left of it, where there is no room to the right
	Start, End    string
	Months        []monthView
	Marks         []markView
	Bloom, Bloomw string // from the first to the last cut, empty where neither is in sight
}

type monthView struct{ X, Name string }

// A markView is a milestone: its likely day and the band between its bounds.
type markView struct{ Name, When, X, From, Width string }

const lifeWidth = 640

func NewLife(snap *say.Snapshot, i int) LifeView {
	p := snap.Model.Plantings[i]
	m := snap.Milestones(i)
	today, start := snap.View.Today, p.Growth.Started
	began := "Started "
	if !m.Season.Rested.IsZero() && m.Season.Rested.After(start) {
		start, began = m.Season.Rested, "At rest from "
	}
	first, last := start, today
	if today.Before(first) {
		first = today
	}
	named := []struct {
		name string
		when forecast.When
	}{{"shoots", m.Emerged}, {"first buds", m.FirstBud}, {"first cut", m.FirstCut}, {"last cut", m.LastCut}}
	for _, n := range named {
		for _, d := range []day.Day{n.when.Late, n.when.Likely} {
			if d.After(last) {
				last = d
			}
		}
		if !n.when.Early.IsZero() && n.when.Early.Before(first) {
			first = n.when.Early
		}
	}
	first, last = first.Add(-3), last.Add(6)
	x := Scale{0, float64(last.Sub(first)), 0, lifeWidth}
	at := func(d day.Day) string { return Place(x.At(float64(d.Sub(first)))) }
	v := LifeView{Width: lifeWidth, Today: at(today), Start: at(start), End: at(last)}
	const word = 40 // wide, at the drawing's size
	v.TodayLeft = x.At(float64(today.Sub(first))) > lifeWidth-word
	for d := first; d.Before(last); d = d.Add(1) {
		if _, month, date := d.Date(); date == 1 {
			v.Months = append(v.Months, monthView{at(d), month.String()[:3]})
		}
	}
	v.Title = began + snap.Date(start)
	for _, n := range named {
		v.Title += "; " + n.name + " " + snap.When(n.when)
		mark := markView{Name: n.name, When: snap.When(n.when)}
		if !n.when.Likely.IsZero() {
			mark.X, mark.From = at(n.when.Likely), at(n.when.Early)
			mark.Width = Place(max(2, x.At(float64(n.when.Late.Sub(first)))-x.At(float64(n.when.Early.Sub(first)))))
		}
		v.Marks = append(v.Marks, mark)
	}
	if !m.FirstCut.Likely.IsZero() && !m.LastCut.Likely.IsZero() {
		v.Bloom = at(m.FirstCut.Likely)
		v.Bloomw = Place(max(2, x.At(float64(m.LastCut.Likely.Sub(m.FirstCut.Likely)))-x.At(0)))
	}
	return v
}

// Place writes a place on a drawing.
func Place(v float64) string { return strconv.FormatFloat(v, 'f', 1, 64) }

// Box returns the drawing's view box.
func (v LifeView) Box() string { return fmt.Sprintf("0 0 %d 64", v.Width) }
