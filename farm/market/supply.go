package market

import (
	"encoding/binary"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/core/postharvest"
	"dewcount/core/promise"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/store"
)

// An Origin is where stems of a source come from: a pick of a row, or a lot.
type Origin struct {
	Planting int     // its place in the model; -1 for a bought lot
	Pick     day.Day // zero for a lot
	Lot      string
	Variety  string
	Place    string // in which the lot stands
	KeptFor  string // the order for which a grower keeps it
	Early    bool   // they are cut tighter than for the market, and open in water
	Late     bool   // they stand further open than for the market

	at int // the pick's place in the forecast
}

// stocks gathers what there is to share out.
type stocks struct {
	s       *look.Snapshot
	ways    Ways
	rule    promise.Rule
	demand  *demand
	problem *promise.Problem
	origins []Origin
	stocks  []stock
	keys    map[string]int // of sources, by who they serve and where they are from
	serves  map[servesKey]bool
}

// A stock is stems of a row at a pick, or of a lot, with where its numbers are.
type stock struct {
	promise.Stock
	planting, pick int // its places in the forecast; -1 for a lot
	from, to       crop.Rung
	fixed          [crop.Rungs]float32 // of a lot
	limits         [2]int              // those that it is part of, -1 for none
}

type servesKey struct {
	crop  *crop.Profile
	right promise.Right
	cut   crop.Rung
	days  int
}

// right returns on which rungs stems of a crop serve a want, and whether any do.
func (st *stocks) right(w *want, p *crop.Profile) (promise.Right, bool) {
	window, ok := p.Window(w.use, st.s.Book.SchoolOf(p.ID, "cut"))
	if w.rung != nil {
		return promise.Right{Use: w.use, Window: crop.Window{From: *w.rung, To: *w.rung}, Alone: true}, ok
	}
	return promise.Right{Use: w.use, Window: window}, ok
}

// kinds are the colours of a variety's stems and the lengths that wants tell apart.
type kinds struct {
	colours []string
	shares  []float64
	lengths []float64 // ascending; stems may be shorter than the first
	wants   []int     // that can be filled with such a variety, whatever its colour
	instead []int     // of these, those that ask for something else and take it where that is short
}

func (st *stocks) kindsOf(v book.Variety, colour string) kinds {
	var k kinds
	for i := range st.demand.wants {
		w := &st.demand.wants[i]
		if w.Stems > 0 && takes(w.part, v) {
			k.wants = append(k.wants, i)
			if _, substitute := w.part.Takes(v); substitute {
				k.instead = append(k.instead, i)
			}
			if w.part.MinLengthCM != nil && !slices.Contains(k.lengths, *w.part.MinLengthCM) {
				k.lengths = append(k.lengths, *w.part.MinLengthCM)
			}
		}
	}
	slices.Sort(k.lengths)
	mix := book.Variety{Colour: colour}
	rest := 1.0
	for _, c := range mix.Colours() {
		share := mix.ColourShare(c)
		k.colours, k.shares = append(k.colours, c), append(k.shares, share)
		rest -= share
	}
	if rest > 1e-6 || k.colours == nil {
		k.colours, k.shares = append(k.colours, ""), append(k.shares, max(rest, 0))
	}
	return k
}

// parts are where the stems of a stock on a rung go: for each colour and length the source of those whom they serve, as serves says.
func (st *stocks) parts(k kinds, rung crop.Rung, long func(cm float64) float64, from string, origin Origin, limit int, serves func(w int) bool) []promise.Part {
	var able []int
	for _, w := range k.wants {
		if serves(w) {
			able = append(able, w)
		}
	}
	if able == nil {
		return []promise.Part{{Source: -1, Rung: rung, Long: 1}}
	}
	var parts []promise.Part
	for c, colour := range k.colours {
		for l := 0; l <= len(k.lengths); l++ {
			atLeast, beyond := 1.0, 0.0
			if l > 0 {
				atLeast = long(k.lengths[l-1])
			}
			if l < len(k.lengths) {
				beyond = long(k.lengths[l])
			}
			if atLeast-beyond <= 0 {
				continue
			}
			var whom []int
			for _, w := range able {
				part := &st.demand.wants[w].part
				short := part.MinLengthCM != nil && (l == 0 || k.lengths[l-1] < *part.MinLengthCM)
				if !short && (part.Colour == "" || book.Variety{Colour: colour}.ColourShare(part.Colour) > 0) {
					whom = append(whom, w)
				}
			}
			parts = append(parts, promise.Part{Source: st.source(whom, k.instead, from, origin, limit), Rung: rung, Colour: c, Long: atLeast - beyond})
		}
	}
	return parts
}

