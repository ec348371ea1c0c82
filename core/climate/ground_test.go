package climate

import (
	"math"
	"testing"

	"dewcount/core/day"
)

// With ten years on record the members are those years: from the day on each goes its own way, and near it they keep to what the last
// day was like.
func TestPastYearsAreMembers(t *testing.T) {
	from := day.Must("2026-07-09")
	usual := UsualSeason(47, 500)
	outlook := Outlook{Latitude: 47, ElevationM: 500, From: from}
	for d := day.Must("2016-01-01"); d.Before(from); d = d.Add(1) {
		year, _, _ := d.Date()
		e := usual.On(d.YearDay())
		shift := float64(year-2021) / 2 // every year half a degree warmer than the one before
		outlook.Observed = append(outlook.Observed, Dated{d, Extremes{e.TminC + shift, e.TmaxC + shift}})
	}
	members := outlook.Members(40, 120, 1)
	late := make(map[float64]int)
	for m, series := range members {
		e := usual.On(from.Add(60).YearDay())
		late[math.Round(2*(series.Days[60].TmaxC-e.TmaxC))/2]++
		if near := series.Days[0].TmaxC - usual.On(from.YearDay()).TmaxC; near < 1 || near > 2.6 {
			t.Errorf("member %d begins %.1f °C above the usual, the last day lay 2.5 above it", m, near)
		}
	}
	if len(late) != 10 || late[-2.5] != 4 || late[2] != 4 {
		t.Errorf("two months on the members lie %v above the usual, want four for each of ten years", late)
	}
}

func TestMonthlySeasonComesBack(t *testing.T) {
	for _, r := range Regions() {
		s := r.Season()
		place := day.Of(2026, 1, 1)
		for month := range 12 {
			var low, high, n float64
			for _, m, _ := place.Date(); int(m) == month+1; _, m, _ = place.Date() {
				e := s.On(place.YearDay())
				low, high, n = low+e.TminC, high+e.TmaxC, n+1
				place = place.Add(1)
			}
			if math.Abs(low/n-r.TminC[month]) > 1.3 || math.Abs(high/n-r.TmaxC[month]) > 1.3 {
				t.Errorf("%s, month %d: %.1f to %.1f, want %.1f to %.1f", r.ID, month+1, low/n, high/n, r.TminC[month], r.TmaxC[month])
			}
		}
	}
}

// Worked by hand: of four springs one has its last frost on 20 May, two on 10 May, one none.
func TestFrostsByHand(t *testing.T) {
	first := day.Must("2026-01-01")
	weather := func(frosts ...string) Series {
		s := Series{first, make([]Extremes, 365)}
		for i := range s.Days {
			s.Days[i] = Extremes{8, 18}
		}
		for _, f := range frosts {
			s.Days[day.Must(f).Sub(first)].TminC = -1
		}
		return s
	}
	members := []Series{weather("2026-05-20", "2026-10-01"), weather("2026-05-10", "2026-10-20"), weather("2026-04-02", "2026-05-10", "2026-11-05"), weather()}
	r := Frosts(Series{}, members, 0, 47, day.Must("2026-06-01"))
	for d, want := range map[string]float64{"2026-05-09": 0.75, "2026-05-10": 0.25, "2026-05-20": 0} {
		if got := r.After(day.Must(d)); got != want {
			t.Errorf("frost after %s: %v, want %v", d, got, want)
		}
	}
	if got := r.Before(day.Must("2026-10-20")); got != 0.25 {
		t.Errorf("frost before 20 October: %v, want 0.25", got)
	}
	if last, first := r.Last(0.3), r.First(0.3); last != day.Must("2026-05-10") || first != day.Must("2026-10-20") {
		t.Errorf("at three in ten the last frost is on %v and the first on %v", last, first)
	}
	if last, first := r.Last(0.1), r.First(0.8); last != day.Must("2026-05-20") || !first.IsZero() {
		t.Errorf("at one in ten the last frost is on %v; at eight in ten the first on %v", last, first)
	}
}

// Worked by hand: ten days of 10 °C and then of 16 °C; the eleven days' mean passes 12 °C with the fourth warm one.
func TestSoilLagsTheAir(t *testing.T) {
	s := Series{First: day.Must("2026-04-01")}
	for i := range 40 {
		mean := 10.0
		if i >= 10 {
			mean = 16
		}
		s.Days = append(s.Days, Extremes{mean - 5, mean + 5})
	}
	soil := s.Soil()
	if soil[0] != 10 || math.Abs(soil[13]-(7*10+4*16)/11.) > 1e-9 || soil[30] != 16 {
		t.Errorf("soil %.2f", soil)
	}
	past, member := Series{s.First, s.Days[:10]}, Series{s.First.Add(10), s.Days[10:]}
	if d, ok := SoilWarm(past, []Series{member}, 12, 0.5, s.First); !ok || d != day.Must("2026-04-14") {
		t.Errorf("12 °C in the soil on %v, %v", d, ok)
	}
	if _, ok := SoilWarm(past, []Series{member}, 20, 0.5, s.First); ok {
		t.Error("the soil grew warmer than the air ever was")
	}
}
