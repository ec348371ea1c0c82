// Package ladder draws the bud ladder: for every flower form its eight rungs, seen from the side, as SVG.
//
// What is still green is solid ink, what shows its colour is an outline; so a stem goes from all ink to all outline while it opens, and
// back to ink when it is spent. That holds in black and white and at the size of a thumbnail. There is one routine a form, fed by how
// far a rung is open.
package ladder

import (
	"fmt"
	"slices"
	"strings"

	"dewcount/core/crop"
)

// A drawing is laid out on Width by Height units, its stem standing on the middle of the lower edge.
const (
	Width  = 64
	Height = 76
)

const (
	middle = Width / 2
	ground = Height
)

// A pose is how far the stem on a rung has come, in parts of 1.
type pose struct {
	rung   crop.Rung
	shown  float64 // of the petals or florets that show colour
	open   float64 // how far they are spread
	droop  float64 // how far they hang
	gone   float64 // of them that have fallen
	pollen bool
}

// poses are the rungs as the table of the ladder has them: lifting loosens, third is a third, half lies within half and three quarters.
var poses = [crop.Rungs]pose{
	{rung: crop.Tight},
	{rung: crop.Colour, shown: 0.4},
	{rung: crop.Lifting, shown: 1, open: 0.14},
	{rung: crop.Third, shown: 1, open: 0.36},
	{rung: crop.Half, shown: 1, open: 0.64},
	{rung: crop.Open, shown: 1, open: 1},
	{rung: crop.Over, shown: 1, open: 1, droop: 0.55, gone: 0.35, pollen: true},
	{rung: crop.Spent, droop: 1, gone: 1},
}

// routines draw the forms by their ids in the crop table.
var routines = map[string]func(*pen, pose){
	"single-daisy": singleDaisy, "double-daisy": doubleDaisy, "papery": papery, "tuft": tuft, "ruffle": ruffle,
	"goblet": goblet, "trumpet": trumpet, "pea": pea, "spike": spike, "spike-down": spikeDown, "spear": spear, "plume": plume, "crest": crest, "coil": coil,
	"umbel": umbel, "globe": globe, "panicle": panicle, "foliage": foliage, "grass": grass,
}

// Any is the ladder that stands for all forms, where no crop is meant.
const Any = "any"

// Forms returns the ids of the forms that can be drawn, in order, Any first.
func Forms() []string {
	forms := make([]string, 0, len(routines)+1)
	for form := range routines {
		forms = append(forms, form)
	}
	slices.Sort(forms)
	return slices.Insert(forms, 0, Any)
}

// alike are ladders that are told by words of their own and drawn like a form.
var alike = map[string]string{"statice": "papery", "rose": "ruffle"}

// Known returns the form by which a ladder is drawn, and Any if there is none.
func Known(form string) string {
	if drawn, ok := alike[form]; ok {
		return drawn
	}
	if _, ok := routines[form]; ok {
		return form
	}
	return Any
}

// Sheet returns an SVG file with a symbol for every rung of a form, with the rung's id as its own. Ink is currentColor, the fill
// of outlines the custom property --petal.
func Sheet(form string) []byte {
	var text strings.Builder
	text.WriteString(`<svg xmlns="http://www.w3.org/2000/svg">` + "\n")
	for k := range crop.Rung(crop.Rungs) {
		fmt.Fprintf(&text, `<symbol id="%s" viewBox="0 0 %d %d" stroke-linejoin="round" stroke-linecap="round">%s</symbol>`+"\n", k, Width, Height, Drawing(form, k))
	}
	text.WriteString("</svg>\n")
	return []byte(text.String())
}

// Drawing returns the elements of one rung's drawing.
func Drawing(form string, k crop.Rung) string {
	var p pen
	if draw, ok := routines[form]; ok {
		draw(&p, poses[k])
	} else {
		anyBud(&p, k)
	}
	return p.text.String()
}