// source returns the source of stems that are from one place and serve the same wants, some of them only instead of others; -1 where they serve none.
func (st *stocks) source(whom, instead []int, from string, origin Origin, limit int) int {
	if whom == nil {
		return -1
	}
	key := []byte(from)
	for _, w := range whom {
		key = binary.AppendUvarint(key, uint64(w))
	}
	at, known := st.keys[string(key)]
	if !known {
		at = len(st.problem.Sources)
		st.keys[string(key)] = at
		st.problem.Sources = append(st.problem.Sources, promise.Source{Serves: whom, Instead: instead, Limit: limit})
		st.origins = append(st.origins, origin)
	}
	return at
}

// lots adds what lies in the store, the oldest first; of a farm that keeps none what was cut of late.
func (st *stocks) lots() {
	now := lotsHour(st.s)
	var heaps []store.Heap
	if _, kept := st.s.Book.KeptSince(); kept {
		heaps = store.Of(st.s.Book, now).Heaps
	} else {
		heaps = store.Lately(st.s.Book, now, st.rule.Celsius)
	}
	slices.SortStableFunc(heaps, func(a, b store.Heap) int { return a.CutAt.Compare(b.CutAt) })
	for i, h := range heaps {
		if h.Dry() {
			continue
		}
		v, _ := st.s.Book.Variety(h.Variety)
		k := st.kindsOf(v, h.Colour)
		stem := promise.Stem{Cut: h.CutOn, Days: postharvest.History(h.History).Days(), History: h.History}
		one := stock{planting: -1, pick: -1, limits: [2]int{-1, -1}}
		one.Row, one.Colours = -1-i, k.shares
		one.fixed[h.CutOn] = float32(h.Stems)
		long := func(cm float64) float64 {
			if h.LengthCM > 0 {
				return map[bool]float64{true: 1}[h.LengthCM >= cm]
			}
			return h.Crop.Stem.LongEnough(cm, 0, false)
		}
		one.Parts = st.parts(k, h.CutOn, long, "lot\x00"+h.Lot+"\x00"+h.Place+"\x00"+h.Colour+"\x00"+h.KeptFor+"\x00", Origin{Planting: st.s.Index(h.Planting), Lot: h.Lot, Variety: h.Variety, Place: h.Place, KeptFor: h.KeptFor}, -1, func(w int) bool {
			want := &st.demand.wants[w]
			if h.KeptFor != "" {
				due := &st.demand.dues[want.due]
				switch first := st.demand.nextOf(h.KeptFor, h.CutAt.Day()); {
				case due.Order.ID != h.KeptFor:
					return false
				case want.on == first:
					return true // however fresh they are then: a grower has decided so
				}
			}
			right, ok := st.right(want, h.Crop)
			further := want.on.At(cutHour) - now.Instant(cutHour)
			return ok && want.on.After(h.CutAt.Day()) && st.rule.Serves(h.Crop, right, stem, max(0, further))
		})
		st.stocks = append(st.stocks, one)
	}
}

// cutHour is the hour of a cut or a due day of which only the day is known.
const cutHour = 8

// lotsHour returns the moment at which lots are looked at: the morning of the view's day or what was written down since, the evening before where it looks ahead from one.
func lotsHour(s *look.Snapshot) day.Moment {
	if s.View.From.After(s.View.Upto) {
		return day.At(s.View.Upto, 23, 59)
	}
	now := day.At(s.View.Upto, cutHour, 0)
	for _, m := range s.Book.Moves {
		if m.At.Day() == s.View.Upto && m.At.Compare(now) > 0 {
			now = m.At
		}
	}
	for _, c := range s.Book.Cuts {
		if c.CutAt.Day() == s.View.Upto && c.CutAt.Compare(now) > 0 {
			now = c.CutAt
		}
	}
	return now
}

