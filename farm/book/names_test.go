package book

import "testing"

func TestFreeNames(t *testing.T) {
	b := &Book{Plantings: []Planting{{ID: "ZC1"}, {ID: "ZC2"}}}
	for variety, want := range map[string]string{"Zinnia coral": "ZC3", "Sunflower gold": "SG1", "  ": "P1", "Ångström 7 rosé extra": "ÅRE1"} {
		if got := b.FreeName(variety); got != want {
			t.Errorf("a planting of %q is named %s, want %s", variety, got, want)
		}
	}
}
