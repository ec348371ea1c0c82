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
			line.Spread = draw.NewSpreadView(w.Spread, max(w.Spread.Quantile(0.9), float64(w.Wanted)), w.Wanted)
			if !w.AllLong() {
				line.Verdict += fmt.Sprintf(", %.0f %% of the stems are %s or more", 100*w.Long, locale.Exact(say.Centimetre, *w.MinLengthCM))
			}
			if w.Have > 0 {
				line.Verdict += fmt.Sprintf(" (%d are cut)", w.Have)
			}
			if w.Before > 0 {
				line.Verdict += fmt.Sprintf(", after %d for orders before it", w.Before)
			}
		} else {
			line.Verdict, line.Short = "no row on record gives this: sow it, or name another", w.Cover().IsShort()
		}
		v.Lines = append(v.Lines, line)
	}
	switch short := d.ShortLines(); {
	case len(v.Lines) == 0:
		v.Verdict = "nothing wanted yet"
	case short == 0:
		v.Verdict = "covered"
	default:
		v.Verdict, v.Short = fmt.Sprintf("%d of %s short", short, say.Number(len(v.Lines), "line")), true
	}
	return v
}
