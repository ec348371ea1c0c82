package climate

import (
	"math"

	"gonum.org/v1/gonum/floats"
	"gonum.org/v1/gonum/mat"
)

// A wander is how far a place may lie from the season that is expected of it: standard deviations in °C of the mean, of the yearly and of
// the half-yearly wave.
type wander [terms]float64

// From the season of a latitude and height, or from one that a grower has given, a place lies as far as usualWander; from the climate of the
// kind of country that it is in, not so far: guesses by eye, the latter such that it does little harm where a place's kind is not among those known.
var (
	usualWander  = wander{4, 2.5, 2.5, 0.8, 0.8}
	regionWander = wander{3, 1.8, 1.8, 0.75, 0.75}
)

// dayMeanVarC2 is how little one day tells of the seasonal mean, as a variance in °C²: neighbouring days repeat each other, so that a day
// counts for an eighth of an independent one.
const dayMeanVarC2 = 8 * 4.0 * 4.0

// moments are all of a record that the fit of a season needs: the sums of the basis' products, and of its products with the minima and maxima.
type moments struct {
	basis   *mat.SymDense
	extreme [2]*mat.VecDense
	squares float64 // Σ of the squares of both extremes, in °C²
}

func momentsOf(record []Dated) moments {
	m := moments{mat.NewSymDense(terms, nil), [2]*mat.VecDense{mat.NewVecDense(terms, nil), mat.NewVecDense(terms, nil)}, 0}
	for _, d := range record {
		row := basis(float64(d.Day.YearDay()))
		x := mat.NewVecDense(terms, row[:])
		m.basis.SymRankOne(m.basis, 1, x)
		m.extreme[0].AddScaledVec(m.extreme[0], d.TminC, x)
		m.extreme[1].AddScaledVec(m.extreme[1], d.TmaxC, x)
		m.squares += d.TminC*d.TminC + d.TmaxC*d.TmaxC
	}
	return m
}

// Fitted returns the season corrected by what is on record: least squares held back towards s (ridge regression, Hoerl &
// Kennard 1970), so that a short record moves the mean and a long one the whole wave.
func (s Season) Fitted(record []Dated) Season {
	fitted, _ := momentsOf(record).fit(s, usualWander)
	return fitted
}

// fit returns the season about s that the record makes most likely, and how likely the record is at a place that lies about s: the log of
// its density, less what is the same for all seasons (the evidence of a linear model: Bishop 2006, Pattern Recognition and Machine Learning, 3.86).
func (m moments) fit(s Season, far wander) (fitted Season, likely float64) {
	var information mat.SymDense
	information.ScaleSym(1/dayMeanVarC2, m.basis)
	likely = -m.squares / dayMeanVarC2 / 2
	for k, sd := range far {
		information.SetSym(k, k, information.At(k, k)+1/(sd*sd))
		likely -= 2 * math.Log(sd) // once for either wave
	}
	var factored mat.Cholesky
	if !factored.Factorize(&information) {
		return s, math.Inf(-1) // the wander keeps the matrix definite; only values that are no numbers come here
	}
	likely -= factored.LogDet()
	fitted = s
	for i, wave := range []*yearWave{&fitted.tmin, &fitted.tmax} {
		start := mat.NewVecDense(terms, append([]float64(nil), wave[:]...))
		var usual, pull, shift mat.VecDense
		usual.MulVec(m.basis, start)
		likely += (mat.Dot(start, m.extreme[i]) - mat.Dot(start, &usual)/2) / dayMeanVarC2
		pull.SubVec(m.extreme[i], &usual)
		pull.ScaleVec(1/dayMeanVarC2, &pull)
		if factored.SolveVecTo(&shift, &pull) != nil {
			return s, math.Inf(-1)
		}
		likely += mat.Dot(&shift, &pull) / 2
		for k := range wave {
			wave[k] += shift.AtVec(k)
		}
	}
	return fitted, likely
}

// How far in latitude and in height a kind of country reaches, as standard deviations.
const (
	regionDegrees = 5
	regionM       = 300
)

// likelySeason is the season to expect at a place of which nothing but its latitude, its height and some days are known, which may be none: the
// mean of what the general climates of its hemisphere and the formula of latitude and height make of the record, each weighed by how likely the
// record is with it. Before any is, a climate weighs the less the further off it lies, and the formula as much as a climate of the place's own latitude.
func likelySeason(latitude, elevationM float64, record []Dated) Season {
	m := momentsOf(record)
	var fits []Season
	var logs []float64
	add := func(s Season, far wander, prior float64) {
		fitted, likely := m.fit(s, far)
		fits, logs = append(fits, fitted), append(logs, likely+prior)
	}
	add(UsualSeason(latitude, elevationM), usualWander, 0)
	for _, r := range regions {
		if (r.Latitude < 0) != (latitude < 0) {
			continue
		}
		north, up := (latitude-r.Latitude)/regionDegrees, elevationM-r.ElevationM
		add(r.Season().higher(up), regionWander, -north*north/2-up*up/(2*regionM*regionM))
	}
	var mean Season
	all := floats.LogSumExp(logs)
	for i, fitted := range fits {
		weight := math.Exp(logs[i] - all)
		floats.AddScaled(mean.tmin[:], weight, fitted.tmin[:])
		floats.AddScaled(mean.tmax[:], weight, fitted.tmax[:])
	}
	return mean
}

// higher is the season so many metres above.
func (s Season) higher(m float64) Season {
	s.tmin[0] -= lapseC * m
	s.tmax[0] -= lapseC * m
	return s
}
