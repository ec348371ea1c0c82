package cutting

import (
	"testing"

	"dewcount/core/climate"
)

// With fifteen hours of sun it rises at 4:30 and sets at 19:30: the dew is gone at 6:00, and the light at 20:00. By Parton & Logan's curve the air is coldest at 4:20
// and warms along a sine of 15 + 2 × 1.86 = 18.72 hours: 14 to 26 °C pass 22 where it is 8/12, asin(8/12)/π × 18.72 = 4.35 hours on, before 8:45; 16 to 30 °C
// where it is 6/14, 2.64 hours on, before 7:00.
func TestCuttingHours(t *testing.T) {
	hours := func(tmin, tmax, until float64) []Span {
		day := climate.Extremes{TminC: tmin, TmaxC: tmax}
		times := Hours(day, day, day, 15, until)
		if times.Hot != (tmax > 22) || times.Frozen {
			t.Errorf("on a day of %v to %v °C the heat ends the morning: %v; the frost begins it: %v", tmin, tmax, times.Hot, times.Frozen)
		}
		return times.Spans
	}
	if spans := hours(9, 19, UsualUntilC); len(spans) != 1 || spans[0] != (Span{6, 20}) {
		t.Errorf("on a cool day stems are cut in %v", spans)
	}
	warm := hours(14, 26, UsualUntilC)
	if len(warm) != 2 || warm[0] != (Span{6, 8.75}) || warm[1].From < 17 || warm[1].To != 20 {
		t.Errorf("on a warm day stems are cut in %v", warm)
	}
	if hot := hours(16, 30, UsualUntilC); len(hot) != 1 || hot[0] != (Span{6, 7}) { // it has not cooled when the light goes
		t.Errorf("on a hot day stems are cut in %v", hot)
	}
	if early := hours(14, 26, 18); early[0].To >= warm[0].To {
		t.Errorf("until 18 °C it is cut in %v, until 22 in %v", early, warm)
	}
	if late := hours(16, 30, 35); late[0].To != hours(16, 30, 24)[0].To {
		t.Errorf("a farm that cuts on in the heat is told %v", late)
	}
	if spans := hours(25, 36, UsualUntilC); len(spans) != 1 || spans[0] != (Span{6, 7}) {
		t.Errorf("where it is hot from dawn on stems are cut in %v", spans)
	}
	if times := Hours(climate.Extremes{}, climate.Extremes{TminC: -5}, climate.Extremes{}, 0, UsualUntilC); len(times.Spans) > 1 || times.Hot {
		t.Errorf("in the polar night stems are cut in %v", times.Spans)
	}
	// −4 to 8 °C pass 1 °C where the sine is 5/12, asin(5/12)/π × 18.72 = 2.56 hours after 4:20, just before 7:00.
	frost, ice := climate.Extremes{TminC: -4, TmaxC: 8}, climate.Extremes{TminC: -9, TmaxC: 0}
	if times := Hours(frost, frost, frost, 15, UsualUntilC); !times.Frozen || times.Hot || len(times.Spans) != 1 || times.Spans[0] != (Span{7, 20}) {
		t.Errorf("after a frost stems are cut in %+v", times)
	}
	if times := Hours(ice, ice, ice, 9, UsualUntilC); !times.Frozen || times.Spans != nil {
		t.Errorf("where it does not thaw stems are cut in %+v", times)
	}
}
