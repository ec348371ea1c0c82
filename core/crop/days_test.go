package crop_test

import (
	"math"
	"testing"

	"dewcount/core/crop"
	"dewcount/croptable"
)

// By hand: where the table says 80 to 100 days over a way of 100 + 500 + 100 + 50 degree-days to the rung of its cut, a packet of 72 days is a fifth quicker: a
// fifth of 750 is taken off the way to the bud.
func TestAPacketsDays(t *testing.T) {
	p := &crop.Profile{EmergeCd: 100, BudCd: 500, RungsCd: [crop.Rungs - 1]float64{100, 50, 60, 60, 60, 60, 60}, TypicalDays: [2]int{80, 100}, Cut: map[crop.Use]crop.Window{crop.Market: {From: 2, To: 3}}}
	if own := p.OfDays(72); math.Abs(own.BudCd-350) > 1e-9 || own.TypicalDays != [2]int{64, 80} || own.RungsCd != p.RungsCd || p.BudCd != 500 {
		t.Errorf("%v, %v", own.BudCd, own.TypicalDays)
	}
	if own := p.OfDays(0); own != p {
		t.Error("no days change the crop")
	}
	if own := p.OfDays(9); own.TypicalDays[0] != 48 || own.BudCd < 150-1e-9 {
		t.Errorf("a packet of nine days: %v, %v", own.BudCd, own.TypicalDays)
	}
}

// Of every crop of the table a variety of more days is later, and one of the table's own is as the crop.
func TestMoreDaysAreLater(t *testing.T) {
	entries := croptable.Shipped()
	for i := range entries {
		p := entries[i].Profile()
		middle := (p.TypicalDays[0] + p.TypicalDays[1]) / 2
		last := 0.0
		for _, days := range []int{middle / 2, middle * 8 / 10, middle, middle * 12 / 10, 3 * middle} {
			own := p.OfDays(days)
			if own.BudCd < last {
				t.Errorf("%s: %d days are earlier than fewer", p.ID, days)
			}
			last = own.BudCd
			if days == middle && math.Abs(own.BudCd-p.BudCd) > 0.02*(p.BudCd+p.EmergeCd) {
				t.Errorf("%s: its own days change it from %v to %v", p.ID, p.BudCd, own.BudCd)
			}
		}
	}
}
