package parts

import (
	"fmt"

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
}

type wantView struct {
	What, Wanted, Verdict string
	Short                 bool
	Spread                draw.SpreadView
	Known                 bool
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

// NewDue says what an order wants and what there will be for it.
func NewDue(locale say.Locale, d market.Due) DueView {
	v := DueView{Order: d.Order.ID, On: locale.Date(d.On), Kind: d.Order.Kind, Pick: "no pick day before it"}
	if !d.PickOn.IsZero() {
		v.Pick = "cut on " + locale.Date(d.PickOn)
	}
	for _, w := range d.Lines {
		line := wantView{What: w.What, Wanted: fmt.Sprint(w.Wanted), Known: w.Known}
		if w.Known {
			line.Verdict, line.Short = Verdict(w.Wanted, w.Chance, w.Short())
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
