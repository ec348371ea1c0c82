package cut

import (
	"fmt"
	"math"
	"strings"

	"dewcount/core/crop"
	"dewcount/core/postharvest"
	"dewcount/farm/book"
	"dewcount/farm/work"
	"dewcount/say"
)

// A waterView is buckets that are filled alike.
type waterView struct {
	Words    string
	Crops    []string
	Rest     string
	Cautions []string // where it is poured
}

// buckets say how many to wash and fill, with what, what goes in together, and how long it rests.
func buckets(snap *say.Snapshot, place book.Place, sheet work.Sheet) (waters []waterView, rest string, hasty []string) {
	for _, w := range sheet.Waters {
		waters = append(waters, newWater(snap, w))
	}
	if len(waters) == 0 {
		return nil, "", nil
	}
	rest = "Open shade first, so that bees can leave, then a cool and dark place"
	if len(sheet.Spans) > 0 && sheet.Hands > 0 {
		done := sheet.Spans[0].From + sheet.Minutes/60/float64(sheet.Hands)
		if ready := say.ClockHour(done, sheet.Pick, place) + sheet.Rest; ready < 24 {
			rest += fmt.Sprintf(": cut by %s they have rested by %s", say.Clock(done, sheet.Pick, place), say.Hour(ready))
		} else {
			rest += ", overnight"
		}
		for _, h := range sheet.Hasty(snap.Snapshot, say.ClockHour(done, sheet.Pick, place)) {
			hasty = append(hasty, fmt.Sprintf("%s is needed on %s at %s: its stems will have rested %s, and %s are wanted. Cut them first, or the evening before.", h.Order, snap.Date(h.On), say.Hour(h.Hour),
				say.SpokenHours(60*max(0, h.Rested)), say.SpokenHours(60*h.Wanted)))
		}
	}
	return waters, rest + ".", hasty
}

func newWater(snap *say.Snapshot, w postharvest.Water) waterView {
	kind := map[string]string{"hot": "of a hot bath", "warm": "of warm water", "cool": "of cool water"}[w.ID]
	v := waterView{Words: fmt.Sprintf("%s %s, %s, %s deep, %s in each", say.Number(w.Buckets, "bucket"), kind, snap.Range(say.Celsius, w.WaterC[0], w.WaterC[1]), snap.CM(w.DepthCM), snap.Litres(w.Litres)),
		Rest: fmt.Sprintf("At least %s, best %s.", say.SpokenHours(60*w.Hours[0]), say.SpokenHours(60*w.Hours[1]))}
	for _, b := range w.Batches {
		v.Crops = append(v.Crops, batchWords(snap, b))
		if w.ID == "hot" {
			for _, caution := range b.Crop.Scalding() {
				if len(v.Cautions) == 0 {
					v.Cautions = append(v.Cautions, caution)
				}
			}
		}
	}
	return v
}

// batchWords says stems of a crop, and what is done to them on their way into the bucket.
func batchWords(snap *say.Snapshot, b postharvest.Batch) string {
	words := []string{fmt.Sprintf("%s: %d", b.Crop.Name, b.Stems)}
	switch b.Crop.Store.Apart {
	case "fouls-water":
		words = append(words, "fouls its water, alone")
	case "sap":
		words = append(words, "bleeds sap, alone, and not recut")
	}
	if snap.Book.Chosen(b.Crop, crop.Carry) == "dry" {
		words = append(words, "carried dry and recut")
	}
	if b.Way == crop.Drained {
		words = append(words, "head down for a few minutes first, then into the water")
	}
	switch leaves := snap.Book.Chosen(b.Crop, "leaves"); {
	case leaves == "top":
		words = append(words, "keep the top leaf")
	case leaves == "all" || snap.Book.Chosen(b.Crop, "strip") == "all":
		words = append(words, "strip all leaves")
	case snap.Book.Chosen(b.Crop, "strip") == "show":
		words = append(words, "keep a few leaves for show")
	}
	if snap.Book.Chosen(b.Crop, "additive") == "food" {
		words = append(words, "with flower food")
	}
	if b.Crop.Store.Upright {
		words = append(words, "upright")
	}
	if !math.IsInf(b.Crop.Store.ChillBelowC, -1) {
		words = append(words, "not below "+snap.Celsius(b.Crop.Store.ChillBelowC))
	}
	return strings.Join(words, ", ")
}
