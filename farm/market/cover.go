package market

// A Cover is how well a want is met.
type Cover int

// The covers, best first.
const (
	NothingWanted Cover = iota
	Covered             // nine times in ten
	LikelyCovered       // as often as not there is enough
	LikelyShort         // and yet it may be met
	Short               // it hardly ever is
)

// From which chance on a want is covered, and below which it hardly ever is.
const (
	coveredChance = 0.9
	hardlyChance  = 0.05
)

// CoverOf judges so many stems wanted by the chance that they are met, 0 to 1, and the stems that are likely missing.
func CoverOf(wanted int, chance float64, short int) Cover {
	switch {
	case wanted == 0:
		return NothingWanted
	case chance >= coveredChance:
		return Covered
	case short == 0:
		return LikelyCovered
	case chance < hardlyChance:
		return Short
	default:
		return LikelyShort
	}
}

// IsShort tells whether stems are likely missing.
func (c Cover) IsShort() bool { return c >= LikelyShort }

// Cover returns how well a line is met; a line that no row gives is short.
func (w Want) Cover() Cover {
	if !w.Known {
		if w.Wanted == 0 {
			return NothingWanted
		}
		return Short
	}
	return CoverOf(w.Wanted, w.Chance, w.Short())
}

// lacks tells whether something should be done for a line: it is not sure to be filled.
func (w Want) lacks() bool { return w.Chance < coveredChance && w.Filled.Sure() < w.Wanted }

// Covered tells whether all of an order is sure to be filled.
func (d Due) Covered() bool { return d.Chance >= coveredChance }

// ShortLines returns how many lines of an order are likely short.
func (d Due) ShortLines() int {
	n := 0
	for _, w := range d.Lines {
		if w.Cover().IsShort() {
			n++
		}
	}
	return n
}
