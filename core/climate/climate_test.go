package climate

import (
	"math"
	"math/rand/v2"
	"testing"

	"dewcount/core/day"

	"gonum.org/v1/gonum/stat"
)

// Day lengths of the US Naval Observatory's tables of civil twilight, in hours; Forsythe et al. (1995) claim a minute at
// low latitudes and a few at high ones.
func TestPhotoperiodAgainstPublishedTables(t *testing.T) {
	for _, c := range []struct {
		latitude float64
		date     string
		hours    float64
	}{
		{0, "2026-03-20", 12.83},   // equator at the equinox: 12 h 07 of sun and twice 21 minutes
		{51.5, "2026-06-21", 18.2}, // 16 h 38 of sun and twice 47 minutes
		{51.5, "2026-12-21", 9.18}, // 7 h 50 of sun and twice 40 minutes
		{40, "2026-06-21", 16.1},   // 15 h 01 of sun and twice 33 minutes
		{70, "2026-06-21", 24}, {-70, "2026-06-21", 4.5}, {85, "2026-12-21", 0},
	} {
		got := Photoperiod(c.latitude, day.Must(c.date).YearDay())
		if tolerance := 0.15 + max(0, math.Abs(c.latitude)-60)*0.06; math.Abs(got-c.hours) > tolerance {
			t.Errorf("Photoperiod(%v, %s) = %.2f, want %.2f", c.latitude, c.date, got, c.hours)
		}
	}
}

// Sun hours at 40 °N, as printed in Forsythe et al. (1995) and almanacs: 15.0 at midsummer, 9.3 at midwinter.
func TestSunHours(t *testing.T) {
	for yearDay, want := range map[int]float64{172: 15.0, 355: 9.3, 80: 12.1} {
		if got := SunHours(40, yearDay); math.Abs(got-want) > 0.1 {
			t.Errorf("SunHours(40, %d) = %.2f, want %.2f", yearDay, got, want)
		}
	}
}

// The days turn at the solstices, on 21 June and 21 December, in the south the other way round; there are 366 of them here.
func TestDaysLengthenUpToTheSolstice(t *testing.T) {
	for _, latitude := range []float64{-60, -33, 33, 60} {
		lengths, turns := DayLengthsAt(latitude), 0
		for yearDay := 1; yearDay <= 366; yearDay++ {
			if lengths.Lengthen(yearDay) == lengths.Lengthen(yearDay%366+1) {
				continue
			}
			turns++
			if math.Abs(float64(yearDay)-172) > 2 && math.Abs(float64(yearDay)-355) > 2 {
				t.Errorf("at %v the days turn on day %d", latitude, yearDay)
			}
		}
		if spring := lengths.Lengthen(100); turns != 2 || spring != (latitude > 0) {
			t.Errorf("at %v the days turn %d times, and in April they lengthen: %v", latitude, turns, spring)
		}
	}
}

// Almanacs have the sun 14.2 minutes slow on 11 February, 3.7 fast on 14 May, 6.5 slow on 26 July, 16.4 fast on 3 November.
func TestSundialFast(t *testing.T) {
	for date, minutes := range map[string]float64{"2026-02-11": -14.2, "2026-05-14": 3.7, "2026-07-26": -6.5, "2026-11-03": 16.4} {
		if got := 60 * SundialFast(day.Must(date).YearDay()); math.Abs(got-minutes) > 0.5 {
			t.Errorf("on %s the sun is %.1f minutes fast, want %.1f", date, got, minutes)
		}
	}
}

func TestPhotoperiodIsSaneEverywhere(t *testing.T) {
	for latitude := -90.0; latitude <= 90; latitude += 0.5 {
		for yearDay := 1; yearDay <= 366; yearDay++ {
			if h := Photoperiod(latitude, yearDay); !(0 <= h && h <= 24) {
				t.Fatalf("Photoperiod(%v, %d) = %v", latitude, yearDay, h)
			}
		}
	}
}

