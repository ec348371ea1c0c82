package promise

// Settle lets wants change places until none of two gains by it: each has as much as before, of stems that cost less. The cost of a stem of a source to a want
// is such as the days that it is held.
func (f *Filling) Settle(cost func(source, want int) float64) {
	const rounds, worth = 50, 1e-9
	for range rounds {
		gained := false
		for w := range f.Filled {
			for _, g := range f.Gifts(w) {
				if f.settle(int32(w), int32(g.Source), int32(g.Stems), cost, worth) {
					gained = true
				}
			}
		}
		if !gained {
			return
		}
	}
}

// settle looks for a better source of stems that a want has: one that has some left, or one whose user gains or loses less by changing.
func (f *Filling) settle(w, from, stems int32, cost func(source, want int) float64, worth float64) bool {
	fl := f.f
	now := cost(int(from), int(w))
	for _, s := range fl.p.from[w] {
		better := cost(int(s), int(w))
		if s == from || now-better <= worth {
			continue
		}
		if n := min(stems, fl.freeBeside(s, from)); n > 0 {
			fl.move(from, w, -n)
			fl.move(s, w, n)
			return true
		}
		for _, u := range fl.users[s] {
			if u.want == w || !fl.serves(from, u.want) {
				continue
			}
			if gain := now - better + cost(int(s), int(u.want)) - cost(int(from), int(u.want)); gain <= worth {
				continue
			}
			n := min(stems, u.stems)
			fl.move(from, w, -n)
			fl.move(s, u.want, -n)
			fl.move(s, w, n)
			fl.move(from, u.want, n)
			return true
		}
	}
	return false
}

// freeBeside returns how many stems of a source can be given once as many of another are given back.
func (f *flow) freeBeside(source, back int32) int32 {
	limit, other := f.p.Sources[source].Limit, f.p.Sources[back].Limit
	if limit >= 0 && limit == other {
		return f.left[source]
	}
	return f.free(source)
}

// serves tells whether a source serves a want.
func (f *flow) serves(source, want int32) bool {
	for _, w := range f.p.Sources[source].Serves {
		if int32(w) == want {
			return true
		}
	}
	return false
}
