package crop

import "strings"

// ladders are the genera whose stems are told by other signs than their form's: gayfeather opens from the top of its spike, statice is judged by
// the small white flowers in its papery cups, and of the ruffled kinds only roses make hips.
var ladders = map[string]string{"Liatris": "spike-down", "Limonium": "statice", "Rosa": "rose"}

// LadderOf returns the bud ladder of a crop by its form and its botanical name, the genus first.
func LadderOf(form, botanical string) string {
	genus, _, _ := strings.Cut(botanical, " ")
	if own, ok := ladders[genus]; ok {
		return own
	}
	return form
}

// signs are how the rungs of each flower form look, in words for somebody who stands before the stem.
var signs = map[string][Rungs]string{
	"single-daisy": {"round green bud, flat on top", "tips of the rays show, still a tube", "rays stand up in a loose tube", "rays spread to a cup", "rays halfway down, centre a hard button", "rays flat, centre tight, no pollen", "pollen loose, rays fold back or drop", "head pointed, rays shrivelled"},
	"double-daisy": {"round green bud, flat on top", "colour shows in the middle, closed", "outer petals let go of the ball", "outer row out, the middle a tight cone", "half the rows out, centre tight", "all rows out, backs firm, centre just tight", "backs soft or folded down, centre open", "head runs to a point, slimy when squeezed"},
	"papery":       {"hard scaly bud", "colour at the tip", "first bracts loosen", "two or three rows of bracts loose", "bracts stand out, centre hidden", "bracts flat, a tight centre just seen", "bracts bent back, centre fluffy and yellow", "seed flies off"},
	"tuft":         {"hard green bud", "a tip of colour", "first florets stick out", "a brush of outer florets", "outer ring flat, middle closed", "ring flat, middle out and fresh", "pollen or fading, florets drop", "a dry bristly head"},
	"ruffle":       {"hard round bud in its sepals", "colour shows, still hard", "soft as a ripe plum, first petal loose", "outer petals off the ball", "a bowl, the middle still closed", "full, centre tight or just seen", "centre gapes, skirts hang, petals drop", "petals fallen, the middle bare"},
	"rose":         {"hard round bud in its sepals", "sepals part, colour shows, still hard", "sepals turned back, first petal loose", "outer petals off the bud", "a bowl, the middle still closed", "full, centre tight or just seen", "centre gapes, petals drop", "petals fallen, the hip swells"},
	"statice":      {"all cups green and shut", "cups show their colour, shut", "first cups open, no white flower yet", "white flowers in a third of the cups", "white flowers in half to three quarters of the cups", "white flowers in nearly all cups, fresh", "white flowers brown, the cups still coloured", "cups pale and dry, seed falls"},
	"spike-down":   {"all buds green and tight", "topmost buds coloured", "topmost florets open", "upper third open", "open half to three quarters of the way down", "all open but the foot", "topmost florets brown", "seed tufts down the spike"},
	"goblet":       {"green closed bud", "colour in the bud, closed", "all coloured, tips just part", "a narrow cup", "a wide cup", "an open bowl, stamens clean", "petals flat, pollen on them, some drop", "bare pod"},
	"trumpet":      {"hard green bud", "bud swollen and coloured", "tip splits", "mouth opens", "mouth half flared", "wide open, stamens clean", "petals rolled back, pollen out", "limp, or a pod"},
	"pea":          {"all buds green", "buds coloured, none open", "lowest flower opens", "one or two open", "all open but the top two", "all open but the top bud", "lowest flowers fade or drop", "pods"},
	"spike":        {"all buds green and tight", "lowest buds coloured", "lowest florets open", "lower third open", "open half to three quarters of the way up", "all open but the tip", "lowest florets drop", "seed pods up the spike"},
	"spear":        {"thin green spear", "colour at the foot", "a quarter formed", "a third formed and coloured", "half to three quarters formed", "formed to the tip", "black seed falls from the foot", "dry, seed falls when touched"},
	"plume":        {"small green cone", "colour in the lowest tufts", "lowest tufts fluff", "lower third full", "half to three quarters full", "full to the tip, no seed", "seed falls when shaken", "ragged and dry"},
	"crest":        {"a green knob", "a coloured ridge", "ridge begins to fold", "a small comb", "a comb, still growing", "full comb, firm, no seed", "seed shows at its sides", "dry, seed falls"},
	"coil":         {"coil rolled up hard", "coloured buds on the coil", "first florets open", "a few florets out, coil mostly rolled", "coil half unrolled", "nearly unrolled, the tip still in bud", "only the tip blooms", "unrolled, hairy pods"},
	"umbel":        {"head clenched like a fist", "head loosens, florets green", "first outer florets open", "a third of the florets open", "half to three quarters open, nearly flat", "flat, four fifths open or more", "florets drop, rim turns up", "closed like a nest, seed"},
	"globe":        {"small hard ball", "colour at its foot", "lowest florets or scales out", "a third out", "half to three quarters out", "round, full and firm", "lengthens, scales loosen", "bare knob, seed"},
	"panicle":      {"all buds hard", "lowest buds coloured", "lowest florets open", "a third open", "open half to three quarters of the way up", "open to the tip, fresh", "florets brown or drop", "dry seed head"},
	"foliage":      {"tip soft, leaves rolled", "leaves unroll, still soft", "lowest leaves flat", "lower leaves firm", "most leaves firm, tip a little soft", "firm to the tip", "shoots up to flower", "leaves hang, holes or yellow"},
	"grass":        {"plume in its sheath", "tip leaves the sheath", "half out of the sheath", "out, still narrow", "silky, beginning to spread", "full and silky", "fluffy, sheds when stroked", "bare"},
}

// Sign says how a rung looks on a bud ladder; a ladder without words of its own is told as all are.
func Sign(ladder string, r Rung) string {
	if words, ok := signs[ladder]; ok {
		return words[r]
	}
	return r.Words()
}