func TestHoursKeepTheExtremes(t *testing.T) {
	e := Extremes{8, 22}
	hours := Hours(e, e, e, 15)
	low, high, sum := math.Inf(1), math.Inf(-1), 0.0
	for _, celsius := range hours {
		low, high, sum = min(low, celsius), max(high, celsius), sum+celsius
	}
	if low < e.TminC || low > e.TminC+0.6 || high > e.TmaxC || high < e.TmaxC-0.6 {
		t.Errorf("hours run from %.2f to %.2f, want about %v to %v", low, high, e.TminC, e.TmaxC)
	}
	if mean := sum / 24; mean < 14 || mean > 17 {
		t.Errorf("mean %.2f: a long summer day lies a little above the middle", mean)
	}
	for h := 1; h < 24; h++ {
		if step := math.Abs(hours[h] - hours[h-1]); step > 4 {
			t.Errorf("a jump of %.1f °C at hour %d", step, h)
		}
	}
	for _, sun := range []float64{0, 24} {
		for h, celsius := range Hours(e, e, e, sun) {
			if !(e.TminC-1e-9 <= celsius && celsius <= e.TmaxC+1e-9) {
				t.Errorf("with %v sun hours, hour %d has %v", sun, h, celsius)
			}
		}
	}
}

// By the published course the mean of a day of 10 to 20 °C is 14.99 °C with 13.7 hours of sun, 14.38 with 9.4 and 15.38 with 15.9 (its sine and its fall
// integrated by hand); thermal time takes half of what lies beside the middle.
func TestWarmthHoursLieBetweenMiddleAndCourse(t *testing.T) {
	e := Extremes{10, 20}
	mean := func(hours [24]float64) float64 {
		sum := 0.0
		for _, celsius := range hours {
			sum += celsius / 24
		}
		return sum
	}
	for sun, want := range map[float64]float64{9.4: 14.38, evenSunH: 15, 15.9: 15.38} {
		if got := mean(Hours(e, e, e, sun)); math.Abs(got-want) > 0.02 {
			t.Errorf("with %v hours of sun the mean is %.3f, want %.2f", sun, got, want)
		}
		if got := mean(WarmthHours(e, e, e, sun)); math.Abs(got-(15+want)/2) > 0.03 {
			t.Errorf("with %v hours of sun thermal time has a mean of %.3f, want %.2f", sun, got, (15+want)/2)
		}
	}
}

// Worked by hand for base 10, optimum 25, ceiling 40, where the beta function of Yan & Hunt (1999) is a parabola: (40 - T)(T - 10)/225 of what
// the optimum gives. At 0.6 of the way up, 19 degrees, it is 21*9/225 = 0.84 and has to give 9, so that the optimum gives 9/0.84 = 10.714.
func TestResponse(t *testing.T) {
	r := Response{10, 25, 40}
	for celsius, want := range map[float64]float64{5: 0, 10: 0, 17.5: 0.75 * 9 / 0.84, 19: 9, 25: 9 / 0.84, 32.5: 0.75 * 9 / 0.84, 37: 9 / 0.84 * 3 * 27 / 225., 40: 0, 55: 0, -20: 0} {
		if got := r.Rate(celsius); math.Abs(got-want) > 1e-12 {
			t.Errorf("Rate(%v) = %v, want %v", celsius, got, want)
		}
	}
	// McMaster & Wilhelm (1997), method 1: (21+17)/2 - 10 = 9 °Cd, where the whole day lies about where both agree.
	if got := r.SteadyDegreeDays(Extremes{17, 21}); math.Abs(got-9) > 0.3 {
		t.Errorf("degree-days of 17 to 21 °C = %.2f, want about 9", got)
	}
	if got, want := r.SteadyDegreeDays(Extremes{18, 18}), 9/0.84*22*8/225.; math.Abs(got-want) > 1e-9 {
		t.Errorf("degree-days of a steady 18 °C = %v, want %v", got, want)
	}
	// The published function itself, for a crop of 4, 28 and 38 °C at 16 °C: (22/10) (12/24)^2.4 of the optimum.
	r = Response{4, 28, 38}
	if got, want := r.Rate(16)/r.Rate(28), 2.2*math.Pow(0.5, 2.4); math.Abs(got-want) > 1e-12 {
		t.Errorf("at 16 °C it is %v of the optimum, want %v", got, want)
	}
}

