package cut

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"dewcount/farm/work"
	"dewcount/say"
)

// An afterView is what a pick leaves to do, in sentences.
type afterView struct{ Deadhead, Past, Surplus string }

// Any tells whether there is anything to say.
func (v afterView) Any() bool { return v != afterView{} }

func newAfter(snap *say.Snapshot, a work.After) afterView {
	var v afterView
	var gone, past []string
	for _, r := range a.Deadhead {
		gone = append(gone, fmt.Sprintf("%s (%d)", snap.Model.Plantings[r.Planting].ID, r.Stems))
	}
	if gone != nil {
		v.Deadhead = "Deadhead on the way back: " + say.List(gone) + "."
	}
	for _, i := range a.Past {
		past = append(past, snap.Model.Plantings[i].ID)
	}
	if past != nil {
		v.Past = "Past their flush, nothing more is to come: " + say.List(past) + ". Clear them."
	}
	v.Surplus = surplus(snap, a.Surplus)
	return v
}

// surplus says where stems may go that nobody has asked for.
func surplus(snap *say.Snapshot, all []work.Surplus) string {
	var crops, dry, florists []string
	const named, worth = 6, 10 // crops that are named, and stems that are worth a word
	sum, rest := 0, 0
	slices.SortStableFunc(all, func(a, b work.Surplus) int { return cmp.Compare(b.Stems, a.Stems) })
	for _, s := range all {
		sum += s.Stems
		words := fmt.Sprintf("%d %s", s.Stems, s.Crop.Name)
		if len(crops) < named {
			crops = append(crops, words)
		} else {
			rest += s.Stems
		}
		if s.Dries && len(dry) < named {
			dry = append(dry, words)
		}
	}
	if sum < worth {
		return ""
	}
	if rest > 0 {
		crops = append(crops, fmt.Sprintf("%d of others", rest))
	}
	for _, o := range snap.Book.Orders {
		if o.Kind == "standing" && (o.Until.IsZero() || !o.Until.Before(snap.View.Today)) {
			florists = append(florists, o.ID)
		}
	}
	var todo []string
	if florists != nil {
		todo = append(todo, "offer them to "+say.List(florists))
	}
	if dry != nil {
		todo = append(todo, "hang to dry "+say.List(dry))
	}
	todo = append(todo, "leave what remains to the bees for a day, then cut it off, so that the rows go on")
	return fmt.Sprintf("Nobody has asked for about %s: %s. %s", say.Stems(sum), say.List(crops), say.Sentence(strings.Join(todo, "; ")))
}
