package promise

// A use is stems of a source that a want has.
type use struct{ want, stems int32 }

// A step is stems that a want was given of a source; negative where they were taken away again.
type step struct{ source, want, stems int32 }

// A flow is who has what, while it is shared out.
type flow struct {
	p      *Problem
	left   []int32 // by source
	limit  []int32 // by limit
	users  [][]use // by source
	filled []int32 // by want
	seen   []int32 // by want: the last search that came by
	search int32
	dead   []bool  // wants that reach nothing that is left
	died   []int32 // in their order
	steps  []step  // since the beginning, so that they can be taken back
}

func newFlow(p *Problem, stems, limits []int) *flow {
	f := &flow{p: p, left: make([]int32, len(p.Sources)), limit: make([]int32, p.Limits), users: make([][]use, len(p.Sources)), filled: make([]int32, len(p.Wants)), seen: make([]int32, len(p.Wants)), dead: make([]bool, len(p.Wants))}
	for i, n := range stems {
		f.left[i] = int32(n)
	}
	for i, n := range limits {
		f.limit[i] = int32(n)
	}
	return f
}

// A mark is a moment to which a flow can be brought back.
type mark struct{ steps, died int }

func (f *flow) mark() mark { return mark{len(f.steps), len(f.died)} }

func (f *flow) undo(to mark) {
	for i := len(f.steps) - 1; i >= to.steps; i-- {
		s := f.steps[i]
		f.move(s.source, s.want, -s.stems)
	}
	f.steps = f.steps[:to.steps]
	for _, w := range f.died[to.died:] {
		f.dead[w] = false
	}
	f.died = f.died[:to.died]
}

// give gives a want stems of a source, or takes them away where they are negative.
func (f *flow) give(source, want, stems int32) {
	f.move(source, want, stems)
	f.steps = append(f.steps, step{source, want, stems})
}

func (f *flow) move(source, want, stems int32) {
	f.left[source] -= stems
	if limit := f.p.Sources[source].Limit; limit >= 0 {
		f.limit[limit] -= stems
	}
	f.filled[want] += stems
	users := f.users[source]
	for i := range users {
		if users[i].want == want {
			users[i].stems += stems
			if users[i].stems == 0 {
				users[i] = users[len(users)-1]
				f.users[source] = users[:len(users)-1]
			}
			return
		}
	}
	f.users[source] = append(users, use{want, stems})
}

// free returns how many stems of a source can be given.
func (f *flow) free(source int32) int32 {
	n := f.left[source]
	if limit := f.p.Sources[source].Limit; limit >= 0 {
		n = min(n, f.limit[limit])
	}
	return n
}

// fill gives a want stems until it has so many, and tells whether there were enough.
func (f *flow) fill(want, stems int32) bool {
	const patience = 8
	fruitless := 0 // searches in which others have changed places and nothing was found
	for f.filled[want] < stems {
		f.search++
		before := len(f.steps)
		if f.push(want, stems-f.filled[want]) == 0 {
			if len(f.steps) > before {
				if fruitless++; fruitless > patience {
					return false
				}
				continue
			}
			for w, search := range f.seen {
				if search == f.search && !f.dead[w] {
					f.dead[w] = true
					f.died = append(f.died, int32(w))
				}
			}
			return false
		}
	}
	return true
}

// push gives a want up to so many stems: such as are left, or those of another that can have others instead.
func (f *flow) push(want, stems int32) int32 {
	f.seen[want] = f.search
	if f.dead[want] {
		return 0
	}
	given := int32(0)
	for _, s := range f.p.from[want] {
		if n := min(stems-given, f.free(s)); n > 0 {
			f.give(s, want, n)
			if given += n; given == stems {
				return given
			}
		}
	}
	for _, s := range f.p.from[want] {
		if f.left[s] == 0 {
			given += f.displace(s, s, want, stems-given)
		} else { // its limit has no more: others of the limit stand in the way
			for _, other := range f.p.members[f.p.Sources[s].Limit] {
				given += f.displace(other, s, want, stems-given)
				if given == stems {
					return given
				}
			}
		}
		if given == stems {
			return given
		}
	}
	return given
}

// displace lets those who have stems of one source take others instead, so that a want can have some of another that those stood in the way of.
func (f *flow) displace(of, to, want, stems int32) int32 {
	given := int32(0)
	for i := 0; i < len(f.users[of]) && given < stems; i++ {
		u := f.users[of][i]
		if f.seen[u.want] == f.search || f.dead[u.want] {
			continue
		}
		n := f.push(u.want, min(u.stems, stems-given))
		if n == 0 {
			continue
		}
		f.give(of, u.want, -n)
		if n = min(n, f.free(to)); n > 0 {
			f.give(to, want, n)
			given += n
		}
		i = -1 // its users stand in another order by now
	}
	return given
}