func TestSumIsSearchedBack(t *testing.T) {
	r := Response{5, 25, 38}
	series := Series{day.Must("2026-03-01"), nil}
	random := rand.New(rand.NewPCG(1, 1))
	for range 120 {
		low := random.Float64()*20 - 4
		series.Days = append(series.Days, Extremes{low, low + 10})
	}
	sum := NewSum(series.First, 40, 120)
	total := 40.0
	for _, hours := range series.Hourly(47).Hours {
		sum.Add(r.Curve().Warmth(&hours)[AsTable-Flat], 1)
		total += r.DegreeDays(hours)
	}
	if got := sum.At(series.End().At(0)); math.Abs(got-total) > 1e-5*total { // a curve is kept in steps
		t.Fatalf("the sum ends at %v, its days add up to %v", got, total)
	}
	if !(sum.End() == series.End()) {
		t.Errorf("End = %v, want %v", sum.End(), series.End())
	}
	for cd := 41.0; cd < total; cd += 7.3 {
		at, ok := sum.When(cd)
		if !ok || math.Abs(sum.At(at)-cd) > 1e-9 {
			t.Fatalf("When(%v) = %v, %v, where the sum is %v", cd, at, ok, sum.At(at))
		}
	}
	if _, ok := sum.When(total + 1); ok {
		t.Error("a warmth beyond the last day was found")
	}
}

func TestPastBridgesGaps(t *testing.T) {
	from := day.Must("2026-05-01")
	outlook := Outlook{Latitude: 47, ElevationM: 500, From: from}
	for i := -40; i < 0; i++ {
		if i < -25 || i > -15 {
			outlook.Observed = append(outlook.Observed, Dated{from.Add(i), Extremes{20, 30}}) // far above the season
		}
	}
	past, bridged := outlook.Past(from.Add(-50))
	missing := 0
	for _, b := range bridged {
		if b {
			missing++
		}
	}
	if missing != 10+11 || !bridged[9] || bridged[10] || !bridged[30] {
		t.Errorf("%d days were bridged, want 21", missing)
	}
	if e := past.Days[30]; e.TmaxC < 24 || e.TmaxC > 34 {
		t.Errorf("inside the gap %v, want it near its neighbours", e)
	}
}

func TestOddWeatherIsNoticed(t *testing.T) {
	from := day.Must("2026-02-01")
	usual := UsualSeason(47, 500)
	outlook := Outlook{Latitude: 47, ElevationM: 500, From: from}
	for d := from.Add(-200); d.Before(from); d = d.Add(1) {
		outlook.Observed = append(outlook.Observed, Dated{d, usual.On(d.YearDay())})
	}
	slip := &outlook.Observed[len(outlook.Observed)-20]
	slip.TmaxC = 45 // in January
	if odd := outlook.Odd(from.Add(-100)); len(odd) != 1 || odd[0].Day != slip.Day {
		t.Errorf("odd days %v, want the one with 45 °C", odd)
	}
	if odd := outlook.Odd(from.Add(-5)); odd != nil {
		t.Errorf("odd days %v after the slip", odd)
	}
}

func TestMembersFollowTheForecastThenSpread(t *testing.T) {
	from := day.Must("2026-07-09")
	outlook := Outlook{Latitude: 46.9, ElevationM: 520, From: from,
		Observed: []Dated{{from.Add(-1), Extremes{14, 26}}}}
	for i := range 7 {
		outlook.Issued = append(outlook.Issued, Dated{from.Add(i), Extremes{12, 24}})
	}
	members := outlook.Members(200, 60, 7)
	spread := func(i int) (mean, sd float64) {
		for _, m := range members {
			mean += m.Days[i].TmaxC / float64(len(members))
		}
		for _, m := range members {
			sd += (m.Days[i].TmaxC - mean) * (m.Days[i].TmaxC - mean) / float64(len(members))
		}
		return mean, math.Sqrt(sd)
	}
	mean0, sd0 := spread(0)
	_, sd5 := spread(5)
	_, sd40 := spread(40)
	if math.Abs(mean0-24) > 0.5 || !(sd0 < sd5 && sd5 < sd40) || sd40 > 8 {
		t.Errorf("tomorrow %.1f ± %.1f, then ± %.1f, then ± %.1f", mean0, sd0, sd5, sd40)
	}
	outlook.IssuedOn = from.Add(-5)
	stale := 0.0
	for _, m := range outlook.Members(200, 60, 7) {
		stale += (m.Days[0].TmaxC - 24) * (m.Days[0].TmaxC - 24) / 200
	}
	if math.Sqrt(stale) < 1.5*sd0 {
		t.Errorf("a forecast of five days ago is trusted to ± %.1f, one of last evening to ± %.1f", math.Sqrt(stale), sd0)
	}
	outlook.IssuedOn = day.Day{}
	again := outlook.Members(200, 60, 7)
	if again[17].Days[33] != members[17].Days[33] {
		t.Error("the same seed gave another weather")
	}
}

