package draw

import (
	"strings"

	"dewcount/core/crop"
	"dewcount/web/draw/ladder"
)

// Elements are elements of an SVG that this program has drawn: nothing that anybody typed is in them, so a template writes them as they are.
type Elements string

// Specimen returns a stem that is so far on its rung, 0 to 1.
func Specimen(form string, k crop.Rung, part float64) Elements {
	return Elements(ladder.Stem(form, k, part))
}

// Branch returns a branch with so many shoots to cut and heads in all.
func Branch(shoots, heads int) Elements { return Elements(ladder.Branch(shoots, heads)) }

// Back is a flower seen from behind.
func Back(form string, soft bool) Elements { return Elements(ladder.Back(form, soft)) }

// Centre is a look into the middle of a flower.
func Centre(form string, gapes, pollen bool) Elements {
	return Elements(ladder.Centre(form, gapes, pollen))
}

// Neck is a stem on a rung that is wagged.
func Neck(form string, k crop.Rung, soft bool) Elements { return Elements(ladder.Neck(form, k, soft)) }

// Shaken is a stem on a rung that was shaken.
func Shaken(form string, k crop.Rung, sheds bool) Elements {
	return Elements(ladder.Shaken(form, k, sheds))
}

// Squeezed is a head between finger and thumb.
func Squeezed(spent bool) Elements { return Elements(ladder.Squeezed(spent)) }

// petals are the colours that petals are drawn in, by words that growers have for them; the style sheet has the tones.
var petals = []struct{ class, words string }{
	{"white", "white snow ivory"}, {"cream", "cream champagne buff"}, {"blush", "blush shell"}, {"coral", "coral salmon peach"}, {"apricot", "apricot orange copper bronze amber"},
	{"gold", "gold yellow lemon"}, {"lime", "lime green"}, {"blue", "blue sky"}, {"mauve", "mauve lilac lavender purple violet plum"}, {"wine", "wine burgundy dark black"}, {"red", "red scarlet crimson"}, {"rose", "rose pink magenta"},
}

// PetalClass returns the class of the style sheet by which petals of a colour are drawn, by the first of its words that is known.
func PetalClass(colour string) string {
	for word := range strings.FieldsSeq(strings.ToLower(colour)) {
		for _, p := range petals {
			for known := range strings.FieldsSeq(p.words) {
				if word == known {
					return "petal-" + p.class
				}
			}
		}
	}
	return "petal-cream"
}
