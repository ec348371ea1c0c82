package look

import (
	"slices"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
)

// meadow is a farm near 47 N on a day, with one zinnia of each start, and the weather from 1 April on up to the evening before.
func meadow(t *testing.T, today day.Day, change func(*book.Book), starts ...string) *Snapshot {
	t.Helper()
	b := book.NewBook(nil)
	for key, value := range map[string]string{"name": "Meadow", "latitude": "46.9", "longitude": "7.2", "elevation_m": "400",
		"timezone": "Europe/Zurich", "pick_days": "tue fri"} {
		b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
	}
	b.Varieties = []book.Variety{{Name: "Coral", Crop: "zinnia-tall"}}
	for _, start := range starts {
		b.Plantings = append(b.Plantings, book.Planting{ID: start, Variety: "Coral", Method: crop.Direct, StartedOn: day.Must(start), Plants: 60})
	}
	for d := day.Must("2026-04-01"); d.Before(today); d = d.Add(1) {
		b.Weather = append(b.Weather, book.WeatherDay{Date: d, TminC: 12, TmaxC: 24})
	}
	if change != nil {
		change(b)
	}
	s, err := NewSnapshot(b, 0, Morning(today), nil)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

// A zinnia wants some 900 degree days above 8 °C from seed to cut, at 10 a day three months: sown in April it is in bloom in mid July, sown in July it grows.
func TestStagesOfPlantings(t *testing.T) {
	today := day.Must("2026-07-20")
	s := meadow(t, today, func(b *book.Book) {
		b.Plantings[1].EndedOn = day.Must("2026-07-10")
		b.Plantings = append(b.Plantings, book.Planting{ID: "tray", Variety: "Coral", Method: crop.Tray, StartedOn: today.Add(-10), PlantedOutOn: today.Add(11), Plants: 60})
	}, "2026-04-15", "2026-04-20", "2026-07-01", "2026-08-01")
	for i, want := range []Stage{InBud, PulledOut, Growing, ToStart, InNursery} {
		stage, stems := s.Stage(i)
		if stage != want || (stems > 0) != (want == InBud) {
			t.Errorf("planting %d is at stage %d with %d stems, want stage %d", i, stage, stems, want)
		}
		if over := s.Over(i); over != (want == PulledOut) {
			t.Errorf("planting %d at stage %d is over: %t", i, want, over)
		}
	}
}

// A count surprises by more than five stems and three tenths beyond the bounds, either way, and says which.
func TestSurprise(t *testing.T) {
	s := meadow(t, day.Must("2026-07-20"), nil, "2026-04-15")
	expected := s.Stand.Standing(0)
	counted := func(stems int) book.Count {
		c := book.Count{Planting: "2026-04-15", PlantsCount: 30} // half of its plants
		c.Stems[crop.Tight], c.Stems[crop.Spent] = stems, 500    // what is spent is no stem
		return c
	}
	low, high := expected.Sure/2, expected.AtBest/2
	for _, x := range []struct {
		stems           int
		surprises, more bool
	}{
		{int((low + high) / 2), false, false},
		{int(1.3*high + 4), false, true},
		{int(1.3*high + 7), true, true},
		{int(0.7*low - 4), false, false},
		{int(0.7*low - 7), true, false},
	} {
		if x.stems < 0 {
			t.Fatalf("only %.0f to %.0f stems are expected, too few for this test", low, high)
		}
		got, surprises := s.Surprise(0, counted(x.stems))
		if surprises != x.surprises || got.More != x.more || got.Seen != float64(x.stems) {
			t.Errorf("%d stems where %.1f to %.1f are expected: surprises %t, more %t, seen %.0f; want %t, %t", x.stems, low, high, surprises, got.More, got.Seen, x.surprises, x.more)
		}
	}
}

// Narrowing asks for no more plants than there are, and what it promises is narrower by a twelfth and about the same middle.
func TestNarrowing(t *testing.T) {
	s := meadow(t, day.Must("2026-07-20"), nil, "2026-04-15")
	sample := s.Sample(0)
	counted, bounds, ok := sample.Narrowing(60)
	if !ok || counted < sample.Plants || counted > max(60, 3*sample.Plants) {
		t.Fatalf("%d plants are to be counted of 60 (%t)", counted, ok)
	}
	if before, after := sample.Now[1]-sample.Now[0], bounds[1]-bounds[0]; after > 0.92*before || bounds[0] < sample.Now[0] || bounds[1] > sample.Now[1] {
		t.Errorf("%d plants narrow %.0f to %.0f", counted, sample.Now, bounds)
	}
}

// What the weather threatens is told from 30 °C on and for five days, the hottest of them; a gap from the fourth day on.
func TestThreatsOfTheWeather(t *testing.T) {
	today := day.Must("2026-07-20")
	issued := func(warmth ...float64) func(*book.Book) {
		return func(b *book.Book) {
			for i, c := range warmth {
				b.Weather = append(b.Weather, book.WeatherDay{Date: today.Add(i), TminC: 15, TmaxC: c, IssuedOn: today.Add(-1)})
			}
		}
	}
	if hot, ok := meadow(t, today, issued(26, 29, 29, 28, 27, 40), "2026-04-15").HeatThreat(); ok {
		t.Errorf("warned of %v", hot)
	}
	if hot, ok := meadow(t, today, issued(26, 31, 33, 32, 27), "2026-04-15").HeatThreat(); !ok || hot.Day != today.Add(2) {
		t.Errorf("warned of %v, %t, want the third day", hot, ok)
	}
	if frost, ok := meadow(t, today, nil, "2026-04-15").FrostThreat(); ok {
		t.Errorf("in July a frost threatens: %v", frost)
	}
	for gap, want := range map[int]int{0: 0, 3: 0, 4: 4, 10: 10} {
		s := meadow(t, today, func(b *book.Book) { b.Weather = b.Weather[:len(b.Weather)-gap] }, "2026-04-15")
		if days, none := s.WeatherGap(); days != want || none {
			t.Errorf("after %d days without weather the gap is %d (%t), want %d", gap, days, none, want)
		}
	}
	if _, none := meadow(t, today, func(b *book.Book) { b.Weather = nil }, "2026-04-15").WeatherGap(); !none {
		t.Error("without any weather nothing is said")
	}
}

// A week with fewer stems than wanted is a gap until its Sunday is over.
func TestGapsOfTheSeason(t *testing.T) {
	w := WeekStems{Sure: 4, Likely: 10, AtBest: 20}
	w.Monday = day.Must("2026-07-13")
	sunday := day.Must("2026-07-19")
	if w.Gap(10, sunday) || !w.Gap(11, sunday) || w.Gap(11, sunday.Add(1)) {
		t.Error("10 likely stems are a gap where 11 are wanted, on Sunday still, and not on Monday")
	}
	if w.Bare() || !(WeekStems{AtBest: 0.4}).Bare() {
		t.Error("a week is bare where not even one stem is there at best")
	}
	if before := (WeekStems{Likely: 8}); !w.Moved(before) || !before.Moved(w) || w.Moved(WeekStems{Likely: 9}) {
		t.Error("two stems more or fewer are told, one is not")
	}
}

// A variety whose packet says fewer days is cut sooner than its crop, and as the table has it where the packet says nothing.
func TestAPacketsDaysMoveItsDates(t *testing.T) {
	s := meadow(t, day.Must("2026-05-20"), func(b *book.Book) {
		quick := 60
		b.Varieties = append(b.Varieties, book.Variety{Name: "Quick", Crop: "zinnia-tall", Days: &quick})
		b.Plantings[1].Variety = "Quick"
		b.Plantings[1].ID = "quick"
	}, "2026-05-15", "2026-05-16")
	usual, quick := s.Stand.Milestones(0).FirstCut.Likely, s.Stand.Milestones(1).FirstCut.Likely
	if sooner := usual.Sub(quick); sooner < 5 || sooner > 40 {
		t.Errorf("the quick one is cut on %s, the usual one on %s", quick, usual)
	}
}

// What lasts is never over: when its stems are cut or a frost has taken them it rests, and nobody is told to pull it out.
func TestWhatLastsRests(t *testing.T) {
	for _, c := range []struct {
		start  string
		method crop.Method
		want   Stage
	}{{"2026-07-10", crop.Tray, InNursery}, {"2026-06-20", crop.Division, Growing}} { // what has never stood there does not rest
		s := meadow(t, day.Must("2026-07-14"), func(b *book.Book) {
			b.Weather = nil
			b.Varieties = append(b.Varieties, book.Variety{Name: "New", Crop: "achillea"})
			p := book.Planting{ID: "new", Variety: "New", Method: c.method, StartedOn: day.Must(c.start), Plants: 8}
			if c.method == crop.Tray {
				p.PlantedOutOn = day.Must("2026-09-05")
			}
			b.Plantings = append(b.Plantings, p)
		})
		if stage, _ := s.Stage(0); stage != c.want || s.Rests(0, s.View.Today) {
			t.Errorf("started as %s on %s it is at stage %d, want %d", c.method, c.start, stage, c.want)
		}
	}
	for _, c := range []struct {
		id, today string
		want      Stage
		over      bool
	}{
		{"hydrangea", "2026-12-10", Resting, false}, {"michaelmas-aster", "2026-12-28", Resting, false}, {"peony", "2026-12-10", Resting, false}, {"rose-garden", "2026-12-28", Resting, false},
		{"peony", "2026-05-28", InBud, false}, {"hydrangea", "2026-04-25", Growing, false}, {"peony", "2026-03-01", PulledOut, true},
	} {
		today := day.Must(c.today)
		s := meadow(t, today, func(b *book.Book) {
			b.Weather = nil
			b.Varieties = append(b.Varieties, book.Variety{Name: "Old", Crop: c.id})
			p := book.Planting{ID: "old", Variety: "Old", Method: crop.Established, StartedOn: day.Must("2024-10-01"), Plants: 8}
			if c.want == PulledOut {
				p.EndedOn = day.Must("2026-02-01")
			}
			b.Plantings = append(b.Plantings, p)
		})
		if stage, _ := s.Stage(0); stage != c.want || s.Over(0) != c.over {
			t.Errorf("%s on %s: stage %d, over %t; want %d, %t", c.id, c.today, stage, s.Over(0), c.want, c.over)
		}
	}
}

// What forecasts said of days that have come is what they are judged by: each with how many days it was ahead, not what is still to come, nor what was
// said of a day that nobody observed, nor more than a year ago.
func TestForecastsAreHeldAgainstTheirDays(t *testing.T) {
	today := day.Must("2026-07-20")
	said := func(on, issued day.Day) book.WeatherDay {
		return book.WeatherDay{Date: on, TminC: 10, TmaxC: 20, IssuedOn: issued}
	}
	o := meadow(t, today, func(b *book.Book) {
		b.Weather = append([]book.WeatherDay{said(today.Add(-2), today.Add(-5)), said(today, today.Add(-3))}, b.Weather...)
		b.Weather = append(b.Weather, said(today.Add(-2), today.Add(-3)), said(today.Add(-3), today.Add(-4)), said(today.Add(-365), today.Add(-366)),
			book.WeatherDay{Date: today.Add(-365), TminC: 12, TmaxC: 24})
		b.Weather = slices.DeleteFunc(b.Weather, func(w book.WeatherDay) bool { return w.IssuedOn.IsZero() && w.Date == today.Add(-3) })
	}, "2026-04-15").Model.Outlook
	var came climate.Extremes
	for _, w := range o.Observed {
		if w.Day == today.Add(-2) {
			came = w.Extremes
		}
	}
	foretold := climate.Dated{Day: today.Add(-2), Extremes: climate.Extremes{TminC: 10, TmaxC: 20}}
	if want := []climate.Foretold{{Dated: foretold, LeadDays: 1, Came: came}, {Dated: foretold, LeadDays: 3, Came: came}}; !slices.Equal(o.Foretold, want) {
		t.Errorf("held against their days: %v, want %v", o.Foretold, want)
	}
}
