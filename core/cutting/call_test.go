package cutting

import (
	"slices"
	"testing"

	"dewcount/core/crop"
	"dewcount/croptable"
)

func profile(t *testing.T, id string) *crop.Profile {
	t.Helper()
	for _, e := range croptable.Shipped() {
		if e.ID == id {
			return e.Profile()
		}
	}
	t.Fatalf("no crop %s", id)
	return nil
}

// For every crop, use and school of the table, on every rung and for every test: inside the window a sound stem is cut, before it nothing is cut but
// what goes on opening in water, behind it nothing is; and only tests that the use asks for count.
func TestTheCallAgreesWithTheCropTable(t *testing.T) {
	calm := Days{CdADay: 12, Wanted: -1}
	rare := Days{CdADay: 12, NextPick: 60, Wanted: -1, HeldC: 18}
	judged := 0
	for _, e := range croptable.Shipped() {
		p := e.Profile()
		schools := []string{""}
		for _, s := range p.Schools {
			schools = append(schools, s.ID)
		}
		for use := range p.Cut {
			for _, school := range schools {
				window, _ := p.Window(use, school)
				for k := range crop.Rung(crop.Rungs) {
					judged++
					s := Stem{Crop: p, Use: use, School: school, Rung: k}
					call, seldom := Of(s, calm), Of(s, rare)
					want := CutNow
					switch {
					case k < window.From:
						want = Wait
						opens := p.InWater.Opens != "no" && p.InWater.To >= window.From && k >= crop.Colour
						if holds := seldom.Verdict == Hold; holds != opens || !holds && seldom.Verdict != Wait {
							t.Errorf("%s for %s (%q) on %s, seldom picked: %+v", p.ID, use, school, k, seldom)
						}
					case k > window.To:
						want = Discard
					}
					if call.Verdict != want || want == Wait && call.Days <= 0 {
						t.Errorf("%s for %s (%q, %s) on %s: %+v, want %s", p.ID, use, school, window, k, call, want)
					}
					for _, test := range crop.Tests {
						s.Failed = []crop.Test{test}
						failed, asked := Of(s, calm), slices.Contains(p.CutTests[use], test) && window.Holds(k)
						if asked == (failed == call) || asked && (failed.Verdict == CutNow || failed.Verdict == Hold || failed.Test != test) {
							t.Errorf("%s for %s on %s fails %s, asked for: %v: %+v", p.ID, use, k, test, asked, failed)
						}
					}
				}
			}
		}
	}
	if judged < 2000 {
		t.Errorf("only %d judged", judged)
	}
}

// What an old hand says, case by case.
func TestTheCallInTheHand(t *testing.T) {
	dahlia, zinnia := profile(t, "dahlia-ball"), profile(t, "zinnia-tall")
	market := Days{CdADay: 13, NextPick: 3, Wanted: 1, HeldC: 4}
	week := Days{CdADay: 13, NextPick: 7, Wanted: 1, HeldC: 4}
	wedding := Days{CdADay: 13, NextPick: 3, Wanted: 3, HeldC: 4}
	for name, c := range map[string]struct {
		s       Stem
		d       Days
		verdict Verdict
		reason  Reason
	}{
		"half open for tomorrow's market":                  {Stem{Crop: dahlia, Rung: crop.Half}, market, CutNow, Ready},
		"soft backs":                                       {Stem{Crop: dahlia, Rung: crop.Open, Failed: []crop.Test{crop.FirmBacks}}, market, Discard, Old},
		"a zinnia whose head flops":                        {Stem{Crop: zinnia, Rung: crop.Open, Failed: []crop.Test{crop.StiffNeck}}, market, Wait, SoftNeck},
		"a green dahlia bud never opens in a vase":         {Stem{Crop: dahlia, Rung: crop.Tight}, week, Wait, TooTight},
		"a dahlia that is over by the next weekly pick":    {Stem{Crop: dahlia, Rung: crop.Lifting}, Days{CdADay: 30, NextPick: 7, Wanted: 1}, Wait, TooTightYet},
		"a delphinium that would be over by the next pick": {Stem{Crop: profile(t, "delphinium"), Use: crop.Event, Rung: crop.Lifting}, Days{CdADay: 60, NextPick: 7, Wanted: 2, HeldC: 18}, Hold, OpensOn},
		"ready, but wanted in three days and over by then": {Stem{Crop: dahlia, Use: crop.Event, Rung: crop.Open}, Days{CdADay: 25, NextPick: 3, Wanted: 3, HeldC: 4}, Hold, ForLater},
		"ready, wanted after the next pick, and it stands": {Stem{Crop: dahlia, Rung: crop.Half}, Days{CdADay: 6, NextPick: 3, Wanted: 4}, Wait, NotWanted},
		"ready, wanted in ten days, over by the next pick": {Stem{Crop: dahlia, Rung: crop.Open}, Days{CdADay: 25, NextPick: 3, Wanted: 10}, CutNow, LastChance},
		"over": {Stem{Crop: dahlia, Rung: crop.Over}, wedding, Discard, Past},
		"a third open is too tight for the market, for now":     {Stem{Crop: dahlia, Rung: crop.Third}, market, Wait, TooTight},
		"a sunflower's pollen is no matter to a florist's rung": {Stem{Crop: profile(t, "sunflower-single"), Use: crop.Florist, Rung: crop.Half, Failed: []crop.Test{crop.NoPollen}}, market, CutNow, Ready},
	} {
		if call := Of(c.s, c.d); call.Verdict != c.verdict || call.Reason != c.reason {
			t.Errorf("%s: %+v", name, call)
		}
	}
	// From the middle of tight (125 °Cd) over colour, lifting and a third to half: 62.5 + 40 + 28 + 32 = 162.5 °Cd, at 13 a day 12.5 days.
	if call := Of(Stem{Crop: dahlia, Rung: crop.Tight}, market); call.Days != 12.5 {
		t.Errorf("a tight bud waits %v days, want 12.5", call.Days)
	}
	if call := Of(Stem{Crop: dahlia, Rung: crop.Third}, market); !call.Fits || call.Other != crop.Florist {
		t.Errorf("a third open it is a florist's: %+v", call)
	}
	if call := Of(Stem{Crop: dahlia, Use: crop.Drying, Rung: crop.Open}, market); call.Verdict != Discard {
		t.Errorf("dahlias are not dried: %+v", call)
	}
}
