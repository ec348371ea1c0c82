package notebook

import (
	"errors"
	"strings"
	"testing"

	"dewcount/core/day"
	"dewcount/fault"
)

func TestStationsOfManyKinds(t *testing.T) {
	for name, c := range map[string]struct {
		station Station
		text    string
		want    string
	}{
		"a row a day":       {Station{"date", "tmin", "tmax", "rain", "2006-01-02", "C"}, "date,tmin,tmax,rain\n2026-07-01,11.2,24.9,0\n2026-07-02,12,26,3.4\n", "2026-07-01,11.2,24.9,0, 2026-07-02,12,26,3.4,"},
		"commas for points": {Station{"Datum", "Min", "Max", "", "02.01.2006", "C"}, "\ufeffDatum;Min;Max\r\n01.07.2026;11,2;24,9\r\n", "2026-07-01,11.2,24.9,,"},
		"readings by the hour, the last day cut off": {Station{"time", "temp", "temp", "mm", "2006-01-02", "C"},
			"time\ttemp\tmm\n2026-07-01 00:00\t12\t0\n2026-07-01 12:00\t25\t1.5\n2026-07-01 18:00\t20\t1\n2026-07-01 23:00\t--\t\n2026-07-02 00:00\t15\t0\n", "2026-07-01,12,25,2.5,"},
		"Fahrenheit and inches": {Station{"d", "lo", "hi", "in", "01/02/2006", "F"}, "d,lo,hi,in\n07/01/2026,50,77,0.1\n", "2026-07-01,10,25,2.5,"},
	} {
		days, err := c.station.Read("station.csv", []byte(c.text))
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		var got []string
		for _, d := range days {
			got = append(got, strings.Join(d.Record().Lines[0], ","))
		}
		if all := strings.Join(got, " "); all != c.want {
			t.Errorf("%s: %q, want %q", name, all, c.want)
		}
	}
}

func TestAStationsFaultNamesItsPlace(t *testing.T) {
	s := Station{"date", "tmin", "tmax", "rain", "2006-01-02", "C"}
	for text, want := range map[string]string{
		"date,tmin,tmax,rain\n2026-07-01,11,24,0\n2.7.2026,11,24,0\n": "station.csv:3:1: ",
		"date,tmin,tmax,rain\n2026-07-01,warm,24,0\n":                 "station.csv:2:2: ",
		"date,tmin,tmax,rain\n2026-07-01,24,11,0\n":                   "station.csv:2:3: ",
		"date,tmin,tmax,rain\n2026-07-01,11,24,-2\n":                  "station.csv:2:4: ",
		"day,tmin,tmax\n2026-07-01,11,24\n":                           "station.csv:1:1: ",
		"date,tmin,tmax,rain\n":                                       "station.csv:1:1: ",
		"date,tmin,tmax,rain\n2026-07-01,11,88,0\n":                   "station.csv:2:3: ",
	} {
		_, err := s.Read("station.csv", []byte(text))
		var f *fault.InFile
		if !errors.As(err, &f) || !strings.HasPrefix(err.Error(), want) {
			t.Errorf("%q: %v, want a fault at %s", text, err, want)
		}
	}
}

func TestAMappingIsRememberedAndGuessed(t *testing.T) {
	s := Station{"Zeit", "T", "T", "", "02.01.2006", "C"}
	if got := ParseStation(s.String()); got != s || !got.Fits([]string{"Zeit", "T"}) || got.Fits([]string{"Zeit"}) {
		t.Errorf("ParseStation(%q) = %+v", s.String(), got)
	}
	if g := Guess([]string{"Time", "Low C", "High C", "Precip mm"}); g.Date != "Time" || g.Low != "Low C" || g.High != "High C" || g.Rain != "Precip mm" {
		t.Errorf("Guess = %+v", g)
	}
	if g := Guess([]string{"station", "temperature"}); g.Date != "station" || g.Low != "temperature" || g.High != "temperature" {
		t.Errorf("Guess of one temperature = %+v", g)
	}
}

func FuzzStation(f *testing.F) {
	f.Add("date,tmin,tmax,rain\n2026-07-01,11.2,24.9,0\n")
	f.Add("date;tmin;tmax\n\"")
	f.Fuzz(func(t *testing.T, text string) {
		columns, err := StationColumns([]byte(text))
		if err != nil {
			return
		}
		days, err := Guess(columns).Read("x.csv", []byte(text))
		if err != nil {
			return
		}
		last := day.Day{}
		for _, d := range days {
			if d.TminC > d.TmaxC || !d.Date.After(last) {
				t.Errorf("%q is read as %+v", text, d)
			}
			last = d.Date
		}
	})
}
