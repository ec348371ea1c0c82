package farm

import (
	"cmp"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
)

// A Due is an order on one of its days, with the pick day that feeds it.
type Due struct {
	Order  Order
	On     day.Day
	PickOn day.Day // zero where no pick day lies before it
	Lines  []Want
}

// A Want is a line of an order beside what there will be for it.
type Want struct {
	OrderLine
	What   string // the variety, the crop or what else is wanted, in words
	CropID string // empty where it may be of any crop
	Wanted int
	Before int // stems of the same that orders named earlier want from the same pick
	Have   int // stems cut on the pick day already
	Spread forecast.Spread
	Known  bool    // whether the line can be reckoned: it names a crop or a variety
	Chance float64 // that it is filled, 0 to 1
}

// Short returns how many stems are likely to be missing.
func (w Want) Short() int {
	return min(w.Wanted, max(0, w.Wanted+w.Before-w.Have-w.Spread.Likely()))
}

// Due returns what is due from the view's day up to its last pick day, in order of days; a pick's stems go to the orders in
// that order, and within a day by the priority of the lines.
func (s *Snapshot) Due() []Due {
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
	slices.SortFunc(dues, func(a, b Due) int { return cmp.Or(a.On.Compare(b.On), compareText(a.Order.ID, b.Order.ID)) })
	taken := make(map[promised]int)
	for i := range dues {
		s.fill(&dues[i], taken)
	}
	return dues
}

// promised is what stems of a pick are promised by: a crop or a variety.
type promised struct {
	pick day.Day
	name string
}

func (s *Snapshot) fill(d *Due, taken map[promised]int) {
	var lines []OrderLine
	for _, l := range s.Book.OrderLines {
		if l.Order == d.Order.ID {
			lines = append(lines, l)
		}
	}
	slices.SortStableFunc(lines, func(a, b OrderLine) int {
		return cmp.Or(cmp.Compare(orZero(b.Priority), orZero(a.Priority)), cmp.Compare(a.Line, b.Line))
	})
	pick := slices.Index(s.Forecast.PickDays, d.PickOn)
	for _, l := range lines {
		w := s.want(l, d)
		if w.Known {
			use := useOf(l, d.Order)
			own := promised{d.PickOn, w.What}
			w.Before = taken[own]
			if pick >= 0 {
				w.Spread = s.spread(l, pick, use)
			}
			w.Have = s.cutOn(d.PickOn, l.Variety, w.CropID)
			w.Chance = w.Spread.AtLeast(w.Wanted + w.Before - w.Have)
			taken[own] += w.Wanted
			if l.Variety != "" { // what goes of a variety goes of its crop
				taken[promised{d.PickOn, s.cropName(w.CropID)}] += w.Wanted
			}
		}
		d.Lines = append(d.Lines, w)
	}
}

func useOf(l OrderLine, o Order) crop.Use {
	if u, err := crop.ParseUse(l.Use); err == nil {
		return u
	}
	return map[string]crop.Use{"market": crop.Market, "event": crop.Event, "standing": crop.Florist}[o.Kind]
}

func orZero(n *int) int {
	if n == nil {
		return 0
	}
	return *n
}

func (s *Snapshot) want(l OrderLine, d *Due) Want {
	w := Want{OrderLine: l, CropID: l.Crop, Wanted: orZero(l.Stems)}
	switch {
	case l.Variety != "":
		w.What, w.Known = l.Variety, true
		if v, ok := s.Book.Variety(l.Variety); ok {
			w.CropID = v.Crop
		}
	case l.Crop != "" && l.Role == "" && l.Colour == "":
		w.What, w.Known = s.cropName(l.Crop), true
	case l.Recipe != "":
		w.What = l.Recipe
	default:
		w.What = cmp.Or(l.Colour+" "+l.Role, "anything")
	}
	return w
}

func (s *Snapshot) cropName(id string) string {
	if p := s.Book.Crop(id); p != nil {
		return p.Name
	}
	return id
}

func (s *Snapshot) spread(l OrderLine, pick int, use crop.Use) forecast.Spread {
	cells, ok := s.Forecast.Crops[l.Crop]
	if l.Variety != "" {
		cells, ok = s.Forecast.Varieties[l.Variety]
	}
	if !ok {
		return forecast.Spread{}
	}
	return cells.ByPick[pick][use]
}

// cutOn returns the sound stems cut on a day of a variety, or of a crop where that is empty.
func (s *Snapshot) cutOn(d day.Day, variety, cropID string) int {
	stems := 0
	for _, c := range s.Book.Cuts {
		if c.CutAt.Day() != d {
			continue
		}
		p, _ := s.Book.Planting(c.Planting)
		v, _ := s.Book.Variety(p.Variety)
		if variety != "" && p.Variety == variety || variety == "" && v.Crop == cropID {
			stems += c.Stems
		}
	}
	return stems
}
