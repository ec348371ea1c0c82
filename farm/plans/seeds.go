package plans

import (
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// A SeedLine is what one variety's plantings of a season take, from the packet to the tray.
type SeedLine struct {
	Variety    string
	Profile    *crop.Profile
	Rate       float64 // of germination
	Plants     int
	Seeds      int
	InStock    int
	ToOrder    int // seeds that are missing
	Packets    int // to order; 0 where no packet's size is known
	Parts      int // other than seeds: tubers, bulbs, corms, cuttings
	Plugs      int // young plants to order
	Sowings    []SeedSowing
	StockKnown bool
	Own        []OwnStock
}

// OwnStock is what the farm has counted of its own to start a variety's plants from, beside what they take.
type OwnStock struct {
	Part   crop.Method
	Needed int
	Counts []book.StockCount // the latest first; none where nobody counted
	Gives  int               // pieces by the last count; of plants that cuttings are taken from, their cuttings
	ToBuy  int
}

// cuttingsAPlant is how many cuttings a stock plant gives in a spring, in two or three rounds: a guess.
const cuttingsAPlant = 10

// ownStock returns what was counted to start a variety's plants from, in the order of the ways to start.
func ownStock(b *book.Book, variety string, needed map[crop.Method]int) []OwnStock {
	var all []OwnStock
	for _, part := range []crop.Method{crop.Tuber, crop.Division, crop.Cutting, crop.Corm, crop.Bulb} {
		o := OwnStock{Part: part, Needed: needed[part], Counts: b.StockOf(variety, part)}
		if o.Needed == 0 {
			continue
		}
		if len(o.Counts) > 0 {
			o.Gives = o.Counts[0].Pieces
			if part == crop.Cutting {
				o.Gives *= cuttingsAPlant
			}
		}
		o.ToBuy = max(0, o.Needed-o.Gives)
		all = append(all, o)
	}
	return all
}

// A SeedSowing is what one planting takes.
type SeedSowing struct {
	Planting book.Planting
	Seeds    int
	Plugs    int // bought in place of seed
	Trays    int
	Tray     book.Tray
	Raising  *plan.Raising // of what is raised in trays
	Up       day.Day
}

// thickDirect is how much thicker a row is sown than its plants shall stand: it is thinned twice. Large seed, which is set as deep as largeMM, is laid one by one.
const thickDirect, largeMM = 2, 15

// SeedNeed returns what so many plants of a variety take on the way from the packet.
func SeedNeed(b *book.Book, variety string, p *crop.Profile, plants int, m crop.Method) plan.SeedNeed {
	place, _ := b.Place()
	rate := p.Germination.Rate
	if v, ok := b.Variety(variety); ok && v.Germination != nil {
		rate = *v.Germination
	}
	const leastRate = 0.01
	n := plan.SeedNeed{Plants: plants, Losses: place.Losses, Germination: max(leastRate, rate), Margin: place.Margin}
	if m == crop.Direct && p.Germination.DepthMM < largeMM {
		n.Margin += thickDirect - 1
	}
	return n
}

// Seeds returns what the plantings that are still to be started take, by variety, and what is raised in trays at any time of the season.
func Seeds(s *look.Season) []SeedLine {
	byVariety := make(map[string]*SeedLine)
	parts := make(map[string]map[crop.Method]int)
	for i, m := range s.Model.Plantings {
		record, ok := s.Book.Planting(m.ID)
		p := m.Growth.Profile
		raised := record.Method == crop.Tray && !m.Growth.Out().Before(s.View.Today)
		if !ok || record.Method == crop.Established || record.StartedOn.Before(s.View.Today) && !raised ||
			record.StartedOn.Before(s.From) || !record.StartedOn.Before(s.Until) {
			continue
		}
		line := byVariety[record.Variety]
		if line == nil {
			line = &SeedLine{Variety: record.Variety, Profile: p}
			byVariety[record.Variety] = line
		}
		need := SeedNeed(s.Book, record.Variety, p, record.Plants, record.Method)
		sowing := SeedSowing{Planting: record}
		bought := !record.BoughtOn.IsZero()
		switch {
		case bought:
			sowing.Plugs = need.Seedlings()
		case record.Method.Sown():
			line.Rate = need.Germination
			sowing.Seeds = need.Seeds()
		}
		if record.Method == crop.Tray {
			if t, ok := s.Book.Tray(record.Tray); ok {
				sowing.Tray, sowing.Trays = t, plan.Holders(max(sowing.Seeds, sowing.Plugs), t.Cells)
			}
			up := s.Dates[i].Emerged.Likely
			if up.IsZero() {
				up = record.StartedOn.Add(int(p.Germination.Days[1]))
			}
			r := plan.RaisingOf(p, record.StartedOn, up, m.Growth.Out(), s.FrostFree(p))
			if bought {
				r, up = r.Bought(record.BoughtOn), record.BoughtOn
			}
			sowing.Raising, sowing.Up = &r, up
		}
		line.Sowings = append(line.Sowings, sowing)
		if record.StartedOn.Before(s.View.Today) && !record.BoughtOn.After(s.View.Today) {
			continue // it is sown, or here: only its tray is of interest
		}
		line.Plants += record.Plants
		line.Seeds += sowing.Seeds
		line.Plugs += sowing.Plugs
		if !record.Method.Sown() {
			line.Parts += record.Plants
			if parts[record.Variety] == nil {
				parts[record.Variety] = make(map[crop.Method]int)
			}
			parts[record.Variety][record.Method] += record.Plants
		}
	}
	var lines []SeedLine
	for _, l := range byVariety {
		if v, ok := s.Book.Variety(l.Variety); ok {
			l.StockKnown = v.SeedsInStock != nil
			l.InStock = book.OrZero(v.SeedsInStock)
			l.ToOrder = max(0, l.Seeds-l.InStock)
			l.Packets = plan.Holders(l.ToOrder, book.OrZero(v.SeedsAPacket))
		}
		l.Own = ownStock(s.Book, l.Variety, parts[l.Variety])
		slices.SortFunc(l.Sowings, func(a, b SeedSowing) int { return a.Planting.StartedOn.Compare(b.Planting.StartedOn) })
		lines = append(lines, *l)
	}
	slices.SortFunc(lines, func(a, b SeedLine) int { return book.CompareFold(a.Variety, b.Variety) })
	return lines
}

// Bench returns the trays that stand in the nursery week by week.
func Bench(s *look.Season, lines []SeedLine) []plan.BenchWeek {
	var trays []plan.BenchTray
	for _, l := range lines {
		for _, w := range l.Sowings {
			if w.Raising != nil && w.Trays > 0 {
				trays = append(trays, plan.BenchTray{Raising: *w.Raising, Up: w.Up, Trays: w.Trays})
			}
		}
	}
	return plan.Bench(trays)
}
