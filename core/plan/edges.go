package plan

// What an edge of the season may cost: edgeWorth times its share of the stems, and so many plants for each stem that is wanted.
const (
	edgeWorth  = 3
	edgePlants = 6
)

// withoutEdges gives up the first and the last weeks of the want as long as one of them costs more than it is worth: there, a
// season is so unsure that the plants which hold the week would be too many in all others, and more than anybody sows for so few stems. It returns what holds the weeks left.
func (s *solver) withoutEdges(all []int, now *set) *set {
	for {
		first, last, weeks := -1, -1, 0
		for w, wanted := range s.wanted {
			if wanted {
				if first < 0 {
					first = w
				}
				last = w
				weeks++
			}
		}
		if weeks < 3 {
			return now
		}
		limit := s.cost(now) * (1 - edgeWorth/float64(weeks+edgeWorth-1))
		var best *set
		dropped := -1
		for _, w := range []int{first, last} {
			s.wanted[w] = false
			if p := s.solve(all, nil); p != nil && (best == nil || s.less(p, best)) {
				if s.cost(p) < limit || float64(now.total()-p.total()) > edgePlants*s.want[w] {
					best, dropped = p, w
				}
			}
			s.wanted[w] = true
		}
		if dropped < 0 {
			return now
		}
		s.wanted[dropped], now = false, best
	}
}

// giveUp takes the week out of the want that fewest samples of the rows and all sowings together hold, and tells whether any was left to
// be taken out: within the limits not every reachable week can be held at once.
func (s *solver) giveUp() bool {
	worst, most := -1, -1
	for w, wanted := range s.wanted {
		if !wanted {
			continue
		}
		short := 0
		for i := range s.samples {
			best := float32(0)
			for c := range s.candidates {
				best = max(best, s.candidates[c].stems[w][i])
			}
			if float64(s.base[w][i]+float32(s.limits.Plants)*best) < s.want[w] {
				short++
			}
		}
		if short > most {
			worst, most = w, short
		}
	}
	if worst < 0 {
		return false
	}
	s.wanted[worst] = false
	return true
}
