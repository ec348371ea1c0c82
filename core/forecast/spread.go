package forecast

// A Spread is how many stems there may be: how often each whole number came up among the members and draws, and the mean.
// The zero Spread is surely none.
type Spread struct {
	often []int32 // by stems, in steps
	step  int
	of    int
	mean  float64
}

// finest is how many numbers of stems are told apart: only of absurd records would more be asked, and fill the memory.
const finest = 1 << 16

// newSpread gathers whole numbers of stems, none negative, whose expectations have a mean.
func newSpread(stems []int32, mean float64) Spread {
	most := int32(0)
	for _, n := range stems {
		most = max(most, n)
	}
	s := Spread{step: int(most)/finest + 1, of: len(stems), mean: mean}
	s.often = make([]int32, int(most)/s.step+1)
	if s.step == 1 {
		for _, n := range stems {
			s.often[n]++
		}
		return s
	}
	for _, n := range stems {
		s.often[int(n)/s.step]++
	}
	return s
}

// SpreadOf gathers whole numbers of stems, none negative.
func SpreadOf(stems []int32) Spread {
	sum := 0.0
	for _, n := range stems {
		sum += float64(n)
	}
	return newSpread(stems, sum/float64(max(1, len(stems))))
}

// Mean returns the expected stems.
func (s Spread) Mean() float64 { return s.mean }

// Quantile returns the least number of stems that is not exceeded with a chance of p (0 to 1): the inverse of the empirical
// distribution, definition 1 of Hyndman & Fan (1996).
func (s Spread) Quantile(p float64) float64 {
	sum := 0
	for n, times := range s.often {
		sum += int(times)
		if float64(sum) >= p*float64(s.of) {
			return float64(n * s.step)
		}
	}
	return float64(max(0, len(s.often)-1) * s.step)
}

// Bound returns the whole number of stems that is told for a chance of p (0 to 1). Up to the middle it is the quantile, so that what is called sure comes no
// less often than is said. Above the middle it is the number for which the chance of no more lies nearest to p (definition 3 of Hyndman & Fan 1996): the
// quantile is exceeded too rarely where stems are few, and a band that is said to hold the half of what comes would hold two thirds of it.
func (s Spread) Bound(p float64) float64 {
	if p <= 0.5 || s.of == 0 {
		return s.Quantile(p)
	}
	upper := int(s.Quantile(p)) / s.step
	lower := upper - 1
	for lower >= 0 && s.often[lower] == 0 {
		lower--
	}
	const rounding = 1e-9
	tooMuch, tooLittle := 1-s.AtLeast((upper+1)*s.step)-p, p-1+s.AtLeast(upper*s.step)
	if lower >= 0 && tooLittle < tooMuch-rounding {
		return float64(lower * s.step)
	}
	return float64(upper * s.step)
}

// AtLeast returns the chance, 0 to 1, that there are so many stems or more.
func (s Spread) AtLeast(stems int) float64 {
	if stems <= 0 || s.of == 0 {
		if stems <= 0 {
			return 1
		}
		return 0
	}
	sum := 0
	for n := (stems + s.step - 1) / s.step; n < len(s.often); n++ {
		sum += int(s.often[n])
	}
	return float64(sum) / float64(s.of)
}

// Sure, Likely and AtBest are the bounds as growers say them: nine times in ten there are as many as Sure, as often more as
// fewer than Likely, and one time in ten, as nearly as whole stems allow, more than AtBest.
func (s Spread) Sure() int   { return int(s.Bound(0.1)) }
func (s Spread) Likely() int { return int(s.Bound(0.5)) }
func (s Spread) AtBest() int { return int(s.Bound(0.9)) }
