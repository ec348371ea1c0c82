package evidence

import "dewcount/core/crop"

// An Eye is how somebody calls stems: the chance (0 to 1) that one which stands on a rung is called another, by where it stands and by what it is called. The zero
// Eye is as a crew's usually are.
type Eye [crop.Rungs][crop.Rungs]float64

// misjudged is the chance that a crew calls a stem one rung too low, and as large that it calls it one too high.
const misjudged = 0.08

// Usual returns the eyes of a crew of which nobody knows more.
func Usual() Eye { return usualEye }

var usualEye = func() (e Eye) {
	for k := range e {
		e[k][max(0, k-1)] += misjudged
		e[k][min(crop.Rungs-1, k+1)] += misjudged
		e[k][k] += 1 - 2*misjudged
	}
	return e
}()

// known returns the eye, or the usual one for the zero Eye.
func (e *Eye) known() *Eye {
	if e[0] == ([crop.Rungs]float64{}) { // a row of chances adds up to one
		return &usualEye
	}
	return e
}

// Sees returns what these eyes call stems that stand on rungs.
func (e *Eye) Sees(stems [crop.Rungs]float64) [crop.Rungs]float64 {
	var seen [crop.Rungs]float64
	calls := e.known()
	for k, n := range stems {
		if n == 0 {
			continue
		}
		for said, chance := range calls[k] {
			seen[said] += chance * n
		}
	}
	return seen
}

// back takes factors of what was called back to the rungs on which stems may stand: each goes by what it may have been called.
func (e *Eye) back(factor [crop.Rungs]float64) [crop.Rungs]float64 {
	var out [crop.Rungs]float64
	for k, row := range e.known() {
		for said, chance := range row {
			out[k] += chance * factor[said]
		}
	}
	return out
}
