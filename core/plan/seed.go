package plan

import "math"

// A SeedNeed is what plants take on the way from the packet: shares are 0 to 1, Germination above 0.
type SeedNeed struct {
	Plants      int     // that shall bear
	Losses      float64 // of the seedlings set out, that die
	Germination float64 // of the seeds, that come up
	Margin      float64 // sown beyond what is needed: 0.1 is a tenth more
}

// round is by how much a number may lie above a whole one by the arithmetic of floating point alone.
const roundUp = 1e-9

func up(n float64) int { return int(math.Ceil(n - roundUp)) }

// Seedlings returns how many seedlings must be set out, rounded up.
func (n SeedNeed) Seedlings() int { return up(float64(n.Plants) / (1 - n.Losses)) }

// Seeds returns how many seeds must be sown, rounded up.
func (n SeedNeed) Seeds() int { return up(float64(n.Seedlings()) * (1 + n.Margin) / n.Germination) }

// Holders returns how many trays of so many cells, or packets of so many seeds, hold a number of seeds; 0 where each holds none.
func Holders(seeds, each int) int {
	if each <= 0 || seeds <= 0 {
		return 0
	}
	return (seeds + each - 1) / each
}
