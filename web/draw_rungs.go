package web

import (
	"dewcount/core/crop"
	"dewcount/web/ladder"
	"math"
	"strconv"
)

// drawingAddress returns the address of a rung's drawing, for an element use.
func drawingAddress(form, rung string) string {
	return assetAddress("ladder/"+form+".svg") + "#" + rung
}

// productMark is the ladder in brief: a bud, a third open, open.
func productMark() []rungView {
	return []rungView{newRung(ladder.Any, crop.Tight), newRung(ladder.Any, crop.Third), newRung(ladder.Any, crop.Open)}
}

// A rungView is a rung of the ladder with what stands on it.
type rungView struct {
	Form, ID, Words string // Words as the form shows it
	Number          int
	Stems           string
	InWindow        bool
}

// ladderOf shows stems on each rung of a flower form, those of a window marked.
func ladderOf(form string, on [crop.Rungs]float64, w crop.Window) []rungView {
	rungs := make([]rungView, crop.Rungs)
	for k := range rungs {
		r := crop.Rung(k)
		rungs[k] = newRung(form, r)
		rungs[k].Stems, rungs[k].InWindow = strconv.Itoa(int(math.Round(on[k]))), w.Holds(r)
	}
	return rungs
}

func newRung(form string, r crop.Rung) rungView {
	return rungView{Form: ladder.Known(form), ID: r.String(), Words: crop.Sign(form, r), Number: int(r)}
}

// rungsOf returns the silhouettes of a cut window.
func rungsOf(form string, w crop.Window) []rungView {
	var rungs []rungView
	for r := w.From; r <= w.To; r++ {
		rungs = append(rungs, newRung(form, r))
	}
	return rungs
}
