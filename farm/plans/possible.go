package plans

import (
	"cmp"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/plan"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// A PossibleYear is what a season's plan brings in one of the weathers that it was drawn in.
type PossibleYear struct {
	Short   int     // weeks of a crop in which it has fewer stems than the orders want of it
	Lacking float64 // stems that are lacking in them
	Filled  int     // orders, each on each of its days, of whose crops none is short in its week
	Stems   float64 // that can be cut in the season, from today on
	Hours   float64 // that one person cuts for
	Busiest float64 // hours of the busiest week
	Worst   string  // id of the crop of which most is lacking; empty where nothing is
	Late    float64 // days by which that crop comes later than in the mean of all years; negative where it is earlier
	Part    float64 // of the stems that it gives in the mean of all years
}

// Possible are the years that a plan was tried on, the worst first.
type Possible struct {
	Years  []PossibleYear
	Dues   int // orders, each on each of its days, that name a crop
	Wanted int // weeks of a crop in which the orders want some, each crop counted for itself
}

// PossibleYears returns what a season's plan brings in each of its weathers, on the mean of what is not known of the plants. Held against it is what the orders want of
// each crop, and what a week has beyond that helps out in the next as far as it can be held; what may be of any crop is not among it.
func PossibleYears(s *look.Season) Possible {
	place, err := s.Book.Place()
	if err != nil {
		return Possible{} // the season was made of it, so it is sound
	}
	weeks := s.Weeks()
	members := s.Model.Members
	out := Possible{Years: make([]PossibleYear, members)}
	stems := make(map[string][][]float64)  // by crop: stems by member and week
	late := make(map[string][]float64)     // by crop and member: the sum of days, weighed by stems
	picked := make(map[string][][]float32) // by crop: stems by member and pick
	week := func(pick int) int { return s.Forecast.PickDays[pick].Sub(weeks[0].Monday) / 7 }
	for i := range s.Model.Plantings {
		id := s.Model.Plantings[i].Growth.Profile.ID
		for j, day := range s.Forecast.PickDays {
			samples := s.Forecast.Samples(i, j, crop.Market)
			w := week(j)
			if len(samples) == 0 || day.Before(s.From) || !day.Before(s.Until) || w < 0 || w >= len(weeks) {
				continue
			}
			if stems[id] == nil {
				stems[id], late[id], picked[id] = make([][]float64, members), make([]float64, members), make([][]float32, members)
				for m := range members {
					stems[id][m], picked[id][m] = make([]float64, len(weeks)), make([]float32, len(s.Forecast.PickDays))
				}
			}
			for k, n := range samples {
				m := k * members / len(samples) // the samples of one weather lie beside each other
				share := float64(n) * float64(members) / float64(len(samples))
				stems[id][m][w] += share
				picked[id][m][j] += float32(share)
				late[id][m] += share * float64(day.Sub(s.From))
			}
		}
	}
	busiest := make([][]float64, members)
	for m := range busiest {
		busiest[m] = make([]float64, len(weeks))
	}
	most := make([]float64, members) // that is lacking of one crop
	short := make([]map[string][]bool, members)
	for m := range short {
		short[m] = make(map[string][]bool)
	}
	for _, p := range s.Book.Crops() {
		wanted := market.Wanted(s, p.ID)
		for w := range weeks {
			if wanted[w] > 0 && !weeks[w].Monday.Before(s.View.Today) {
				out.Wanted++
			}
		}
		rate := s.Book.StemsAnHour(place, p)
		want, hold := plan.Want{First: weeks[0], Stems: slices.Clone(wanted)}, HoldDays(s.Book, p, crop.Market)
		for w := range weeks {
			if weeks[w].Monday.Before(s.View.Today) {
				want.Stems[w] = 0
			}
		}
		for m := range members {
			lacking := 0.0
			short[m][p.ID] = make([]bool, len(weeks))
			var there []float64 // with what was held over
			if picked[p.ID] != nil {
				there = plan.OnField(s.Forecast.PickDays, picked[p.ID][m], want, hold)
			}
			for w := range weeks {
				cut, has := 0.0, 0.0
				if there != nil {
					cut, has = stems[p.ID][m][w], there[w]
				}
				out.Years[m].Stems += cut
				out.Years[m].Hours += cut / rate
				busiest[m][w] += cut / rate
				if want.Stems[w] > 0 && has < want.Stems[w]-0.5 {
					out.Years[m].Short++
					short[m][p.ID][w] = true
					lacking += want.Stems[w] - has
				}
			}
			out.Years[m].Lacking += lacking
			if lacking > most[m] {
				most[m], out.Years[m].Worst = lacking, p.ID
			}
		}
	}
	for _, call := range market.Calls(s, s.View.Today) {
		out.Dues++
		w := call.On.Sub(weeks[0].Monday) / 7
		for m := range members {
			if !slices.ContainsFunc(call.Crops, func(id string) bool { return short[m][id][w] }) {
				out.Years[m].Filled++
			}
		}
	}
	for m := range out.Years {
		y := &out.Years[m]
		y.Busiest = slices.Max(busiest[m])
		y.Late, y.Part = compared(stems[y.Worst], late[y.Worst], m)
	}
	slices.SortStableFunc(out.Years, func(a, b PossibleYear) int {
		return cmp.Or(cmp.Compare(b.Short, a.Short), cmp.Compare(b.Lacking, a.Lacking))
	})
	return out
}

// compared returns by how many days a crop comes later in a weather than in the mean of all, and which part of their stems it gives.
func compared(stems [][]float64, late []float64, member int) (days, part float64) {
	if stems == nil {
		return 0, 0
	}
	all, allLate, own := 0.0, 0.0, 0.0
	for m := range stems {
		sum := 0.0
		for _, n := range stems[m] {
			sum += n
		}
		if all, allLate = all+sum, allLate+late[m]; m == member {
			own = sum
		}
	}
	if all == 0 || own == 0 {
		return 0, 0
	}
	return late[member]/own - allLate/all, own / (all / float64(len(stems)))
}
