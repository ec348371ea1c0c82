// Package store accounts for stems from the cut on: where they stand, what they are by now, and what became of those that left.
package store

import (
	"cmp"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/postharvest"
	"dewcount/farm/book"
)

// A Heap is stems of a lot that went the same way: they stand in one place and are of one colour.
type Heap struct {
	Lot, Planting, Variety, Colour string // a bought lot has no planting
	Crop                           *crop.Profile
	Place                          string // empty where nobody said: they rest in the shade
	KeptFor                        string // the order for which a grower keeps them; empty for none
	Stems                          int
	LengthCM                       float64 // as it was measured; 0 where it was not
	CutAt                          day.Moment
	CutOn                          crop.Rung
	History                        postharvest.History
	Now                            postharvest.Stem
	Lost                           float64 // days at 20 °C that a place warmer or colder than it is set to has cost them
	Hung                           day.Moment

	since float64 // instant from which they stand where they do
}

// Dry tells whether the stems hang to dry.
func (h *Heap) Dry() bool { return !h.Hung.IsZero() }

// An Account is what became of the stems of a lot. Cut and Returned are as many as all others together.
type Account struct {
	Lot                                            string
	Cut, Returned                                  int
	There, MadeUp, Sold, Given, Composted, Forgone int
}

// In and Out are both sides of an account.
func (a Account) In() int  { return a.Cut + a.Returned }
func (a Account) Out() int { return a.There + a.MadeUp + a.Sold + a.Given + a.Composted + a.Forgone }

// A Ledger is all stems that are accounted for at an instant.
type Ledger struct {
	Heaps    []Heap // what goes first comes first
	Accounts []Account
}

// restingC is how warm stems stand of which nobody said where, in °C: open shade.
const restingC = 18.0

// forgotten is how many days after the last of its life a heap that nobody spoke of counts as gone.
const forgotten = 1.0

// Of returns the ledger of a farm at a moment. A farm that has no places keeps no ledger: its stems are gone when they are cut.
func Of(b *book.Book, at day.Moment) Ledger {
	since, kept := b.KeptSince()
	if !kept {
		return Ledger{}
	}
	now := at.Instant(0)
	moves := make(map[string][]book.Move)
	for _, m := range b.Moves {
		if m.At.Instant(cutHour) <= now {
			moves[m.Lot] = append(moves[m.Lot], m)
		}
	}
	var l Ledger
	k := newKeeper(b)
	for _, h := range lots(b, since) {
		if h.CutAt.Instant(cutHour) > now {
			continue
		}
		heaps, account := k.follow(h, moves[h.Lot], now)
		for i := range heaps {
			if !awaits(b, heaps[i].KeptFor, at.Day()) {
				heaps[i].KeptFor = ""
			}
		}
		l.Heaps = append(l.Heaps, heaps...)
		l.Accounts = append(l.Accounts, account)
	}
	slices.SortStableFunc(l.Heaps, func(a, b Heap) int {
		if a.Dry() != b.Dry() {
			return map[bool]int{false: -1, true: 1}[a.Dry()]
		}
		return cmp.Or(cmp.Compare(a.Now.Left[1], b.Now.Left[1]), a.CutAt.Compare(b.CutAt), cmp.Compare(a.Lot, b.Lot))
	})
	slices.SortFunc(l.Accounts, func(a, b Account) int { return cmp.Compare(a.Lot, b.Lot) })
	return l
}

// awaits tells whether an order is still due: what is kept for one that was cancelled or is past is free again.
func awaits(b *book.Book, order string, from day.Day) bool {
	const ahead = 120 // days: nothing fresh is kept longer
	o, ok := b.Order(order)
	return ok && len(o.Between(from, from.Add(ahead))) > 0
}

// For returns the ledger as it is for an order: without the stems of what is kept for others.
func (l Ledger) For(order string) Ledger {
	l.Heaps = slices.Clone(l.Heaps)
	for i := range l.Heaps {
		if h := &l.Heaps[i]; h.KeptFor != "" && h.KeptFor != order {
			h.Stems = 0
		}
	}
	return l
}

// Lately returns what was cut of late on a farm that keeps no ledger, held as warm as it says of each crop, as long as it can be held.
func Lately(b *book.Book, at day.Moment, celsius func(*crop.Profile) float64) []Heap {
	now := at.Instant(cutHour)
	var heaps []Heap
	for _, h := range lots(b, at.Day().Add(-mostHeld)) {
		days := now - h.CutAt.Instant(cutHour)
		if days < 0 || days > h.Crop.Store.MaxDays {
			continue
		}
		h.History = postharvest.History{{Days: days, Celsius: celsius(h.Crop)}}
		h.Now = postharvest.After(h.Crop, h.CutOn, h.History)
		heaps = append(heaps, h)
	}
	return heaps
}

// mostHeld is for how many days any crop is held fresh at most.
const mostHeld = 30

// cutHour is the hour of a cut or a move of which only the day is known.
const cutHour = 8

