package book

import (
	"slices"
	"strconv"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// A StockCount is how many pieces of a variety the farm had on a day to start next season's plants from: tubers and divisions that were lifted and are
// sound, or plants that cuttings are taken from.
type StockCount struct {
	ID, Variety string
	Part        crop.Method // what is planted: a tuber, bulb, corm, division, or a cutting of the plants that were counted
	On          day.Day
	Pieces      int
}

// ReadStockCount reads a count of stock.
func ReadStockCount(f *Fields) StockCount {
	c := StockCount{ID: f.ID("id"), Variety: f.Name("variety", "the variety"),
		Part: crop.Method(f.Word("part", string(crop.Tuber), string(crop.Division), string(crop.Cutting), string(crop.Corm), string(crop.Bulb))),
		On:   f.Day("on"), Pieces: f.Whole("pieces", 0, mostPlants)}
	if c.ID == "" {
		c.ID = idOf(append([]string{Stock.Name}, c.Record().Lines[0]...)...)
	}
	return c
}

// Record returns the count as text.
func (c StockCount) Record() Record {
	return Record{Stock, [][]string{{c.Variety, string(c.Part), c.On.String(), strconv.Itoa(c.Pieces), c.ID}}}
}

func (b *Book) checkStock(f *Fields, c StockCount, _ Strictness) {
	v, ok := b.Variety(c.Variety)
	if !ok {
		f.Fault("variety", "%q is no variety on record: write it down first", c.Variety)
		return
	}
	if p := b.Crop(v.Crop); p != nil && !p.HasStart(c.Part) {
		f.Fault("part", "%s is not started so: its profile says how", v.Name)
	}
}

// StockOf returns the counts of what a variety is started from, the latest first: one for each day, the last that was made on it.
func (b *Book) StockOf(variety string, part crop.Method) []StockCount {
	var all []StockCount
	for i := len(b.Stock) - 1; i >= 0; i-- { // as they were written down, the last first
		if c := b.Stock[i]; c.Variety == variety && c.Part == part {
			all = append(all, c)
		}
	}
	slices.SortStableFunc(all, func(x, y StockCount) int { return y.On.Compare(x.On) })
	return slices.CompactFunc(all, func(x, y StockCount) bool { return x.On == y.On })
}
