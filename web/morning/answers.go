package morning

import (
	"fmt"
	"net/url"

	"dewcount/core/day"
	"dewcount/farm/market"
	"dewcount/say"
)

// A shortView is an order that is likely short, and where to see what can be done.
type shortView struct{ Order, Words, Href string }

// shorts are the orders of the next days that are likely short, the nearest first: so many of them, and how many more there are.
func shorts(snap *say.Snapshot, dues []market.Due) (views []shortView, more int) {
	const named = 3
	for _, d := range dues {
		if d.On.Sub(snap.View.Today) > dueDays || d.ShortLines() == 0 {
			continue
		}
		if len(views) == named {
			more++
			continue
		}
		var lacks []string
		for _, w := range d.Lines {
			if w.Cover().IsShort() {
				lacks = append(lacks, fmt.Sprintf("%d of %d %s", max(1, w.Short()), w.Wanted, w.What))
			}
		}
		const lines = 2
		if len(lacks) > lines {
			lacks = append(lacks[:lines], fmt.Sprintf("and of %s more", say.Number(len(lacks)-lines, "line")))
		}
		views = append(views, shortView{d.Order.ID + ", " + snap.Date(d.On), say.List(lacks) + " likely missing", "/orders/" + url.PathEscape(d.Order.ID) + "/options?on=" + d.On.String()})
	}
	return views, more
}

// dueToday says what goes out today, and how it stands.
func dueToday(snap *say.Snapshot, dues []market.Due) string {
	var words []string
	for _, d := range dues {
		if d.On != snap.View.Today || len(d.Lines) == 0 {
			continue
		}
		name := d.Order.ID
		if d.Order.Hour != nil {
			name += " at " + say.Hour(*d.Order.Hour)
		}
		switch n := d.ShortLines(); {
		case n > 0:
			name += fmt.Sprintf(" (%d of %s short)", n, say.Number(len(d.Lines), "line"))
		default:
			name += " (all is there)"
		}
		words = append(words, name)
	}
	if words == nil {
		return ""
	}
	return "Today: " + say.List(words) + "."
}

// promised is how many stems of each crop on a pick day somebody has been promised, as things usually go.
func promised(snap *say.Snapshot, pick day.Day) map[string]int {
	stems := make(map[string]int)
	for i, claims := range market.Claims(snap.Snapshot, pick) {
		for _, c := range claims {
			if !c.Early && !c.Late {
				stems[snap.Model.Plantings[i].Growth.Profile.ID] += c.Stems
			}
		}
	}
	return stems
}
