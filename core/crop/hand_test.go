package crop_test

import (
	"math"
	"testing"

	"dewcount/core/crop"
	"dewcount/croptable"
)

// By hand: stripped bare, carried dry and put on its head a stem takes two, two and one seconds more.
func TestHandSeconds(t *testing.T) {
	chosen := map[string]string{crop.Strip: "all", crop.Carry: "dry", crop.Condition: crop.Drained}
	if got := crop.HandSeconds(func(q string) string { return chosen[q] }); math.Abs(got-5) > 1e-9 {
		t.Errorf("%v s", got)
	}
	if got := crop.HandSeconds(func(string) string { return "" }); got != 0 {
		t.Errorf("as usual %v s more than usual", got)
	}
}

// With flower food every crop lasts longer, opens no less far and no further than open, and the table's own profile stays as it is.
func TestFlowerFood(t *testing.T) {
	entries := croptable.Shipped()
	for i := range entries {
		p := entries[i].Profile()
		before := *p
		fed := p.Fed()
		if math.Abs(fed.Vase.Days[0]-1.2*p.Vase.Days[0]) > 1e-9 || fed.InWater.To < p.InWater.To || fed.InWater.Opens == "no" && fed.InWater.To != p.InWater.To || fed.InWater.To > max(p.InWater.To, crop.Open) {
			t.Errorf("%s: %+v, %+v", p.ID, fed.Vase, fed.InWater)
		}
		if p.Vase != before.Vase || p.InWater != before.InWater {
			t.Errorf("%s is changed", p.ID)
		}
	}
}
