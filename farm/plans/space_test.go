package plans

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// By hand: a bed of 10 by 1.2 m has 33 by 4 squares of 30 cm. Sixty zinnias at 30 cm stand on one square each from 20 May on; a plan of 40 and 50 more that stand together in June wants 150 of the 132; without the
// second there is room.
func TestTheBedsHaveRoomOrNot(t *testing.T) {
	b := book.NewBook(nil)
	for key, value := range map[string]string{"name": "Meadow", "latitude": "46.9", "longitude": "7.2", "elevation_m": "400", "timezone": "Europe/Zurich", "pick_days": "tue fri", "square_cm": "30"} {
		b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
	}
	ten, one := 10.0, 1.2
	spacing := 30.0
	b.Beds = []book.Bed{{ID: "A", LengthM: &ten, WidthM: &one}}
	b.Varieties = []book.Variety{{Name: "Coral", Crop: "zinnia-tall", SpacingCM: &spacing}}
	b.Plantings = []book.Planting{{ID: "Z1", Variety: "Coral", Method: crop.Direct, StartedOn: day.Must("2027-05-20"), Plants: 60}} // nobody has said in which bed
	s, err := look.NewSnapshot(b, 0, look.Morning(day.Must("2027-03-10")), nil)
	if err != nil {
		t.Fatal(err)
	}
	place, err := b.Place()
	if err != nil {
		t.Fatal(err)
	}
	sowing := func(on string, plants int) SowingDates {
		return SowingDates{Planned: plan.Planned{Sowing: plan.Sowing{Method: crop.Direct, Started: day.Must(on)}, Plants: plants}, LastCut: day.Must("2027-09-10"), Squares: plants}
	}
	out := &SuccessionPlan{Profile: b.Crop("zinnia-tall"), Sowings: []SowingDates{sowing("2027-05-25", 40), sowing("2027-06-15", 50)}}
	if space := spaceOf(s, out, place); space.Beds != 132 || space.Taken != 150 || space.Plan != 90 || !space.Tight() || space.On.Before(day.Must("2027-06-14")) {
		t.Errorf("%+v", space)
	}
	out.Sowings = out.Sowings[:1]
	if space := spaceOf(s, out, place); space.Taken != 100 || space.Tight() {
		t.Errorf("without the second: %+v", space)
	}
	b.Beds = nil
	if space := spaceOf(s, out, place); space.Tight() {
		t.Errorf("a farm without beds: %+v", space)
	}
}

// Weeks that are planned for where nobody says are weeks in which the first sowing that can still be made is in bloom, before the frost or not far beyond it where it is hardy; and a farm that has cut nothing yet is planned at
// seven in ten unless it says otherwise.
func TestWhatIsPlannedWhereNobodySays(t *testing.T) {
	for _, c := range []struct{ today, latitude, crop, least, most string }{
		{"2026-11-28", "52.5", "zinnia-tall", "2027-07-20", "2027-09-05"}, {"2026-11-28", "52.5", "cosmos-single", "2027-07-05", "2027-08-10"}, {"2027-07-02", "52.5", "zinnia-tall", "2028-07-20", "2028-09-12"}, {"2027-06-09", "52.5", "sunflower-single", "2027-08-05", "2027-09-05"},
		{"2026-11-28", "-42.9", "cosmos-single", "2027-01-10", "2027-02-20"}, {"2026-11-28", "52.5", "snapdragon", "2027-06-10", "2027-07-25"},
		{"2027-07-09", "47", "cornflower", "2027-09-10", "2027-10-05"}, {"2027-08-12", "47", "cornflower", "2028-05-01", "2028-06-30"}, {"2027-08-26", "52.5", "larkspur", "2028-05-15", "2028-07-10"}, {"2027-07-09", "47", "scabious", "2028-05-20", "2028-07-15"},
		{"2027-07-09", "47", "chrysanthemum-garden", "2027-10-01", "2027-11-15"}} {
		b := book.NewBook(nil)
		for key, value := range map[string]string{"name": "Meadow", "latitude": c.latitude, "longitude": "13", "elevation_m": "100", "timezone": "Europe/Berlin", "pick_days": "fri"} {
			b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
		}
		s, err := look.NewSnapshot(b, 0, look.Morning(day.Must(c.today)), nil)
		if err != nil {
			t.Fatal(err)
		}
		from := UsualFrom(s, b.Crop(c.crop), "")
		to := UsualUntil(s, from)
		if from.Before(day.Must(c.least)) || from.After(day.Must(c.most)) || to.Sub(from) < 20 || to.Sub(from) > 84 || from.YearDay() > 240 && to.YearDay() > 330 {
			t.Errorf("%s at %s on %s: from %s to %s", c.crop, c.latitude, c.today, from, to)
		}
		place, _ := b.Place()
		if p := UsualChance(b, place); p != unsureChance {
			t.Errorf("with nothing on record a plan is %v sure", p)
		}
		b.Settings = append(b.Settings, book.Setting{Key: "chance", Value: "0.85"})
		place, _ = b.Place()
		if p := UsualChance(b, place); p != 0.85 {
			t.Errorf("a farm that wants 0.85 is planned at %v", p)
		}
	}
}

