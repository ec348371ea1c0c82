package market

import (
	"fmt"
	"strings"
	"testing"

	"dewcount/core/day"
	"dewcount/farm/book"
)

func shop() *book.Book {
	b := book.NewBook(nil)
	b.Settings = []book.Setting{{Key: "bunch_stems", Value: "8"}, {Key: "name", Value: "A farm"}, {Key: "latitude", Value: "46.9"}, {Key: "longitude", Value: "7.2"}, {Key: "elevation_m", Value: "520"},
		{Key: "timezone", Value: "Europe/Zurich"}, {Key: "pick_days", Value: "tue fri"}}
	b.Varieties = []book.Variety{{Name: "Snapdragon white", Crop: "snapdragon", Colour: "white", Role: "spike"}, {Name: "Cosmos white", Crop: "cosmos-single", Colour: "white", Role: "filler"},
		{Name: "Zinnia coral", Crop: "zinnia-tall", Colour: "coral", Role: "focal"}, {Name: "Zinnia small mix", Crop: "zinnia-small", Colour: "yellow:0.5;red:0.5", Role: "accent"}, {Name: "Ammi white", Crop: "ammi", Colour: "white", Role: "filler"}}
	return b
}

// Messages are read as a grower would read them: what is understood, what may be several things, and what is not.
func TestReadOrder(t *testing.T) {
	b := shop()
	tell := func(r Read) string {
		var said []string
		for _, l := range r.Lines {
			one := fmt.Sprintf("%d", l.Count)
			if l.Bunch > 0 {
				one += fmt.Sprintf("×%d", l.Bunch)
			}
			switch {
			case l.What != "":
				one += " " + l.What
			case l.May != nil:
				one += " of " + fmt.Sprint(len(l.May))
			default:
				one += " ?"
			}
			said = append(said, one)
		}
		return strings.TrimSpace(r.On.String() + " " + strings.Join(said, ", "))
	}
	for text, want := range map[string]string{
		"Could you put by 30 white snapdragons and 20 ammi for the 18th of July?": "2026-07-18 30 Snapdragon white, 20 Ammi",
		"Five bunches for a birthday, yellow if there is some.":                   "5×8 anything yellow",
		"Twelve small jars for the long table, anything that smells of summer?":   "12 ?",
		"40 zinnias": "40 of 2",
		"on Saturday: a dozen COSMOS WHITE\n6 tall zinnia":                                               "2026-07-11 12 Cosmos white, 6 Zinnia, tall double",
		"Hello! How are you? See you soon.":                                                              "",
		"30 cosmos, 12 white ammi and 6 tall zinnias, we come at 8 am; the other car at 10:30 or 4 p.m.": "30 Cosmos, single, 12 Ammi white, 6 Zinnia, tall double",
		"-5 cosmos": "",
		"variety,crop,colour,pick_day,sure,wanted\nCosmos white,cosmos-single,white,2026-07-14,40,25\nAmmi white,ammi,white,2026-07-14,9,\n": "2026-07-14 25 Cosmos white",
		"Flower;Number\nwhite filler;12\norchids;3\n": "12 white filler, 3 ?",
	} {
		if got := tell(ReadOrder(b, text, day.Of(2026, 7, 9))); got != want {
			t.Errorf("%q is read as %q, not %q", text, got, want)
		}
	}
}

// Whatever somebody sends is read without harm, and nothing that is read asks for less than one stem.
func FuzzReadOrder(f *testing.F) {
	f.Add("5 bunches, yellow")
	f.Add("what;stems\n\"x;3")
	b := shop()
	f.Fuzz(func(t *testing.T, text string) {
		for _, l := range ReadOrder(b, text, day.Of(2026, 7, 9)).Lines {
			if l.Count < 1 || l.What != "" && l.May != nil {
				t.Fatalf("%q is read as %+v", text, l)
			}
		}
	})
}
