package play

import (
	"cmp"
	"slices"

	"dewcount/core/day"
	"dewcount/core/review"
	"dewcount/farm/book"
)

// A due is what an order of the season wants of a crop on a day.
type due struct {
	review.Due
	order, crop string
	promised    bool
}

// dues returns all that the season's farm has to fill: its own orders, and the offers that were taken; what is promised first.
func dues(b *book.Book, place book.Place) []due {
	all := duesOf(sales)
	for _, o := range Offers(place.DemoSeed) {
		if taken(b, o) {
			all = append(all, duesOf([]sale{o.sale()})...)
		}
	}
	slices.SortStableFunc(all, func(x, y due) int {
		return cmp.Or(x.On.Compare(y.On), cmp.Compare(y.Penalty, x.Penalty))
	})
	return all
}

func duesOf(all []sale) []due {
	var out []due
	for _, s := range all {
		for _, on := range s.order.Between(First, Last) {
			for _, l := range s.lines {
				d := due{Due: review.Due{On: on, Wanted: l.stems, Price: l.price}, order: s.order.ID, crop: l.crop, promised: s.order.Kind == "event"}
				if d.promised {
					d.Penalty = aMissing * l.price
				}
				out = append(out, d)
			}
		}
	}
	return out
}

// inTime is how many days before its due day an offer that was taken can be given back for nothing.
const inTime = 7

// taken tells whether an offer was taken, and stands: a promise that is taken back too late stays one.
func taken(b *book.Book, o Offer) bool {
	order, ok := b.Order(o.ID)
	return ok && (order.CancelledOn.IsZero() || o.On.Sub(order.CancelledOn) < inTime)
}

// sent returns how many stems went to a due.
func sent(b *book.Book, d due) int {
	sum := 0
	for _, m := range b.Moves {
		ago := d.On.Sub(m.At.Day())
		if m.Order != d.order || m.What != book.Sold && m.What != book.Unsold && m.What != book.MadeUp || ago < 0 || ago > 0 && (m.What != book.MadeUp || ago > book.MadeAhead) {
			continue
		}
		if v, ok := b.Variety(b.VarietyOf(m.Lot)); ok && v.Crop == d.crop {
			if m.What == book.Unsold {
				sum -= m.Stems
			} else {
				sum += m.Stems
			}
		}
	}
	return min(sum, d.Wanted)
}

// An Account is what a season, or one that might have been, came to.
type Account struct {
	Stems    int     // sold
	Broken   int     // stems that were promised and missing
	Cut      int     // sound stems
	Sales    float64 // in the season's currency, less what broken promises cost
	Costs    float64 // of sowing, plants and cutting
	Sowings  int
	Plants   int
	Promises int // offers that were taken
}

// Money is what is left.
func (a Account) Money() float64 { return a.Sales - a.Costs }

// fill adds what dues got.
func (a *Account) fill(d due, filled int) {
	a.Stems += filled
	a.Sales += d.Worth(filled)
	if d.promised {
		a.Broken += d.Wanted - filled
	}
}

// plant adds what plantings cost.
func (a *Account) plant(sowings, plants int) {
	a.Sowings, a.Plants = a.Sowings+sowings, a.Plants+plants
	a.Costs += aSowing*float64(sowings) + aPlant*float64(plants)
}

func (a *Account) cut(stems int) {
	a.Cut += stems
	a.Costs += aStem * float64(stems)
}

// Until returns what a season has come to up to a morning: what was due before it.
func Until(b *book.Book, place book.Place, today day.Day) Account {
	var a Account
	for _, o := range Offers(place.DemoSeed) {
		if taken(b, o) {
			a.Promises++
		}
	}
	for _, d := range dues(b, place) {
		if d.On.Before(today) {
			a.fill(d, sent(b, d))
		}
	}
	for _, p := range b.Plantings {
		if p.StartedOn.Before(today) {
			a.plant(1, p.Plants)
		}
	}
	for _, c := range b.Cuts {
		a.cut(c.Stems)
	}
	return a
}
