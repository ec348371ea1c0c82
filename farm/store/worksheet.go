package store

import (
	"slices"

	"dewcount/farm/book"
)

// A Bunching is stems of one variety and colour that give so many straight bunches.
type Bunching struct {
	Variety, Colour string
	Bunches, Over   int   // whole ones, and stems that are left over
	Heaps           []int // their places in the ledger, what goes first first
}

// Bunches returns the straight bunches of so many stems that the ledger's fresh stems give, by variety and colour in the order of what goes first.
func (l *Ledger) Bunches(size int) []Bunching {
	var all []Bunching
	for i, h := range l.Heaps {
		if h.Dry() || h.Now.Left[1] == 0 {
			continue
		}
		at := slices.IndexFunc(all, func(b Bunching) bool { return b.Variety == h.Variety && b.Colour == h.Colour })
		if at < 0 {
			at = len(all)
			all = append(all, Bunching{Variety: h.Variety, Colour: h.Colour})
		}
		all[at].Over += h.Stems
		all[at].Heaps = append(all[at].Heaps, i)
	}
	for i := range all {
		all[i].Bunches, all[i].Over = all[i].Over/size, all[i].Over%size
	}
	return all
}

// Takes returns the stems that so many bunches of a size take, what goes first first, and whether there are enough.
func (b Bunching) Takes(l *Ledger, bunches, size int) ([]Taking, bool) {
	var takes []Taking
	want := bunches * size
	for _, h := range b.Heaps {
		if n := min(want, l.Heaps[h].Stems); n > 0 {
			takes = append(takes, Taking{Heap: h, Stems: n})
			want -= n
		}
	}
	return takes, want == 0 && bunches > 0
}

// A Task is bouquets of a recipe that an order wants on its next day.
type Task struct {
	Order, Recipe string
	Wanted, Whole int // bouquets, and how many the store gives
	Takes         []Taking
	Lacks         []book.RecipeLine // of which there is too little for all
	Minutes       float64
}

// A Worksheet is the bouquets to be made up for the next day on which any are due, in the order of the orders.
type Worksheet struct {
	Tasks   []Task
	Minutes float64
}

// A Wanting is bouquets that an order wants.
type Wanting struct {
	Order, Recipe string
	Bouquets      int
}

// Worksheet shares the ledger's stems out to bouquets in the order given: no stem goes into two.
func (l *Ledger) Worksheet(b *book.Book, wanted []Wanting, minutesEach float64) Worksheet {
	var sheet Worksheet
	left := Ledger{Heaps: slices.Clone(l.Heaps)}
	for _, w := range wanted {
		there := left.For(w.Order)
		made := there.MakeUp(b, w.Recipe)
		task := Task{Order: w.Order, Recipe: w.Recipe, Wanted: w.Bouquets, Whole: min(w.Bouquets, made.Whole)}
		if task.Whole < task.Wanted {
			task.Lacks = made.RunsOut
		}
		if task.Whole > 0 {
			task.Takes, _ = there.Takes(b, w.Recipe, task.Whole)
		}
		for _, t := range task.Takes {
			left.Heaps[t.Heap].Stems -= t.Stems
		}
		task.Minutes = minutesEach * float64(task.Whole)
		sheet.Minutes += task.Minutes
		sheet.Tasks = append(sheet.Tasks, task)
	}
	return sheet
}
