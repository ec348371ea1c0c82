package draw

import (
	"math"
	"strconv"

	"dewcount/core/crop"
	"dewcount/web/assets"
	"dewcount/web/draw/ladder"
)

// DrawingAddress returns the address of a rung's drawing, for an element use.
func DrawingAddress(form, rung string) string {
	return assets.Address("ladder/"+form+".svg") + "#" + rung
}

// ProductMark is the ladder in brief: a bud, a third open, open.
func ProductMark() []RungView {
	return []RungView{NewRung(ladder.Any, crop.Tight), NewRung(ladder.Any, crop.Third), NewRung(ladder.Any, crop.Open)}
}

// A RungView is a rung of the ladder with what stands on it.
type RungView struct {
	Form, ID, Words string // Words as the form shows it
	Number          int
	Stems           string
	InWindow        bool
}

// LadderOf shows stems on each rung of a flower form, those of a window marked.
func LadderOf(form string, on [crop.Rungs]float64, w crop.Window) []RungView {
	rungs := make([]RungView, crop.Rungs)
	for k := range rungs {
		r := crop.Rung(k)
		rungs[k] = NewRung(form, r)
		rungs[k].Stems, rungs[k].InWindow = strconv.Itoa(int(math.Round(on[k]))), w.Holds(r)
	}
	return rungs
}

func NewRung(form string, r crop.Rung) RungView {
	return RungView{Form: ladder.Known(form), ID: r.String(), Words: crop.Sign(form, r), Number: int(r)}
}

// RungsOf returns the silhouettes of a cut window.
func RungsOf(form string, w crop.Window) []RungView {
	var rungs []RungView
	for r := w.From; r <= w.To; r++ {
		rungs = append(rungs, NewRung(form, r))
	}
	return rungs
}
