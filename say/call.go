package say

import (
	"fmt"
	"math"

	"dewcount/core/crop"
	"dewcount/core/cutting"
)

// useWords are whom stems of a use are for.
var useWords = map[crop.Use]string{crop.Market: "the market", crop.Event: "an event", crop.Florist: "a florist", crop.Drying: "drying"}

// For says whom stems of a use are for.
func For(u crop.Use) string { return useWords[u] }

// failed says how a stem looks that fails a test.
var failed = map[crop.Test]string{crop.StiffNeck: "the neck flops", crop.FirmBacks: "the backs are soft", crop.NoShed: "petals drop when it is shaken",
	crop.NoPollen: "pollen shows", crop.CentreTight: "the centre is open", crop.ColourTrue: "the colour is not true"}

// Fails says how a stem looks that fails a test.
func Fails(t crop.Test) string { return failed[t] }

// Call says what to do with a stem in the hand that is judged for a use, and why.
func Call(c cutting.Call, u crop.Use) string {
	whom := useWords[u]
	switch c.Reason {
	case cutting.Ready:
		return "cut now: right for " + whom
	case cutting.LastChance:
		return "cut now: over by the next pick, so use it today, give it away or leave it to the bees"
	case cutting.TooTight:
		words := fmt.Sprintf("wait %s: too tight for %s", about(c.Days), whom)
		if c.Fits {
			words += ", right for " + useWords[c.Other] + " now"
		}
		return words
	case cutting.TooTightYet:
		return fmt.Sprintf("wait %s: too tight now, over by the next pick, and it does not open in water: come back for it in between", about(c.Days))
	case cutting.SoftNeck:
		return fmt.Sprintf("wait %s: cut now it would wilt, the neck firms up on the plant", about(c.Days))
	case cutting.Uncoloured:
		return fmt.Sprintf("wait %s: its colour is still to come", about(c.Days))
	case cutting.NotWanted:
		return fmt.Sprintf("wait for the next pick %s: nobody wants it before, and it stands until then", inDays(c.Days))
	case cutting.OpensOn:
		return fmt.Sprintf("cut and hold: over by the next pick, and in the shade it opens in water in %s", about(c.Days))
	case cutting.ForLater:
		return fmt.Sprintf("cut and hold: wanted %s, and it would not stand until then", inDays(c.Days))
	case cutting.Old:
		return "discard: too old for " + whom
	default:
		if c.Fits {
			return fmt.Sprintf("discard for %s: past it, still right for %s", whom, useWords[c.Other])
		}
		return "discard: past it; cut it off, so that the plant goes on"
	}
}

// inDays says a day that is known.
func inDays(days float64) string {
	switch n := int(days); n {
	case 0:
		return "today"
	case 1:
		return "tomorrow"
	default:
		return "in " + Days(n)
	}
}

// about says days that are not known to the hour.
func about(days float64) string {
	switch n := int(math.Ceil(days - 0.25)); {
	case n <= 1:
		return "a day"
	case n > 60:
		return "until it is warmer"
	case n > 30:
		return fmt.Sprintf("about %d weeks", int(math.Round(days/7)))
	default:
		return fmt.Sprintf("about %d days", n)
	}
}
