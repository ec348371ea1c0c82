package evidence

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
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
		middle, sd := l.prior.gentle()
		best, offset := math.Inf(-1), math.NaN()
		for i := range paces {
			_, _, log := l.cells[usualKind][i].under(middle, sd)
			best = max(best, log)
		}
		for i := range paces {
			mean, covariance, log := l.cells[usualKind][i].under(middle, sd)
			const matters = 8 // a pace that is a few thousand times less likely than the best is never drawn
			if log < best-matters {
				continue
			}
			wantMean, wantSD, wantLog := dense(l.cells[usualKind][i].items, middle, sd)
			if math.IsNaN(offset) {
				offset = log - wantLog
			}
			for k, variance := range covariance.diagonal() {
				if sd := math.Sqrt(variance); math.Abs(mean[k]-wantMean[k]) > 0.2*wantSD[k] || math.Abs(sd/wantSD[k]-1) > 1./7 {
					t.Errorf("%s, pace %d, trait %d: %.3f ± %.3f, the lattice has %.3f ± %.3f", p.ID, i, k, mean[k], sd, wantMean[k], wantSD[k])
				}
			}
			if math.Abs(log-wantLog-offset) > 0.2 {
				t.Errorf("%s, pace %d: weight of e^%.2f, the lattice has e^%.2f", p.ID, i, log-offset, wantLog)
			}
		}
	}
}

// dense integrates over 41 × 41 × 41 points of the gentle traits under a normal prior about a middle.
func dense(items []item, middle, sd vector) (mean, sds vector, log float64) {
	const n, reach = 41, 4.0
	var fits [n * n * n]float64
	point := func(i int) (x vector) {
		for k := range x {
			x[k] = middle[k] + reach*sd[k]*(2*float64(i%n)/(n-1)-1)
			i /= n
		}
		return x
	}
	for i := range fits {
		x := point(i)
		fits[i] = explains(items, multipliers(x), func(*item) bool { return true })
		for k := range x {
			fits[i] -= (x[k] - middle[k]) * (x[k] - middle[k]) / (2 * sd[k] * sd[k])
		}
	}
	weights, log := weigh(fits[:])
	var second vector
	for i, w := range weights {
		for k, v := range point(i) {
			mean[k] += w * v
			second[k] += w * v * v
		}
	}
	for k := range sds {
		sds[k] = math.Sqrt(second[k] - mean[k]*mean[k])
	}
	return mean, sds, log
}

// Paces that are left out since they are hopeless change nothing of what a row says: its means by less than a fiftieth of a standard deviation.
func TestHopelessPacesAreNotMissed(t *testing.T) {
	few, many := row(t, "A", "red", "2026-05-10"), row(t, "B", "red", "2026-05-10")
	truth := growth.Traits{Pace: 1.12, Stems: 1.3, Regrow: 1, Spread: growth.Uneven, Answer: climate.Steep}
	few.see(t, truth, "2026-07-08")
	many.see(t, truth, "2026-07-01", "2026-07-05", "2026-07-09", "2026-07-13", "2026-07-17")
	left := 0
	for _, p := range []Planting{few, many} {
		l, all := newLattice(&p), newLattice(&p)
		for k := range kinds {
			for i := range paces {
				if all.cells[k][i] == nil {
					all.try(&p, p.story(), k, i)
					left++
				}
			}
		}
		some, whole := l.message(), all.message()
		for k := range kinds {
			if math.Abs(some.fit[k]-whole.fit[k]) > 0.02 {
				t.Errorf("%s, kind %d: a fit of %.3f, with all paces %.3f", p.ID, k, some.fit[k], whole.fit[k])
			}
			for trait := range traits {
				if off := math.Abs(some.mean[k][trait]-whole.mean[k][trait]) * math.Sqrt(whole.precision[k][trait]); off > 0.02 {
					t.Errorf("%s, kind %d, trait %d: the mean is %.3f standard deviations beside that of all paces", p.ID, k, trait, off)
				}
			}
		}
	}
	if left < 50 {
		t.Errorf("only %d paces were left out", left)
	}
}

