package parts

import (
	"fmt"

	"dewcount/farm/book"
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

// Verdict says whether a number of stems is covered.
func Verdict(wanted int, chance float64, short int) (words string, isShort bool) {
	switch {
	case wanted == 0:
		return "nothing wanted", false
	case chance >= 0.9:
		return fmt.Sprintf("%d wanted: covered, %s", wanted, say.Tenths(chance)), false
	case short == 0:
		return fmt.Sprintf("%d wanted: likely covered, %s", wanted, say.Tenths(chance)), false
	case chance < 0.05:
		return fmt.Sprintf("%d wanted: likely %d short", wanted, short), true
	default:
		return fmt.Sprintf("%d wanted: likely %d short, covered %s", wanted, short, say.Tenths(chance)), true
	}
}

func NewDue(d market.Due) DueView {
	v := DueView{Order: d.Order.ID, On: d.On.Spoken(), Kind: d.Order.Kind, Pick: "no pick day before it"}
	if !d.PickOn.IsZero() {
		v.Pick = "cut on " + d.PickOn.Spoken()
	}
	short := 0
	for _, w := range d.Lines {
		line := wantView{What: w.What, Wanted: fmt.Sprint(w.Wanted), Known: w.Known}
		if w.Known {
			line.Verdict, line.Short = Verdict(w.Wanted, w.Chance, w.Short())
			line.Spread = draw.NewSpreadView(w.Spread, max(w.Spread.Quantile(0.9), float64(w.Wanted)), w.Wanted)
			if w.Long < 0.995 {
				line.Verdict += fmt.Sprintf(", %.0f %% of the stems are %s cm or more", 100*w.Long, book.Decimal(*w.MinLengthCM))
			}
			if w.Have > 0 {
				line.Verdict += fmt.Sprintf(" (%d are cut)", w.Have)
			}
			if w.Before > 0 {
				line.Verdict += fmt.Sprintf(", after %d for orders before it", w.Before)
			}
		} else {
			line.Verdict, line.Short = "no row on record gives this: sow it, or name another", w.Wanted > 0
		}
		if line.Short {
			short++
		}
		v.Lines = append(v.Lines, line)
	}
	switch {
	case len(v.Lines) == 0:
		v.Verdict = "nothing wanted yet"
	case short == 0:
		v.Verdict = "covered"
	default:
		v.Verdict, v.Short = fmt.Sprintf("%d of %s short", short, say.Number(len(v.Lines), "line")), true
	}
	return v
}
