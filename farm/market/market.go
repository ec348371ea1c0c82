// Package market holds the farm's orders against what there will be to fill them.
package market

import (
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// A Due is an order on one of its days, with what it is given.
type Due struct {
	Order  book.Order
	On     day.Day
	PickOn day.Day // the last pick day before it; zero where none lies before it
	Lines  []Want
	Chance float64 // that all of it is filled, 0 to 1

	Bouquets map[int]forecast.Spread // whole ones, by line of a recipe
}

// A Want is a line of an order, or an ingredient of its recipe, beside what it is given.
type Want struct {
	book.OrderLine
	What   string // the variety, the crop or what else is wanted, in words
	CropID string // empty where it may be of any crop
	Wanted int
	Have   int             // stems that were made up or sold for it already
	Filled forecast.Spread // stems of it that will be filled, when all orders are served together
	Known  bool            // whether anything on record is what it wants
	Far    bool            // there are such rows, and none of their picks lies so that its stems could serve: too long before, or not rested
	Chance float64         // that it is filled, 0 to 1
	From   []Gift          // as things usually go
	Part   string          // of a recipe: which ingredient
}

// Short returns how many stems are likely to be missing.
func (w Want) Short() int { return max(0, w.Wanted-w.Filled.Likely()) }

// Keepable returns the stems of the store that an order is given on its day and that are not kept for it yet; none on a farm that keeps no store.
func (d Due) Keepable(b *book.Book) []Gift {
	if _, kept := b.KeptSince(); !kept {
		return nil
	}
	var gifts []Gift
	for _, w := range d.Lines {
		for _, g := range w.From {
			at := slices.IndexFunc(gifts, func(o Gift) bool { return o.Lot == g.Lot && o.Place == g.Place })
			switch {
			case g.Lot == "" || g.KeptFor != "":
			case at >= 0:
				gifts[at].Stems += g.Stems
			default:
				gifts = append(gifts, g)
			}
		}
	}
	return gifts
}

// UseOf returns what an order line is cut for: as it says, or as its order is.
func UseOf(l book.OrderLine, o book.Order) crop.Use {
	if u, err := crop.ParseUse(l.Use); err == nil {
		return u
	}
	return map[string]crop.Use{"market": crop.Market, "event": crop.Event, "standing": crop.Florist}[o.Kind]
}

func wantOf(s *look.Snapshot, l book.OrderLine) Want {
	w := Want{OrderLine: l, CropID: l.Crop, Wanted: book.OrZero(l.Stems) + book.OrZero(l.Spares), What: What(s, l)}
	if v, ok := s.Book.Variety(l.Variety); ok {
		w.CropID = v.Crop
	}
	if l.Recipe != "" {
		w.What = l.Recipe + ": " + w.What
	}
	return w
}

// What says what a line of an order wants, but for its recipe.
func What(s *look.Snapshot, l book.OrderLine) string { return s.Book.Called(l) }

// PartsOf returns the plantings whose stems a line could be filled with, long over ones aside, and the share of them that has its colour.
func PartsOf(s *look.Snapshot, l book.OrderLine) []forecast.Part {
	var parts []forecast.Part
	for i, p := range s.Model.Plantings {
		if s.Stand.LongOver(i) {
			continue
		}
		v, _ := s.Book.Variety(p.Variety)
		if share := v.ColourShare(l.Colour); share > 0 && takes(l, v) {
			parts = append(parts, forecast.Part{Planting: i, Share: share})
		}
	}
	return parts
}

// TakenOf returns the stems that were cut of a planting in its season, up to the view's day.
func TakenOf(s *look.Snapshot, planting string) float64 {
	stems := 0
	for _, c := range s.Book.Cuts {
		if c.Planting == planting && !c.CutAt.Day().After(s.View.Upto) && s.View.Upto.Sub(c.CutAt.Day()) < 300 {
			stems += c.Taken()
		}
	}
	return float64(stems)
}

func cropName(s *look.Snapshot, id string) string {
	if p := s.Book.Crop(id); p != nil {
		return p.Name
	}
	return id
}
