package draw

import (
	"testing"

	"dewcount/core/crop"
)

// Worked by hand: 0 to 100 stems on a drawing from 2 to 198 units.
func TestBandIsDrawnToScale(t *testing.T) {
	b := NewBand(10, 25, 50, 75, 90, 100, 80)
	want := BandView{Outer: "21.6", OuterW: "156.8", Inner: "51.0", InnerW: "98.0", Likely: "100.0", Want: "158.8"}
	if b != want {
		t.Errorf("band is %+v, want %+v", b, want)
	}
	if empty := NewBand(0, 0, 0, 0, 0, 10, 0); empty.Outer != "" || empty.Want != "" {
		t.Errorf("nothing is drawn as %+v", empty)
	}
}

func TestLadderMarksTheWindow(t *testing.T) {
	rungs := LadderOf("spike", [crop.Rungs]float64{12.4, 3.5}, crop.Window{From: crop.Half, To: crop.Open})
	marked := ""
	for _, r := range rungs {
		if r.InWindow {
			marked += r.ID + " "
		}
	}
	if marked != "half open " || rungs[0].Stems != "12" || rungs[1].Stems != "4" {
		t.Errorf("marked %q, %+v", marked, rungs[:2])
	}
}
