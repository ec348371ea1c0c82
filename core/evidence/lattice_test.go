package evidence

import (
	"math"
	"math/rand/v2"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/growth"
)

// The normal step about the mode against a dense lattice of stems and regrowth, for rows with few and many counts, and with cuts: the means
// differ by less than a fifth of a standard deviation, the standard deviations by less than a seventh, and the weights of paces by little.
func TestNormalStepIsLikeTheLattice(t *testing.T) {
	few, many, cut := row(t, "A", "red", "2026-05-10"), row(t, "B", "red", "2026-05-10"), row(t, "C", "red", "2026-05-10")
	truth := growth.Traits{Pace: 0.95, Stems: 1.3, Regrow: 1}
	few.see(t, truth, "2026-07-08")
	many.see(t, truth, "2026-07-01", "2026-07-05", "2026-07-09", "2026-07-13", "2026-07-17")
	cut.see(t, truth, "2026-07-08", "2026-07-18")
	for _, on := range []float64{many.Counts[1].At, many.Counts[2].At, many.Counts[4].At} {
		cut.Cuts = append(cut.Cuts, Cut{At: on + 0.1, Taken: 25})
	}
	for _, p := range []Planting{few, many, cut} {
		l := newLattice(&p)
		sd := [2]float64{l.prior.spread[stems].all(), l.prior.spread[regrow].all()}
		best, offset := math.Inf(-1), math.NaN()
		for i := range paces {
			_, _, log := l.normal[1][i].under([2]float64{}, sd)
			best = max(best, log)
		}
		for i := range paces {
			mean, precision, log := l.normal[1][i].under([2]float64{}, sd)
			const matters = 8 // a pace that is a few thousand times less likely than the best is never drawn
			if log < best-matters {
				continue
			}
			det := precision[0]*precision[2] - precision[1]*precision[1]
			sds := [2]float64{math.Sqrt(precision[2] / det), math.Sqrt(precision[0] / det)}
			wantMean, wantSD, wantLog := dense(l.walks[1][i].items, sd)
			if math.IsNaN(offset) {
				offset = log - wantLog
			}
			for k := range 2 {
				if math.Abs(mean[k]-wantMean[k]) > 0.2*wantSD[k] || math.Abs(sds[k]/wantSD[k]-1) > 1./7 {
					t.Errorf("%s, pace %d, trait %d: %.3f ± %.3f, the lattice has %.3f ± %.3f", p.ID, i, k, mean[k], sds[k], wantMean[k], wantSD[k])
				}
			}
			if math.Abs(log-wantLog-offset) > 0.2 {
				t.Errorf("%s, pace %d: weight of e^%.2f, the lattice has e^%.2f", p.ID, i, log-offset, wantLog)
			}
		}
	}
}

// dense integrates over 161 × 161 points of log stems and log regrow under a normal prior about none.
func dense(items []item, sd [2]float64) (mean, sds [2]float64, log float64) {
	const n, reach = 161, 4.0
	best := math.Inf(-1)
	var fits [n][n]float64
	at := func(i, k int) float64 { return reach * sd[k] * (2*float64(i)/(n-1) - 1) }
	for i := range n {
		for j := range n {
			x, y := at(i, 0), at(j, 1)
			fits[i][j] = explains(items, math.Exp(x), math.Exp(y), func(*item) bool { return true }) - x*x/(2*sd[0]*sd[0]) - y*y/(2*sd[1]*sd[1])
			best = max(best, fits[i][j])
		}
	}
	sum := 0.0
	var first, second [2]float64
	for i := range n {
		for j := range n {
			w := math.Exp(fits[i][j] - best)
			sum += w
			for k, v := range [2]float64{at(i, 0), at(j, 1)} {
				first[k] += w * v
				second[k] += w * v * v
			}
		}
	}
	for k := range 2 {
		mean[k] = first[k] / sum
		sds[k] = math.Sqrt(second[k]/sum - mean[k]*mean[k])
	}
	return mean, sds, best + math.Log(sum)
}

// Rows that climb the ladder unevenly show it by how their stems lie over the rungs: with a row's counts most draws are of its spread, with
// none half are of the usual one.
func TestCountsTellTheSpread(t *testing.T) {
	share := func(of growth.Spread, plantings ...Planting) float64 {
		n := 0
		for _, d := range traitsOf(200, plantings...)[0] {
			if d.Spread == of {
				n++
			}
		}
		return float64(n) / 200
	}
	if got := share(growth.Usual, row(t, "A", "red", "2026-05-10")); math.Abs(got-0.5) > 0.02 {
		t.Errorf("with nothing on record the usual spread has %.2f of the draws", got)
	}
	mornings := []string{"2026-06-27", "2026-07-02", "2026-07-07", "2026-07-12", "2026-07-17"}
	for _, truth := range []growth.Spread{growth.Even, growth.Uneven} {
		p := row(t, "A", "red", "2026-05-10")
		p.see(t, growth.Traits{Pace: 0.95, Stems: 2, Regrow: 1, Spread: truth}, mornings...)
		if got, other := share(truth, p), share(-truth, p); got < 0.45 || other > 0.15 {
			t.Errorf("a row of spread %d: %.2f of the draws are of it, %.2f of the other end", truth, got, other)
		}
	}
}

// Of 200 tight buds 16 are called cracking, as the crew does: the next rung, on which nothing stands, gets no crowd by it. Eighty do make one.
func TestMisjudgedBudsAreNoCrowd(t *testing.T) {
	p := row(t, "A", "red", "2026-05-10")
	next := func(called int) float64 {
		mean := 0.0
		for i := range 200 {
			c := Count{Plants: 80, Stems: [crop.Rungs]int{200 - called, called}}
			mean += p.standing([crop.Rungs]float64{200, 1}, &c, 1, rand.New(rand.NewPCG(uint64(i), 1)))[1] / 200
		}
		return mean
	}
	if few, crowd := next(16), next(80); few > 6 || crowd < 2.5*few {
		t.Errorf("%.1f stems stand on the second rung where 16 were called so, %.1f where 80 were", few, crowd)
	}
}