// rows adds what the rows give at each pick. The latest picks come first, so that what is held is held as short as it goes, and stems that are cut tighter than
// for the market come last of all.
func (st *stocks) rows() {
	picks := st.s.Forecast.PickDays
	var early []stock
	for i := range st.s.Model.Plantings {
		if st.s.Stand.LongOver(i) {
			continue
		}
		p := &st.s.Model.Plantings[i]
		v, _ := st.s.Book.Variety(p.Variety)
		k := st.kindsOf(v, v.Colour)
		if k.wants == nil {
			continue
		}
		long := st.longOf(i)
		limits := make([]int, len(picks)) // of what is too tight at a pick and what stands right at the next
		for j := range picks {
			limits[j] = -1
			if p.Growth.Market.From > crop.Tight {
				if one := st.stock(i, j, crop.Tight, p.Growth.Market.From-1, k, long, -1); one.serves() {
					limits[j] = st.problem.Limits
					st.problem.Limits++
					one.limits[0] = limits[j]
					for _, part := range one.Parts {
						if part.Source >= 0 {
							st.problem.Sources[part.Source].Limit, st.problem.Sources[part.Source].Last = limits[j], true
						}
					}
					early = append(early, one)
				}
			}
		}
		for j := len(picks) - 1; j >= 0; j-- {
			limit := -1
			if j > 0 {
				limit = limits[j-1]
			}
			one := st.stock(i, j, p.Growth.Market.From, p.Growth.Market.To, k, long, limit)
			one.limits[1] = limit
			st.stocks = append(st.stocks, one)
			if p.Growth.Market.To < crop.Over {
				if late := st.stock(i, j, p.Growth.Market.To+1, crop.Over, k, long, -1); late.serves() {
					st.stocks = append(st.stocks, late)
				}
			}
		}
	}
	st.stocks = append(st.stocks, early...)
}

// serves tells whether a stock's stems serve anybody.
func (s *stock) serves() bool {
	return slices.ContainsFunc(s.Parts, func(p promise.Part) bool { return p.Source >= 0 })
}

// stock returns the stems of planting i on some rungs at pick j.
func (st *stocks) stock(i, j int, from, to crop.Rung, k kinds, long func(cm float64) float64, limit int) stock {
	p := &st.s.Model.Plantings[i]
	pick := st.s.Forecast.PickDays[j]
	one := stock{planting: i, pick: j, from: from, to: to, limits: [2]int{-1, -1}}
	one.Row, one.Colours = i, k.shares
	key := string(binary.AppendUvarint(binary.AppendUvarint(binary.AppendUvarint(nil, uint64(i)), uint64(j)), uint64(from)))
	for rung := from; rung <= to; rung++ {
		one.Parts = append(one.Parts, st.parts(k, rung, long, key, Origin{Planting: i, Pick: pick, Variety: p.Variety, Early: to < p.Growth.Market.From, Late: from > p.Growth.Market.To, at: j}, limit, func(w int) bool {
			want := &st.demand.wants[w]
			days := want.on.Sub(pick)
			if days < 0 || days == 0 && !st.rests(want, p.Growth.Profile) || float64(days) > max(1, p.Growth.Profile.Store.MaxDays) {
				return false
			}
			right, ok := st.right(want, p.Growth.Profile)
			if !ok || st.ways.OwnPicks && (pick != st.demand.dues[want.due].PickOn || rung < right.Window.From) {
				return false
			}
			asked := servesKey{p.Growth.Profile, right, rung, days}
			answer, known := st.serves[asked]
			if !known {
				answer = st.rule.Serves(p.Growth.Profile, right, promise.Stem{Cut: rung}, float64(days))
				st.serves[asked] = answer
			}
			return answer
		})...)
	}
	return one
}

// rests tells whether stems that are cut on the day on which a want is due have rested by its hour: as the farm's school for the crop has it, where that is not
// overnight.
func (st *stocks) rests(w *want, p *crop.Profile) bool {
	hour := st.demand.dues[w.due].Order.Hour
	school := st.s.Book.Chosen(p, "rest")
	return hour != nil && school != "overnight" && *hour-st.s.Model.PickHour >= crop.RestHours(school)
}

// longOf returns the share of a planting's stems to come that are at least so long.
func (st *stocks) longOf(i int) func(cm float64) float64 {
	p := &st.s.Model.Plantings[i]
	standing := st.s.Stand.Standing(i)
	first := 1.0 // of what is still to be cut, the part that is of the first flush
	if cut := TakenOf(st.s, p.ID); cut > 0 && standing.FirstFlush > 0 {
		first = max(0, 1-cut/standing.FirstFlush)
	}
	return func(cm float64) float64 { return p.Growth.Profile.Stem.LongEnough(cm, first, p.Growth.KeepBuds) }
}

// rungsOf returns a stock's stems by rung in a sample.
func (s *stock) rungsOf(supply *forecast.Supply, sample int) [crop.Rungs]float32 {
	if s.planting < 0 {
		return s.fixed
	}
	all := supply.Of(s.planting, s.pick)
	var rungs [crop.Rungs]float32
	if all != nil {
		for k := s.from; k <= s.to; k++ {
			rungs[k] = all[sample][k]
		}
	}
	return rungs
}
