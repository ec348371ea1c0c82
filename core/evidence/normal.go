package evidence

import "math"

// Stems, regrow and fade are gentle traits: what is expected is a sum of sources with multipliers of their own, so that given pace and
// spread their likelihood is close to normal in the logarithms.
const gentle = traits - stems

// A vector is one number for each gentle trait, in their order.
type vector [gentle]float64

// gentleOf returns the gentle ones of all traits.
func gentleOf(all [traits]float64) vector { return vector(all[stems:]) }

// with returns all traits, of a log pace.
func (v vector) with(logPace float64) [traits]float64 {
	return [traits]float64{pace: logPace, stems: v[0], regrow: v[1], fade: v[2]}
}

func (v vector) dot(o vector) float64 { return v[0]*o[0] + v[1]*o[1] + v[2]*o[2] }

// A matrix is symmetric: its rows from the diagonal on.
type matrix [6]float64

// onDiagonal are the places of the diagonal.
var onDiagonal = [gentle]int{0, 3, 5}

func (m *matrix) diagonal() vector { return vector{m[0], m[3], m[5]} }

func (m *matrix) times(v vector) vector {
	return vector{m[0]*v[0] + m[1]*v[1] + m[2]*v[2], m[1]*v[0] + m[3]*v[1] + m[4]*v[2], m[2]*v[0] + m[4]*v[1] + m[5]*v[2]}
}

// inverse returns the inverse and the determinant, by cofactors.
func (m *matrix) inverse() (inverse matrix, det float64) {
	a, b, c := m[3]*m[5]-m[4]*m[4], m[2]*m[4]-m[1]*m[5], m[1]*m[4]-m[2]*m[3]
	det = m[0]*a + m[1]*b + m[2]*c
	return matrix{a / det, b / det, c / det, (m[0]*m[5] - m[2]*m[2]) / det, (m[1]*m[2] - m[0]*m[4]) / det, (m[0]*m[3] - m[1]*m[1]) / det}, det
}

// root returns the product of the Cholesky factor of a covariance with v: normal numbers with that covariance, where v are independent ones.
func (m *matrix) root(v vector) vector {
	a := math.Sqrt(m[0])
	b, c := m[1]/a, m[2]/a
	d := math.Sqrt(m[3] - b*b)
	e := (m[4] - b*c) / d
	f := math.Sqrt(max(0, m[5]-c*c-e*e))
	return vector{a * v[0], b*v[0] + d*v[1], c*v[0] + e*v[1] + f*v[2]}
}

// multipliers returns those of the sources for log traits: regrow is that of half way through the bloom, and fade how far its end lies from
// its beginning.
func multipliers(log vector) [sources]float64 {
	return [sources]float64{first: math.Exp(log[0]), early: math.Exp(log[1] - log[2]/2), late: math.Exp(log[1] + log[2]/2)}
}

// gentle returns the middle and the standard deviation of the gentle traits before anything is on record.
func (p *prior) gentle() (middle, sd vector) {
	middle = gentleOf(p.middle)
	for k := range sd {
		sd[k] = p.spread[stems+k].all()
	}
	return middle, sd
}

// A normal is a likelihood of the logs of the gentle traits, exp(peak - x'Λx/2 + η'x).
type normal struct {
	peak      float64
	precision matrix // Λ
	pull      vector // η
}

// likelihood returns the likelihood of some of the items about where it and the prior are highest, that place, and how high they are there.
// The place is found by Fisher's scoring (McCullagh & Nelder 1989, ch. 2), which needs no logarithms on its way.
func likelihood(items []item, p *prior, which func(*item) bool) (n normal, at vector, fit float64) {
	middle, own := p.gentle()
	for k, sd := range own {
		own[k] = 1 / (sd * sd)
	}
	at = middle
	const steps, farthest = 12, 0.5
	for range steps {
		by := multipliers(at)
		n.precision = matrix{}
		var slope vector
		for k := range slope {
			slope[k] = -own[k] * (at[k] - middle[k])
		}
		for i := range items {
			it := &items[i]
			mean := it.expects(by) + leastExpected
			if !which(it) || it.atLeast && mean > it.seen {
				continue // as good as it can be: more than was taken may have stood there
			}
			weight := it.weight / (mean + mean*mean/it.size)
			off := weight * (it.seen - mean)
			begins, ends := it.of[early]*by[early], it.of[late]*by[late]
			a, b, c := it.of[first]*by[first], begins+ends, (ends-begins)/2 // the mean's slope along each trait
			slope[0] += off * a
			slope[1] += off * b
			slope[2] += off * c
			n.precision[0] += weight * a * a
			n.precision[1] += weight * a * b
			n.precision[2] += weight * a * c
			n.precision[3] += weight * b * b
			n.precision[4] += weight * b * c
			n.precision[5] += weight * c * c
		}
		both := n.precision
		for k, place := range onDiagonal {
			both[place] += own[k]
		}
		inverse, _ := both.inverse()
		moved := 0.0
		for k, step := range inverse.times(slope) {
			step = min(farthest, max(-farthest, step))
			at[k] += step
			moved = max(moved, math.Abs(step))
		}
		const near = 1e-3
		if moved < near {
			break
		}
	}
	// at the top of both the slope of the likelihood is the prior's, turned about
	n.pull = n.precision.times(at)
	n.peak = n.pull.dot(at) / 2
	for k := range at {
		n.pull[k] += own[k] * (at[k] - middle[k])
	}
	fit = explains(items, multipliers(at), which)
	n.peak += fit - n.pull.dot(at)
	for k := range at {
		fit -= own[k] * (at[k] - middle[k]) * (at[k] - middle[k]) / 2
	}
	return n, at, fit
}

// leastExpected keeps one stem where none was expected from ruling out all else: rows are mixed up and buds come out of turn.
const leastExpected = 0.3

// explains returns the log likelihood of some of the items, up to a constant.
func explains(items []item, by [sources]float64, which func(*item) bool) float64 {
	sum := 0.0
	for i := range items {
		it := &items[i]
		if !which(it) {
			continue
		}
		mean := it.expects(by) + leastExpected
		if it.atLeast && mean > it.seen {
			mean = it.seen + leastExpected
		}
		fit := -(it.seen + it.size) * math.Log(mean+it.size)
		if it.seen > 0 {
			fit += it.seen * math.Log(mean)
		}
		sum += it.weight * fit
	}
	return sum
}

// under returns the likelihood joined with a normal prior about a middle: its middle, its covariance, and the log of its weight.
func (n *normal) under(middle, sd vector) (mean vector, covariance matrix, log float64) {
	precision := n.precision
	pull := n.pull
	log = n.peak
	for k, place := range onDiagonal {
		own := 1 / (sd[k] * sd[k])
		precision[place] += own
		pull[k] += own * middle[k]
		log -= own*middle[k]*middle[k]/2 + math.Log(sd[k])
	}
	covariance, det := precision.inverse()
	mean = covariance.times(pull)
	return mean, covariance, log + mean.dot(pull)/2 - math.Log(det)/2
}
