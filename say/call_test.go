package say

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/cutting"
)

func TestCallsAreSaidAsAGrowerWould(t *testing.T) {
	for _, c := range []struct {
		call  cutting.Call
		use   crop.Use
		words string
	}{
		{cutting.Call{Verdict: cutting.CutNow, Reason: cutting.Ready}, crop.Market, "cut now: right for the market"},
		{cutting.Call{Reason: cutting.LastChance, Days: 3}, crop.Market, "cut now: over by the next pick, so use it today, give it away or leave it to the bees"},
		{cutting.Call{Reason: cutting.TooTight, Days: 2.1}, crop.Florist, "wait about 2 days: too tight for a florist"},
		{cutting.Call{Reason: cutting.TooTight, Days: 2.4, Other: crop.Florist, Fits: true}, crop.Market, "wait about 3 days: too tight for the market, right for a florist now"},
		{cutting.Call{Reason: cutting.TooTight, Days: 35}, crop.Event, "wait about 5 weeks: too tight for an event"},
		{cutting.Call{Reason: cutting.TooTight, Days: 200}, crop.Event, "wait until it is warmer: too tight for an event"},
		{cutting.Call{Reason: cutting.TooTightYet, Days: 4}, crop.Market, "wait about 4 days: too tight now, over by the next pick, and it does not open in water: come back for it in between"},
		{cutting.Call{Reason: cutting.SoftNeck, Days: 1.2}, crop.Market, "wait a day: cut now it would wilt, the neck firms up on the plant"},
		{cutting.Call{Reason: cutting.Uncoloured, Days: 2}, crop.Market, "wait about 2 days: its colour is still to come"},
		{cutting.Call{Reason: cutting.NotWanted, Days: 1}, crop.Market, "wait for the next pick tomorrow: nobody wants it before, and it stands until then"},
		{cutting.Call{Reason: cutting.OpensOn, Days: 1.6}, crop.Event, "cut and hold: over by the next pick, and in the shade it opens in water in about 2 days"},
		{cutting.Call{Reason: cutting.ForLater, Days: 3}, crop.Event, "cut and hold: wanted in 3 days, and it would not stand until then"},
		{cutting.Call{Reason: cutting.Old, Test: crop.FirmBacks}, crop.Market, "discard: too old for the market"},
		{cutting.Call{Reason: cutting.Past}, crop.Market, "discard: past it; cut it off, so that the plant goes on"},
		{cutting.Call{Reason: cutting.Past, Other: crop.Event, Fits: true}, crop.Market, "discard for the market: past it, still right for an event"},
	} {
		if said := Call(c.call, c.use); said != c.words {
			t.Errorf("%+v: %q, want %q", c.call, said, c.words)
		}
	}
	for _, test := range crop.Tests {
		if Fails(test) == "" {
			t.Errorf("nobody says how a stem looks that fails %s", test)
		}
	}
}
