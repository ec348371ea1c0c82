package plan

import (
	"testing"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/croptable"
)

// placed are the starts of a crop in a general climate, with its frost dates at a risk of one in ten.
func placed(t *testing.T, p *crop.Profile, r climate.Region, methods ...crop.Method) Starts {
	t.Helper()
	first := day.Of(2027, 1, 1)
	if r.Latitude < 0 {
		first = day.Of(2026, 7, 1)
	}
	season := r.Season()
	o := climate.Outlook{Latitude: r.Latitude, Usual: &season, From: first}
	risk := climate.Frosts(climate.Series{First: first}, o.Members(40, 366, 3), 0, r.Latitude, first.Add(182))
	return Starts{Profile: p, Methods: methods, Season: season, Frost: Frost{Last: risk.Last(0.1), First: risk.First(0.1)}, From: first}
}

func region(t *testing.T, id string) climate.Region {
	t.Helper()
	r, ok := climate.RegionNamed(id)
	if !ok {
		t.Fatalf("no climate %s", id)
	}
	return r
}

// What an old hand would say of a day in the year.
func TestEachStartHasItsSeason(t *testing.T) {
	for _, c := range []struct {
		crop, region string
		method       crop.Method
		on           string
		want         bool
	}{
		{"dahlia-ball", "foothills-47n", crop.Tuber, "2027-01-08", false},
		{"dahlia-ball", "foothills-47n", crop.Tuber, "2027-04-20", true},
		{"dahlia-ball", "foothills-47n", crop.Tuber, "2027-11-20", false},
		{"dahlia-ball", "oceanic-43s", crop.Tuber, "2026-10-15", true},
		{"dahlia-ball", "oceanic-43s", crop.Tuber, "2026-07-08", false},
		{"gladiolus", "foothills-47n", crop.Corm, "2027-02-10", false},
		{"gladiolus", "foothills-47n", crop.Corm, "2027-05-01", true},
		{"tulip", "foothills-47n", crop.Bulb, "2027-02-15", false},
		{"tulip", "foothills-47n", crop.Bulb, "2027-07-15", false},
		{"tulip", "foothills-47n", crop.Bulb, "2027-10-20", true},
		{"tulip", "oceanic-43s", crop.Bulb, "2027-05-15", true},
		{"tulip", "oceanic-43s", crop.Bulb, "2026-10-20", false},
		{"tulip", "highland-5n", crop.Bulb, "2027-10-20", false},
		{"tulip", "highland-5n", crop.Bulb, "2027-02-20", false},
		{"zinnia-tall", "foothills-47n", crop.Tray, "2027-02-20", false},
		{"zinnia-tall", "foothills-47n", crop.Tray, "2027-05-01", true},
		{"zinnia-tall", "highland-5n", crop.Tray, "2027-01-10", true},
		{"lily-asiatic", "inland-51n", crop.Bulb, "2027-01-15", false},
		{"lily-asiatic", "inland-51n", crop.Bulb, "2027-04-10", true},
		{"larkspur", "foothills-47n", crop.Direct, "2027-09-10", true},
		{"snapdragon", "foothills-47n", crop.Tray, "2027-02-10", true},
		{"sweet-william", "foothills-47n", crop.Tray, "2027-12-07", false}, // it would be planted out in January
		{"sweet-william", "foothills-47n", crop.Tray, "2027-07-10", true},
		{"scabious", "foothills-47n", crop.Tray, "2027-10-01", false},
		{"scabious", "mediterranean-39n", crop.Tray, "2027-10-01", true},
		{"sweet-pea", "foothills-47n", crop.Tray, "2027-02-10", true},
	} {
		s := placed(t, profile(t, c.crop), region(t, c.region), c.method)
		s.Profile = profile(t, c.crop)
		offered := len(s.On(day.Must(c.on))) > 0
		if offered != c.want {
			t.Errorf("%s as %s on %s at %s (frost until %s, from %s): offered is %v", c.crop, c.method, c.on, c.region, s.Frost.Last, s.Frost.First, offered)
		}
	}
}

// In no climate and on no day is anything offered that an old hand would not do: nothing tender comes into the open in a month that usually freezes, no bulb that wants
// a winter is set in spring or where there is none. What is offered at all can be done on some day.
func TestNoStartIsOfferedOutOfItsSeason(t *testing.T) {
	for _, r := range climate.Regions() {
		season := r.Season()
		cold := 0
		for d := range 365 {
			if e := season.On(d + 1); (e.TminC+e.TmaxC)/2 <= 9 {
				cold++
			}
		}
		for _, e := range croptable.Shipped() {
			p := e.Profile()
			for _, m := range Methods(p) {
				if p.Lasts(m) {
					continue
				}
				s := placed(t, p, r, m)
				for d := range 365 {
					on := s.From.Add(d)
					for _, w := range s.On(on) {
						in := w.InBed()
						switch usual := season.On(in.YearDay()); {
						case m == crop.Tray && p.FrostKillC >= -2 && !p.Overwinters && usual.TminC < 2:
							t.Fatalf("%s is planted out on %s at %s, when nights are %.1f °C", p.ID, in, r.ID, usual.TminC)
						case m == crop.Tuber && season.On(in.Add(tuberLead).YearDay()).TminC < 2:
							t.Fatalf("%s is potted on %s at %s", p.ID, in, r.ID)
						case m == crop.Bulb && p.ChillDays > 0 && cold < p.ChillDays:
							t.Fatalf("%s is set on %s at %s, where %d days are cold and it wants %d", p.ID, in, r.ID, cold, p.ChillDays)
						case m == crop.Bulb && p.ChillDays > 0 && !autumn(in, r.Latitude):
							t.Fatalf("%s is set on %s at %s, which is no autumn", p.ID, in, r.ID)
						}
					}
				}
			}
		}
	}
}

// autumn tells whether a day lies in the four months in which bulbs are set.
func autumn(d day.Day, latitude float64) bool {
	_, month, _ := d.Date()
	if latitude < 0 {
		month = (month+5)%12 + 1
	}
	return month >= 9 && month <= 12
}