// valley is a farm at 520 m with nothing on record, as it is on a day.
func valley(t *testing.T, today string) *look.Snapshot {
	t.Helper()
	b := book.NewBook(nil)
	for key, value := range map[string]string{"name": "Meadow", "latitude": "46.9", "longitude": "7.2", "elevation_m": "520", "timezone": "Europe/Zurich", "pick_days": "tue fri"} {
		b.Settings = append(b.Settings, book.Setting{Key: key, Value: value})
	}
	s, err := look.NewSnapshot(b, 0, look.Morning(day.Must(today)), nil)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

// Where only a few weeks are left to sow in, sowings are tried closer together: ten days give six, a season one a week.
func TestSowingsAreTriedCloserWhereFewWeeksAreLeft(t *testing.T) {
	s := valley(t, "2026-07-09")
	g, err := GroundOf(s, "sunflower-single", "", "")
	if err != nil {
		t.Fatal(err)
	}
	starts := startsOf(s, g, []crop.Method{crop.Direct}, false)
	for _, c := range []struct {
		from, to, last string
		apart, of      int
	}{{"2026-09-15", "2026-10-07", "2026-07-19", 2, 6}, {"2027-07-01", "2027-09-30", "2027-07-25", 7, 0}} {
		sowings := sowingsFor(starts, day.Must(c.from), day.Must(c.to), func(w plan.Sowing) bool { return w.Started.After(day.Must(c.last)) })
		if n := len(sowings); n < 6 || c.of > 0 && n != c.of || sowings[1].Started.Sub(sowings[0].Started) != c.apart {
			t.Errorf("from %s to %s: %v", c.from, c.to, sowings)
		}
	}
}

// Zinnias that are sown where they grow bloom from August on in a valley at 520 m: who wants eight weeks from mid-July gets them from trays.
func TestAnyWayIsTriedWhereTheUsualOneHoldsFewWeeks(t *testing.T) {
	s := valley(t, "2026-01-10")
	ask := SuccessionAsk{Crop: "zinnia-tall", From: day.Must("2026-07-20"), To: day.Must("2026-09-06"), Stems: 50, Chance: 0.7, EveryDays: 14, Pinch: true}
	out, err := Successions(t.Context(), s, ask, nil)
	if err != nil {
		t.Fatal(err)
	}
	if held, weeks := out.holds(); !out.Instead || 2*held < weeks || held < 2*out.Usually {
		t.Errorf("%d of %d weeks are held, %d as it usually is started; another way: %v", held, weeks, out.Usually, out.Instead)
	}
	ask.Method = crop.Direct
	if out, err = Successions(t.Context(), s, ask, nil); err != nil {
		t.Fatal(err)
	}
	if held, weeks := out.holds(); out.Instead || 2*held >= weeks {
		t.Errorf("sown where they grow, as asked: %d of %d weeks; another way: %v", held, weeks, out.Instead)
	}
}
