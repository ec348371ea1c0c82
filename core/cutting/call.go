// Package cutting judges stems on the plant: what to do with the one in the hand, and where to cut it.
package cutting

import (
	"slices"

	"dewcount/core/crop"
	"dewcount/core/postharvest"
)

// A Verdict is what to do with a stem.
type Verdict string

// The verdicts.
const (
	CutNow  Verdict = "cut now"
	Wait    Verdict = "wait"
	Hold    Verdict = "cut and hold"
	Discard Verdict = "discard"
)

// A Reason is why.
type Reason int

// The reasons.
const (
	Ready       Reason = iota // cut now: on its rungs, and it passes
	LastChance                // cut now: nobody is known to want it in time, and by the next pick it is over
	TooTight                  // wait: not on its first rung yet
	TooTightYet               // wait: not on its first rung, which it will have passed by the next pick; it does not open in water
	SoftNeck                  // wait: the neck is not firm
	Uncoloured                // wait: the colour has not come
	NotWanted                 // wait: the next pick is soon enough, and leaves it fresher
	OpensOn                   // hold: too tight, over by the next pick, and it opens in water
	ForLater                  // hold: wanted in some days, over by the next pick or wanted before it
	Past                      // discard: beyond its rungs
	Old                       // discard: on its rungs, and it fails a test of freshness
)

// A Stem is one in the hand.
type Stem struct {
	Crop   *crop.Profile
	Use    crop.Use
	School string // on the rung to cut, as chosen; empty for the table's window
	Rung   crop.Rung
	Failed []crop.Test // of those that are asked for the use
}

// The Days to come, as far as they matter to a stem.
type Days struct {
	CdADay   float64 // warmth of the crop in °Cd a day
	NextPick float64 // days to it; 0 where none is known
	Wanted   float64 // days until somebody wants stems for the use; negative where nobody is known to
	HeldC    float64 // °C of the place in which stems open or are held
}

// A Call is the verdict on a stem, with what its sentence needs.
type Call struct {
	Verdict Verdict
	Reason  Reason
	Days    float64   // to wait, or to hold
	Test    crop.Test // that it failed
	Other   crop.Use  // that still takes a stem which is past, or which is not fit yet; meant where Fits
	Fits    bool
}

// neckCd is how long necks take to firm up after a flower looks ready, in °Cd: about two days of summer (a guess, as the count has it).
const neckCd = 30

// Of judges a stem.
//
// What is beyond its rungs or fails a test of freshness is cut off and thrown away for this use. What is too tight waits until its first rung,
// unless it would be past its last by the next pick and opens in water: then it is cut and opens there. What is ready is cut, held where it
// is wanted only later, and left where it is wanted after the next pick and still stands then. A bud without colour opens nowhere.
func Of(s Stem, d Days) Call {
	window, ok := s.Crop.Window(s.Use, s.School)
	if !ok {
		return Call{Verdict: Discard, Reason: Past}
	}
	for _, t := range s.Failed {
		if slices.Contains(s.Crop.CutTests[s.Use], t) && s.Rung >= window.From && s.Rung <= window.To {
			return s.failing(t, d)
		}
	}
	switch {
	case s.Rung > window.To:
		other, fits := s.other()
		return Call{Verdict: Discard, Reason: Past, Other: other, Fits: fits}
	case s.Rung < window.From:
		return s.tight(window, d)
	default:
		return s.ready(window, d)
	}
}

// failing judges a stem on its rungs that fails a test.
func (s Stem) failing(t crop.Test, d Days) Call {
	switch {
	case t == crop.StiffNeck:
		return Call{Verdict: Wait, Reason: SoftNeck, Test: t, Days: s.in(neckCd, d)}
	case t == crop.ColourTrue && s.Rung < crop.Open:
		return Call{Verdict: Wait, Reason: Uncoloured, Test: t, Days: s.in(s.Crop.RungsCd[s.Rung]/2, d)}
	default:
		return Call{Verdict: Discard, Reason: Old, Test: t}
	}
}

// tight judges a stem that is not on its first rung yet.
func (s Stem) tight(w crop.Window, d Days) Call {
	call := Call{Verdict: Wait, Reason: TooTight, Days: s.in(s.wayTo(w.From), d)}
	call.Other, call.Fits = s.other()
	over := d.NextPick > 0 && s.in(s.wayTo(w.To+1), d) < d.NextPick
	if !over {
		return call
	}
	if days, opens := postharvest.Until(s.Crop, s.Rung, w.From, d.HeldC); opens && s.Rung >= crop.Colour {
		return Call{Verdict: Hold, Reason: OpensOn, Days: days}
	}
	call.Reason = TooTightYet
	return call
}

// ready judges a stem that is right to cut.
func (s Stem) ready(w crop.Window, d Days) Call {
	const today = 1.5 // days within which a stem that is cut now is used fresh
	if d.Wanted < today && d.Wanted >= 0 || d.Wanted < 0 && d.NextPick == 0 {
		return Call{Verdict: CutNow, Reason: Ready}
	}
	stands := d.NextPick > 0 && s.in(s.wayTo(w.To+1), d) >= d.NextPick
	switch {
	case d.Wanted < 0 && stands:
		return Call{Verdict: CutNow, Reason: Ready}
	case d.Wanted < 0:
		return Call{Verdict: CutNow, Reason: LastChance, Days: d.NextPick}
	case stands && d.Wanted > d.NextPick:
		return Call{Verdict: Wait, Reason: NotWanted, Days: d.NextPick}
	case d.Wanted <= s.Crop.Store.MaxDays:
		return Call{Verdict: Hold, Reason: ForLater, Days: d.Wanted}
	default:
		return Call{Verdict: CutNow, Reason: LastChance, Days: d.NextPick}
	}
}

// wayTo returns the warmth in °Cd from the middle of the stem's rung to the coming of a further one.
func (s Stem) wayTo(k crop.Rung) float64 {
	if k <= s.Rung || int(s.Rung) >= len(s.Crop.RungsCd) {
		return 0
	}
	cd := s.Crop.RungsCd[s.Rung] / 2
	for r := s.Rung + 1; r < k && int(r) < len(s.Crop.RungsCd); r++ {
		cd += s.Crop.RungsCd[r]
	}
	return cd
}

// in returns how many days so much warmth takes.
func (s Stem) in(cd float64, d Days) float64 {
	const leastCd = 0.5 // a day in winter
	return cd / max(leastCd, d.CdADay)
}

// other returns another use whose rungs hold the stem, and whether there is one.
func (s Stem) other() (crop.Use, bool) {
	for u := range crop.Use(crop.Uses) {
		if w, ok := s.Crop.Window(u, s.School); ok && u != s.Use && w.Holds(s.Rung) {
			return u, true
		}
	}
	return 0, false
}
