package market

import (
	"testing"

	"dewcount/farm/book"
)

func TestWordsInAnyOrderNameWhatIsWanted(t *testing.T) {
	b := book.NewBook(nil)
	b.Varieties = []book.Variety{{Name: "Cosmos white", Crop: "cosmos-single", Colour: "white", Role: "filler"}, {Name: "Snow Föhn", Crop: "snapdragon", Colour: "white", Role: "spike"},
		{Name: "Zinnia coral", Crop: "zinnia-tall", Colour: "coral", Role: "focal"}, {Name: "Zinnia button mix", Crop: "zinnia-small", Colour: "shell pink:0.4;red:0.6", Role: "accent"}}
	for words, want := range map[string][]book.OrderLine{
		"Cosmos white": {{Variety: "Cosmos white"}}, "WHITE COSMOS": {{Variety: "Cosmos white"}}, "white snapdragons": {{Crop: "snapdragon", Colour: "white"}}, "snow föhn": {{Variety: "Snow Föhn"}},
		"tall zinnia": {{Crop: "zinnia-tall"}}, "zinnias": {{Crop: "zinnia-tall"}, {Crop: "zinnia-small"}}, "red zinnia": {{Crop: "zinnia-tall", Colour: "red"}, {Crop: "zinnia-small", Colour: "red"}},
		"anything white": {{Colour: "white"}}, "white filler": {{Colour: "white", Role: "filler"}}, "fillers, white": {{Colour: "white", Role: "filler"}}, "foliage": {{Role: "foliage"}},
		"coral or white": {{Colour: "white / coral"}}, "white / coral filler": {{Colour: "white / coral", Role: "filler"}}, "white and red": {{Colour: "white / red"}},
		"shell pink zinnia small": {{Crop: "zinnia-small", Colour: "shell pink"}}, "button mix": {{Variety: "Zinnia button mix"}}, "snap": {{Crop: "snapdragon"}}, "tall zinnias for": {{Crop: "zinnia-tall"}}, "basil for foliage": {{Crop: "basil", Role: "foliage"}}, "white snapdragons please, by": {{Crop: "snapdragon", Colour: "white"}},
		"": nil, "anything": nil, "stems": nil, "purple unicorn": nil, "🌼": nil,
	} {
		got := Name(b, words)
		if len(got) != len(want) {
			t.Errorf("%q names %+v, want %+v", words, got, want)
			continue
		}
		for i := range want {
			found := false
			for _, n := range got {
				found = found || n.Line == want[i]
			}
			if !found {
				t.Errorf("%q names %+v, want %+v", words, got, want[i])
			}
		}
	}
}
