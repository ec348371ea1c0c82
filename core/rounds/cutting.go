package rounds

import (
	"fmt"
	"math"

	"dewcount/core/crop"
)

// rootingDays is after how many days cuttings of most crops have rooted under their cover: a guess, a tug tells.
const rootingDays = 16

// rooting: cuttings stand under a cover that keeps the air wet until they have roots, and rot under it from then on.
func (r *round) rooting() {
	if r.Method != crop.Cutting || r.IsOut {
		return
	}
	rooted := r.Started.Add(rootingDays)
	if r.Started.Before(r.today) && r.open(Uncover, rooted.Add(6)) {
		r.add(Job{Task: Uncover, Earliest: rooted.Add(-4), Best: rooted, Latest: rooted.Add(6), Harm: 0.6, Minutes: trayMinutes + trayAPlant*float64(r.Plants),
			Reason: Sentence{"tug at some: those that hold have rooted; lift the cover a little more for three days, then leave it off"}, Cost: Sentence{"rooted cuttings rot under a wet cover"}})
	}
}

// sowing says how seed or cuttings of the crop are put in.
func (r *round) sowing() Sentence {
	p := r.Profile
	if r.Method == crop.Cutting {
		return Sentence{"; cut below a node with a clean knife, strip the low leaves, dip in rooting hormone, and keep under a wet cover out of the sun"}
	}
	if !r.Method.Sown() {
		return nil
	}
	switch p.Germination.Light {
	case "needs-light":
		return Sentence{"; press it on and leave it uncovered, it needs light"}
	case "needs-dark":
		return Sentence{"; ", MM(p.Germination.DepthMM), " deep and dark until it is up"}
	}
	return Sentence{"; ", MM(p.Germination.DepthMM), " deep"}
}

// What lamps and blackout take, in minutes of one person.
const steerMinutes = 5

// steer: a crop that is flowered by day length is given its light day by day, as its programme has it.
func (r *round) steer() {
	today := r.Steered
	if today.IsZero() || r.done(Steer) && !r.Done[Steer].Before(r.today) {
		return
	}
	j := Job{Task: Steer, After: r.today, Earliest: r.today, Best: r.today, Latest: r.today, Lapses: true, Harm: 0.9, Minutes: steerMinutes}
	switch {
	case today.LampsH > 0:
		j.Reason = Sentence{fmt.Sprintf("lamps for %.1f hours on top of the day's %.1f: it is to grow before it buds", today.LampsH, today.NaturalH)}
		j.Cost = Sentence{"some buds form on short stems"}
	case today.BlackoutH > 0:
		j.Reason = Sentence{fmt.Sprintf("blackout over it this evening, %.1f of the day's %.1f hours of light away", today.BlackoutH, today.NaturalH)}
		j.Cost = Sentence{"a single light night sets its buds back by days"}
	default:
		return
	}
	r.add(j)
}

// tieUp: what stands tall on one stem falls in the first gale; it has no net.
func (r *round) tieUp() {
	const tallCM, atCM, untilCM = 120, 60, 110
	p := r.Profile
	if !p.OneStem() || p.Support != "none" || p.HeightCM[0] < tallCM || r.Pot {
		return
	}
	best, latest := r.tall(atCM), r.tall(untilCM)
	if r.open(Net, latest) && r.Cut.IsZero() {
		r.add(Job{Task: Net, Earliest: r.tall(atCM / 2), Best: best, Latest: latest, Harm: 0.5, Minutes: netMinutes + netAPlant*float64(r.Plants)/2,
			Reason: Sentence{"tall on one stem: run a string along both sides before wind is forecast; single plants get a stake"}, Cost: Sentence{"the row lies down in the first gale, and bent stems never stand straight again"}})
	}
}

// uncut says what becomes of a pick's stems that are left until the next one.
func uncut(p Pick) string {
	stems := int(math.Round(p.Stems))
	switch {
	case !p.Known:
		return "what stands right goes on opening"
	case p.Over == 0 && stems == 1:
		return "it likely stands until the next pick"
	case p.Over == 0:
		return "they likely stand until the next pick"
	case stems == 1:
		return "it goes on opening, and is likely over by the next pick"
	case p.Over >= stems:
		return fmt.Sprintf("about %d stems go on opening, and are over by the next pick", stems)
	case p.Over == 1:
		return fmt.Sprintf("they go on opening: by the next pick about 1 of %d is over", stems)
	}
	return fmt.Sprintf("they go on opening: by the next pick about %d of %d are over", p.Over, stems)
}
