package promise

import (
	"math/rand/v2"
	"testing"
)

// someProblem is a small one: up to four sources of up to four stems, some in a limit, and up to four wants, of which some are ingredients of a bouquet.
func someProblem(random *rand.Rand) (p *Problem, stems, limits []int) {
	p = &Problem{Limits: random.IntN(3)}
	for range 1 + random.IntN(4) {
		p.Wants = append(p.Wants, Want{Stems: random.IntN(5), Bouquet: -1})
	}
	if len(p.Wants) > 1 && random.IntN(2) == 0 {
		quantity := 1 + random.IntN(3)
		p.Bouquets = []Bouquet{{quantity}}
		for i := range 1 + random.IntN(2) {
			each := 1 + random.IntN(2)
			p.Wants[i] = Want{Stems: each * quantity, Bouquet: 0, Each: each}
		}
	}
	var rank Rank
	for i, w := range p.Wants {
		if w.Bouquet < 0 {
			rank.Straight = append(rank.Straight, i)
		} else if len(rank.Bouquets) == 0 {
			rank.Bouquets = []int{w.Bouquet}
		}
		if random.IntN(2) == 0 && i+1 < len(p.Wants) && p.Wants[i+1].Bouquet < 0 {
			p.Ranks = append(p.Ranks, rank)
			rank = Rank{}
		}
	}
	p.Ranks = append(p.Ranks, rank)
	for range 1 + random.IntN(4) {
		s := Source{Limit: -1, Last: random.IntN(4) == 0}
		for w := range p.Wants {
			if random.IntN(2) == 0 {
				s.Serves = append(s.Serves, w)
				if random.IntN(4) == 0 {
					s.Instead = append(s.Instead, w)
				}
			}
		}
		if p.Limits > 0 && random.IntN(2) == 0 {
			s.Limit = random.IntN(p.Limits)
		}
		p.Sources = append(p.Sources, s)
		stems = append(stems, random.IntN(5))
	}
	for range p.Limits {
		limits = append(limits, random.IntN(6))
	}
	p.Prepare()
	return p, stems, limits
}

// possible tells by trying everything whether wants can be given so many stems.
func possible(p *Problem, stems, limits, given []int) bool {
	left, limit := append([]int{}, stems...), append([]int{}, limits...)
	var try func(w, s, need int) bool
	try = func(w, s, need int) bool {
		for need == 0 {
			if w++; w == len(given) {
				return true
			}
			s, need = 0, given[w]
		}
		if s == len(p.from[w]) {
			return false
		}
		source := p.from[w][s]
		most := min(need, left[source])
		if at := p.Sources[source].Limit; at >= 0 {
			most = min(most, limit[at])
		}
		for n := most; n >= 0; n-- {
			left[source] -= n
			if at := p.Sources[source].Limit; at >= 0 {
				limit[at] -= n
			}
			ok := try(w, s+1, need-n)
			left[source] += n
			if at := p.Sources[source].Limit; at >= 0 {
				limit[at] += n
			}
			if ok {
				return true
			}
		}
		return false
	}
	return try(-1, 0, 0)
}

// best serves wants by trying everything: in the order of the ranks, whole bouquets first, each the most that leaves those before it what they have.
func best(p *Problem, stems, limits []int) (filled, whole []int) {
	filled, whole = make([]int, len(p.Wants)), make([]int, len(p.Bouquets))
	most := func(set func(n int), to int) int {
		for n := to; ; n-- {
			set(n)
			if n == 0 || possible(p, stems, limits, filled) {
				return n
			}
		}
	}
	for _, rank := range p.Ranks {
		for _, b := range rank.Bouquets {
			whole[b] = most(func(n int) {
				for _, w := range p.ingredients[b] {
					filled[w] = n * p.Wants[w].Each
				}
			}, p.Bouquets[b].Quantity)
		}
		loose := rank.Straight
		for _, b := range rank.Bouquets {
			loose = append(append([]int{}, loose...), p.ingredients[b]...)
		}
		for _, w := range loose {
			least := filled[w]
			for n := p.Wants[w].Stems; n >= least; n-- {
				if filled[w] = n; possible(p, stems, limits, filled) {
					break
				}
			}
		}
	}
	return filled, whole
}

