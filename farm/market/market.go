// Package market holds the farm's orders against what there will be to fill them.
package market

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// A Due is an order on one of its days, with the pick day that feeds it.
type Due struct {
	Order  book.Order
	On     day.Day
	PickOn day.Day // zero where no pick day lies before it
	Lines  []Want
}

// A Want is a line of an order, or an ingredient of its recipe, beside what there will be for it.
type Want struct {
	book.OrderLine
	What   string // the variety, the crop or what else is wanted, in words
	CropID string // empty where it may be of any crop
	Wanted int
	Before int // stems of the same that orders named earlier want from the same pick
	Have   int // stems cut on the pick day already
	Long   float64
	Spread forecast.Spread
	Known  bool    // whether any row on record could give it
	Chance float64 // that it is filled, 0 to 1
}

// Needed returns the stems that must be cut so that those wanted are long enough, and those promised before are there as well.
func (w Want) Needed() int {
	if w.Long < leastLong {
		return math.MaxInt32
	}
	return int(math.Ceil(float64(w.Wanted)/w.Long)) + w.Before - w.Have
}

// leastLong is from which share of stems on a length can be promised at all.
const leastLong = 0.02

// Short returns how many stems are likely to be missing.
func (w Want) Short() int {
	if w.Long < leastLong {
		return w.Wanted
	}
	return min(w.Wanted, max(0, int(math.Ceil(float64(w.Needed()-w.Spread.Likely())*w.Long))))
}

// Dues returns what is due from the view's day up to its last pick day, in order of days; a pick's stems go to the orders in
// that order, and within a day by the priority of the lines.
func Dues(s *look.Snapshot) []Due {
	place, err := s.Book.Place()
	if err != nil {
		return nil // a snapshot was made of it, so it is sound
	}
	picks := s.Book.PickDays(place)
	var dues []Due
	for _, o := range s.Book.Orders {
		for _, d := range o.Between(s.View.Today, s.View.To) {
			dues = append(dues, Due{Order: o, On: d, PickOn: picks.Before(d, d.Add(-7))})
		}
	}
	slices.SortFunc(dues, func(a, b Due) int { return cmp.Or(a.On.Compare(b.On), strings.Compare(a.Order.ID, b.Order.ID)) })
	var taken []promised
	for i := range dues {
		taken = fill(s, &dues[i], taken)
	}
	return dues
}

// promised is what stems of a pick are promised by: so many of these plantings' stems.
type promised struct {
	pick  day.Day
	parts []forecast.Part
	stems int
}

// within tells whether all that it speaks of is among other parts.
func (p promised) within(parts []forecast.Part) bool {
	for _, own := range p.parts {
		if !slices.ContainsFunc(parts, func(o forecast.Part) bool { return o.Planting == own.Planting }) {
			return false
		}
	}
	return true
}

func fill(s *look.Snapshot, d *Due, taken []promised) []promised {
	var lines []book.OrderLine
	for _, l := range s.Book.OrderLines {
		if l.Order == d.Order.ID {
			lines = append(lines, ingredients(s, l)...)
		}
	}
	slices.SortStableFunc(lines, func(a, b book.OrderLine) int {
		return cmp.Or(cmp.Compare(book.OrZero(b.Priority), book.OrZero(a.Priority)), cmp.Compare(a.Line, b.Line))
	})
	pick := slices.Index(s.Forecast.PickDays, d.PickOn)
	for _, l := range lines {
		w := wantOf(s, l)
		if parts := PartsOf(s, l); len(parts) > 0 {
			w.Known = true
			own := promised{d.PickOn, parts, w.Wanted}
			for _, t := range taken {
				if t.pick == d.PickOn && t.within(parts) {
					w.Before += t.stems
				}
			}
			w.Long = longEnough(s, l, parts)
			w.Have = cutOn(s, d.PickOn, parts)
			if pick >= 0 {
				w.Spread = together(s, parts).ByPick[pick][UseOf(l, d.Order)]
			}
			w.Chance = w.Spread.AtLeast(w.Needed())
			taken = append(taken, own)
		}
		d.Lines = append(d.Lines, w)
	}
	return taken
}

