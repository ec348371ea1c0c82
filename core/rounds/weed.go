package rounds

import "dewcount/core/crop"

// How a row is weeded: guesses. Seed that was sown where it grows comes up among weeds that are as small; what was planted out is ahead of them.
const (
	weedDirectEvery = 9 // days
	weedPlantEvery  = 16
	weedDirectM2    = 4.0 // minutes for a square metre
	weedPlantM2     = 1.5
	weedOwnStart    = 7  // days after it is up, or planted out, when the first are seen
	seedlingDays    = 45 // after which what was sown is ahead of them too
)

// weed: until the row closes, about when its first buds show, weeds are pulled or hoed while they are small.
func (r *round) weed() {
	from, every, perM2, harm := r.inBed(), weedPlantEvery, weedPlantM2, 0.25
	seedlings := r.Method == crop.Direct && r.today.Sub(r.up()) <= seedlingDays
	if seedlings {
		from, every, perM2, harm = r.up(), weedDirectEvery, weedDirectM2, 0.55
	}
	closes := r.Dates.FirstBud.Likely
	if from.IsZero() || closes.IsZero() || r.Pot || r.Method == crop.Established {
		return
	}
	next := from.Add(weedOwnStart)
	if last := r.Done[Weed]; !last.IsZero() {
		next = last.Add(every)
	}
	if r.today.Sub(next) > every { // what was left then has rooted: it is done with what comes now
		next = r.today
	}
	if next = r.growing(next); next.IsZero() || !next.Before(closes) {
		return
	}
	const m2 = 1e4 // cm² in one
	area := float64(r.Plants) * r.Profile.SpacingCM * r.Profile.SpacingCM / m2
	reason := Sentence{"weeds are small now, and go with a stroke of the hoe"}
	if seedlings {
		reason = Sentence{"its seedlings are no bigger than the weeds"}
	}
	r.add(Job{Task: Weed, After: r.Done[Weed], Earliest: next.Add(-2), Best: next, Latest: next.Add(every / 2), Harm: harm, Minutes: 2 + perM2*area, Reason: reason,
		Cost: Sentence{"weeds that have rooted take three times as long, and light and water from the row"}})
}
