package promise

import "slices"

// A Want is stems of one kind that a line of an order wants, or an ingredient of a bouquet.
type Want struct {
	Stems   int
	Bouquet int // the place of the bouquet that it is an ingredient of; -1 for straight stems
	Each    int // stems of it in one bouquet
}

// A Bouquet is so many bouquets of a recipe that a line wants.
type Bouquet struct{ Quantity int }

// A Source is stems that are alike to all who want some: they stand in one row on one pick day, or lie in one lot.
type Source struct {
	Serves  []int // the places of the wants that it can serve
	Instead []int // of these, or of others, those that would rather have other stems
	Limit   int   // what several sources have no more than together; -1 for none
	Last    bool  // taken only where no other will do
}

// IsInstead tells whether a want takes the source only instead of others.
func (s *Source) IsInstead(want int) bool { return slices.Contains(s.Instead, want) }

// A Rank is wants and bouquets that are as important as each other, in the order in which they are served where there is too little.
type Rank struct{ Bouquets, Straight []int }

// A Problem is what is wanted and what there may be for it. How many stems there are is said for each possible weather apart.
type Problem struct {
	Wants    []Want
	Bouquets []Bouquet
	Ranks    []Rank // what is most important first
	Sources  []Source
	Limits   int

	from        [][]int32 // by want: its sources in their order, the last ones last, and behind them those that it takes instead
	members     [][]int32 // by limit: its sources
	ingredients [][]int   // by bouquet: its wants
}

// Prepare works out who can draw on what. It is called once, before Fill.
func (p *Problem) Prepare() {
	p.from = make([][]int32, len(p.Wants))
	p.members = make([][]int32, p.Limits)
	p.ingredients = make([][]int, len(p.Bouquets))
	type turn struct{ instead, last bool }
	for _, now := range []turn{{false, false}, {false, true}, {true, false}, {true, true}} {
		for i, s := range p.Sources {
			for _, w := range s.Serves {
				if s.Last == now.last && s.IsInstead(w) == now.instead {
					p.from[w] = append(p.from[w], int32(i))
				}
			}
		}
	}
	for i, s := range p.Sources {
		if s.Limit >= 0 {
			p.members[s.Limit] = append(p.members[s.Limit], int32(i))
		}
	}
	for i, w := range p.Wants {
		if w.Bouquet >= 0 {
			p.ingredients[w.Bouquet] = append(p.ingredients[w.Bouquet], i)
		}
	}
}

// A Filling is what each want is given of each source.
type Filling struct {
	Filled []int // stems, by want
	Whole  []int // whole bouquets, by bouquet
	f      *flow
}

// A Gift is stems of a source that a want is given.
type Gift struct{ Source, Stems int }

// Gifts returns what a want is given, in the order of the sources.
func (f *Filling) Gifts(want int) []Gift {
	var gifts []Gift
	for _, s := range f.f.p.from[want] {
		for _, u := range f.f.users[s] {
			if u.want == int32(want) {
				gifts = append(gifts, Gift{int(s), int(u.stems)})
			}
		}
	}
	return gifts
}

// Left returns the stems of a source that nobody is given, whatever its limit has.
func (f *Filling) Left(source int) int { return int(f.f.left[source]) }

// Fill shares out so many stems of each source, and of each limit, to what is wanted: of each rank first as many whole bouquets as can be, then straight
// stems, then what loose ingredients there are. What a more important want is given it keeps; of which stems it is given them may change, so that the next
// can have some as well: an augmenting path in a network of sources and wants (Ford & Fulkerson 1956). What one rank is given together is the most that can
// be, since what can be given is a polymatroid (Edmonds 1970).
func (p *Problem) Fill(stems, limits []int) *Filling {
	f := newFlow(p, stems, limits)
	out := &Filling{Filled: make([]int, len(p.Wants)), Whole: make([]int, len(p.Bouquets)), f: f}
	for _, rank := range p.Ranks {
		for _, b := range rank.Bouquets {
			out.Whole[b] = f.bouquets(b)
		}
		for _, w := range rank.Straight {
			f.fill(int32(w), int32(p.Wants[w].Stems))
		}
		for _, b := range rank.Bouquets {
			for _, w := range p.ingredients[b] {
				f.fill(int32(w), int32(p.Wants[w].Stems))
			}
		}
	}
	for w := range p.Wants {
		out.Filled[w] = int(f.filled[w])
	}
	return out
}

// bouquets gives a bouquet's ingredients what the most whole ones take, and returns how many that are.
func (f *flow) bouquets(b int) int {
	try := func(n int) bool {
		mark := f.mark()
		for _, w := range f.p.ingredients[b] {
			if !f.fill(int32(w), int32(n*f.p.Wants[w].Each)) {
				f.undo(mark)
				return false
			}
		}
		return true
	}
	if len(f.p.ingredients[b]) == 0 {
		return 0
	}
	low, high := 0, f.p.Bouquets[b].Quantity
	if try(high) {
		return high
	}
	high--
	for low < high {
		middle := (low + high + 1) / 2
		mark := f.mark()
		if try(middle) {
			low = middle
			f.undo(mark)
		} else {
			high = middle - 1
		}
	}
	try(low)
	return low
}
