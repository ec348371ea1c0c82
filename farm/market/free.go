package market

import (
	"cmp"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/core/promise"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// A Free is stems of a variety that a pick gives and nobody was promised.
type Free struct {
	Variety book.Variety
	Crop    *crop.Profile
	Pick    day.Day
	Stems   forecast.Spread
	LongCM  float64 // as they usually are
}

// unasked returns what each pick of each planting gives in the market's window, by sample: what is given to somebody is taken from it.
func (st *stocks) unasked(supply *forecast.Supply) map[int][][]int32 {
	free := make(map[int][][]int32)
	for i := range st.s.Model.Plantings {
		if st.s.Stand.LongOver(i) {
			continue
		}
		window := st.s.Model.Plantings[i].Growth.Market
		free[i] = make([][]int32, len(supply.PickDays))
		for j := range free[i] {
			free[i][j] = make([]int32, supply.N)
			for k, rungs := range supply.Of(i, j) {
				sum := float32(0)
				for r := window.From; r <= window.To; r++ {
					sum += rungs[r]
				}
				free[i][j][k] = int32(sum + 0.5)
			}
		}
	}
	return free
}

// take takes out of what is free what a filling of a sample gives away of each source's stems: what is cut too tight for the market is one stem less at the next
// pick.
func (p *Promises) take(st *stocks, stems []int, f *promise.Filling, sample int) {
	for source := range st.origins {
		from := &st.origins[source]
		given := stems[source] - f.Left(source)
		if given == 0 || from.Lot != "" || from.Late {
			continue
		}
		j := from.at
		if from.Early {
			j++
		}
		if j < len(p.free[from.Planting]) {
			left := &p.free[from.Planting][j][sample]
			*left = max(0, *left-int32(given))
		}
	}
}

// FreeStems returns what nobody was promised up to a day, by variety and pick, in the order of names: what can be sold without breaking a promise.
func FreeStems(s *look.Snapshot, last day.Day) []Free {
	p := PromisesOf(s)
	type of struct {
		variety string
		pick    int
	}
	sums := make(map[of][]int32)
	for i, picks := range p.free {
		for j, stems := range picks {
			if s.Forecast.PickDays[j].After(last) {
				break
			}
			at := of{s.Model.Plantings[i].Variety, j}
			if sums[at] == nil {
				sums[at] = make([]int32, len(stems))
			}
			for k, n := range stems {
				sums[at][k] += n
			}
		}
	}
	var free []Free
	for at, stems := range sums {
		v, _ := s.Book.Variety(at.variety)
		profile := s.Book.Crop(v.Crop)
		spread := forecast.SpreadOf(stems)
		if profile == nil || spread.Sure() == 0 {
			continue
		}
		free = append(free, Free{v, profile, s.Forecast.PickDays[at.pick], spread, profile.Stem.LaterCM})
	}
	slices.SortFunc(free, func(a, b Free) int {
		return cmp.Or(book.CompareFold(a.Crop.Name, b.Crop.Name), book.CompareFold(a.Variety.Name, b.Variety.Name), a.Pick.Compare(b.Pick))
	})
	return free
}

// FirstFree returns the first pick from which so many stems of what somebody's words name are free, all varieties that they mean together.
func FirstFree(s *look.Snapshot, free []Free, what string, stems int) (day.Day, bool) {
	named := Name(s.Book, what)
	sure := make(map[day.Day]int)
	for _, f := range free {
		for _, n := range named {
			if takes(n.Line, f.Variety) && f.Variety.ColourShare(n.Line.Colour) > 0 {
				sure[f.Pick] += int(f.Variety.ColourShare(n.Line.Colour) * float64(f.Stems.Sure()))
				break
			}
		}
	}
	for _, pick := range s.Forecast.PickDays {
		if sure[pick] >= stems {
			return pick, true
		}
	}
	return day.Day{}, false
}
