package postharvest

import (
	"testing"

	"dewcount/core/crop"
)

// Worked by hand from the crop table: single cosmos lasts 4 to 6 days, the least of the three; a dahlia drinks much and its sap irritates.
func TestTheCardOfABouquetByHand(t *testing.T) {
	cosmos, dahlia, snapdragon := profile(t, "cosmos-single"), profile(t, "dahlia-ball"), profile(t, "snapdragon")
	c := CardOf([]*crop.Profile{dahlia, cosmos, snapdragon})
	if c.First != cosmos || c.Days != [2]float64{4, max(dahlia.Vase.Days[1], snapdragon.Vase.Days[1])} || !c.Deep {
		t.Errorf("%+v", c)
	}
	if len(c.Cautions) != 1 || c.Cautions[0].Crop != dahlia || c.Cautions[0].Words != "Leaves and sap can irritate the skin of some people." {
		t.Errorf("who takes dahlias home is told %+v: the hot bath is none of his", c.Cautions)
	}
	opens := 0
	for _, p := range c.Opening {
		if p.InWater.Opens != "yes" {
			t.Errorf("%s does not go on opening", p.ID)
		}
		opens++
	}
	if opens == 0 {
		t.Error("a snapdragon goes on opening")
	}
	if c := CardOf([]*crop.Profile{profile(t, "daffodil")}); len(c.Alone) != 1 {
		t.Errorf("a daffodil bleeds sap: %+v", c)
	}
	if c := CardOf(nil); c.First != nil || c.Days != [2]float64{} {
		t.Errorf("of nothing: %+v", c)
	}
}