// Against trying everything: each line has the most that those before it leave, whole bouquets are the most there can be, and no stem goes to two.
func TestNobodyCouldShareOutBetter(t *testing.T) {
	const cases = 6000
	for seed := range uint64(cases) {
		p, stems, limits := someProblem(rand.New(rand.NewPCG(seed, 1)))
		got := p.Fill(stems, limits)
		filled, whole := best(p, stems, limits)
		for w := range filled {
			if got.Filled[w] != filled[w] {
				t.Fatalf("seed %d: %v of %+v, %v is possible; stems %v, limits %v of %+v", seed, got.Filled, p.Wants, filled, stems, limits, p.Sources)
			}
		}
		for b := range whole {
			if got.Whole[b] != whole[b] {
				t.Fatalf("seed %d: %v whole bouquets, %v are possible", seed, got.Whole, whole)
			}
		}
		// Settled, everybody has as much, of stems that cost no more.
		if seed%2 == 0 {
			cost := func(source, want int) float64 { return float64((source*7 + want*5) % 11) }
			sum := func() float64 {
				all := 0.0
				for w := range p.Wants {
					for _, g := range got.Gifts(w) {
						all += float64(g.Stems) * cost(g.Source, w)
					}
				}
				return all
			}
			before := sum()
			got.Settle(cost)
			if after := sum(); after > before+1e-9 {
				t.Fatalf("seed %d: settled it costs %v, before %v", seed, after, before)
			}
		}
		// What was given is there, is of the right kind, and adds up.
		used, limited := make([]int, len(stems)), make([]int, len(limits))
		for w := range p.Wants {
			sum := 0
			for _, g := range got.Gifts(w) {
				used[g.Source] += g.Stems
				sum += g.Stems
				if at := p.Sources[g.Source].Limit; at >= 0 {
					limited[at] += g.Stems
				}
				if g.Stems <= 0 {
					t.Fatalf("seed %d: a gift of %d", seed, g.Stems)
				}
			}
			if sum != got.Filled[w] || sum > p.Wants[w].Stems {
				t.Fatalf("seed %d: %d given in parts, %d in all, %d wanted", seed, sum, got.Filled[w], p.Wants[w].Stems)
			}
		}
		for s, n := range used {
			if n > stems[s] || n+got.Left(s) != stems[s] {
				t.Fatalf("seed %d: %d of %d stems", seed, n, stems[s])
			}
		}
		for at, n := range limited {
			if n > limits[at] {
				t.Fatalf("seed %d: %d of a limit of %d", seed, n, limits[at])
			}
		}
	}
}

// By hand: a wedding wants 30 white snapdragons, a market 40 snapdragons of any colour; 25 white and 30 red stand ready. The wedding has all the white, five
// short; the market has the red. Where the market is more important it still leaves the white alone, since it can have the red and only ten white of its 40.
func TestAnySnapdragonAndAWhiteOne(t *testing.T) {
	p := &Problem{Wants: []Want{{30, -1, 0}, {40, -1, 0}}, Ranks: []Rank{{Straight: []int{0}}, {Straight: []int{1}}}, Sources: []Source{{Serves: []int{0, 1}, Limit: -1}, {Serves: []int{1}, Limit: -1}}}
	p.Prepare()
	if got := p.Fill([]int{25, 30}, nil).Filled; got[0] != 25 || got[1] != 30 {
		t.Errorf("the wedding has %d and the market %d", got[0], got[1])
	}
	p.Ranks[0], p.Ranks[1] = p.Ranks[1], p.Ranks[0]
	if got := p.Fill([]int{25, 30}, nil).Filled; got[0] != 15 || got[1] != 40 {
		t.Errorf("after a market that goes first the wedding has %d and the market %d", got[0], got[1])
	}
}

// A line that nothing can fill takes nothing, and bouquets are whole before anything is loose: of 10 focal and 9 filler, bouquets of two and three are three, one focal
// short of nothing; the straight line has what is left.
func TestWholeBouquetsComeFirst(t *testing.T) {
	p := &Problem{Wants: []Want{{20, 0, 2}, {30, 0, 3}, {5, -1, 0}, {9, -1, 0}}, Bouquets: []Bouquet{{10}}, Ranks: []Rank{{[]int{0}, []int{2, 3}}},
		Sources: []Source{{Serves: []int{0, 2}, Limit: -1}, {Serves: []int{1}, Limit: -1}}}
	p.Prepare()
	got := p.Fill([]int{10, 9}, nil)
	if got.Whole[0] != 3 || got.Filled[1] != 9 || got.Filled[2] != 4 || got.Filled[0] != 6 || got.Filled[3] != 0 {
		t.Errorf("%+v whole, filled %v", got.Whole, got.Filled)
	}
}
