package parts

import (
	"fmt"
	"net/url"
	"slices"

	"dewcount/core/day"
	"dewcount/farm/market"
	"dewcount/say"
	"dewcount/web/draw"
)

// A DueView is a market day or another order with what it wants.
type DueView struct {
	Order, On, Pick, Kind string
	Lines                 []wantView
	Verdict               string
	Short                 bool
	Options               string     // address of what can be done, where it is not sure
	Sure                  []wantView // lines that are covered, folded away
	Fold                  string     // what they are folded under
}

type wantView struct {
	What, Wanted, Verdict string
	Short                 bool
	Spread                draw.SpreadView
	Known                 bool
	From                  []string // which stems it is given, where that is told
}

// Verdict says how well so many stems wanted are met, which is judged by the market.
func Verdict(wanted int, chance float64, short int) (words string, isShort bool) {
	cover := market.CoverOf(wanted, chance, short)
	switch cover {
	case market.NothingWanted:
		words = "nothing wanted"
	case market.Covered:
		words = fmt.Sprintf("%d wanted: covered, %s", wanted, say.Tenths(chance))
	case market.LikelyCovered:
		words = fmt.Sprintf("%d wanted: likely covered, %s", wanted, say.Tenths(chance))
	case market.Short:
		words = fmt.Sprintf("%d wanted: likely %d short", wanted, short)
	default:
		words = fmt.Sprintf("%d wanted: likely %d short, covered %s", wanted, short, say.Tenths(chance))
	}
	return words, cover.IsShort()
}

// cutOn says on which pick days an order's stems are cut, as things usually go.
func cutOn(locale say.Locale, d market.Due) string {
	var days []day.Day
	cut := false
	for _, w := range d.Lines {
		for _, g := range w.From {
			if g.Lot != "" {
				cut = true
			} else if !slices.Contains(days, g.Pick) {
				days = append(days, g.Pick)
			}
		}
	}
	slices.SortFunc(days, day.Day.Compare)
	var words []string
	for _, on := range days {
		words = append(words, locale.Date(on))
	}
	switch {
	case words == nil && cut:
		return "of what is cut"
	case words == nil:
		return "nothing to cut for it"
	case cut:
		return "of what is cut, and cut on " + say.List(words)
	}
	return "cut on " + say.List(words)
}

// WithGifts says of each line which stems it is given.
func (v DueView) WithGifts(snap *say.Snapshot, d market.Due) DueView {
	for i, w := range d.Lines {
		v.Lines[i].From = say.Gifts(snap.Locale, snap.Snapshot, w.From)
	}
	return v
}

// fewLines is how many lines are read as quickly as what they would be folded under.
const fewLines = 2

// InShort folds the lines that are covered: a list of orders is read for those that are not.
func (v DueView) InShort(d market.Due) DueView {
	var open, sure []wantView
	for i, line := range v.Lines {
		if d.Lines[i].Cover() == market.Covered {
			sure = append(sure, line)
		} else {
			open = append(open, line)
		}
	}
	switch {
	case len(sure) <= fewLines:
		return v
	case len(open) > 0:
		v.Fold = fmt.Sprintf("%d more lines covered", len(sure))
	default:
		v.Fold = fmt.Sprintf("%d lines, all of it %s", len(sure), say.Tenths(d.Chance))
	}
	v.Lines, v.Sure = open, sure
	return v
}

// NewDue says what an order wants and what there will be for it.
func NewDue(locale say.Locale, d market.Due) DueView {
	v := DueView{Order: d.Order.ID, On: locale.Date(d.On), Kind: d.Order.Kind, Pick: cutOn(locale, d)}
	if d.Order.Hour != nil {
		v.On += ", " + say.Hour(*d.Order.Hour)
	}
	if len(d.Lines) > 0 && !d.Covered() {
		v.Options = "/orders/" + url.PathEscape(d.Order.ID) + "/options?on=" + d.On.String()
	}
	for _, w := range d.Lines {
		line := wantView{What: w.What, Wanted: fmt.Sprint(w.Wanted), Known: w.Known}
		if w.Known {
			line.Verdict, line.Short = Verdict(w.Wanted, w.Chance, w.Short())
			if w.Far {
				line.Verdict = fmt.Sprintf("%d wanted: no pick day lies so that such stems could be rested and still fresh; cut on the day before", w.Wanted)
			}
			line.Spread = draw.NewSpreadView(w.Filled, float64(w.Wanted), w.Wanted)
			if w.MinLengthCM != nil {
				line.Verdict += ", " + locale.Exact(say.Centimetre, *w.MinLengthCM) + " or longer"
			}
			if w.Have > 0 {
				line.Verdict += fmt.Sprintf(" (%d are made up)", w.Have)
			}
		} else {
			line.Verdict, line.Short = "no row on record gives this: sow it, or name another", w.Cover().IsShort()
		}
		v.Lines = append(v.Lines, line)
	}
	switch short := d.ShortLines(); {
	case len(v.Lines) == 0:
		v.Verdict = "nothing wanted yet"
	case short == 0 && d.Covered():
		v.Verdict = "covered"
	case short == 0:
		v.Verdict = "likely covered, all of it " + say.Tenths(d.Chance)
	default:
		v.Verdict, v.Short = fmt.Sprintf("%d of %s short", short, say.Number(len(v.Lines), "line")), true
	}
	return v
}
