package store

import (
	"math"

	"dewcount/core/day"
	"dewcount/core/postharvest"
	"dewcount/farm/book"
)

// A Trouble is what is wrong with where a heap stands.
type Trouble int

// The troubles.
const (
	TooCold  Trouble = iota // for the crop: cold hurts it
	TooWarm                 // another place of the farm would keep it longer
	TooLong                 // it has been kept longer than the crop bears
	OldNear                 // stems that are over stand beside it, and it ages by the gas that they give off
	WasWrong                // the place was not as warm as it is set to, and that cost it
)

// A Worry is a trouble of a heap, by its place in the ledger.
type Worry struct {
	Heap    int
	Trouble Trouble
	Place   string  // that would be better, of what is too cold or too warm; empty where none is
	Days    float64 // at 20 °C that were lost, of what was wrong
}

// What is worth a word: days that another place would save of each day, and that a warm night has cost.
const (
	worthMoving = 0.2
	worthSaying = 0.5
)

// Worries returns what is wrong in the store at a moment, heap by heap in the ledger's order.
func (l *Ledger) Worries(b *book.Book, at day.Moment) []Worry {
	spent := make(map[string]bool)
	for _, h := range l.Heaps {
		if !h.Dry() && h.Now.Left[1] == 0 {
			spent[h.Place] = true
		}
	}
	var worries []Worry
	for i, h := range l.Heaps {
		place, placed := b.StorePlace(h.Place)
		if h.Dry() {
			continue
		}
		if placed {
			better, saved := betterPlace(b, &h, place)
			switch {
			case place.Celsius < h.Crop.Store.ChillBelowC:
				worries = append(worries, Worry{Heap: i, Trouble: TooCold, Place: better})
			case saved > worthMoving:
				worries = append(worries, Worry{Heap: i, Trouble: TooWarm, Place: better})
			}
		}
		if h.Crop.Store.Ethylene && spent[h.Place] && h.Now.Left[1] > 0 {
			worries = append(worries, Worry{Heap: i, Trouble: OldNear})
		}
		if h.Lost > worthSaying {
			worries = append(worries, Worry{Heap: i, Trouble: WasWrong, Days: h.Lost})
		}
		if days := at.Instant(cutHour) - h.CutAt.Instant(cutHour); days > h.Crop.Store.MaxDays+0.5 {
			worries = append(worries, Worry{Heap: i, Trouble: TooLong})
		}
	}
	return worries
}

// betterPlace returns the place of the farm in which a heap ages least, and by how many days at 20 °C a day less than where it is; the place is
// empty where none is better.
func betterPlace(b *book.Book, h *Heap, now book.StorePlace) (string, float64) {
	best, least := "", postharvest.Ages(h.Crop, now.Celsius)
	here := least
	for _, p := range b.StorePlaces {
		if p.Kind == book.Loft {
			continue
		}
		if ages := postharvest.Ages(h.Crop, p.Celsius); ages < least-1e-9 {
			best, least = p.ID, ages
		}
	}
	return best, here - least
}

// LostIn returns the least and the most days at 20 °C that what stands in a place has lost since a place was not as it is set to.
func (l *Ledger) LostIn(place string) (least, most float64) {
	least = math.Inf(1)
	for _, h := range l.Heaps {
		if h.Place == place && !h.Dry() && h.Lost > 0 {
			least, most = min(least, h.Lost), max(most, h.Lost)
		}
	}
	return min(least, most), most
}

// Buckets returns how many ten-litre buckets a place's stems take; crops that foul water or bleed sap have their own.
func (l *Ledger) Buckets(place string) int {
	parts, alone := 0.0, make(map[string]float64)
	for _, h := range l.Heaps {
		if h.Place != place || h.Dry() {
			continue
		}
		part := float64(h.Stems) / float64(h.Crop.BucketStems)
		if h.Crop.Store.Apart == "no" {
			parts += part
		} else {
			alone[h.Crop.ID] += part
		}
	}
	n := int(math.Ceil(parts - 1e-9))
	for _, part := range alone {
		n += int(math.Ceil(part - 1e-9))
	}
	return n
}

// dryDays is how long stems hang until they are dry, as growers say: two to three weeks in the warm and dark.
const dryDays = 18

// DryOn returns about when a heap that hangs is dry.
func (h *Heap) DryOn() day.Day { return h.Hung.Day().Add(dryDays) }
