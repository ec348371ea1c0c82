package say

import (
	"strconv"
	"testing"
	"testing/quick"

	"dewcount/core/day"
	"dewcount/core/rounds"
)

// What is on record comes back from a form as it was, whatever units it was shown in; the ways are those of NIST SP 811 (2008), appendix B.
func TestMeasuresComeBackAsTheyWere(t *testing.T) {
	locale := Locale{Imperial: true}
	for name, cases := range map[string]map[string]string{
		"length_m": {"12": "39.37", "0.75": "2.46", "1.2": "3.94"}, "height_cm": {"60": "23.62", "2.54": "1.0000", "45.5": "17.9"}, "rain_mm": {"25.4": "1", "3.2": "0.126", "0.127": "0.0050"},
		"tmin_c": {"0": "32", "100": "212", "-40": "-40", "21.3": "70.3"}, "climate_tmin_c": {"-3 -2.5 0.5": "26.6 27.5 32.9"}, "stem_cm.first": {"50": "19.7"},
		"plants": {"60": "60"}, "emerge_cd": {"120": "120"}, "note": {"60 cm": "60 cm"}, "water_c": {"warm": "warm", "": ""},
	} {
		for kept, shown := range cases {
			if got := locale.Out(name, kept); got != shown {
				t.Errorf("%s %s is shown as %s, want %s", name, kept, got, shown)
			}
			if back := locale.In(name, shown); back != kept {
				t.Errorf("%s shown as %s is read back as %s, want %s", name, shown, back, kept)
			}
			if metric := (Locale{}); metric.Out(name, kept) != kept || metric.In(name, kept) != kept {
				t.Errorf("%s %s does not stay as it is in metric units", name, kept)
			}
		}
	}
	if err := quick.Check(func(cents int16, unit uint8) bool {
		name := []string{"a_cm", "a_m", "a_mm", "a_c"}[unit%4]
		kept := strconv.FormatFloat(float64(cents)/100, 'f', -1, 64)
		return locale.In(name, locale.Out(name, kept)) == kept
	}, nil); err != nil {
		t.Error(err)
	}
}

func TestAReaderGetsWeeksAndUnits(t *testing.T) {
	d := day.Must("2026-07-10")
	locale := Locale{Imperial: true, WeekNumbers: true, Today: day.Must("2026-07-09")}
	for want, got := range map[string]string{
		"Fri 10 July, week 28": locale.Date(d), "Friday 10 July 2026, week 28": locale.FullDate(d), "10 Jul, w28": locale.Short(d), "10 July, week 28": locale.DayOfYear(d),
		"Fri 1 January 2027, week 53": locale.Date(day.Must("2027-01-01")), "Fri 10 July, week 28, 06:20": locale.Moment(day.At(d, 6, 20)),
		"54 to 68 °F": locale.Range(Celsius, 12, 20), "24 in": locale.CM(60), "0.5 in": locale.MM(12), "33 lb": locale.KG(15), "Net at 12 in.": locale.Prose("Net at 30 cm."),
		"About 0.4 in lost since Fri 10 July, week 28.": locale.Sentence(rounds.Sentence{"about ", rounds.MM(9), " lost since ", d}),
		"Height in in": locale.Label("height_cm", "Height in cm"), "1.8 °F warmer": locale.warmer(1), "Fri 10 July": (Locale{}).Date(d),
	} {
		if got != want {
			t.Errorf("said %q, want %q", got, want)
		}
	}
}

func TestNoughtHasNoSign(t *testing.T) {
	for got, want := range map[string]string{(Locale{}).Range(Celsius, -0.3, 12.6): "0 to 13 °C", (Locale{}).Celsius(-0.49): "0 °C", (Locale{}).Tenth(-0.04): "0.0 °C", (Locale{}).Celsius(-0.51): "-1 °C", (Locale{}).TenthBare(-10.04): "-10.0"} {
		if got != want {
			t.Errorf("%q, want %q", got, want)
		}
	}
}
