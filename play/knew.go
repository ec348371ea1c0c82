package play

import (
	"fmt"
	"maps"
	"math"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/core/review"
	"dewcount/demo"
	"dewcount/farm/book"
	"dewcount/farm/plans"
)

// A world is what was sown and what came of it.
type world struct {
	sown
	stems
}

// A trial is a sowing that could have been made, with what each plant gave on each pick.
type trial struct {
	crop  *crop.Profile
	picks map[day.Day]float64 // sound stems a plant
}

// Trials are of so many plants each, every so many days.
const (
	trialPlants = 100
	trialEvery  = 6
)

// trials grows a sowing of each crop every few days on the season's own field, in its own weather.
func (k *reckoner) trials() (map[string][]trial, error) {
	b, s, err := k.firstDay()
	if err != nil {
		return nil, err
	}
	for _, v := range varieties {
		sowings, err := plans.StartsBetween(s, v.Crop, v.Name, First.Add(120), Last, trialEvery)
		if err != nil {
			return nil, err
		}
		for i, w := range sowings {
			p := book.Planting{ID: fmt.Sprintf("%s %d", v.Crop, i), Variety: v.Name, Method: w.Method, StartedOn: w.Started, PlantedOutOn: w.Out, Plants: trialPlants}
			if w.Pinched {
				p.PinchedOn = plan.PinchOn(b.ProfileOf(p), w)
			}
			b.Plantings = append(b.Plantings, p)
		}
	}
	byPlanting := make(map[string]map[day.Day]float64)
	for _, g := range demo.Grow(b, k.place, Last.Add(1)) {
		if byPlanting[g.Planting] == nil {
			byPlanting[g.Planting] = make(map[day.Day]float64)
		}
		byPlanting[g.Planting][g.On] += float64(g.Sound) / trialPlants
	}
	all := make(map[string][]trial)
	for _, p := range b.Plantings {
		profile := b.ProfileOf(p)
		all[profile.ID] = append(all[profile.ID], trial{profile, byPlanting[p.ID]})
	}
	return all, nil
}

// plantsMore is by how many plants a sowing is tried larger.
const plantsMore = 10

// knew adds the sowings to a world that gain most, a few plants at a time, until nothing gains: crop by crop, since nobody who wants one crop takes another.
func (k *reckoner) knew(w world, trials map[string][]trial, took []Offer) Account {
	there, sown := make(stems), w.sown
	for _, id := range crops {
		own := ofCrop(duesOf(sales), id)
		for _, o := range k.offers { // as if all were taken that bring what they cost
			if o.Crop == id {
				d := duesOf([]sale{o.sale()})[0]
				d.Penalty = 0
				own = append(own, d)
			}
		}
		g := grower{k: k, dues: plain(own), now: w.stems[id], plants: make([]int, len(trials[id])), trials: trials[id]}
		g.grow()
		there[id] = g.now
		for _, n := range g.plants {
			if n > 0 {
				sown.sowings, sown.plants = sown.sowings+1, sown.plants+n
			}
		}
	}
	return k.better(sown, there, took)
}

// A grower finds the sowings of one crop that gain most.
type grower struct {
	k      *reckoner
	dues   []review.Due
	now    []review.Stems
	plants []int // by trial
	trials []trial
}

func (g *grower) worth(there []review.Stems) float64 {
	sum := 0.0
	for i, filled := range review.Serve(there, g.dues) {
		sum += g.dues[i].Worth(filled)
	}
	return sum
}

// with returns what there is where a sowing has so many plants more, and what they cost.
func (g *grower) with(i, more int) (there []review.Stems, cost float64) {
	t, all := g.trials[i], make(stems)
	all[t.crop.ID] = append([]review.Stems(nil), g.now...)
	for _, on := range sortedDays(t.picks) {
		was, is := math.Round(t.picks[on]*float64(g.plants[i])), math.Round(t.picks[on]*float64(g.plants[i]+more))
		g.k.add(all, t.crop, on, int(is-was))
		cost += aStem * (is - was)
	}
	cost += aPlant * float64(more)
	if g.plants[i] == 0 {
		cost += aSowing
	}
	return all[t.crop.ID], cost
}

// grow adds plants where they gain most. What a sowing gained when it was tried last is at most what it gains now, more or less, so that the best of old gains is tried anew
// before it is believed.
func (g *grower) grow() {
	worth := g.worth(g.now)
	gains := make([]float64, len(g.trials))
	for i := range gains {
		gains[i] = math.Inf(1)
	}
	const most = 400 // steps: far beyond what any season wants
	fresh := make([]int, len(g.trials))
	for step := 1; step <= most; {
		best := -1
		for i, gain := range gains {
			if gain > 0 && (best < 0 || gain > gains[best]) {
				best = i
			}
		}
		if best < 0 {
			return
		}
		size := plantsMore
		if g.plants[best] == 0 {
			size = 3 * plantsMore // a sowing has to earn its own work
		}
		there, cost := g.with(best, size)
		after := g.worth(there)
		gains[best] = after - worth - cost
		if fresh[best] == step {
			g.now, worth = there, after
			g.plants[best] += size
			step++
			continue
		}
		fresh[best] = step
	}
}

func sortedDays(picks map[day.Day]float64) []day.Day {
	return slices.SortedFunc(maps.Keys(picks), day.Day.Compare)
}
