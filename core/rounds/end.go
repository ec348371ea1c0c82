package rounds

import (
	"fmt"

	"dewcount/core/crop"
)

// What ending takes, in minutes of one person; guesses.
const (
	pullAPlant   = 0.15
	frostAStem   = 0.4
	liftAPlant   = 2.5
	coverAPlant  = 0.3
	clearMinutes = 15
)

// frostAhead is how many nights ahead frost is looked for, and frostChance from which chance on.
const (
	frostAhead  = 7
	frostChance = 0.1
)

// frostHarm is the harm of leaving a row without a flower to the frost; one of frostHalf coloured stems lies half way from there to 1.
const (
	frostHarm = 0.92
	frostHalf = 50
)

// coldGroundC is the winter's lowest temperature below which tubers are lifted: the ground freezes to their depth.
const coldGroundC = -8

// ending adds what closes a planting's season.
func (r *round) ending() {
	r.frost()
	r.pullOut()
	r.tubers()
}

// frost: on the evening before, everything that can be used is cut.
func (r *round) frost() {
	if r.Finished || r.Under || r.inBed().IsZero() || r.inBed().After(r.today.Add(frostAhead)) {
		return
	}
	for i := 1; i <= frostAhead; i++ {
		night := r.today.Add(i)
		if r.inBed().After(night) {
			continue
		}
		chance := r.sky.NightBelow(night, r.Profile.FrostKillC)
		if chance < frostChance {
			continue
		}
		standing := 0.0
		for k := crop.Colour; k <= crop.Open; k++ {
			standing += r.Standing[k]
		}
		evening, cost := night.Add(-1), "the rest of its season"
		if standing >= 0.5 {
			cost = fmt.Sprintf("about %.0f coloured stems, and %s", standing, cost)
		}
		r.add(Job{Task: Frost, After: night, Earliest: evening, Best: evening, Latest: evening, Lapses: true, Harm: frostHarm + (1-frostHarm)*standing/(standing+frostHalf), Minutes: max(10, frostAStem*standing),
			Reason: Sentence{Celsius(r.Profile.FrostKillC), " or less, which kills it, comes in the night to ", night, " ", Chance(chance), ": cut all that can be used, cover what should live on"},
			Cost:   Sentence{cost}})
		return
	}
}

func (r *round) pullOut() {
	last := r.Dates.LastCut.Likely
	if r.Method == crop.Established || r.Profile.Lasts(r.Method) || r.Profile.Life == crop.TuberLife || r.inBed().IsZero() {
		return
	}
	over := r.Finished
	if over {
		last = r.today.Add(-1)
	}
	if last.IsZero() || !r.open(PullOut, last.Add(60)) {
		return
	}
	j := Job{Task: PullOut, Earliest: last.Add(1), Best: last.Add(2), Latest: last.Add(12), Harm: 0.2, Minutes: clearMinutes + pullAPlant*float64(r.Plants),
		Reason: Sentence{"its stems are cut and nothing is to come"}, Cost: Sentence{"seed and mildew for the rows beside it"}}
	if r.Profile.SeedsAbout {
		j.Harm = 0.5
		j.Reason = Sentence{"nothing is to come, and it seeds itself about: cut it down before it does"}
		j.Cost = Sentence{"next year's weeds, all round where it stood"}
	}
	const weeksWorthCover = 28 // days for which a green manure pays
	switch {
	case r.NextHere.IsZero():
		j.Reason = append(j.Reason, "; then sow a green manure or mulch the bed")
	case r.NextHere.Sub(last) > weeksWorthCover:
		j.Reason = append(j.Reason, "; then a green manure until ", r.NextHere)
	default:
		j.Reason = append(j.Reason, "; make a clean seed bed for what comes on ", r.NextHere)
		j.Latest = minDay(j.Latest, maxDay(j.Earliest, r.NextHere.Add(-2)))
		j.Cost = Sentence{"the next sowing waits for its place"}
		j.Harm = 0.5
	}
	r.add(j)
}

// tubers are lifted where the ground freezes to their depth, and covered where it does not.
func (r *round) tubers() {
	if r.Profile.Life != crop.TuberLife && r.Profile.Life != crop.CormLife || r.Profile.Overwinters || r.inBed().IsZero() || r.done(Lift) || r.done(Cover) {
		return
	}
	frost := r.sky.FirstBelow(r.Profile.FrostKillC)
	if frost.IsZero() {
		return
	}
	winter := r.sky.WinterC()
	lift := r.LiftAll || !r.Leave && winter < coldGroundC
	j := Job{Task: Cover, Earliest: frost, Best: frost.Add(7), Latest: frost.Add(28), Harm: 0.7, Minutes: coverAPlant * float64(r.Plants),
		Reason: Sentence{"after the first frost, about ", frost, "; a winter of about ", Celsius(winter), " lets them live under a thick mulch"}, Cost: Sentence{plants(r.Plants) + " may freeze"}}
	if lift {
		j.Task, j.Latest, j.Minutes, j.Harm = Lift, frost.Add(21), liftAPlant*float64(r.Plants), 1
		j.Reason = Sentence{"after the first frost, about ", frost, ", has blackened the tops; a winter of about ", Celsius(winter), " freezes the ground to their depth"}
		j.Cost = Sentence{plants(r.Plants) + " are dead in spring"}
	}
	r.add(j)
}
