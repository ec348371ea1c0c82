package crop_test

import (
	"strings"
	"testing"

	"dewcount/core/crop"
	"dewcount/croptable"
)

func profile(t *testing.T, id string) *crop.Profile {
	t.Helper()
	entries := croptable.Shipped()
	for i := range entries {
		if entries[i].ID == id {
			return entries[i].Profile()
		}
	}
	t.Fatalf("the table has no %s", id)
	return nil
}

func TestCautionsStandWhereTheyAreHeeded(t *testing.T) {
	for id, want := range map[string][2]string{ // in the row, where the water is poured
		"wild-carrot": {"Sap burns skin", ""}, "ammi": {"Sap burns skin", ""}, "dahlia-ball": {"irritate the skin", "scalds"}, "rose-garden": {"Thorns", ""}, "zinnia-tall": {"", ""},
	} {
		p := profile(t, id)
		row, water := strings.Join(p.Handling(), " "), strings.Join(p.Scalding(), " ")
		if !strings.Contains(row, want[0]) || want[0] == "" && row != "" || strings.Contains(row, "scald") || strings.Contains(row, "eaten") {
			t.Errorf("%s: in the row %q, want %q", id, row, want[0])
		}
		if !strings.Contains(water, want[1]) || want[1] == "" && water != "" {
			t.Errorf("%s: at the water %q, want %q", id, water, want[1])
		}
	}
}

// Signs that growers look for: the gayfeather's top, the small white flowers of statice, hips on roses alone; celosia goes bare into a store.
func TestSignsAreTheTrades(t *testing.T) {
	sign := func(id string, r crop.Rung) string { return crop.Sign(profile(t, id).Ladder, r) }
	for id, want := range map[string]string{"liatris": "upper third", "snapdragon": "lower third", "statice": "white flowers"} {
		if got := sign(id, crop.Third); !strings.Contains(got, want) {
			t.Errorf("a third open, %s is told by %q, want %q", id, got, want)
		}
	}
	for id, hips := range map[string]bool{"rose-garden": true, "peony": false, "lisianthus": false, "ranunculus": false} {
		if got := sign(id, crop.Spent); strings.Contains(got, "hip") != hips {
			t.Errorf("spent, %s is told by %q", id, got)
		}
	}
	for id, first := range map[string]string{"celosia-plume": "all", "celosia-crest": "all", "zinnia-tall": "water"} {
		for _, q := range profile(t, id).Questions() {
			if q.ID == "strip" && q.Choices[0].ID != first {
				t.Errorf("%s is usually stripped %q, want %q", id, q.Choices[0].ID, first)
			}
		}
	}
	for _, id := range []string{"dahlia-ball", "dahlia-decorative", "dahlia-dinnerplate"} {
		for _, e := range croptable.Shipped() {
			if e.ID == id && !strings.Contains(strings.Join(e.Cut["market"].Tests, " "), "centre-tight") {
				t.Errorf("the centre of %s is not looked at for the market", id)
			}
		}
	}
}