// lots returns each lot as it came in, from a day on.
func lots(b *book.Book, since day.Day) []Heap {
	var heaps []Heap
	for _, c := range b.Cuts {
		p, ok := b.Planting(c.Planting)
		profile := b.ProfileOf(p)
		if !ok || profile == nil || c.Stems == 0 || c.CutAt.Day().Before(since) {
			continue
		}
		v, _ := b.Variety(p.Variety)
		window, _ := profile.Window(crop.Market, b.SchoolOf(profile.ID, "cut"))
		long := 0.0
		if c.LengthCM != nil {
			long = *c.LengthCM
		}
		heaps = append(heaps, Heap{Lot: c.ID, LengthCM: long, Planting: p.ID, Variety: p.Variety, Colour: v.Colour, Crop: profile, Stems: c.Stems, CutAt: c.CutAt, CutOn: window.From})
	}
	for _, l := range b.Bought {
		v, ok := b.Variety(l.Variety)
		profile := b.CropOf(v)
		if !ok || profile == nil {
			continue
		}
		heaps = append(heaps, Heap{Lot: l.ID, Variety: l.Variety, Colour: v.Colour, Crop: profile, Stems: l.Stems, CutAt: l.At, CutOn: l.Rung})
	}
	return heaps
}

// follow walks a lot through its moves, in the order of their time whenever they arrived, up to an instant.
func (k keeper) follow(lot Heap, moves []book.Move, now float64) ([]Heap, Account) {
	account := Account{Lot: lot.Lot, Cut: lot.Stems}
	lot.since = lot.CutAt.Instant(cutHour)
	heaps := []Heap{lot}
	slices.SortFunc(moves, func(x, y book.Move) int { return cmp.Or(x.At.Compare(y.At), cmp.Compare(x.ID, y.ID)) })
	for _, m := range moves {
		at := max(lot.since, m.At.Instant(cutHour))
		if m.What == book.Returned {
			back := lot
			back.Stems, back.Place, back.since = m.Stems, m.Place, at
			back.History = postharvest.History{{Days: at - lot.since, Celsius: restingC}} // nobody knows where they were
			account.Returned += m.Stems
			heaps = append(heaps, back)
			continue
		}
		taken := take(&heaps, m.Stems, m.From, m.Order)
		for _, part := range taken {
			switch m.What {
			case book.ToPlace:
				k.stay(&part, at)
				part.Place, part.since, part.Hung = m.Place, at, day.Moment{}
				if k.places[m.Place].Kind == book.Loft {
					part.Hung = m.At
				}
				heaps = append(heaps, part)
			case book.Tinted:
				part.Colour = m.Colour
				heaps = append(heaps, part)
			case book.Kept:
				part.KeptFor = m.Order
				heaps = append(heaps, part)
			case book.Unsold:
				heaps = append(heaps, part)
			case book.MadeUp:
				account.MadeUp += part.Stems
			case book.Sold:
				account.Sold += part.Stems
			case book.Given:
				account.Given += part.Stems
			case book.Composted:
				account.Composted += part.Stems
			}
		}
	}
	var there []Heap
	for _, h := range heaps {
		k.stay(&h, now)
		h.Now = postharvest.After(h.Crop, h.CutOn, h.History)
		if !h.Dry() && h.Now.Left[2] == 0 && h.overFor() > forgotten {
			account.Forgone += h.Stems
			continue
		}
		account.There += h.Stems
		there = append(there, h)
	}
	return there, account
}

// take takes so many stems out of heaps, from a place first where one is named, of what is kept for its order before what is kept for nobody and last of what is
// kept for others, the largest first, and returns them as heaps of their own. What is not there is not taken: the book refuses to speak of more stems than a
// lot has.
func take(heaps *[]Heap, stems int, from, order string) []Heap {
	kept := func(h Heap) int {
		switch h.KeptFor {
		case order:
			return 0
		case "":
			return 1
		}
		return 2
	}
	inOrder := make([]int, len(*heaps))
	for i := range inOrder {
		inOrder[i] = i
	}
	slices.SortStableFunc(inOrder, func(a, b int) int {
		x, y := (*heaps)[a], (*heaps)[b]
		if differ := cmp.Compare(kept(x), kept(y)); differ != 0 {
			return differ
		}
		if fits := x.Place == from; from != "" && fits != (y.Place == from) {
			return map[bool]int{true: -1, false: 1}[fits]
		}
		return cmp.Compare(y.Stems, x.Stems)
	})
	var taken []Heap
	for _, i := range inOrder {
		n := min(stems, (*heaps)[i].Stems)
		if n == 0 {
			continue
		}
		part := (*heaps)[i]
		part.Stems = n
		part.History = slices.Clone(part.History)
		taken = append(taken, part)
		(*heaps)[i].Stems -= n
		stems -= n
	}
	*heaps = slices.DeleteFunc(*heaps, func(h Heap) bool { return h.Stems == 0 })
	return taken
}

// overFor returns for how many days the longest of the heap's lives has been over.
func (h *Heap) overFor() float64 {
	spent := 0.0
	for _, s := range h.History {
		spent += s.Days * postharvest.Ages(h.Crop, s.Celsius)
	}
	return spent - h.Crop.Vase.Days[1]
}
