package evidence

import (
	"math"
	"math/rand/v2"

	"dewcount/core/climate"
	"dewcount/core/growth"
)

// A kind is what a crop is out of a few, and not by how much: how evenly its stems come, and how it answers to temperature.
type kind struct {
	spread growth.Spread
	answer climate.Answer
}

// kinds are all there are, each spread with each answer.
var kinds = func() (all [len(growth.Spreads) * len(climate.Answers)]kind) {
	for i := range all {
		all[i] = kind{growth.Spreads[i%len(growth.Spreads)], climate.Answers[i/len(growth.Spreads)]}
	}
	return all
}()

// usualKind is that of a crop of which nothing is known.
const usualKind = len(kinds) / 2

// How likely each spread and each answer is before anything is on record.
var (
	spreadPrior = [len(growth.Spreads)]float64{0.25, 0.5, 0.25}
	answerPrior = [len(climate.Answers)]float64{0.15, 0.7, 0.15}
)

// kindBelieved is the power that the evidence for a kind is lowered to: what the model misses elsewhere looks like an uneven crop.
const kindBelieved = 0.5

// drawKinds returns draws of a crop's kind, by its place among the kinds, where the crop's plantings explain their records so well with each
// (logs).
func drawKinds(fit [len(kinds)]float64, draws int, random *rand.Rand) []int {
	var log [len(kinds)]float64
	for i, k := range kinds {
		prior := spreadPrior[k.spread-growth.Spreads[0]] * answerPrior[k.answer-climate.Answers[0]]
		log[i] = math.Log(prior) + kindBelieved*fit[i]
	}
	weights, _ := weigh(log[:])
	drawn := make([]int, draws)
	for d, u := range strata(draws, random) {
		i := 0
		for i < len(weights)-1 && u >= weights[i] {
			u -= weights[i]
			i++
		}
		drawn[d] = i
	}
	return drawn
}