// ingredients returns a line as it stands, or what its recipe takes for so many bouquets.
func ingredients(s *look.Snapshot, l book.OrderLine) []book.OrderLine {
	var lines []book.OrderLine
	for _, r := range s.Book.RecipeLines {
		if l.Recipe != "" && r.Recipe == l.Recipe {
			stems := r.Stems * book.OrZero(l.Quantity)
			part := l
			part.Role, part.Crop, part.Colour, part.MinLengthCM, part.Stems = r.Role, r.Crop, r.Colour, r.MinLengthCM, &stems
			lines = append(lines, part)
		}
	}
	if lines == nil {
		return []book.OrderLine{l}
	}
	return lines
}

// UseOf returns what an order line is cut for: as it says, or as its order is.
func UseOf(l book.OrderLine, o book.Order) crop.Use {
	if u, err := crop.ParseUse(l.Use); err == nil {
		return u
	}
	return map[string]crop.Use{"market": crop.Market, "event": crop.Event, "standing": crop.Florist}[o.Kind]
}

func wantOf(s *look.Snapshot, l book.OrderLine) Want {
	w := Want{OrderLine: l, CropID: l.Crop, Wanted: book.OrZero(l.Stems), Long: 1, What: What(s, l)}
	if v, ok := s.Book.Variety(l.Variety); ok {
		w.CropID = v.Crop
	}
	if l.Recipe != "" {
		w.What = l.Recipe + ": " + w.What
	}
	return w
}

// What says what a line of an order wants, but for its recipe.
func What(s *look.Snapshot, l book.OrderLine) string {
	kind := l.Role
	if l.Crop != "" {
		kind = cropName(s, l.Crop)
	}
	if l.Variety != "" {
		kind = l.Variety
	}
	switch {
	case kind == "" && l.Colour == "":
		return "anything"
	case kind == "":
		return "anything " + l.Colour
	case l.Colour != "":
		return l.Colour + " " + kind
	default:
		return kind
	}
}

// PartsOf returns the plantings whose stems a line could be filled with, long over ones aside, and the share of them that has its colour.
func PartsOf(s *look.Snapshot, l book.OrderLine) []forecast.Part {
	var parts []forecast.Part
	for i, p := range s.Model.Plantings {
		if s.Stand.LongOver(i) {
			continue
		}
		v, _ := s.Book.Variety(p.Variety)
		switch {
		case l.Variety != "" && v.Name != l.Variety, l.Crop != "" && v.Crop != l.Crop, l.Role != "" && v.Role != l.Role:
			continue
		}
		if share := v.ColourShare(l.Colour); share > 0 {
			parts = append(parts, forecast.Part{Planting: i, Share: share})
		}
	}
	return parts
}

// together returns the stems of some plantings; what orders ask for again and again is added up once.
func together(s *look.Snapshot, parts []forecast.Part) forecast.Cells {
	return look.Once(s, sumOf(forecast.PartsKey(parts)), func() forecast.Cells { return s.Forecast.Sum(parts) })
}

// sumOf is the key of the stems of some plantings together.
type sumOf string

// longEnough returns the share of the stems that has a line's least length, weighed by the stems that each planting has to come.
func longEnough(s *look.Snapshot, l book.OrderLine, parts []forecast.Part) float64 {
	if l.MinLengthCM == nil {
		return 1
	}
	sum, weight := 0.0, 0.0
	for _, part := range parts {
		p := s.Model.Plantings[part.Planting]
		standing := s.Stand.Standing(part.Planting)
		first := 1.0 // of what is still to be cut, the part that is of the first flush
		if cut := TakenOf(s, p.ID); cut > 0 && standing.FirstFlush > 0 {
			first = max(0, 1-cut/standing.FirstFlush)
		}
		w := part.Share * (1e-9 + standing.FirstFlush)
		sum += w * p.Growth.Profile.Stem.LongEnough(*l.MinLengthCM, first, p.Growth.KeepBuds)
		weight += w
	}
	return sum / weight
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

// cutOn returns the sound stems cut on a day of some plantings.
func cutOn(s *look.Snapshot, d day.Day, parts []forecast.Part) int {
	stems := 0.0
	for _, c := range s.Book.Cuts {
		if c.CutAt.Day() != d {
			continue
		}
		for _, part := range parts {
			if s.Model.Plantings[part.Planting].ID == c.Planting {
				stems += part.Share * float64(c.Stems)
			}
		}
	}
	return int(stems)
}
