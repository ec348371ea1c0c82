package book

import (
	"slices"
	"testing"
)

func TestVarietiesAreFoundByWhatTheyAre(t *testing.T) {
	b := NewBook(nil)
	low, high := 45.0, 120.0
	b.Varieties = []Variety{{Name: "Zinnia coral", Crop: "zinnia-tall", Colour: "coral", Role: "focal"}, {Name: "Zinnia dwarf white", Crop: "zinnia-tall", Colour: "white", Role: "filler", HeightCM: &low},
		{Name: "Süße Wicke", Crop: "sweet-pea", Colour: "white:0.5;blush:0.5", Role: "accent", HeightCM: &high, Traits: "scented, mildew-resistant"}}
	for words, want := range map[string][]string{
		"": nil, "of the": nil, "WHITE": {"Süße Wicke", "Zinnia dwarf white"}, "white filler": {"Zinnia dwarf white"}, "fillers white": {"Zinnia dwarf white"}, "zinnias": {"Zinnia coral", "Zinnia dwarf white"},
		"scented": {"Süße Wicke"}, "mildew white": {"Süße Wicke"}, "süße": {"Süße Wicke"}, "tall white": {"Süße Wicke"}, "short zinnia": {"Zinnia dwarf white"}, "110 cm": {"Süße Wicke", "Zinnia coral"}, "43 inches": {"Süße Wicke", "Zinnia coral"}, "purple": nil,
	} {
		var got []string
		for _, v := range b.FindVarieties(words) {
			got = append(got, v.Name)
		}
		if !slices.Equal(got, want) {
			t.Errorf("%q finds %q, want %q", words, got, want)
		}
	}
}
