package ladder

import (
	"testing"

	"dewcount/core/crop"
)

// A stem in the middle of its rung is drawn as the ladder has it, one towards the next otherwise, and no two rungs alike at any part: the drawing differs where
// the judgement does.
func TestStemsOnTheirWay(t *testing.T) {
	for form := range routines {
		seen := make(map[string]crop.Rung)
		for k := range crop.Rung(crop.Rungs) {
			if Stem(form, k, 0.5) != Drawing(form, k) {
				t.Errorf("%s: %s in its middle is not the ladder's", form, k)
			}
			for _, part := range []float64{0.1, 0.3, 0.5, 0.7, 0.9} {
				drawn := Stem(form, k, part)
				if other, there := seen[drawn]; there && other != k {
					t.Errorf("%s: %s at %v is drawn as %s", form, k, part, other)
				}
				seen[drawn] = k
			}
		}
	}
	for name, pair := range map[string][2]string{"squeezed": {Squeezed(false), Squeezed(true)}, "branch": {Branch(2, 5), Branch(3, 5)}} {
		if pair[0] == pair[1] || pair[0] == "" {
			t.Errorf("%s looks the same where the judgement differs", name)
		}
	}
	for form := range routines {
		for name, pair := range map[string][2]string{"back": {Back(form, false), Back(form, true)}, "centre": {Centre(form, false, false), Centre(form, true, false)}, "pollen": {Centre(form, false, false), Centre(form, false, true)},
			"neck": {Neck(form, crop.Half, false), Neck(form, crop.Half, true)}, "shaken": {Shaken(form, crop.Half, false), Shaken(form, crop.Half, true)}} {
			if pair[0] == pair[1] || pair[0] == "" {
				t.Errorf("%s of %s looks the same where the judgement differs", name, form)
			}
		}
	}
}
