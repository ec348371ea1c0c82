package climate

import (
	"math"
	"testing"

	"dewcount/core/day"

	"gonum.org/v1/gonum/stat/distuv"
)

// records returns so many days of a season from a day on, each so much warmer.
func records(s Season, first string, days int, warmerC float64) []Dated {
	var record []Dated
	for i := range days {
		d := day.Must(first).Add(i)
		e := s.On(d.YearDay())
		record = append(record, Dated{d, Extremes{e.TminC + warmerC, e.TmaxC + warmerC}})
	}
	return record
}

// middlesApart is how far the middles of two seasons' days lie from each other over the year, as a root mean square in °C.
func middlesApart(a, b Season) float64 {
	sum := 0.0
	for yearDay := 1; yearDay <= 365; yearDay++ {
		d := a.anomaly(day.Must("2025-12-31").Add(yearDay), b.On(yearDay))
		sum += d.middle * d.middle / 365
	}
	return math.Sqrt(sum)
}

func TestSeasonIsLearnedFromTheRecord(t *testing.T) {
	usual := UsualSeason(47, 500)
	got, want := usual.Fitted(records(usual, "2024-01-01", 730, 2)).On(200), usual.On(200)
	if moved := got.TmaxC - want.TmaxC; moved < 1.6 || moved > 2.01 {
		t.Errorf("two years that were 2 °C warmer moved the season by %.2f", moved)
	}
}

// One day tells of a season what the normal distribution says: by hand, about a season that is wrong by d °C on that day a day has the variance
// 128 + Σ(x·sd)², which on the first of January is that of the mean and of the cosines, nearly.
func TestOneDayWeighsSeasonsByHand(t *testing.T) {
	s := UsualSeason(47, 500)
	record := records(s, "2026-01-01", 1, 6)
	x := basis(1)
	density := func(far wander, offC float64) float64 {
		variance := float64(dayMeanVarC2)
		for k, sd := range far {
			variance += x[k] * x[k] * sd * sd
		}
		return 2 * distuv.Normal{Sigma: math.Sqrt(variance)}.LogProb(offC)
	}
	usual, likely := momentsOf(record).fit(s, usualWander)
	_, narrow := momentsOf(record).fit(s, regionWander)
	_, higher := momentsOf(record).fit(s.higher(1000), usualWander)
	if got, want := narrow-likely, density(regionWander, 6)-density(usualWander, 6); math.Abs(got-want) > 1e-9 {
		t.Errorf("a season that is known better is %.6f more likely, want %.6f", got, want)
	}
	if got, want := higher-likely, density(usualWander, 12.5)-density(usualWander, 6); math.Abs(got-want) > 1e-9 {
		t.Errorf("a season from 1000 m higher is %.6f more likely, want %.6f", got, want)
	}
	const sdC = 16 + 6.25 + 0.64 // Σ(x·sd)², the sine being 0.02
	if moved, want := usual.On(1).TmaxC-s.On(1).TmaxC, 6*sdC/(128+sdC); math.Abs(moved-want) > 0.01 {
		t.Errorf("a day that is 6 °C warmer moves the season by %.3f on that day, want %.3f", moved, want)
	}
}

// What is known of a place grows from its latitude and height to its own record: the season comes nearer to it with every month.
func TestSeasonComesNearerWithTheRecord(t *testing.T) {
	for _, r := range regions {
		own := r.Season()
		own.tmin[1] -= 0.8 // no place is the mean of its kind
		own.tmax[2] += 0.8
		var off []float64
		for _, days := range []int{0, 60, 365, 5 * 365} {
			o := Outlook{Latitude: r.Latitude, ElevationM: r.ElevationM, Observed: records(own, "2020-03-01", days, 0)}
			off = append(off, middlesApart(o.Season(), own))
		}
		if off[0] > 4 || off[1] > max(2, 0.8*off[0]) || off[2] > 0.6 || off[3] > 0.25 {
			t.Errorf("%s: the season is %.2f °C off with nothing on record, then %.2f, after a year %.2f, after five %.2f", r.Name, off[0], off[1], off[2], off[3])
		}
	}
}

// A hard winter and a quick spring tell of a hot summer, which no formula of latitude and height does.
func TestSpringTellsTheKindOfSummer(t *testing.T) {
	plains, _ := RegionNamed("plains-45n")
	spring := records(plains.Season(), "2026-02-01", 90, 0)
	july, formula, want := likelySeason(45, 100, spring).On(196), UsualSeason(45, 100).Fitted(spring).On(196), plains.Season().On(196)
	if math.Abs(july.TmaxC-want.TmaxC) > 0.5*math.Abs(formula.TmaxC-want.TmaxC) {
		t.Errorf("July has %.1f °C by day, foretold on the first of May %.1f, by latitude and height alone %.1f", want.TmaxC, july.TmaxC, formula.TmaxC)
	}
}

// South of the equator January is warm, and no northern climate has a say there.
func TestSouthernSeasonsAreTurned(t *testing.T) {
	for _, latitude := range []float64{-5, -20, -33, -38, -43, -55} {
		s := likelySeason(latitude, 100, nil)
		if january, july := s.On(15), s.On(196); january.TmaxC < july.TmaxC+0.5 || january.TminC < july.TminC {
			t.Errorf("%g: January %.1f, July %.1f", latitude, january, july)
		}
	}
	if south, north := UsualSeason(-47, 500).On(19), UsualSeason(47, 500).On(200); math.Abs(south.TmaxC-north.TmaxC) > 0.3 {
		t.Errorf("southern January %v, northern July %v", south, north)
	}
}

// Where no climate lies near, in latitude or in height, the formula alone is left; among those that do, height counts as everywhere.
func TestClimatesCountOnlyNearTheirPlace(t *testing.T) {
	for _, place := range [][2]float64{{-5, 2000}, {-10, 100}, {47, 3000}, {85, 100}} {
		if apart := middlesApart(likelySeason(place[0], place[1], nil), UsualSeason(place[0], place[1])); apart > 0.3 {
			t.Errorf("at %g degrees and %g m the season is %.2f °C from the formula's, and no climate lies near", place[0], place[1], apart)
		}
	}
	if cooler := middlesApart(likelySeason(-38, 200, nil), likelySeason(-38, 100, nil)); math.Abs(cooler-0.65) > 0.1 {
		t.Errorf("100 m higher the season is %.2f °C cooler, want about 0.65", cooler)
	}
}
