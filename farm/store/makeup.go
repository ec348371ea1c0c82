package store

import (
	"cmp"
	"math"
	"slices"

	"dewcount/farm/book"
)

// A Making is how many whole bouquets of a recipe the stems that stand ready give.
type Making struct {
	Recipe  string
	Whole   int
	RunsOut []book.RecipeLine // ingredients of which one bouquet more would want more than there is
	Left    []int             // stems that are left over of what could have gone in, by ingredient; stems that several want count for the first
	Takes   []Taking          // for the whole bouquets, what goes first first
}

// A Taking is stems of a heap for an ingredient.
type Taking struct {
	Heap, Line, Stems int // by their places in the ledger and in the recipe
}

// mostBouquets is how many nobody makes up at once.
const mostBouquets = 5000

// MakeUp returns how many whole bouquets of a recipe the ledger's stems give, dry ones and those that are over aside. An ingredient may take from every heap
// of its role, crop and colour that is long enough, and no stem goes into two: whether so many bouquets can be made is a flow from heaps to ingredients (Ford &
// Fulkerson 1956), and the most that can is searched for.
func (l *Ledger) MakeUp(b *book.Book, recipe string) Making {
	lines := linesOf(b, recipe)
	m := Making{Recipe: recipe}
	if len(lines) == 0 {
		return m
	}
	f := newFlow(b, l, lines)
	low, high := 0, mostBouquets
	for low < high {
		middle := (low + high + 1) / 2
		if _, ok := f.fill(lines, middle, -1); ok {
			low = middle
		} else {
			high = middle - 1
		}
	}
	m.Whole = low
	taken, _ := f.fill(lines, low, -1)
	m.Takes = takings(taken)
	used := make([]int, len(l.Heaps))
	for _, t := range m.Takes {
		used[t.Heap] += t.Stems
	}
	for i := range lines {
		if _, ok := f.fill(lines, low, i); !ok {
			m.RunsOut = append(m.RunsOut, lines[i])
		}
	}
	if len(m.RunsOut) == 0 {
		m.RunsOut = lines // each would do alone, all of them together do not
	}
	m.Left = make([]int, len(lines))
	for h := range l.Heaps {
		for i := range lines {
			if f.most[i][h] > 0 {
				m.Left[i] += min(l.Heaps[h].Stems-used[h], f.most[i][h])
				break
			}
		}
	}
	return m
}

// Takes returns the stems that so many bouquets of a recipe take, and whether there are enough.
func (l *Ledger) Takes(b *book.Book, recipe string, bouquets int) ([]Taking, bool) {
	lines := linesOf(b, recipe)
	taken, ok := newFlow(b, l, lines).fill(lines, bouquets, -1)
	return takings(taken), ok && len(lines) > 0
}

func linesOf(b *book.Book, recipe string) []book.RecipeLine {
	return slices.DeleteFunc(slices.Clone(b.RecipeLines), func(r book.RecipeLine) bool { return r.Recipe != recipe })
}

// takings lists what ingredients take of heaps, what goes first first.
func takings(taken [][]int) []Taking {
	var all []Taking
	for i := range taken {
		for h, n := range taken[i] {
			if n > 0 {
				all = append(all, Taking{h, i, n})
			}
		}
	}
	slices.SortStableFunc(all, func(x, y Taking) int { return cmp.Compare(x.Heap, y.Heap) })
	return all
}

// A flow is which stems may go into which ingredients.
type flow struct {
	heaps []int   // stems of each
	most  [][]int // by ingredient and heap: stems of it that may go in
	order [][]int // by ingredient: its heaps, those of what it asks for before what it takes instead
}

func newFlow(b *book.Book, l *Ledger, lines []book.RecipeLine) flow {
	f := flow{heaps: make([]int, len(l.Heaps)), most: make([][]int, len(lines)), order: make([][]int, len(lines))}
	for h := range l.Heaps {
		f.heaps[h] = l.Heaps[h].Stems
	}
	for i, line := range lines {
		f.most[i] = make([]int, len(l.Heaps))
		var instead []int
		for h := range l.Heaps {
			f.most[i][h] = fits(b, &l.Heaps[h], line)
			v, _ := b.Variety(l.Heaps[h].Variety)
			if _, substitute := line.Takes(v); substitute {
				instead = append(instead, h)
			} else {
				f.order[i] = append(f.order[i], h)
			}
		}
		f.order[i] = append(f.order[i], instead...)
	}
	return f
}

// fits returns how many stems of a heap an ingredient may take.
func fits(b *book.Book, h *Heap, line book.RecipeLine) int {
	v, _ := b.Variety(h.Variety)
	takes, _ := line.Takes(v)
	long := h.LengthCM
	if long == 0 {
		long = h.Crop.Stem.LaterCM
	}
	switch {
	case h.Dry() || h.Now.Left[1] == 0, !takes, line.MinLengthCM != nil && long < *line.MinLengthCM:
		return 0
	}
	share := v.ColourShare(line.Colour)
	if v.Colour != h.Colour { // it was tinted
		share = book.Variety{Colour: h.Colour}.ColourShare(line.Colour)
	}
	return int(math.Floor(share*float64(h.Stems) + 1e-9))
}

// fill returns what each ingredient takes of each heap for so many bouquets, and whether there is enough for all; of one ingredient, where it is not negative,
// it is tried for a bouquet more. What goes first is taken first.
func (f flow) fill(lines []book.RecipeLine, bouquets, more int) ([][]int, bool) {
	taken, left := make([][]int, len(lines)), slices.Clone(f.heaps)
	for i := range lines {
		taken[i] = make([]int, len(f.heaps))
	}
	for i, line := range lines {
		want := bouquets * line.Stems
		if i == more {
			want += line.Stems
		}
		for want > 0 {
			n := f.push(taken, left, i, want, make([]bool, len(lines)))
			if n == 0 {
				return taken, false
			}
			want -= n
		}
	}
	return taken, true
}

// push finds up to want stems for an ingredient: from a heap that has some, or from one whose stems another ingredient can do without by taking them elsewhere.
func (f flow) push(taken [][]int, left []int, i, want int, seen []bool) int {
	seen[i] = true
	for _, h := range f.order[i] {
		if n := min(want, left[h], f.most[i][h]-taken[i][h]); n > 0 {
			taken[i][h] += n
			left[h] -= n
			return n
		}
	}
	for _, h := range f.order[i] {
		room := f.most[i][h] - taken[i][h]
		if room <= 0 {
			continue
		}
		for j := range taken {
			if seen[j] || taken[j][h] == 0 {
				continue
			}
			if n := f.push(taken, left, j, min(want, room, taken[j][h]), seen); n > 0 {
				taken[j][h] -= n
				taken[i][h] += n
				return n
			}
		}
	}
	return 0
}