// Days that are warm by a wide range leave the nights alike: minima of the members differ as those on record do, and maxima too. Middles and ranges
// that were drawn apart would have both differ by the same 2.8 °C, and foresee frosts that hardly come.
func TestMembersDifferByNightAndDayAsTheRecordDoes(t *testing.T) {
	const nightSD, daySD, stays = 1.5, 3.7, 0.6
	from := day.Must("2026-11-01")
	outlook := Outlook{Latitude: 46.9, ElevationM: 520, From: from}
	season := UsualSeason(outlook.Latitude, outlook.ElevationM)
	random := rand.New(rand.NewPCG(1, 2))
	var night, warmth float64
	for d := from.Add(-300); d.Before(from); d = d.Add(1) {
		night = stays*night + math.Sqrt(1-stays*stays)*random.NormFloat64()
		warmth = stays*warmth + math.Sqrt(1-stays*stays)*random.NormFloat64()
		usual := season.On(d.YearDay())
		outlook.Observed = append(outlook.Observed, Dated{d, Extremes{usual.TminC + nightSD*night, usual.TmaxC + daySD*(0.3*night+0.954*warmth)}})
	}
	fitted := outlook.Season()
	var minima, maxima []float64
	for _, m := range outlook.Members(60, 90, 3) {
		for i, e := range m.Days[20:] {
			usual := fitted.On(from.Add(20 + i).YearDay())
			minima, maxima = append(minima, e.TminC-usual.TminC), append(maxima, e.TmaxC-usual.TmaxC)
		}
	}
	if got := stat.StdDev(minima, nil); math.Abs(got-nightSD) > 0.25 {
		t.Errorf("nights of the members differ by %.2f °C, on record by %.2f", got, nightSD)
	}
	if got := stat.StdDev(maxima, nil); math.Abs(got-daySD) > 0.4 {
		t.Errorf("days of the members differ by %.2f °C, on record by %.2f", got, daySD)
	}
}

// All answers agree where the table was measured. In the cold a flat one is quicker than the table and a steep one slower, at the optimum the
// other way round; by hand, half way from 4 to 28 °C under a ceiling of 38, the table's curve has 2.2 × 0.5^2.4 of the optimum's rate.
func TestAnswersByHand(t *testing.T) {
	r := Response{4, 28, 38}
	for answer, power := range map[Answer]float64{Flat: 0.66, AsTable: 1, Steep: 1.52} {
		if got := r.rate(4+0.6*24, answer); math.Abs(got-0.6*24) > 1e-12 {
			t.Errorf("answer %d: %.3f where all agree on %.3f", answer, got, 0.6*24)
		}
		if got, want := r.rate(16, answer)/r.rate(28, answer), math.Pow(2.2*math.Pow(0.5, 2.4), power); math.Abs(got-want) > 1e-12 {
			t.Errorf("answer %d: %.4f of the optimum's rate half way, want %.4f", answer, got, want)
		}
		hours := [24]float64{}
		for i := range hours {
			hours[i] = 11
		}
		sum := 0.0
		for _, cd := range r.Curve().Warmth(&hours)[answer-Flat] {
			sum += cd
		}
		if want := r.rate(11, answer); math.Abs(sum-want) > 0.01 {
			t.Errorf("answer %d: a day of 11 °C is worth %.3f °Cd, want %.3f", answer, sum, want)
		}
	}
	if !(r.rate(10, Flat) > r.rate(10, AsTable) && r.rate(10, AsTable) > r.rate(10, Steep) && r.rate(28, Flat) < r.rate(28, Steep)) {
		t.Error("flat and steep are not where they should be")
	}
}
