// Package review looks back: what each growing year brought, beside the others.
package review

import (
	"cmp"
	"maps"
	"slices"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/store"
)

// A Year is what is on record of one growing year.
type Year struct {
	Year              int // in which it begins
	Plantings, Plants int // started in it
	Cut, Culled       int // sound stems, and those that were thrown away at the cut
	Sold, MadeUp      int // of those stems that are accounted for
	Back, Lost        int // taken along and brought back; given away, composted or forgotten
	FirstCut, LastCut day.Day
	LastFrost         day.Day // in spring, by the weather on record; zero where none is
	FirstFrost        day.Day // in autumn
	WarmthC           float64 // mean of the warm half year's days on record, °C
	WarmDays          int     // so many of them are on record
	RainMM            float64 // of the days on record
	RainDays          int     // that were measured
	Crops             []CropYear
}

// A CropYear is what one crop brought in a year, the most stems first.
type CropYear struct {
	Crop              string
	Plantings, Plants int
	Cut               int
	FirstCut, LastCut day.Day
	StemsAPlant       float64 // of the plants of rows that were cut
	plantsOfCut       map[string]int
}

// Years returns the growing years of which anything was grown, the latest first.
func Years(b *book.Book, today day.Day) []Year {
	place, err := b.Place()
	if err != nil {
		return nil // a snapshot was made of it, so it is sound
	}
	y := years{b: b, of: func(d day.Day) int { return look.SeasonYear(d, place.Latitude) }, south: place.Latitude < 0, years: make(map[int]*Year), crops: make(map[int]map[string]*CropYear)}
	y.plantings()
	y.cuts()
	y.store(today)
	y.weather(today)
	var all []Year
	for _, year := range slices.Backward(slices.Sorted(maps.Keys(y.years))) {
		one := y.years[year]
		for _, c := range y.crops[year] {
			plants := 0
			for _, n := range c.plantsOfCut {
				plants += n
			}
			if plants > 0 {
				c.StemsAPlant = float64(c.Cut) / float64(plants)
			}
			one.Crops = append(one.Crops, *c)
		}
		slices.SortFunc(one.Crops, func(a, b CropYear) int { return cmp.Or(cmp.Compare(b.Cut, a.Cut), cmp.Compare(a.Crop, b.Crop)) })
		all = append(all, *one)
	}
	return all
}

type years struct {
	b     *book.Book
	of    func(day.Day) int
	south bool
	years map[int]*Year
	crops map[int]map[string]*CropYear
}

func (y *years) year(d day.Day) *Year {
	n := y.of(d)
	if y.years[n] == nil {
		y.years[n] = &Year{Year: n}
		y.crops[n] = make(map[string]*CropYear)
	}
	return y.years[n]
}

func (y *years) crop(d day.Day, planting string) *CropYear {
	p, _ := y.b.Planting(planting)
	v, _ := y.b.Variety(p.Variety)
	y.year(d)
	of := y.crops[y.of(d)]
	if of[v.Crop] == nil {
		of[v.Crop] = &CropYear{Crop: v.Crop, plantsOfCut: make(map[string]int)}
	}
	return of[v.Crop]
}

func (y *years) plantings() {
	for _, p := range y.b.Plantings {
		year, c := y.year(p.StartedOn), y.crop(p.StartedOn, p.ID)
		year.Plantings, year.Plants = year.Plantings+1, year.Plants+p.Plants
		c.Plantings, c.Plants = c.Plantings+1, c.Plants+p.Plants
	}
}

func (y *years) cuts() {
	for _, cut := range y.b.Cuts {
		on := cut.CutAt.Day()
		year, c := y.year(on), y.crop(on, cut.Planting)
		year.Cut, year.Culled = year.Cut+cut.Stems, year.Culled+book.OrZero(cut.Culled)
		c.Cut += cut.Stems
		p, _ := y.b.Planting(cut.Planting)
		c.plantsOfCut[p.ID] = p.Plants
		for _, span := range []struct{ first, last *day.Day }{{&year.FirstCut, &year.LastCut}, {&c.FirstCut, &c.LastCut}} {
			if cut.Stems == 0 {
				continue
			}
			if span.first.IsZero() || on.Before(*span.first) {
				*span.first = on
			}
			if on.After(*span.last) {
				*span.last = on
			}
		}
	}
}

// store adds what became of the stems, by the year of their cut, as the ledger has it.
func (y *years) store(today day.Day) {
	for _, a := range store.Of(y.b, day.At(today, 23, 59)).Accounts {
		if cut, ok := y.b.Cut(a.Lot); ok {
			year := y.year(cut.CutAt.Day())
			year.Sold, year.MadeUp, year.Lost = year.Sold+a.Sold, year.MadeUp+a.MadeUp, year.Lost+a.Given+a.Composted+a.Forgone
			year.Back += a.Returned
		}
	}
	for _, m := range y.b.Moves {
		if cut, ok := y.b.Cut(m.Lot); ok && m.What == book.Unsold {
			y.year(cut.CutAt.Day()).Back += m.Stems
		}
	}
}

// weather adds the frosts, the warmth and the rain of the years that are there, by the weather as it came.
func (y *years) weather(today day.Day) {
	const warmFrom, warmUntil = 4, 9 // April to September, and in the south the months half a year from them
	for _, w := range y.b.Weather {
		year := y.years[y.of(w.Date)]
		if year == nil || !w.IssuedOn.IsZero() || !w.Date.Before(today) {
			continue
		}
		_, month, _ := w.Date.Date()
		if y.south {
			month = (month+5)%12 + 1
		}
		if month >= warmFrom && month <= warmUntil {
			year.WarmthC += (w.TminC + w.TmaxC) / 2
			year.WarmDays++
		}
		if w.RainMM != nil {
			year.RainMM += *w.RainMM
			year.RainDays++
		}
		const midsummer = 7
		switch {
		case w.TminC > 0:
		case month < midsummer:
			year.LastFrost = later(year.LastFrost, w.Date)
		case year.FirstFrost.IsZero() || w.Date.Before(year.FirstFrost):
			year.FirstFrost = w.Date
		}
	}
	for _, year := range y.years {
		if year.WarmDays > 0 {
			year.WarmthC /= float64(year.WarmDays)
		}
	}
}

func later(a, b day.Day) day.Day {
	if a.Before(b) {
		return b
	}
	return a
}