// The matrices of the gentle traits by hand: a covariance that is the square of a lower triangle has that for its root, and its inverse
// undoes it.
func TestMatrixByHand(t *testing.T) {
	// (2 0 0 / 1 3 0 / -1 2 1) times its transpose
	m := matrix{4, 2, -2, 10, 5, 6}
	if got := m.root(vector{1, 0, 0}); got != (vector{2, 1, -1}) {
		t.Errorf("the root's first column is %v", got)
	}
	if got := m.root(vector{0, 1, 1}); got != (vector{0, 3, 3}) {
		t.Errorf("the root's second and third columns add up to %v", got)
	}
	inverse, det := m.inverse()
	if math.Abs(det-36) > 1e-9 {
		t.Errorf("determinant %g", det)
	}
	for k, v := range inverse.times(m.times(vector{1, -2, 3})) {
		if math.Abs(v-[]float64{1, -2, 3}[k]) > 1e-9 {
			t.Errorf("place %d comes back as %g", k, v)
		}
	}
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
	mornings := []string{"2026-06-27", "2026-07-02", "2026-07-07", "2026-07-12", "2026-07-17", "2026-07-22"}
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

// Rows that were counted, some of which came up in the cool and some in the warmth, tell how their crop answers to temperature.
func TestCoolAndWarmRowsTellTheAnswer(t *testing.T) {
	days := slices.Concat(slices.Repeat([]climate.Extremes{{TminC: 8, TmaxC: 20}}, 85), slices.Repeat([]climate.Extremes{{TminC: 17, TmaxC: 29}}, 115))
	for _, truth := range []climate.Answer{climate.Flat, climate.Steep} {
		var rows []Planting
		for _, started := range []string{"2026-04-05", "2026-04-10", "2026-06-25", "2026-07-01"} {
			p := rowUnder(t, started, "red", started, days)
			p.Until = day.Must("2026-09-15").At(0)
			of := growth.Traits{Pace: 1, Stems: 1, Regrow: 1, Answer: truth}
			budded, _ := p.Course.NewRun(p.Clock, of).FirstBud()
			var mornings []string
			for after := range 5 {
				mornings = append(mornings, day.On(budded).Add(4*(after+1)).String())
			}
			p.see(t, of, mornings...)
			rows = append(rows, p)
		}
		right, wrong := 0, 0
		for _, d := range traitsOf(200, rows...)[0] {
			switch d.Answer {
			case truth:
				right++
			case -truth:
				wrong++
			}
		}
		if right < 60 || wrong > 10 { // 30 each before anything is on record
			t.Errorf("of a crop whose answer is %d %d of 200 draws are of it, %d of the other end", truth, right, wrong)
		}
	}
	alone := 0
	for _, d := range traitsOf(200, row(t, "A", "red", "2026-05-10"))[0] {
		if d.Answer == climate.AsTable {
			alone++
		}
	}
	if alone < 136 || alone > 144 {
		t.Errorf("with nothing on record %d of 200 draws answer as the table has it", alone)
	}
}

// Rows whose plants tire sooner, or hold out longer, than the table has it show it by their cuts: two fifths of what they do are seen, and which way
// is sure.
func TestCutsTellHowABloomFades(t *testing.T) {
	for _, truth := range []float64{-0.7, 0.7} {
		p := row(t, "A", "red", "2026-04-10")
		p.Until = day.Must("2026-10-01").At(0)
		run := p.Course.NewRun(p.Clock, growth.Traits{Pace: 1, Stems: 1, Regrow: 1, Fade: truth})
		for d := day.Must("2026-06-10"); d.Before(day.Must("2026-10-01")); d = d.Add(3) {
			run.To(d.At(8))
			taken := math.Round(run.Take(p.Course.Planting().Market, 1, 0))
			run.Regrow(taken)
			p.Cuts = append(p.Cuts, Cut{At: d.At(8), Taken: int(taken)})
		}
		drawn := traitsOf(200, p)[0]
		mean, same := 0.0, 0
		for _, d := range drawn {
			mean += d.Fade / 200
			if d.Fade*truth > 0 {
				same++
			}
		}
		if mean/truth < 0.4 || mean/truth > 1.1 || same < 180 {
			t.Errorf("a row that fades by %+.1f is thought to by %+.2f, %d of 200 draws that way", truth, mean, same)
		}
	}
}
