package say

import (
	"strings"
	"testing"
	"time"

	"dewcount/core/climate"
	"dewcount/core/cutting"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// At 7.2° E noon by the sun is 12:31 by the even clock of Central Europe; on 27 October, when summer time is over, the sun is 16 minutes ahead of that, on 11 February
// 14 behind, and in summer the clock is an hour on.
func TestClockGoesByTheSun(t *testing.T) {
	zone, err := time.LoadLocation("Europe/Zurich")
	if err != nil {
		t.Fatal(err)
	}
	place := book.Place{Longitude: 7.2, Zone: zone}
	for date, want := range map[string]string{"2026-10-27": "12:15", "2026-10-24": "13:15", "2026-02-11": "12:45", "2026-07-10": "13:30"} {
		if got := Clock(12, day.Must(date), place); got != want {
			t.Errorf("noon on %s is at %s, want %s", date, got, want)
		}
	}
}

// Nobody is told to hurry before the heat on a day of 6 °C.
func TestHoursToCutSayWhatEndsThem(t *testing.T) {
	s := &Snapshot{Snapshot: &look.Snapshot{Model: &forecast.Farm{}, Stand: forecast.New(&forecast.Farm{Outlook: climate.Outlook{Latitude: 47, From: day.Must("2026-10-25")}, Members: 2, Draws: 1, Reach: 10, To: day.Must("2026-10-30")}, nil)}}
	on, spans := day.Must("2026-10-27"), []cutting.Span{{From: 8, To: 17}}
	place := book.Place{Zone: time.UTC}
	if words := CutWhen(s, cutting.Daytime{Spans: spans}, on, place); !strings.HasPrefix(words, "Cut from about 7:45 to 16:45: after the dew, while there is light (") {
		t.Errorf("on a cold day: %q", words)
	}
	if words := CutWhen(s, cutting.Daytime{Spans: append(spans, cutting.Span{From: 20, To: 21}), Hot: true}, on, place); !strings.Contains(words, ", or 19:45 to 20:45: after the dew, before the heat (") {
		t.Errorf("on a hot day: %q", words)
	}
	if words := CutWhen(s, cutting.Daytime{Spans: spans, Frozen: true}, on, place); !strings.HasPrefix(words, "Cut from about 7:45 to 16:45: once it has thawed, while there is light (") {
		t.Errorf("after a frost: %q", words)
	}
	if words := CutWhen(s, cutting.Daytime{Frozen: true}, on, place); !strings.HasPrefix(words, "It does not thaw (") {
		t.Errorf("in a hard frost: %q", words)
	}
	if words := CutWhen(s, cutting.Daytime{}, on, place); words != "There is no light to cut in." {
		t.Errorf("in the polar night: %q", words)
	}
}
